package tyres

import (
	"fmt"
	"math"

	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of a taller, wider or other tyre, and of a front/rear mix.

func tyreOverload(f *facts.All) (study.Finding, bool) {
	load := f.Figure(figure.TyreLoad)
	if load.State != verdict.Stop {
		return study.Finding{}, false
	}
	end := "rear"
	if f.TyreLoad.Front > f.TyreLoad.Rear {
		end = "front"
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("The %s tyre carries %.0f %% of its rated load.", end, load.Value),
			Why:  "An overloaded tyre overheats and fails, at speed and without a warning.",
			Do:   "Do not ride it so. Take a tyre with a higher load index, or less load on that axle.",
		}
	})
}

const (
	mixNotice      = 3.0 // % that upsets anti-lock and traction control [memory]
	clearanceTight = 5.0 // mm beyond which a tape measure is not asked for
)

func wheelName(s parts.Slot) string {
	if s == parts.FrontTyre {
		return "front"
	}
	return "rear"
}

func rimMismatch(f *facts.All, s parts.Slot) (study.Finding, bool) {
	t, r := f.Built.Tyre(s), f.Built.Rim(s)
	if t == nil || r.DiameterIn == 0 || t.Size.RimIn == r.DiameterIn {
		return study.Finding{}, false
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("%s is made for a %g in rim, the %s rim is %g in.", t.Size, t.Size.RimIn, wheelName(s), r.DiameterIn),
			Why:  "It does not go on.",
			Do:   study.Say("Choose a %g in tyre; another rim or a second wheel set is a bigger job with approval and sensors.", r.DiameterIn),
		}
	})
}

func rimWidth(f *facts.All, s parts.Slot) (study.Finding, bool) {
	t, r := f.Built.Tyre(s), f.Built.Rim(s)
	if t == nil || r.WidthIn == 0 || !f.Built.Chosen(s) {
		return study.Finding{}, false
	}
	share := tyre.RimShare(t.Size, r)
	low, high := tyre.RimShareRange(t.Kind)
	if came := f.Standard.Tyre(s); came != nil && came.Size.SectionMM == t.Size.SectionMM && f.Standard.Rim(s) == r {
		return study.Finding{}, false // what the maker fitted here is usual
	}
	if share >= low && share <= high {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		words := study.Words{
			What: study.Say("The %.2f in %s rim is %.0f %% of the tyre's width; %.0f–%.0f %% is usual for its kind.", r.WidthIn, wheelName(s), 100*share, 100*low, 100*high),
			Why:  "A wide rim squares the profile: it turns in late and wears its edges.",
			Do:   "Look the rim width up in the tyre maker's table: it decides.",
		}
		if share < low {
			words.Why = "A narrow rim makes the profile more pointed: it digs in and its middle wears first."
		}
		return words
	})
}

func rearClearance(f *facts.All) (study.Finding, bool) {
	t, b := f.Built.Tyre(parts.RearTyre), f.Built.Bike
	if t == nil || !f.Built.Chosen(parts.RearTyre) {
		return study.Finding{}, false
	}
	if t.Room.Known() {
		return measuredRoom(t, "rear")
	}
	wide := t.WidthMM() - b.RearMaxWidth.In("mm")
	// An axle further forward brings the tread nearer to the swingarm's pivot.
	forward := max(0, -f.Chain.ShiftMM)
	if math.IsNaN(forward) {
		forward = 0
	}
	tall := f.Wheels.DiameterMM.Rear + 2*forward - b.RearMaxDiameter.In("mm")
	const why = "A tyre that touches swingarm, chain or mudguard wears through it or locks the wheel; mud needs more room still."
	switch {
	case wide > 0 || tall > 0:
		return study.Finding{
			State: verdict.Stop,
			Offer: func() []study.Remedy { return clearing(f, t, forward) },
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("The rear tyre is %s.", excess(wide, tall, forward, "swingarm, chain and mudguard")),
					Why:  why,
					Do:   "Choose a narrower or lower tyre, or move the axle back; then turn the wheel by hand through the whole travel.",
				}
			},
		}, true
	case wide > -clearanceTight || tall > -clearanceTight:
		return study.Finding{
			State: verdict.Watch,
			Offer: func() []study.Remedy { return clearing(f, t, forward) },
			Tell: func() study.Words {
				return study.Words{
					What: "The rear tyre comes within {5 mm} of what clears.",
					Why:  why,
					Do:   "Measure the mounted tyre: the same size differs between makes.",
				}
			},
		}, true
	case (!b.RearMaxWidth.Known() && grows(t.WidthMM(), widthOf(f.Standard.Tyre(parts.RearTyre)))) ||
		(!b.RearMaxDiameter.Known() && grows(f.Wheels.DiameterMM.Rear, f.Wheels.StandardDiameterMM.Rear)):
		return study.Found(verdict.Watch, func() study.Words {
			return study.Words{
				What: "The rear tyre is bigger than standard and nobody has measured the room for it.",
				Why:  why,
				Do:   "Measure the gap to swingarm, chain and mudguard and enter it under Bike.",
			}
		})
	}
	return study.Finding{}, false
}

