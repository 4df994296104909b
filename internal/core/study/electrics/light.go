package electrics

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

const (
	worstShare = 0.05 // of the trip, from which a ground counts for stopping
	seenFromKm = 800.0
	seenRoad   = 0.3 // share of road
)

// oneLane are grounds on which two ways share one lane: half of the sight is the other's.
var oneLane = map[terrain.Kind]bool{terrain.RoughGravel: true, terrain.Track: true, terrain.SingleTrack: true}

// light finds how far one sees, how fast that is, and where the dipped beam ends.
func light(r *study.Run) {
	b, l := r.Built.Bike, &r.Light
	l.MainCd, l.AuxCd, l.Unsaid = lamps(r.All)
	l.LitM = lamp.BeamM(l.MainCd+l.AuxCd, lamp.Lux)
	l.Kmh, l.Ground, l.Half = slowest(r.Plan.Brief.Mix(), l.LitM)
	l.WishKmh = r.Plan.Brief.NightCruise.In("km/h")
	l.TiltDeg = r.Poses.Loaded.PitchDeg - r.Poses.Came.PitchDeg
	l.HeightMM = usually(&b.LampHeight, "mm", lamp.HeightOfSeat*b.SeatHeight.In("mm"))
	l.DownDeg = usually(&b.LampAim, "°", lamp.AimDownDeg) - l.TiltDeg
	l.DippedM = lamp.CutoffM(l.HeightMM, l.DownDeg)
	lit(r)
	nightSpeed(r)
	dipped(r)
}

// lamps are the candela of the main beam and of what shines beside it, to see by, and the
// lamps of which only lumens are known.
func lamps(f *facts.All) (main, aux float64, unsaid []string) {
	main = f.Built.Bike.Headlamp.In("cd")
	of := func(p *plan.Part) float64 {
		switch l := p.Lamp; {
		case l.Candela.Known():
			return l.Candela.In("cd")
		case l.Lumens.Known() && l.Beam.Known():
			return lamp.ConeCd(l.Lumens.In("lm"), l.Beam.In("°"))
		case l.Lumens.Known():
			unsaid = append(unsaid, p.Name)
		}
		return math.NaN()
	}
	if p := f.Built.Part(plan.Headlamp); p != nil && p.Lamp != nil {
		main = of(p)
	}
	if p := f.Built.Part(plan.AuxLamps); p != nil && p.Lamp != nil && p.Lamp.Kind != plan.DayLamp {
		if cd := of(p); !math.IsNaN(cd) { // one that nobody knows adds nothing that one could count on
			aux = cd
		}
	}
	return main, aux, unsaid
}

// slowest is the least speed at which stopping meets the beam, over the grounds of the trip;
// of paved roads where it names none.
func slowest(mix terrain.Mix, litM float64) (kmh float64, on terrain.Ground, half bool) {
	kmh = math.NaN()
	for i, g := range terrain.Grounds() {
		if mix.Said() && mix.At(i) < worstShare || !mix.Said() && g.Kind != terrain.Paved {
			continue
		}
		sight := litM
		if oneLane[g.Kind] {
			sight /= 2
		}
		if v := lamp.OutrunKmh(sight, lamp.ReactionS, lamp.Decel(g.Friction)); !(v >= kmh) {
			kmh, on, half = v, g, oneLane[g.Kind]
		}
	}
	return kmh, on, half
}

func lit(r *study.Run) {
	c := r.Figure(figure.LitDistance)
	if math.IsNaN(r.Light.MainCd) {
		c.Lacks("headlamp candela (Bike)")
	}
	c.Is(r.Light.LitM)
	if c.Sheet != nil {
		c.Sheet.Step(lamp.BeamFormula, study.Computed("lit", r.Light.LitM, "m"), sheet.Value{Name: "main beam", Number: r.Light.MainCd, Unit: "cd", Origin: r.Built.Bike.OriginOf("headlamp")},
			study.Computed("auxiliary lamps", r.Light.AuxCd, "cd"), sheet.Value{Name: "light wanted", Number: lamp.Lux, Unit: "lx", Origin: sheet.Memory, Note: "1 optimistic, 5 cautious"})
	}
	c.Plain()
}

func nightSpeed(r *study.Run) {
	c, l := r.Figure(figure.NightSpeed), &r.Light
	c.On(figure.LitDistance, "lit")
	c.Is(l.Kmh)
	if c.Sheet != nil {
		sight := l.LitM
		if l.Half {
			sight /= 2
			c.Sheet.Note("Two ways share one lane there: half of the sight is the other's.")
		}
		decel := study.Computed("a", lamp.Decel(l.Ground.Friction), "m/s²")
		c.Sheet.Step(lamp.GripFormula, decel, sheet.Value{Name: "friction on " + l.Ground.Name, Number: l.Ground.Friction, Origin: sheet.Memory})
		c.Sheet.Step(lamp.OutrunFormula, study.Computed("speed", l.Kmh, "km/h"), study.Computed("range", sight, "m"), decel,
			sheet.Value{Name: "t", Number: lamp.ReactionS, Unit: "s", Origin: sheet.Published, Note: "AASHTO Green Book"})
		c.Sheet.Note("Arithmetic, not permission: dust, bends, animals and tired eyes are in none of it.")
	}
	c.Brief("cruise in the dark", "km/h", &r.Plan.Brief.NightCruise) // after the value, which needs none
	c.Against(l.WishKmh, c.Known && l.Kmh < l.WishKmh, c.Known && l.Kmh < 1.1*l.WishKmh)
}

