package contact

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of where the rider touches the bike.

func cablesShort(f *facts.All) (study.Finding, bool) {
	rise := f.Contact.BarRiseMM
	slack, unsaid := cableSlack(f)
	if !(rise > 0) || !(fit.CableShortMM(rise, slack) > 0) {
		return study.Finding{}, false
	}
	state := verdict.Watch // until somebody has looked, at full lock
	if by := f.Standard.Bike.OriginOf("cable_slack"); by == sheet.Measured || by == sheet.Rider {
		state = verdict.Over
	}
	return study.Finding{
		State: state,
		Value: rise, Limit: slack,
		Offer: func() []study.Remedy {
			longer := study.Offer(f, parts.Cables, func(p *parts.Part) bool { return slack+p.Adds(parts.CableSlack) >= rise })
			return append(longer, withoutRise(f)...)
		},
		Tell: func() study.Words {
			words := study.Words{
				What: study.Say("The bars rise {%.0f mm}; the cables allow {%.0f mm}.", rise, slack),
				Why:  "At full lock a tight throttle cable opens the throttle, a tight hose pulls the brake on.",
				Do:   "Front wheel off the ground, full lock to both sides, engine running: it must not rev up. Longer cables and hoses, or less rise; brakes by a competent mechanic.",
			}
			if unsaid {
				words.What = study.Say("The bars rise {%.0f mm}, and nobody has looked what the cables allow; {%.0f mm} usually go.", rise, slack)
			}
			return words
		},
	}, true
}

// cableSlack is how far the cables let the bars rise, mm: as is usual where nobody has said.
func cableSlack(f *facts.All) (mm float64, unsaid bool) {
	if mm = f.Contact.CableSlackMM; math.IsNaN(mm) {
		return fit.UsualSlackMM, true
	}
	return mm, false
}

// withoutRise leaves out what raises the bars.
func withoutRise(f *facts.All) []study.Remedy {
	var remedies []study.Remedy
	for _, fitted := range f.Built.Fitted {
		if fitted.Chosen && (fitted.Slot == parts.Risers || fitted.Slot == parts.Handlebar) {
			remedies = append(remedies, study.Without(fitted))
		}
	}
	return remedies
}

func kneesBent(f *facts.All) (study.Finding, bool) {
	if !(f.Contact.KneeDegrees < fit.KneeLeast) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: f.Contact.KneeDegrees, Limit: fit.KneeLeast,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.Pegs, func(p *parts.Part) bool {
				drop := p.Adds(parts.PegDrop)
				return drop > 0 && !f.Built.Chosen(parts.Pegs) && !(fit.KneeDegrees(f.Plan.Brief.Inseam.In("mm"), f.Contact.SeatOverPegMM+drop, f.Built.Bike.PegAheadMM()) < fit.KneeLeast)
			})
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("Seated, the knee is bent to %.0f°; below %.0f° most want more room for it.", f.Contact.KneeDegrees, fit.KneeLeast),
				Why:  "A low seat and high pegs fold a long leg.",
				Do:   "Lower pegs, or a taller seat where the ground can still be reached. Sit on it for an hour first.",
			}
		},
	}, true
}

func seatForTheHours(f *facts.All) (study.Finding, bool) {
	if !(f.Contact.SeatedHours > f.Contact.SeatHours) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: f.Contact.SeatedHours, Limit: f.Contact.SeatHours,
		Small: !sat(f.Plan),
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.Seat, func(p *parts.Part) bool { return p.Sets(parts.SeatHours) >= min(f.Contact.SeatedHours, 6) })
		},
		Tell: func() study.Words {
			return study.Words{
				Short: study.Say("%.1f h a day on a seat for %.1f", f.Contact.SeatedHours, f.Contact.SeatHours),
				What:  study.Say("%.1f hours a day on a seat that does %.1f.", f.Contact.SeatedHours, f.Contact.SeatHours),
				Why:   "Beyond an hour a day the seat decides how the day ends; most standard ones are made for a test ride.",
				Do:    "Try the standard one first, for a whole day. Then foam or a cover before a new seat.",
			}
		},
	}, true
}

