package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of how high the bike stands.

const (
	seatNoticeMM  = 5.0
	seatSmallMM   = 15.0 // [practice]: within what a boot's sole makes
	standNoticeMM = 6.0  // [practice]: the stand still holds, the bike stands steeper
	standSmallMM  = 12.0
	rakeNotice    = 0.4  // degrees
	scarce        = 1.05 // of the room that the ground asks for: there is no more than that
)

func outOfReach(f *facts.All) (study.Finding, bool) {
	if !figure.Past(f.Reach.MM, f.Reach.WishMM, 0) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		return study.Words{
			What: study.Say("Heels {%.0f mm} up at a stop: %s on the ground; the brief wants {%.0f mm} at most.", f.Reach.MM, fit.FeetAt(f.Reach.MM), f.Reach.WishMM),
			Why:  "Some ride happily on tiptoe, others sell a tall seat within a month. Slow rock, slopes and bags decide.",
			Do:   "Sit on it in your boots where you would stop. A low seat keeps the travel; links cost clearance.",
		}
	})
}

func roomShort(f *facts.All) (study.Finding, bool) {
	state := verdict.Watch
	switch {
	case !(f.Room.MM < scarce*f.Room.WishMM):
		return study.Finding{}, false
	case f.Room.MM < f.Room.WishMM:
		state = verdict.Over
	}
	return study.Found(state, func() study.Words {
		return study.Words{
			What: study.Say("{%.0f mm} under the engine with the rider on; this ground asks for {%.0f mm}.", f.Room.MM, f.Room.WishMM),
			Why:  "Sump, header and frame rails take what the tyres roll over.",
			Do:   "A skid plate and another line; springs for your mass keep what there is. Longer legs are another bike.",
		}
	})
}

func seatHeight(f *facts.All) (study.Finding, bool) {
	if !(math.Abs(f.Heights.SeatRiseMM) > seatNoticeMM) {
		return study.Finding{}, false
	}
	told := func() study.Words {
		short := study.Say("seat {%s mm}", study.Signed(f.Heights.SeatRiseMM, 0))
		if f.Heights.SeatRiseMM < 0 {
			return study.Words{
				Short: short,
				What:  study.Say("The tyres lower the seat by {%.0f mm}.", -f.Heights.SeatRiseMM),
				Why:   "The engine comes down with it: less room over rock, and the stand may hold the bike too upright.",
				Do:    "Measure the clearance under the engine with the rider on.",
			}
		}
		return study.Words{
			Short: short,
			What:  study.Say("The tyres raise the seat by {%.0f mm}.", f.Heights.SeatRiseMM),
			Why:   "Half of what the diameter grows goes into the height: feet reach less far.",
			Do:    "Sit on it in boots, on the kind of ground where you will stop.",
		}
	}
	if math.Abs(f.Heights.SeatRiseMM) <= seatSmallMM {
		return study.Noted(told)
	}
	return study.Found(verdict.Watch, told)
}

func standTooShort(f *facts.All) (study.Finding, bool) {
	if !(f.Heights.StandShortMM > standNoticeMM) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Small: f.Heights.StandShortMM <= standSmallMM,
		Offer: func() []study.Remedy { return longerStand(f) },
		Tell: func() study.Words {
			return study.Words{
				Short: study.Say("stand {%.0f mm} short", f.Heights.StandShortMM),
				What:  study.Say("The bike stands {%.0f mm} higher than its side stand was made for.", f.Heights.StandShortMM),
				Why:   "A taller bike leans further on its stand; with bags, on soft ground, it falls.",
				Do:    "Lengthen the stand or put a thicker foot on it, and mind its switch.",
			}
		},
	}, true
}

func longerStand(f *facts.All) []study.Remedy {
	var best *plan.Part
	for _, p := range f.Shelf {
		if p.Slot == plan.SideStand && f.Built.Fits(p) && f.Heights.StandShortMM-p.Adds(plan.StandLength) <= standNoticeMM &&
			(best == nil || p.Adds(plan.StandLength) < best.Adds(plan.StandLength)) {
			best = p
		}
	}
	return study.Take(best, "Fit %s")
}

func rake(f *facts.All) (study.Finding, bool) {
	if !(math.Abs(f.Heights.RakeDegrees) > rakeNotice) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		how, why := "steeper", study.Text("Trail falls with it: quicker steering, less steady at speed and in sand.")
		if f.Heights.RakeDegrees < 0 {
			how, why = "flatter", "Trail grows with it: steadier, slower to turn."
		}
		return study.Words{
			What: study.Say("One end is higher than the other by more than before: the steering head is %.1f° %s.", math.Abs(f.Heights.RakeDegrees), how),
			Why:  why + " The headlamp's aim moves too.",
			Do:   "Balance the other end, or slide the fork in its clamps within the maker's marks; then aim the lamp.",
		}
	})
}
