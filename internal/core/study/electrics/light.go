package electrics

import (
	"fmt"
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/parts"
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

// BendRadiusM is of the tight bend that side light is judged by, m [memory].
const BendRadiusM = 25.0

const (
	bendLateral = 0.3 // of g, that a bend is ridden at by day [memory]
)

// usualHalf is half of the band of a bulb or insert of which nobody says how bright it is,
// a share of the one that it replaces [memory].
const usualHalf = 0.4

// dippedMostM is a reach beyond which a number says nothing: the beam is all but level.
const dippedMostM = 500.0

// light finds how far one sees, how fast that is, and where the dipped beam ends.
func light(r *study.Run) {
	b, l, brief := r.Built.Bike, &r.Light, &r.Plan.Brief
	l.Lux, l.ReactS, l.Brakes = usually(&brief.SeesBy, "lx", lamp.Lux), usually(&brief.Reacts, "s", lamp.ReactionS), brief.NightGrip.In("")
	lamps(r.All)
	l.LitM = lamp.BeamM(l.MainCd+l.AuxCd, l.Lux)
	l.Kmh, l.Ground, l.Half = slowest(brief.Mix(), l.LitM, l)
	l.WishKmh = brief.NightCruise.In("km/h")
	l.BendM = lamp.BendM(l.Shine(), BendRadiusM, lamp.SteerDeg(b.Wheelbase.In("mm"), BendRadiusM), l.Lux)
	if math.IsNaN(l.MainCd) {
		l.BendM = math.NaN()
	}
	l.BendKmh, l.AllowsKmh = lamp.OutrunKmh(l.BendM, l.ReactS, lamp.Decel(l.Ground.Friction, l.Brakes)), lamp.BendKmh(BendRadiusM, bendLateral)
	l.TiltDeg = r.Poses.Loaded.PitchDeg - r.Poses.Came.PitchDeg
	l.HeightMM = usually(&b.LampHeight, "mm", lamp.HeightOfSeat*b.SeatHeight.In("mm"))
	l.DownDeg = usually(&b.LampAim, "°", lamp.AimDownDeg) - l.TiltDeg
	l.DippedM = lamp.CutoffM(l.HeightMM, l.DownDeg)
	lit(r)
	bend(r)
	nightSpeed(r)
	dipped(r)
}

// lamps finds the beams to see by, and the lamps of which only lumens are known: those add
// nothing that one could count on.
func lamps(f *facts.All) {
	l, b := &f.Light, f.Built.Bike
	l.HalfShare = 0
	main := lamp.Beam{Cd: b.Headlamp.In("cd"), AngleDeg: b.HeadlampBeam.In("°"), Turns: b.HeadlampMount == parts.OnBars}
	name := "the headlamp"
	if p := f.Built.Part(parts.Headlamp); p != nil && (p.Lamp() != nil || f.Built.Chosen(parts.Headlamp)) {
		var sheet parts.Lamp // of one that nobody has measured all is unknown, not as it was
		if p.Lamp() != nil {
			sheet = *p.Lamp()
		}
		if name, main = p.Name, beamOf(&sheet); sheet.Mount == "" {
			main.Turns = b.HeadlampMount == parts.OnBars
		}
		note(l, p, &sheet, main.Cd)
		if math.IsNaN(main.Cd) && b.Headlamp.Known() { // as bright as the one that it replaces, give or take
			main.Cd, l.HalfShare = b.Headlamp.In("cd"), usualHalf
			if math.IsNaN(main.AngleDeg) {
				main.AngleDeg = b.HeadlampBeam.In("°")
			}
		}
	}
	l.MainCd, l.AuxCd = main.CdAt(0), 0
	if !math.IsNaN(main.Cd) {
		l.Beams = append(l.Beams, facts.LampBeam{Beam: main, Name: name})
	}
	for _, slot := range parts.ToSeeBy() {
		for p := range f.Built.Parts(slot) {
			if p.Lamp() == nil {
				continue
			}
			beam := beamOf(p.Lamp())
			if note(l, p, p.Lamp(), beam.Cd); !math.IsNaN(beam.Cd) {
				l.Beams, l.AuxCd = append(l.Beams, facts.LampBeam{Beam: beam, Name: p.Name}), l.AuxCd+beam.CdAt(0)
			}
		}
	}
}

// note lists a lamp of which only lumens are known.
func note(l *facts.Light, p *parts.Part, sheet *parts.Lamp, cd float64) {
	if math.IsNaN(cd) && sheet.Lumens.Known() {
		l.Unsaid = append(l.Unsaid, p.Name)
	}
}

// beamOf a lamp; the intensity is NaN where it follows from nothing.
func beamOf(l *parts.Lamp) lamp.Beam {
	b := lamp.Beam{Cd: l.Candela.In("cd"), AngleDeg: l.Beam.In("°"), Turns: l.Mount == parts.OnBars, Looks: l.Mount == parts.OnHead}
	if l.Outward.Known() {
		b.OutDeg = l.Outward.In("°")
	}
	if math.IsNaN(b.Cd) && l.Lumens.Known() && l.Beam.Known() {
		b.Cd = lamp.PeakCd(l.Lumens.In("lm"), b.AngleDeg)
	}
	return b
}

// slowest is the least speed at which stopping meets the beam, over the grounds of the trip;
// of paved roads where it names none.
func slowest(mix terrain.Mix, litM float64, l *facts.Light) (kmh float64, on terrain.Ground, half bool) {
	kmh = math.NaN()
	for i, g := range terrain.Grounds() {
		if mix.Said() && mix.At(i) < worstShare || !mix.Said() && g.Kind != terrain.Paved {
			continue
		}
		if v := nightKmh(g, litM, l); !(v >= kmh) {
			kmh, on, half = v, g, oneLane[g.Kind]
		}
	}
	return kmh, on, half
}

// nightKmh is the speed at which stopping on a ground meets the light.
func nightKmh(g terrain.Ground, litM float64, l *facts.Light) float64 {
	return lamp.OutrunKmh(sight(g, litM), l.ReactS, lamp.Decel(g.Friction, l.Brakes))
}

// sight is how much of what is lit is one's own on a ground: half of it is another's where two
// ways share one lane.
func sight(g terrain.Ground, litM float64) float64 {
	if oneLane[g.Kind] {
		return litM / 2
	}
	return litM
}

// Night is a ground in the dark at a speed.
type Night struct {
	SightM        float64 // lit, and one's own
	ReactM, StopM float64 // until the brakes bite; to standing
	MeetKmh       float64 // at which stopping meets the sight
}

// NightOn is a ground in the dark, ridden at a speed.
func NightOn(g terrain.Ground, l *facts.Light, kmh float64) Night {
	react := lamp.Reaction(kmh, l.ReactS)
	return Night{SightM: sight(g, l.LitM), ReactM: react, StopM: react + lamp.Braking(kmh, lamp.Decel(g.Friction, l.Brakes)), MeetKmh: nightKmh(g, l.LitM, l)}
}

func lit(r *study.Run) {
	c := r.Figure(figure.LitDistance)
	if math.IsNaN(r.Light.MainCd) {
		what := "headlamp candela (Bike)"
		if p := r.Built.Part(parts.Headlamp); p != nil && r.Built.Chosen(parts.Headlamp) {
			what = "candela of " + p.Name
		}
		c.Lacks(what)
	}
	c.Is(r.Light.LitM)
	if c.Sheet != nil {
		c.Sheet.Step(lamp.BeamFormula, study.Computed("lit", r.Light.LitM, "m"), sheet.Value{Name: "main beam", Number: r.Light.MainCd, Unit: "cd", Origin: r.Built.Bike.OriginOf("headlamp")},
			study.Computed("auxiliary lamps", r.Light.AuxCd, "cd"), lightWanted(r))
	}
	c.Plain()
}

// lightWanted and reaction are as the brief has them, or as is usual.
func lightWanted(r *study.Run) sheet.Value {
	v := sheet.Value{Name: "light wanted", Number: r.Light.Lux, Unit: "lx", Origin: sheet.Memory, Note: "1 optimistic, 5 cautious"}
	if r.Plan.Brief.SeesBy.Known() {
		v.Origin = sheet.Rider
	}
	return v
}

func reaction(r *study.Run) sheet.Value {
	v := sheet.Value{Name: "t", Number: r.Light.ReactS, Unit: "s", Origin: sheet.Published, Note: "AASHTO Green Book"}
	if r.Plan.Brief.Reacts.Known() {
		v.Origin, v.Note = sheet.Rider, ""
	}
	return v
}

// bend is how much of a tight bend lies in the light.
func bend(r *study.Run) {
	c := r.Figure(figure.BendLit)
	c.On(figure.LitDistance, "lit")
	c.Bike("wheelbase", "wheelbase", "mm", &r.Built.Bike.Wheelbase)
	c.Is(r.Light.BendM)
	if c.Sheet != nil {
		in := []sheet.Value{{Name: "R", Number: BendRadiusM, Unit: "m", Origin: sheet.Memory}, lightWanted(r)}
		for _, b := range r.Light.Beams {
			in = append(in, study.Computed(b.Name, b.Cd, "cd"))
		}
		c.Sheet.Step(lamp.BendFormula, study.Computed("lit along the bend", r.Light.BendM, "m"), in...)
		c.Sheet.Note("Upright: a bike that leans turns its beam's edge into the road.")
	}
	c.Plain()
}

func nightSpeed(r *study.Run) {
	c, l := r.Figure(figure.NightSpeed), &r.Light
	c.On(figure.LitDistance, "lit")
	c.Is(l.Kmh)
	low := l.Kmh
	if l.HalfShare > 0 && c.Known {
		mix := r.Plan.Brief.Mix()
		at := func(share float64) float64 {
			kmh, _, _ := slowest(mix, lamp.BeamM(l.MainCd*share+l.AuxCd, l.Lux), l)
			return kmh
		}
		low = at(1 - l.HalfShare)
		c.Usual = 1
		c.Band(low, at(1+l.HalfShare))
	}
	if c.Sheet != nil {
		if l.Half {
			c.Sheet.Note("Two ways share one lane there: half of the sight is the other's.")
		}
		decel := study.Computed("a", lamp.Decel(l.Ground.Friction, l.Brakes), "m/s²")
		c.Sheet.Step(lamp.GripFormula, decel, sheet.Value{Name: "friction on " + l.Ground.Name, Number: l.Ground.Friction, Origin: sheet.Memory})
		c.Sheet.Step(lamp.OutrunFormula, study.Computed("speed", l.Kmh, "km/h"), study.Computed("range", sight(l.Ground, l.LitM), "m"), decel, reaction(r))
		c.Sheet.Note("Arithmetic, not permission: dust, bends, animals and tired eyes are in none of it.")
	}
	c.Brief("cruise in the dark", "km/h", &r.Plan.Brief.NightCruise) // after the value, which needs none
	high := l.Kmh
	if c.Banded {
		high = c.High
	}
	unsaid := !r.Plan.Brief.Mix().Said() // then it is of paved roads
	c.Against(l.WishKmh, c.Known && high < l.WishKmh, c.Known && (low < l.WishKmh || l.Kmh < 1.1*l.WishKmh || unsaid))
	if unsaid && c.Known {
		c.Unsure(study.Ground)
	}
	if c.Banded && low < l.WishKmh && high >= l.WishKmh {
		bulb := r.Built.Part(parts.Headlamp)
		c.Unsure(study.Lack{What: "candela of " + bulb.Name, At: study.PartAt(bulb, "candela")})
	}
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
	tilt.Judged(false, l.DownDeg < lamp.AimLeastDeg)

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
	c.Is(min(l.DippedM, dippedMostM))
	if c.Sheet != nil {
		c.Sheet.Step(lamp.CutoffFormula, study.Computed("reach, no more than 500 m", c.Or(math.NaN()), "m"), study.Computed("height", l.HeightMM, "mm"), study.Computed("below level, loaded", l.DownDeg, "°"))
	}
	c.Plain()
}

var tiltFormula = sheet.Formula{Text: "pitch with everything on − pitch as it came, rider alone: more sag behind than in front tips the beam up", Origin: sheet.Computed}

func nightTooFast(f *facts.All) (study.Finding, bool) {
	l := &f.Light
	if f.Figure(figure.NightSpeed).State != verdict.Over {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Over,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.AuxLamps, func(p *parts.Part) bool { return parts.Candela.In(p).Known() })
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

// wallM is how far from a wall a lamp is aimed, m [practice].
const wallM = 10.0

func dazzles(f *facts.All) (study.Finding, bool) {
	if f.Figure(figure.BeamTilt).State != verdict.Watch {
		return study.Finding{}, false
	}
	return study.OnTheDay(func() study.Words {
		return study.Words{
			Short: "The lamp's aim, after the preload",
			What:  study.Say("Loaded, the dipped beam points %s; 0.3° down is the least. It dazzles: re-aim it.", aboveLevel(-f.Light.DownDeg)),
			Why:   "More sag behind than in front tips the bike, and the beam with it; whoever comes sees nothing, and you no further.",
			Do:    study.Say("Preload first, then re-aim it, loaded as you ride: {%.0f m} from a wall its edge lies {%.0f mm} below the middle of the lamp. Back again when the bags come off.", wallM, 1000*wallM*math.Tan(lamp.AimDownDeg*math.Pi/180)),
		}
	})
}

// aboveLevel is an angle in words; what would read as none is level.
func aboveLevel(deg float64) string {
	switch {
	case deg >= 0.05:
		return fmt.Sprintf("%.1f° above level", deg)
	case deg > -0.05:
		return "level"
	}
	return fmt.Sprintf("only %.1f° down", -deg)
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

// lawful are slots whose parts the law may not like, with what is asked about them.
var lawful = []parts.Slot{parts.Headlamp, parts.AuxLamps, parts.WideLamps, parts.DayLamps, parts.LampControl, parts.BrakeLamp, parts.Indicators}

func lampsAndLaw(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, slot := range lawful {
		for p := range f.Built.Parts(slot) {
			if f.Built.Chosen(slot) {
				names = append(names, p.Name)
			}
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		ask := "Approval marks; one lamp or two; with the main beam or the dipped one, dark beside a working indicator: each country has its own."
		if f.Built.Provides("brake-flash") {
			ask += " A brake lamp that flashes is allowed here and forbidden there."
		}
		return study.Words{
			Short: "lamps: ask the law",
			What:  study.Say("%s: whether, where and when they may shine is local law.", study.Listed(names)),
			Why:   study.Text(ask),
			Do:    "Look for the mark, ask at the next inspection, and switch them with the main beam.",
		}
	})
}

// nightShare from which bends in the dark are judged.
const nightShare = 0.05

func bendsDark(f *facts.All) (study.Finding, bool) {
	l := &f.Light
	if !(f.Plan.Brief.Night.Base() >= nightShare && l.BendKmh < l.AllowsKmh) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return brighter(f) },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("In a bend of {%.0f m} radius {%.0f m} of the road are lit: stopping meets that at {%.0f km/h}; by day it is ridden at {%.0f km/h}.", BendRadiusM, l.BendM, l.BendKmh, l.AllowsKmh),
				Why:  "A spot lights the trees straight on; the road goes elsewhere.",
				Do:   "Slower into bends. Wide lamps a little outward, best on what turns with the bars; far ones do nothing there.",
			}
		},
	}, true
}

