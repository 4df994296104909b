package stance

import (
	"cmp"
	"math"
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of springs, preload, air and damping.

const (
	freeSlack  = 0.01 // of the travel, beside the band of free sag [memory]
	muchShare  = 0.5  // of the adjuster's way, rider alone, that is much of it [practice]
	hardlyMM   = 1.0  // of preload, that is none
	endsApart  = 0.05 // of the travel, that one end is out of its band while the other has new springs
	airNotice  = 20.0 // kPa
	dampNotice = 4.0  // mm of preload beside the sheet's, from which damping is looked at again [memory]
)

// ends are the words of an end.
var ends = map[bool]struct{ name, part string }{false: {"Front", "fork springs"}, true: {"Rear", "shock spring"}}

// sagOf are the gauges of the ends, rear or not.
var sagOf = map[bool]figure.ID{false: figure.SagFront, true: figure.SagRear}

// endRule is a rule of one end; springs front and rear are judged, bought and set apart.
type endRule func(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool)

// both is such a rule for the front and for the rear; by are the figures of the ends that it
// reads.
func both(id string, judge endRule, by ...map[bool]figure.ID) []study.Rule {
	var rules []study.Rule
	for _, rear := range []bool{false, true} {
		r := study.Rule{ID: ofEnd(id, rear), Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.SpringsGroup, Judge: func(f *facts.All) (study.Finding, bool) {
			return judge(f, rear, f.Springs.Of(rear))
		}}
		for _, figures := range by {
			r.Figures = append(r.Figures, figures[rear])
		}
		rules = append(rules, r)
	}
	return rules
}

// ofEnd is the id of such a rule for an end.
func ofEnd(id string, rear bool) string {
	if rear {
		return id + "-rear"
	}
	return id + "-front"
}

var uses = map[stance.Use]string{stance.Trail: "the trail", stance.Mixed: "road and trail", stance.Road: "the road"}

// setTo is a preload in the words of the adjuster.
func setTo(e *facts.SpringEnd, mm float64) study.Text {
	return study.Say("{%.0f mm} of preload%s", mm, counted(e, mm))
}

// counted is where the adjuster stands for a preload, "" where nobody can count it.
func counted(e *facts.SpringEnd, mm float64) study.Text {
	if n, ok := e.Adjuster.Count(mm); ok && n > -0.5 {
		return study.Say(", %.0f %s from all out", math.Max(0, n), e.Adjuster.By)
	}
	return ""
}

// adjusters are what is set at the front and at the rear.
var adjusters = map[bool]string{false: "Fork", true: "Shock"}

// preloadAt is a preload of an end as a line.
func preloadAt(rear bool, e *facts.SpringEnd, mm float64) study.Text {
	return study.Say("%s preload to {%.0f mm}%s", adjusters[rear], mm, counted(e, mm))
}

// preloadTo is what an end is set to with everything on, as a line.
func preloadTo(rear bool, e *facts.SpringEnd) study.Text {
	switch {
	case !math.IsNaN(e.WantPreloadMM):
		return preloadAt(rear, e, e.Settable(e.WantPreloadMM))
	case e.LoadedMM > e.Band.High*e.End.TravelMM:
		return study.Say("%s: more preload, by tape", adjusters[rear])
	}
	return study.Say("%s: less preload, by tape", adjusters[rear])
}

// sagIs says how far an end sits, and what riders set.
func sagIs(f *facts.All, rear bool, e *facts.SpringEnd) study.Text {
	return study.Say("%s sag {%.0f mm} with everything on, %.0f %% of its travel; %.0f–%.0f %% is what riders set for %s.", ends[rear].name, e.LoadedMM, 100*e.Share(e.LoadedMM), 100*e.Band.Low, 100*e.Band.High, uses[f.Springs.Use])
}

// springAsked is a finding that another spring ends.
func springAsked(f *facts.All, rear bool, tell func() study.Words) (study.Finding, bool) {
	return study.Finding{State: verdict.Watch, Offer: func() []study.Remedy { return nextSpring(f, rear) }, Tell: tell}, true
}

func sagSoft(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	share := f.Figure(sagOf[rear])
	if !(share.State == verdict.Over || share.State == verdict.Watch && figure.Past(share.Value, 100*e.Band.High, 0)) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: share.State,
		Day:   share.State == verdict.Watch, // the adjuster reaches it
		Offer: func() []study.Remedy {
			if e.RunsOut() && !e.Reaches() {
				return nextSpring(f, rear)
			}
			return nil
		},
		Tell: func() study.Words {
			do := study.Say("Set it to %s. Measure, ride, write it down.", setTo(e, e.Settable(e.WantPreloadMM)))
			switch {
			case math.IsNaN(e.WantPreloadMM) && e.MorePreloadMM() > 0:
				do = study.Say("About {%.0f mm} more preload than now brings it to the middle of that. Set it, measure, ride, write it down.", e.MorePreloadMM())
			case math.IsNaN(e.WantPreloadMM):
				do = "More preload, a turn at a time, each measured by tape: how much the shock moves against the wheel would say how many."
			case e.RunsOut() && !e.Reaches():
				do = study.Say("The adjuster ends at {%.0f mm}: all of that, the rider forward, less behind. For good: %s of about {%.0f N/mm}.", e.MostMM(), ends[rear].part, e.WantNmm)
			case math.IsNaN(e.MostMM()):
				do += " How far the adjuster goes nobody has said: count it before you count on it."
			}
			return study.Words{
				Short: preloadTo(rear, e),
				What:  sagIs(f, rear, e),
				Why:   "It hangs low in its travel: it bottoms, the lamp and the steering are off, the ground is near.",
				Do:    do,
			}
		},
	}, true
}

