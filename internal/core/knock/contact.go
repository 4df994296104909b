package knock

import (
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

// Rows of where the rider touches the bike.

func cablesShort(f *Facts) (Finding, bool) {
	if !(f.BarRiseMM > 0) {
		return Finding{}, false
	}
	finding := Finding{
		Why: "At full lock a tight throttle cable opens the throttle, a tight hose pulls the brake on.",
		Do:  "Front wheel off the ground, full lock to both sides, engine running: it must not rev up. Longer cables and hoses, or less rise; brakes by a competent mechanic.",
	}
	switch short := fit.CableShortMM(f.BarRiseMM, f.CableSlackMM); {
	case math.IsNaN(f.CableSlackMM) && f.BarRiseMM > fit.UsualSlackMM:
		finding.State = verdict.Watch
		finding.What = say("The bars rise {%.0f mm}, and nobody has looked what the cables allow; {%.0f mm} usually go.", f.BarRiseMM, fit.UsualSlackMM)
	case short > 0:
		finding.State = verdict.Over
		finding.What = say("The bars rise {%.0f mm}; the cables allow {%.0f mm}.", f.BarRiseMM, f.CableSlackMM)
	default:
		return Finding{}, false
	}
	for _, slot := range []plan.Slot{plan.Risers, plan.Handlebar} {
		if p := f.Built.Part(slot); p != nil && f.Built.Chosen(slot) {
			finding.Remedies = append(finding.Remedies, Remedy{"Without " + p.Name, []plan.Choice{{Slot: slot}}})
		}
	}
	return finding, true
}

func kneesBent(f *Facts) (Finding, bool) {
	if !(f.KneeDegrees < fit.KneeLeast) {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("Seated, the knee is bent to %.0f°; below %.0f° it tires within the hour.", f.KneeDegrees, fit.KneeLeast),
		Why:      "A low seat and high pegs fold a long leg.",
		Do:       "Lower pegs, or a taller seat where the ground can still be reached. Sit on it for an hour first.",
		Remedies: offer(f, plan.Pegs, func(p *plan.Part) bool { return p.Adds(plan.PegDrop) > 0 && !f.Built.Chosen(plan.Pegs) }),
	}, true
}

func seatForTheHours(f *Facts) (Finding, bool) {
	if !(f.SeatedHours > f.SeatHours) {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("%.1f hours a day on a seat that does %.1f.", f.SeatedHours, f.SeatHours),
		Why:      "Beyond an hour a day the seat decides how the day ends; most standard ones are made for a test ride.",
		Do:       "Try the standard one first, for a whole day. Then foam or a cover before a new seat.",
		Remedies: offer(f, plan.Seat, func(p *plan.Part) bool { return p.Sets(plan.SeatHours) >= min(f.SeatedHours, 6) }),
	}, true
}

// standsMuch is from how many hours a day on the pegs their place is worth a word
// [memory].
const standsMuch = 0.5

func barsLow(f *Facts) (Finding, bool) {
	if !(f.BarShortMM > fit.StandTaste) || !(f.StandingHours > standsMuch) {
		return Finding{}, false
	}
	finding := Finding{
		State: verdict.Watch,
		What:  say("For %.1f hours a day on the pegs the bars are {%.0f mm} low.", f.StandingHours, f.BarShortMM),
		Why:   "A bent back steers with its arms and tires.",
		Do:    "Roll the bar forward first; then risers or a higher bar, not both. Lower pegs do the same for the knee as well.",
	}
	// The most rise that the cables allow.
	slack := f.CableSlackMM
	if math.IsNaN(slack) {
		slack = fit.UsualSlackMM
	}
	var best *plan.Part
	for _, p := range f.Shelf {
		rise := p.Adds(plan.BarRise)
		if (p.Slot == plan.Risers || p.Slot == plan.Handlebar) && rise > 0 && f.BarRiseMM+rise <= slack && f.Built.Fits(p) && !f.Built.Chosen(p.Slot) &&
			(best == nil || rise > best.Adds(plan.BarRise)) {
			best = p
		}
	}
	finding.Remedies = chooseOne(best, "%s")
	return finding, true
}

func screenInSight(f *Facts) (Finding, bool) {
	if !f.Built.Provides("tall-screen") || !(f.StandingHours > standsMuch) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("A tall screen stands in the sight line for the %.1f hours a day on the pegs.", f.StandingHours),
		Why:   "Off the road one looks over a screen, not through its mud; in a fall it is in front of the neck.",
		Do:    "One that ends below the eyes, comes off by hand, or is adjusted at the trail head.",
	}, true
}