// brighter is the first of the lamps for bends with which stopping fits into one.
func brighter(f *facts.All) []study.Remedy {
	return study.Offer(f, parts.WideLamps, func(p *parts.Part) bool {
		if p.Lamp() == nil {
			return false
		}
		beam := beamOf(p.Lamp())
		lit := lamp.BendM(append(f.Light.Shine(), beam), BendRadiusM, lamp.SteerDeg(f.Built.Bike.Wheelbase.In("mm"), BendRadiusM), f.Light.Lux)
		return lamp.OutrunKmh(lit, f.Light.ReactS, lamp.Decel(f.Light.Ground.Friction, f.Light.Brakes)) >= f.Light.AllowsKmh
	})
}

// seenByDay asks for what makes one seen on a road trip.
func seenByDay(f *facts.All) (n study.Need, ok bool) {
	brief := &f.Plan.Brief
	if !(brief.Distance.In("km") >= seenFromKm) || !(1-brief.Mix().Loose() >= seenRoad) {
		return n, false
	}
	tell := func() study.Answer {
		return study.Answer{
			Because: study.Say("{%.0f km}, %.0f %% of it among other traffic.", brief.Distance.In("km"), 100*(1-brief.Mix().Loose())), Bare: "one lamp in front",
			Fitted: "lamps to be seen by", Short: "a second light in front: cheap ones do, renewed when they fade; some prefer one dear set",
		}
	}
	if p := litAllDay(f); p != nil {
		return study.Need{Met: true, Tell: func() study.Answer {
			a := tell()
			a.Fitted, a.Short = study.Say("%s, on all day", p.Name), ""
			return a
		}}, true
	}
	return study.Provided(f, "seen-by-day", tell), true
}

// litAllDay is a second lamp in front that somebody has said is on all day, nil for none.
func litAllDay(f *facts.All) *parts.Part {
	for _, slot := range [...]parts.Slot{parts.AuxLamps, parts.WideLamps} {
		for p := range f.Built.Parts(slot) {
			if f.Plan.WiredIn(slot).Use == parts.InUse || f.Plan.WiredIn(slot).Use == "" && parts.UsedAt.In(p) == parts.InUse {
				return p
			}
		}
	}
	return nil
}