// sat reports whether somebody has sat on it long enough to say: a fill is in the log, or the
// seat was named where it hurts. Feared seats prove bearable more often than not.
func sat(p *plan.Plan) bool {
	return len(p.TrialsOf("seat")) > 0 || logbook.Stands(p.Readings, logbook.FillReading, p.Bike.ID)
}

// standsMuch is from how many hours a day on the pegs their place is worth a word
// [memory].
const standsMuch = 0.5

// dragsFromRoad is the share of road from which pegs that touch down matter [memory].
const dragsFromRoad = 0.5

func barsLow(f *facts.All) (study.Finding, bool) {
	if !(f.Contact.BarShortMM > fit.StandTaste) || !(f.Contact.StandingHours > standsMuch) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: f.Contact.BarShortMM,
		Offer: func() []study.Remedy { return higherGrips(f) },
		Tell: func() study.Words {
			most := raisable(f)
			words := study.Words{
				What: study.Say("For %.1f hours a day on the pegs the bars are {%.0f mm} low.", f.Contact.StandingHours, f.Contact.BarShortMM),
				Why:  "A bent back steers with its arms and tires.",
				Do:   study.Say("Roll the bar forward first; then {%.0f mm} by risers or a higher bar, not both.", math.Min(f.Contact.BarShortMM, most)),
			}
			if most < 1 {
				words.Do = "Roll the bar forward: higher it is too high to sit behind."
			}
			switch left := f.Contact.BarShortMM - most; {
			case left > fit.LowerMostMM:
				words.Do += study.Say(" Lower pegs do {%.0f mm} more; then {%.0f mm} are still missing: it will not fit you, or is stood on with bent knees.", fit.LowerMostMM, left-fit.LowerMostMM)
			case left > 0:
				words.Do += study.Say(" Lower pegs do the other {%.0f mm}.", left)
			}
			return words
		},
	}, true
}

// raisable is by how much the bars may still rise, mm: no more than one can sit behind, by
// practice and by the rider's own back.
func raisable(f *facts.All) float64 {
	most := fit.StandMostMM - f.Contact.BarRiseMM
	if upright := f.Body.RiseMostMM; !math.IsNaN(upright) {
		most = math.Min(most, upright)
	}
	return math.Max(0, most)
}

// higherGrips offers what brings the grips high enough: a bar or risers, as far as the cables
// allow and one can still sit behind, or with them lower pegs; nothing where both do not do it.
func higherGrips(f *facts.All) []study.Remedy {
	short := f.Contact.BarShortMM - fit.StandTaste
	var way []*parts.Part
	if bar := higherBar(f); bar != nil {
		way, short = append(way, bar), short-bar.Adds(parts.BarRise)
	}
	if pegs := lowerPegs(f); short > 0 && pegs != nil {
		way, short = append(way, pegs), short-pegs.Adds(parts.PegDrop)
	}
	if short > 0 {
		return nil
	}
	return study.Together(way, nil)
}

// higherBar is the most rise that the cables allow and one can still sit behind, nil for none.
func higherBar(f *facts.All) *parts.Part {
	slack, _ := cableSlack(f)
	most := math.Min(slack-f.Contact.BarRiseMM, raisable(f))
	var best *parts.Part
	for _, p := range f.Shelf {
		rise := p.Adds(parts.BarRise)
		if (p.Slot == parts.Risers || p.Slot == parts.Handlebar) && rise > 0 && rise <= most && f.Built.Fits(p) && !f.Built.Chosen(p.Slot) &&
			(best == nil || rise > best.Adds(parts.BarRise)) {
			best = p
		}
	}
	return best
}

// lowerPegs are the lowest that still do no harm, nil for none.
func lowerPegs(f *facts.All) *parts.Part {
	var best *parts.Part
	for _, p := range f.Shelf {
		drop := p.Adds(parts.PegDrop)
		if p.Slot == parts.Pegs && drop > 0 && drop <= fit.LowerMostMM && f.Built.Goes(p) && !f.Built.Chosen(parts.Pegs) &&
			(best == nil || drop > best.Adds(parts.PegDrop)) {
			best = p
		}
	}
	return best
}