// tooStiff reports a spring that is too stiff for its rider alone: with the adjuster all out it
// sags less than the band's lower end. Bags never make a spring too stiff.
func tooStiff(e *facts.SpringEnd) bool {
	return e.End.PreloadFor(e.AloneKg, e.Band.Low*e.End.TravelMM) < e.Adjuster.LeastMM()
}

// airFirst is what comes before springs are blamed, "" where there is no air in the fork.
func airFirst(e *facts.SpringEnd) study.Text {
	if !(e.End.Air.KPa > 0) {
		return ""
	}
	return study.Say("The {%.0f kPa} of air in the fork come out first; measure again. ", e.End.Air.KPa)
}

func sagStiff(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	share := f.Figure(sagOf[rear])
	if share.State != verdict.Watch || !(share.Value < 100*e.Band.Low) {
		return study.Finding{}, false
	}
	stiff := tooStiff(e)
	return study.Finding{
		State: verdict.Watch,
		Day:   !stiff,
		Offer: func() []study.Remedy {
			if stiff && !(e.End.Air.KPa > 0) {
				return softer(f, rear)
			}
			return nil
		},
		Tell: func() study.Words {
			do := study.Say("Let it out to %s.", setTo(e, e.Settable(e.WantPreloadMM)))
			switch {
			case math.IsNaN(e.WantPreloadMM):
				do = "Less preload, a turn at a time, each measured by tape."
			case stiff:
				do = study.Say("With you alone all out is not enough either: %s of about {%.0f N/mm}, or leave it and ride it; some like it firm.", ends[rear].part, e.WantAloneNmm())
			case e.WantPreloadMM < e.Adjuster.LeastMM():
				do = "All out; with you alone it is right, and with more on it a little firm does no harm."
			}
			return study.Words{
				Short: preloadTo(rear, e),
				What:  sagIs(f, rear, e),
				Why:   "It stands tall and tops out: the wheel leaves the ground behind each hole.",
				Do:    airFirst(e) + do,
			}
		},
	}, true
}

// toSet is the preload of springs that go in and that nobody has set: what is computed holds
// once it is.
func toSet(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	share := e.Share(e.LoadedMM)
	if !e.AsIf || math.IsNaN(share) || f.Figure(sagOf[rear]).State != verdict.Watch || share > e.Band.High || share < e.Band.Low {
		return study.Finding{}, false
	}
	return study.OnTheDay(func() study.Words {
		return study.Words{
			Short: preloadAt(rear, e, e.SetMM),
			What:  study.Say("%s sag is %.0f %% if it is set to %s; nobody has said that it is.", ends[rear].name, 100*share, setTo(e, e.SetMM)),
			Why:   "Springs come as they were wound for somebody else.",
			Do:    "Set it when it goes in, measure with everything on, and write it down here.",
		}
	})
}

func preloadRunsOut(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	if !e.RunsOut() || wrong(e) {
		return study.Finding{}, false
	}
	return runsOut(f, rear, e, "With less on it the spring is right: for one trip its stop will do. Riders have finished long ones so.")
}

func wrongSpring(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	if !e.RunsOut() || !wrong(e) {
		return study.Finding{}, false
	}
	return runsOut(f, rear, e, study.Say("Bare it wants {%.0f mm} too, much of the way: that is the wrong spring, not the wrong setting.", e.AlonePreloadMM))
}