func dipped(r *study.Run) {
	l := &r.Light
	tilt := r.Figure(figure.BeamTilt)
	if math.IsNaN(l.TiltDeg) {
		tilt.Lacks("sag of both ends")
	}
	tilt.Is(l.TiltDeg)
	if tilt.Sheet != nil {
		tilt.Sheet.Step(tiltFormula, study.Computed("tips up by", l.TiltDeg, "°"), study.Computed("pitch loaded", r.Poses.Loaded.PitchDeg, "°"), study.Computed("pitch as it came, rider alone", r.Poses.Came.PitchDeg, "°"))
	}
	tilt.Judged(false, l.DownDeg <= 0)

	c := r.Figure(figure.DippedReach)
	if !r.Built.Bike.LampHeight.Known() {
		c.Bike("seat_height", "seat height", "mm", &r.Built.Bike.SeatHeight)
	}
	if math.IsNaN(l.TiltDeg) {
		c.Lacks("sag of both ends")
	}
	if math.IsInf(l.DippedM, 1) {
		c.Lacks("a beam below level: re-aim it")
	}
	c.Is(l.DippedM)
	if c.Sheet != nil {
		c.Sheet.Step(lamp.CutoffFormula, study.Computed("reach", l.DippedM, "m"), study.Computed("height", l.HeightMM, "mm"), study.Computed("below level, loaded", l.DownDeg, "°"))
	}
	c.Plain()
}

var tiltFormula = sheet.Formula{Text: "pitch with everything on − pitch as it came, rider alone: more sag behind than in front tips the beam up", Origin: sheet.Computed}

func nightTooFast(f *facts.All) (study.Finding, bool) {
	l := &f.Light
	if !(l.Kmh < l.WishKmh) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Over,
		Offer: func() []study.Remedy {
			return study.Offer(f, plan.AuxLamps, func(p *plan.Part) bool { return p.Lamp != nil && p.Lamp.Kind == plan.FarLamp })
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("On %s at night stopping meets the beam at {%.0f km/h}; you plan {%.0f km/h}. It shows {%.0f m}.", l.Ground.Name, l.Kmh, l.WishKmh, l.LitM),
				Why:  "What lies on the road is seen too late to stop for it.",
				Do:   "Slower, or not at night: that is free. Then a lamp by its candela, not by its lumens, aimed straight ahead.",
			}
		},
	}, true
}

func dazzles(f *facts.All) (study.Finding, bool) {
	if !(f.Light.DownDeg <= 0) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Loaded, the dipped beam points %.1f° above level: it dazzles.", -f.Light.DownDeg),
			Why:  "More sag behind than in front tips the bike, and the beam with it; whoever comes sees nothing, and you no further.",
			Do:   "Preload first, then re-aim it, loaded as you ride; and down again when the bags come off.",
		}
	})
}

func bareLumens(f *facts.All) (study.Finding, bool) {
	if len(f.Light.Unsaid) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "bare lumens",
			What:  study.Say("Only lumens are known: %s.", study.Listed(f.Light.Unsaid)),
			Why:   "Lumens say how much light there is, not where it goes: no distance follows from them.",
			Do:    "Ask for candela, or for the beam's angle; a lux meter on a wall at ten metres tells too.",
		}
	})
}

func lampsAndLaw(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(plan.AuxLamps)
	if p == nil || !f.Built.Chosen(plan.AuxLamps) {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "lamps: ask the law",
			What:  study.Say("%s: whether, where and when lamps may shine is local law.", p.Name),
			Why:   "Approval marks, one or two, with the main beam or the dipped one, dark beside a working indicator: each country has its own.",
			Do:    "Look for the mark, ask at the next inspection, and switch them with the main beam.",
		}
	})
}

// seenByDay asks for what makes one seen on a road trip.
func seenByDay(f *facts.All) (n study.Need, ok bool) {
	brief := &f.Plan.Brief
	if !(brief.Distance.In("km") >= seenFromKm) || !(1-brief.Mix().Loose() >= seenRoad) {
		return n, false
	}
	return study.Provided(f, "seen-by-day", func() study.Answer {
		return study.Answer{
			Because: study.Say("{%.0f km}, %.0f %% of it among other traffic.", brief.Distance.In("km"), 100*(1-brief.Mix().Loose())), Bare: "one lamp in front",
			Fitted: "lamps to be seen by", Short: "a second light in front: cheap ones do, renewed when they fade; some prefer one dear set",
		}
	}), true
}