func screenInSight(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("tall-screen") || !(f.Contact.StandingHours > standsMuch) {
		return study.Finding{}, false
	}
	return study.FoundBy(f.Contact.StandingHours, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("A tall screen stands in the sight line for the %.1f hours a day on the pegs.", f.Contact.StandingHours),
			Why:  "Off the road one looks over a screen, not through its mud; in a fall it is in front of the neck.",
			Do:   "One that ends below the eyes, comes off by hand, or is adjusted at the trail head.",
		}
	})
}

func shakenPhone(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("shaken-camera") || f.Built.Provides("damped-mount") || f.Built.Provides("tower") {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Offer: func() []study.Remedy { return study.Providing(f, parts.NavMount, "damped-mount", "%s") },
		Tell: func() study.Words {
			return study.Words{
				What: "A phone on a rigid mount: the engine shakes its camera to pieces.",
				Why:  "The lens floats on springs that were not made for it.",
				Do:   "A damped mount, or a cheap tablet.",
			}
		},
	}, true
}

func liveSocket(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("unswitched") {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Day:   true,
		Offer: func() []study.Remedy {
			return study.Offer(f, parts.Socket, func(p *parts.Part) bool { return !slices.Contains(p.Provides, "unswitched") })
		},
		Tell: func() study.Words {
			return study.Words{
				Short: "Nothing left in the live socket overnight",
				What:  "The socket is live with the key out.",
				Why:   "What is forgotten in it empties the battery overnight.",
				Do:    "Through a relay on the running light, with its fuse at the battery.",
			}
		},
	}, true
}

func gluedGrips(f *facts.All) (study.Finding, bool) {
	if !f.Built.Chosen(parts.Grips) || f.Built.On(parts.Grips) || f.Built.Provides("bolt-on-grips") || f.Built.Provides("grip-sleeves") || f.Built.Provides("with-tube") {
		return study.Finding{}, false // what is fitted is fitted
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: "old grips glued",
			What:  "New grips: the old one is often glued to its throttle tube, or cast on it.",
			Why:   "It comes off in pieces, and the tube with it.",
			Do:    "Look first, and order a tube with them. Let glue dry a night; a grip that turns is a throttle that does not.",
		}
	})
}

// soonerDeg is from how much less lean pegs that touch down are worth a word [memory].
const soonerDeg = 1.0

func pegsDrag(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.Pegs)
	road := f.Plan.Brief.Mix().Road()
	sooner := f.Contact.PegSoonerDeg
	blind := math.IsNaN(sooner) && p != nil && p.Adds(parts.PegDrop)+p.Adds(parts.PegOut) > 0
	if !(sooner > soonerDeg) && !blind || !(road > dragsFromRoad) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		words := study.Words{
			What: study.Say("The pegs touch down %.0f° earlier in bends than the standard ones, at about %.0f°; the trip is %.0f %% road.", sooner, f.Contact.PegLeanDeg, 100*road),
			Why:  "Wide low ones drag on tarmac, and catch in ruts.",
			Do:   "Know the lean at which they touch; leave room in fast bends.",
		}
		if blind {
			words.What = study.Say("Lower or longer pegs on a trip that is %.0f %% road: they touch down earlier in bends.", 100*road)
		}
		return words
	})
}

func towerAndBars(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("tower") || !(f.Contact.BarRiseMM > 0) {
		return study.Finding{}, false
	}
	return study.FoundBy(f.Contact.BarRiseMM, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("A navigation tower, and bars that rise {%.0f mm}: guards and levers come near it at full lock.", f.Contact.BarRiseMM),
			Why:  "What touches there ends the steering's lock where it is needed, at walking pace.",
			Do:   "Full lock to both sides with everything on it, before the first ride; cables too.",
		}
	})
}

// longBootMM is the boot for which standard levers are set too close [memory].
const longBootMM = 310.0

func bootsAndLevers(f *facts.All) (study.Finding, bool) {
	boot := f.Plan.Brief.Boot.In("mm")
	if !(boot > longBootMM) || f.Built.Chosen(parts.ShiftLever) {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: study.Say("boots {%.0f mm} long", boot),
			What:  study.Say("Boots of {%.0f mm} on a shift lever that is set for a shoe.", boot),
			Why:   "The toe does not find under it, or lies on it and shifts by itself.",
			Do:    "A spline up or forward first, which is free; then a longer one.",
		}
	})
}