// wrong reports whether the rider alone takes much of the adjuster, too.
func wrong(e *facts.SpringEnd) bool {
	least := e.Adjuster.LeastMM()
	return e.AlonePreloadMM-least > muchShare*(e.MostMM()-least)
}

func runsOut(f *facts.All, rear bool, e *facts.SpringEnd, why study.Text) (study.Finding, bool) {
	return springAsked(f, rear, func() study.Words {
		return study.Words{
			What: study.Say("%s preload at its stop: this load wants {%.0f mm}, the adjuster ends at {%.0f mm}.", ends[rear].name, e.WantPreloadMM, e.MostMM()),
			Why:  why,
			Do:   study.Say("The next of a ladder: %s of about {%.0f N/mm}. The right one leaves the adjuster in its lower half.", ends[rear].part, e.WantNmm),
		}
	})
}

// freeShare is the free sag at the preload that is right for the rider alone.
func freeShare(e *facts.SpringEnd) float64 { return e.Share(e.RightFreeMM) }

func springTooSoft(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	if !(freeShare(e) < e.FreeBand.Low-freeSlack) || e.RunsOut() && wrong(e) {
		return study.Finding{}, false
	}
	leaves := func(nmm float64) bool { // enough free sag
		stiffer := e.End
		stiffer.Spring = stance.Spring{Nmm: nmm, SecondNmm: math.NaN(), KneeMM: math.NaN()}
		set := stiffer.With(math.Max(e.Adjuster.LeastMM(), stiffer.PreloadFor(e.AloneKg, e.Band.Middle()*e.End.TravelMM)))
		return e.Share(set.SagMM(e.FreeKg)) >= e.FreeBand.Low-freeSlack
	}
	return study.Finding{State: verdict.Watch, Value: 100 * freeShare(e), Limit: 100 * e.FreeBand.Low, Offer: func() []study.Remedy { return springNear(f, rear, e.WantNmm, leaves) }, Tell: func() study.Words {
		return study.Words{
			What: study.Say("%s: at the right sag with you alone on it, {%.0f mm} of free sag are left, %.0f %% of the travel; %.0f–%.0f %% is usual.", ends[rear].name, e.RightFreeMM, 100*freeShare(e), 100*e.FreeBand.Low, 100*e.FreeBand.High),
			Why:  "So much preload for the right sag says that the spring is too soft for you: it tops out, then wallows.",
			Do:   study.Say("%s of about {%.0f N/mm} for this load; for you alone less will do.", firstUpper(ends[rear].part), e.WantNmm),
		}
	}}, true
}

func springTooStiff(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	low := f.Figure(sagOf[rear])
	if !stiff(e) || e.End.PreloadMM-e.Adjuster.LeastMM() <= hardlyMM || e.RunsOut() || low.State == verdict.Watch && low.Value < 100*e.Band.Low {
		return study.Finding{}, false // with bags on too soft, it is not too stiff; and once is enough
	}
	return study.Finding{State: verdict.Watch, Value: 100 * freeShare(e), Limit: 100 * e.FreeBand.High, Offer: func() []study.Remedy {
		if e.End.Air.KPa > 0 {
			return nil
		}
		return softer(f, rear)
	}, Tell: func() study.Words {
		what := study.Say("%s: at the right sag with you alone on it there is {%.0f mm} of free sag, %.0f %% of the travel; %.0f–%.0f %% is usual.", ends[rear].name, e.RightFreeMM, 100*freeShare(e), 100*e.FreeBand.Low, 100*e.FreeBand.High)
		if tooStiff(e) {
			out := e.End.With(e.Adjuster.LeastMM())
			least := out.SagMM(e.AloneKg)
			what = study.Say("%s: with you alone on it and the adjuster all out it sags {%.0f mm}, %.0f %% of its travel; %.0f–%.0f %% is what riders set.", ends[rear].name, least, 100*e.Share(least), 100*e.Band.Low, 100*e.Band.High)
		}
		do := study.Say("%s of about {%.0f N/mm} for you alone.", firstUpper(ends[rear].part), e.WantAloneNmm())
		if math.IsNaN(e.WantAloneNmm()) {
			do = "Softer ones for you alone; how soft, the preload would say."
		}
		return study.Words{
			What: what,
			Why:  "Plenty of free sag at the right rider sag says that the spring is too stiff for you; so it is for a light rider on standard ones.",
			Do:   airFirst(e) + do + " Without a change: softer compression, and less of it loaded.",
		}
	}}, true
}