func shakenPhone(f *Facts) (Finding, bool) {
	if !f.Built.Provides("shaken-camera") || f.Built.Provides("damped-mount") || f.Built.Provides("tower") {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     "A phone on a rigid mount: the engine shakes its camera to pieces.",
		Why:      "The lens floats on springs that were not made for it.",
		Do:       "A damped mount, or a cheap tablet.",
		Remedies: providing(f, plan.NavMount, "damped-mount", "%s"),
	}, true
}

func liveSocket(f *Facts) (Finding, bool) {
	if !f.Built.Provides("unswitched") {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     "The socket is live with the key out.",
		Why:      "What is forgotten in it empties the battery overnight.",
		Do:       "Through a relay on the running light, with its fuse at the battery.",
		Remedies: offer(f, plan.Socket, func(p *plan.Part) bool { return !slices.Contains(p.Provides, "unswitched") }),
	}, true
}

func gluedGrips(f *Facts) (Finding, bool) {
	if !f.Built.Chosen(plan.Grips) || f.Built.Provides("bolt-on-grips") {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  "New grips: the old one is often glued to its throttle tube, or cast on it.",
		Why:   "It comes off in pieces, and the tube with it.",
		Do:    "Look first, and order a tube with them. Let glue dry a night; a grip that turns is a throttle that does not.",
	}, true
}

func pegsDrag(f *Facts) (Finding, bool) {
	p := f.Built.Part(plan.Pegs)
	road := f.Plan.Brief.Mix().Road()
	if p == nil || !(p.Adds(plan.PegDrop) > 0) || !(road > openRoadShare) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("Lower pegs on a trip that is %.0f %% road: they touch down earlier in bends.", 100*road),
		Why:   "Wide low ones drag on tarmac, and catch in ruts.",
		Do:    "Know the lean at which they touch; leave room in fast bends.",
	}, true
}

func forTheWorkshop(f *Facts) (Finding, bool) {
	lines := f.Plan.Workshop()
	if len(lines) == 0 {
		return Finding{}, false
	}
	names := make([]string, len(lines))
	priced := true
	for i, l := range lines {
		names[i] = strings.TrimPrefix(l.Name, "Fit ")
		priced = priced && l.Amount.Known()
	}
	finding := Finding{
		State: verdict.Watch,
		What:  say("Beyond the tools that you have: %s.", listed(names)),
		Why:   "What is fitted wrong comes off where it hurts; wiring and structure most of all.",
		Do:    "A workshop, or somebody who does it for a living: ask for the date with the price. Or leave the part.",
	}
	if !priced {
		finding.Do += " The brief has no hourly rate, so the cost does not count it."
	}
	return finding, true
}

func doublePace(f *Facts) (Finding, bool) {
	if !f.Built.Provides("led-indicators") || f.Built.Provides("flasher") {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     "LED indicators on a flasher that senses load run at about double pace.",
		Why:      "60 to 120 flashes a minute are asked for (UN Regulations 53 and 6); the flasher takes the small load for a dead bulb.",
		Do:       "A load-independent flasher, or resistors that stay away from plastic.",
		Remedies: providing(f, plan.Indicators, "flasher", "%s"),
	}, true
}

func shortPlateHolder(f *Facts) (Finding, bool) {
	if !f.Built.Provides("short-plate") {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  "A short plate holder: plate light, reflector and the plate's angle have to be there still.",
		Why:   "Inspections fail without them, and bags may stand before the lamp.",
		Do:    "Look at it from behind at night with the bags on.",
	}, true
}

func towerAndBars(f *Facts) (Finding, bool) {
	if !f.Built.Provides("tower") || !(f.BarRiseMM > 0) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("A navigation tower, and bars that rise {%.0f mm}: guards and levers come near it at full lock.", f.BarRiseMM),
		Why:   "What touches there ends the steering's lock where it is needed, at walking pace.",
		Do:    "Full lock to both sides with everything on it, before the first ride; cables too.",
	}, true
}
