package stance

import (
	"math"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Rows of the side stand.

const (
	standNoticeMM = 6.0 // [practice]: the stand still holds, the bike stands steeper
	standSmallMM  = 12.0
)

func standTooShort(f *facts.All) (study.Finding, bool) {
	if !(f.Stood.ShortMM > standNoticeMM) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: f.Stood.ShortMM,
		Small: f.Stood.ShortMM <= standSmallMM,
		Offer: func() []study.Remedy {
			return standOf(f, func(p *parts.Part) bool { return p.Adds(parts.StandLength) > 0 })
		},
		Tell: func() study.Words {
			return study.Words{
				Short: study.Say("stand {%.0f mm} short", f.Stood.ShortMM),
				What:  study.Say("The bike stands {%.0f mm} higher than its side stand was made for.", f.Stood.ShortMM),
				Why:   "A taller bike leans further on its stand; with bags, on soft ground, it falls.",
				Do:    "Lengthen the stand or put a thicker foot on it, and mind its switch.",
			}
		},
	}, true
}

func standTooLong(f *facts.All) (study.Finding, bool) {
	if !(f.Stood.ShortMM < -standNoticeMM) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: -f.Stood.ShortMM,
		Offer: func() []study.Remedy {
			return standOf(f, func(p *parts.Part) bool { return p.Adds(parts.StandLength) < 0 })
		},
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("The side stand is {%.0f mm} too long for the lower bike.", -f.Stood.ShortMM),
				Why:  "It stands too upright: a gust, a bag put on, and it goes over to the other side.",
				Do:   "A shorter stand, or have it shortened by somebody who welds stands; mind its switch.",
			}
		},
	}, true
}

// standOf is the stand of a kind that leaves least of what is wrong.
func standOf(f *facts.All, likes func(*parts.Part) bool) []study.Remedy {
	var best *parts.Part
	now := f.Built.Figure(parts.StandLength)
	left := func(p *parts.Part) float64 { return math.Abs(f.Stood.ShortMM + now - p.Adds(parts.StandLength)) }
	for _, p := range f.Shelf {
		if p.Slot == parts.SideStand && likes(p) && f.Built.Goes(p) && left(p) <= standNoticeMM && (best == nil || left(p) < left(best)) {
			best = p
		}
	}
	return study.Take(best, "Fit %s")
}

func standLeans(f *facts.All) (study.Finding, bool) {
	lean := f.Stood.LeanDeg
	if !(lean > stance.StandLeanMost || lean < stance.StandLeanLeast) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		if lean < stance.StandLeanLeast {
			return study.Words{
				What: study.Say("Loaded and left it leans only %.1f° on its stand.", lean),
				Why:  "The load presses the springs, not the stand: so upright it is pushed over to the other side.",
				Do:   "Park with the stand on lower ground, nose uphill, in gear; preload set for the load brings it back.",
			}
		}
		return study.Words{
			What: study.Say("Loaded and left it leans %.1f° on its stand.", lean),
			Why:  "So far over it is heavy to lift, and a slope does the rest.",
			Do:   "A longer stand or a thicker foot; until then a stone under it.",
		}
	})
}

func standSinks(f *facts.All) (study.Finding, bool) {
	mix := f.Plan.Brief.Mix()
	var on stance.Bed
	for _, bed := range stance.Beds() { // the softest of the trip
		if bedShare(mix, bed) >= roughShare {
			on = bed
		}
	}
	if on.ID == "" || !(f.Stood.KPa > on.BearsKPa) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: f.Stood.KPa, Limit: on.BearsKPa,
		Day:   true,
		Offer: func() []study.Remedy { return widerFoot(f, on.BearsKPa) },
		Tell: func() study.Words {
			return study.Words{
				Short: study.Say("A plate under the stand on %s", strings.ToLower(on.Name)),
				What:  study.Say("{%.0f kPa} under the foot of the stand; %s bears about {%.0f kPa}.", f.Stood.KPa, strings.ToLower(on.Name), on.BearsKPa),
				Why:   "The foot sinks in, the bike leans after it, and it lies there while one takes the photograph.",
				Do:    "A wide foot, or a flat plate in the pocket for under it; a flattened tin or a flat stone will do.",
			}
		},
	}, true
}

// bedShare is how much of the trip lies on a kind of ground that a foot may sink into.
func bedShare(mix terrain.Mix, bed stance.Bed) float64 {
	switch bed.ID {
	case "gravel":
		return mix.Of(terrain.SmoothGravel) + mix.Of(terrain.RoughGravel)
	case "sand":
		return mix.Of(terrain.Sand)
	case "clay":
		return mix.Of(terrain.Mud)
	}
	return 0
}

// widerFoot is the cheapest foot, or else plate, under which the ground holds.
func widerFoot(f *facts.All, bearsKPa float64) []study.Remedy {
	holds := func(p *parts.Part) bool {
		const cm2 = 100
		return stance.FootKPa(f.Stood.ForceN, cm2*math.Max(p.Sets(parts.StandFoot), p.Sets(parts.StandPlate))) <= bearsKPa
	}
	if foot := study.Offer(f, parts.StandPlateSlot, holds); foot != nil {
		return foot
	}
	return study.Offer(f, parts.SideStand, holds)
}