// stiff is by the free sag that is left at the right sag, or by an adjuster that is all out.
func stiff(e *facts.SpringEnd) bool { return freeShare(e) > e.FreeBand.High+freeSlack || tooStiff(e) }

func bounces(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	if !stiff(e) || !(e.End.PreloadMM-e.Adjuster.LeastMM() <= hardlyMM) {
		return study.Finding{}, false
	}
	return study.OnTheDay(func() study.Words {
		return study.Words{
			Short: study.Say("%s: a few millimetres more preload", adjusters[rear]),
			What:  study.Say("%s: a stiff spring with {%.0f mm} of preload.", ends[rear].name, e.End.PreloadMM),
			Why:   "Loose at full extension it rattles and bounces, and feels harsh: more preload is the first cure, odd as it sounds.",
			Do:    "A few millimetres of preload and a ride. Only then another spring.",
		}
	})
}

// nextSpring offers the spring of the ladder that leaves the adjuster in its lower half, or
// comes nearest to the rate that the load wants.
func nextSpring(f *facts.All, rear bool) []study.Remedy {
	return springNear(f, rear, f.Springs.Of(rear).WantNmm, func(float64) bool { return true })
}

// softer is a way out of a spring that is too stiff for its rider alone: never a stiffer one.
func softer(f *facts.All, rear bool) []study.Remedy {
	e := f.Springs.Of(rear)
	return springNear(f, rear, e.WantAloneNmm(), func(nmm float64) bool { return nmm < e.End.Spring.Nmm })
}

// nearShare is how far a spring may be off the wanted rate, of it, to be a way out: the
// adjuster makes good for about so much [memory].
const nearShare = 0.15

// springNear is the spring of the ladder that is nearest to a rate, N/mm, of those that may be,
// where it is nearer than the one that is on.
func springNear(f *facts.All, rear bool, want float64, may func(nmm float64) bool) []study.Remedy {
	slot := parts.ForkSprings
	if rear {
		slot = parts.ShockSpring
	}
	e := f.Springs.Of(rear)
	var ladder []*parts.Part
	for _, p := range f.Shelf {
		if p.Slot == slot && parts.Rate.In(p).Known() && p != e.By && may(parts.Rate.In(p).In("N/mm")) && f.Built.Goes(p) {
			ladder = append(ladder, p)
		}
	}
	if len(ladder) == 0 {
		return nil
	}
	off := func(p *parts.Part) float64 { return math.Abs(p.Spring().Rate.In("N/mm") - want) }
	best := slices.MinFunc(ladder, func(a, b *parts.Part) int { return cmp.Compare(off(a), off(b)) })
	if !(off(best) < math.Abs(e.End.Spring.Nmm-want)) || off(best) > nearShare*want {
		return nil // none is nearer than the one that is on, or none is near
	}
	return study.Take(best, "Fit %s")
}

func sagMeasured(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	c := e.Corrected
	if c.Of == "" {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		words := map[stance.Quantity]study.Text{
			stance.Preload: study.Say("preload {%.1f mm} instead of {%.1f mm}", c.Now, c.Was),
			stance.Ratio:   study.Say("shock over wheel travel %.3f instead of %.3f", c.Now, c.Was),
			stance.Rate:    study.Say("spring {%.1f N/mm} instead of {%.1f N/mm}", c.Now, c.Was),
		}[c.Of]
		return study.Words{
			Short: study.Say("%s sag measured", map[bool]string{false: "front", true: "rear"}[rear]),
			What:  study.Say("%s sag was measured, and leads: computed with %s.", ends[rear].name, words),
			Why:   "What was known least gives way to what was measured.",
			Do:    "If the measurement was wrong, take it out on the bike's sheet.",
		}
	})
}

func sagDoubtful(f *facts.All, rear bool, e *facts.SpringEnd) (study.Finding, bool) {
	if !e.Doubtful {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s sag as measured does not go with its spring: preload, lever or rate would have to be far from what the sheet says.", ends[rear].name),
			Why:  "Either the measurement or the sheet is wrong; nothing is computed from it until one of them is mended.",
			Do:   "Measure again: wheel hanging, then you on it as you ride; push down, lift, take the middle. Then read the spring.",
		}
	})
}