// clearing offers the chain that brings the axle back, and the tyre that clears.
func clearing(f *facts.All, t *parts.Tyre, forward float64) []study.Remedy {
	var remedies []study.Remedy
	if forward > 0 {
		remedies = chains.Closer(f)
	}
	return append(remedies, clearingTyres(f, t, forward)...)
}

func frontClearance(f *facts.All) (study.Finding, bool) {
	t, b := f.Built.Tyre(parts.FrontTyre), f.Built.Bike
	if t == nil || !f.Built.Chosen(parts.FrontTyre) {
		return study.Finding{}, false
	}
	if t.Room.Known() {
		return measuredRoom(t, "front")
	}
	wide, tall := t.WidthMM()-b.FrontMaxWidth.In("mm"), f.Wheels.DiameterMM.Front-b.FrontMaxDiameter.In("mm")
	if !(wide > 0) && !(tall > 0) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Stop, func() study.Words {
		return study.Words{
			What: study.Say("The front tyre is %s.", excess(wide, tall, 0, "fork and mudguard")),
			Why:  "Mud packs between tyre and mudguard and acts as a brake, at the front.",
			Do:   "Choose a narrower or lower tyre, or raise the mudguard; then turn the wheel by hand.",
		}
	})
}

// measuredRoom judges by what somebody measured with the tyre mounted: it answers what the
// sheet only guesses.
func measuredRoom(t *parts.Tyre, end string) (study.Finding, bool) {
	room := t.Room.In("mm")
	if room >= clearanceTight {
		return study.Finding{}, false
	}
	state, do := verdict.Watch, study.Text("Turn the wheel by hand through the whole travel; mud needs more room still.")
	if room <= 0 {
		state, do = verdict.Stop, "Do not ride it so: a narrower or lower tyre, or the axle moved."
	}
	return study.Found(state, func() study.Words {
		return study.Words{
			What: study.Say("{%.0f mm} were measured around the %s tyre.", room, end),
			Why:  "A tyre that touches what is around it wears through it or locks the wheel.",
			Do:   do,
		}
	})
}

func excess(wide, tall, forward float64, what string) string {
	text := ""
	if wide > 0 {
		text = fmt.Sprintf("{%.0f mm} wider than what clears %s", wide, what)
	}
	if tall > 0 {
		if text != "" {
			text += ", and "
		}
		text += fmt.Sprintf("{%.0f mm} taller than what clears %s", tall, what)
		if forward >= 1 {
			text += fmt.Sprintf(" with the axle {%.0f mm} further forward", forward)
		}
	}
	return text
}

func widthOf(t *parts.Tyre) float64 {
	if t == nil {
		return math.NaN()
	}
	return t.WidthMM()
}

func grows(now, before float64) bool { return now > before+1 }

// clearingTyres offers the tyre of the same kind that clears and comes nearest in
// width.
func clearingTyres(f *facts.All, t *parts.Tyre, forward float64) []study.Remedy {
	b := f.Built.Bike
	var best *parts.Part
	for _, p := range f.Shelf {
		if p.Slot != parts.RearTyre || parts.TyreKind.In(p) != t.Kind || parts.TyreCode.In(p).RimIn != t.Size.RimIn ||
			!(p.Tyre().WidthMM() <= b.RearMaxWidth.In("mm")-clearanceTight) ||
			!(p.Tyre().DiameterMM()+2*forward <= b.RearMaxDiameter.In("mm")-clearanceTight) {
			continue
		}
		if best == nil || p.Tyre().WidthMM() > best.Tyre().WidthMM() {
			best = p
		}
	}
	return study.Take(best, "Take %s, which clears")
}