func oneEndSprung(f *facts.All) (study.Finding, bool) {
	s := &f.Springs
	front, rear := s.Front.By != nil, s.Rear.By != nil
	if front == rear {
		return study.Finding{}, false
	}
	other, otherRear := &s.Rear, true
	if rear {
		other, otherRear = &s.Front, false
	}
	share := other.Share(other.LoadedMM)
	if !(share > other.Band.High+endsApart || share < other.Band.Low-endsApart) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return nextSpring(f, otherRear) },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("New springs at one end; the other sags %.0f %% of its travel, outside of %.0f–%.0f %%.", 100*share, 100*other.Band.Low, 100*other.Band.High),
				Why:  "One good end on one poor one pitches: the bike turns about the end that works.",
				Do:   "Preload there first; then springs for it too. They come from different shops, in different steps.",
			}
		},
	}, true
}

func airWithoutValves(f *facts.All) (study.Finding, bool) {
	if !(f.Springs.Front.End.Air.KPa > 0) || f.Built.Provides("fork-valves") {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return study.Providing(f, parts.ForkCaps, "fork-valves", "Fit %s") },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("{%.0f kPa} in a fork whose caps have no valves.", f.Springs.Front.End.Air.KPa),
				Why:  "It can neither be put in nor let out; what builds up by itself goes with the weather.",
				Do:   "Caps with valves, or take the pressure out of the plan.",
			}
		},
	}, true
}

func airHolds(f *facts.All) (study.Finding, bool) {
	air := f.Springs.Front.End.Air
	if !(air.KPa > airNotice) || !f.Built.Provides("fork-valves") {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: study.Say("{%.0f kPa} in the fork", air.KPa),
			What:  study.Say("{%.0f kPa} of air bear {%.0f N} from the first millimetre on, as preload does.", air.KPa, air.ForceN(f.Springs.Front.End.TravelMM, 0, stance.Slow)),
			Why:   "Seals suffer, and pressure grows with heat and height; the oil's level firms the end, not the beginning.",
			Do:    "Same in both legs, cold, wheel hanging, by a small pump. Springs are the lasting answer.",
		}
	})
}

func oilFirst(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("thicker-oil") {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: "Thicker fork oil, before anybody has asked how old the oil in it is.",
			Why:  "Old oil is thin oil: a fork that pumps under the brake is often only that. Thicker oil slows both ways, and harsh comes with it.",
			Do:   "Fresh oil of the maker's weight first, level by the manual. Note weight and level in the record.",
		}
	})
}

func dampingFollows(f *facts.All) (study.Finding, bool) {
	b := f.Built.Bike
	front := f.Springs.Front.By != nil || math.Abs(f.Springs.Front.End.PreloadMM-b.FrontPre.In("mm")) > dampNotice
	rear := f.Springs.Rear.By != nil || math.Abs(f.Springs.Rear.End.PreloadMM-b.RearPre.In("mm")) > dampNotice
	if !front && !rear {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "rebound follows",
			What:  "Spring or preload is not the sheet's: rebound is set for what was.",
			Why:   "More spring pushes back harder; too little rebound lets it kick.",
			Do:    "Count the clickers from fully in, note them, and give rebound a click or two for it. One change at a time.",
		}
	})
}

func unitUnproven(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, slot := range []parts.Slot{parts.Fork, parts.Shock} {
		if p := f.Built.Part(slot); p != nil && f.Built.Chosen(slot) && (p.Spring() != nil || p.MovesAny()) && !f.Plan.RodeLoaded(p) {
			names = append(names, p.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "a whole unit, unproven",
			What:  study.Say("Not ridden on this bike yet: %s.", study.Listed(names)),
			Why:   "New or another year's, a unit that fails does so early, and far out it ends the trip.",
			Do:    "A shakedown with the whole load before the trip; the old one stays on the shelf until after.",
		}
	})
}

func damperMount(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.SteeringDamper)
	if p == nil {
		return study.Finding{}, false
	}
	rise := p.Adds(parts.BarRise)
	return study.Found(verdict.Watch, func() study.Words {
		what := study.Say("%s sits on the steering head.", p.Name)
		if rise > 0 {
			what = study.Say("%s under the bar raises the grips by {%.0f mm}.", p.Name, rise)
		}
		return study.Words{
			What: what,
			Why:  "It calms wobble at speed and deflection in sand and rock. It hides a worn head bearing or a loose wheel as well.",
			Do:   "Full lock to both sides, cables loose, before the first ride; bearings first. Steering: the manual's torque, a competent mechanic.",
		}
	})
}

func firstUpper(s string) string { return string(s[0]-'a'+'A') + s[1:] }