func speedSymbol(f *facts.All, s parts.Slot) (study.Finding, bool) {
	t := f.Built.Tyre(s)
	if t == nil || t.Size.Speed == "" {
		return study.Finding{}, false
	}
	rated, _ := tyre.MaxSpeedKmh(t.Size.Speed)
	top := topSpeedOf(f, s)
	cruised := f.Drive.CruiseKmh > rated
	noticed := !cruised && top.kmh > rated && t.Size.MudAndSnow
	if !cruised && !(top.kmh > rated) {
		return study.Finding{}, false
	}
	state := top.worst
	switch {
	case cruised:
		state = verdict.Stop
	case noticed:
		state = verdict.Watch
	}
	return study.Found(state, func() study.Words {
		words := study.Words{
			What: study.Say("The %s tyre's symbol %s allows {%.0f km/h}; %s.", wheelName(s), t.Size.Speed, rated, top.words),
			Why:  "Above its symbol a loaded tyre overheats; approval and insurance hang on it too.",
			Do:   "Choose a tyre with the symbol in the bike's papers. Local law decides.",
		}
		if cruised {
			words.What = study.Say("The %s tyre's symbol %s allows {%.0f km/h}; the brief's cruise is {%.0f km/h}.", wheelName(s), t.Size.Speed, rated, f.Drive.CruiseKmh)
		}
		if noticed {
			words.Do = "Some countries allow a lower symbol on an M+S tyre with a notice in the rider's sight. Ask before you order."
		}
		return words
	})
}

// top is how fast a bike goes: as its papers have it; else as the app reckons it by power; else by
// the symbol of the tyre that it came with.
type top struct {
	kmh   float64
	words study.Text
	worst verdict.State // where a symbol is below it
}

func topSpeedOf(f *facts.All, s parts.Slot) top {
	if f.Built.Bike.TopSpeed.Known() {
		kmh := f.Built.Bike.TopSpeed.In("km/h")
		return top{kmh, study.Say("the bike's top speed is {%.0f km/h}", kmh), verdict.Stop}
	}
	if by := f.Figure(figure.TopSpeed); by.Known {
		return top{by.Value, study.Say("by its power the bike does about {%.0f km/h}", by.Value), verdict.Over}
	}
	if came := f.Standard.Tyre(s); came != nil && came.Size.Speed != "" {
		kmh, _ := tyre.MaxSpeedKmh(came.Size.Speed)
		return top{kmh, study.Say("the one it came with is marked %s for {%.0f km/h}", came.Size.Speed, kmh), verdict.Watch}
	}
	return top{kmh: math.NaN()}
}

func rearInFront(f *facts.All) (study.Finding, bool) {
	t := f.Built.Tyre(parts.FrontTyre)
	if t == nil || !t.Size.RearOnly {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("%s is marked for the rear and is planned for the front.", t.Size),
			Why:  "Its splice and belts are laid for drive: in front, braking pulls on them the other way, unless it is turned round against its arrow. Its flat profile steers slowly and runs in ruts.",
			Do:   "Choose a front tyre. Who runs one all the same mounts it against its arrow only where its maker allows both ways.",
		}
	})
}

func frontRearMix(f *facts.All) (study.Finding, bool) {
	if !(math.Abs(f.Wheels.MixPercent) > mixNotice) {
		return study.Finding{}, false
	}
	counted := f.Built.Bike.AntiLock || f.Built.Bike.TractionControl
	state := verdict.Watch
	if counted {
		state = verdict.Over
	}
	return study.Finding{
		State: state,
		Value: math.Abs(f.Wheels.MixPercent),
		Offer: func() []study.Remedy { return balancingTyres(f) },
		Tell: func() study.Words {
			words := study.Words{
				What: study.Say("Front against rear circumference is %s %% from standard.", study.Signed(f.Wheels.MixPercent, 1)),
				Why:  "The steering changes; a speedometer may lie.",
				Do:   "Balance the other end, or accept it and ride it in.",
			}
			if counted {
				words.Why = "Anti-lock and traction control compare the two wheels: beyond about 3 % they see a slide that is not there."
				words.Do = "Balance the other end, or ask the maker's dealer whether the unit can be taught the new sizes."
			}
			return words
		},
	}, true
}

// balancingTyres offers the tyre at the end that was not changed that brings the
// circumferences back together.
func balancingTyres(f *facts.All) []study.Remedy {
	slot := parts.FrontTyre
	if f.Built.Chosen(parts.FrontTyre) && !f.Built.Chosen(parts.RearTyre) {
		slot = parts.RearTyre
	}
	rim := f.Built.Rim(slot)
	standard := f.Wheels.StandardCircumferenceMM.Front / f.Wheels.StandardCircumferenceMM.Rear
	var best *parts.Part
	bestOff := mixNotice
	for _, p := range f.Shelf {
		if p.Slot != slot || parts.TyreCode.In(p).RimIn != rim.DiameterIn {
			continue
		}
		ends := f.Wheels.CircumferenceMM
		if slot == parts.FrontTyre {
			ends.Front = p.Tyre().CircumferenceMM()
		} else {
			ends.Rear = p.Tyre().CircumferenceMM()
		}
		if off := math.Abs(ends.Front/ends.Rear/standard-1) * 100; off < bestOff {
			best, bestOff = p, off
		}
	}
	return study.Take(best, "Balance it with %s")
}
