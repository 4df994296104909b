package tyres

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rows of what tread meets what ground, in what weather, and of the two ends against one
// another.

const (
	roadShareOff = 0.35 // of the trip's road share against the tyre's
	mudShareOff  = 0.10
	wetMudShare  = 0.05 // of mud and clay, from which rain decides [memory]
	wetRoadShare = 0.40 // of road, from which its wet grip counts [memory]
	roadTread    = 0.70 // road share of a tyre whose tread fills with mud
	blockTread   = 0.30 // road share of a tyre that lets go early on a wet road
	unlikeEnds   = 0.45 // between the road shares of the two ends [memory]
)

func againstGround(f *facts.All, slot parts.Slot) (study.Finding, bool) {
	t, mix := f.Built.Tyre(slot), f.Plan.Brief.Mix()
	if t == nil || !mix.Said() {
		return study.Finding{}, false
	}
	share, loose := roadShareOf(t), mix.Of(terrain.Mud)+mix.Of(terrain.Sand)
	var tell func() study.Words
	switch {
	case mix.Road()-share > roadShareOff:
		tell = func() study.Words {
			words := study.Words{
				What: study.Say("%.0f %% of the trip is road; the %s tyre is %s.", 100*mix.Road(), wheelName(slot), t.Kind),
				Why:  "Blocks let go early on tarmac, above all in the wet, and a large road share eats them.",
				Do:   "Take a tyre nearer to the road share.",
			}
			if mix.Loose() > 0 {
				words.Do = "Take a tyre nearer to the road share, or carry the soft ones and change them at the trail head."
			}
			return words
		}
	case share >= roadTread && loose > mudShareOff:
		tell = func() study.Words {
			words := study.Words{
				What: study.Say("%.0f %% of the trip is mud and sand; the %s tyre is %s.", 100*loose, wheelName(slot), t.Kind),
				Why:  "Road treads manage dry, flat gravel. They fill with mud and slide at once.",
				Do:   "Take an all-round or dirt-biased tyre, or ride round the wet parts.",
			}
			if slot == parts.FrontTyre {
				words.Why += " A front that slides is seldom caught."
			}
			return words
		}
	default:
		return study.Finding{}, false
	}
	return study.Finding{State: verdict.Watch, Tell: tell, Offer: func() []study.Remedy { return tyreNearer(f, slot, t, mix.Road()) }}, true
}

// wetGrip says what rain makes of a tyre's kind: road treads where there is mud, blocks
// where there is much road.
func wetGrip(f *facts.All, slot parts.Slot) (study.Finding, bool) {
	t, mix := f.Built.Tyre(slot), f.Plan.Brief.Mix()
	if t == nil || f.Plan.Brief.Weather != plan.Wet || !mix.Said() {
		return study.Finding{}, false
	}
	var tell func() study.Words
	switch share := roadShareOf(t); {
	case share >= roadTread && mix.Of(terrain.Mud) >= wetMudShare:
		tell = func() study.Words {
			return study.Words{
				What: study.Say("Rain, %.0f %% mud and clay, and a %s %s tyre.", 100*mix.Of(terrain.Mud), t.Kind, wheelName(slot)),
				Why:  "Wet clay fills a road tread within a turn of the wheel; polished hard dirt carries none when wet.",
				Do:   "A tyre with more block, and the pressure of the card; else wait until it dries, or go round.",
			}
		}
	case share > blockTread && mix.Of(terrain.Mud) > mudShareOff:
		tell = func() study.Words {
			return study.Words{
				What: study.Say("Rain, %.0f %% mud and clay, and an %s %s tyre.", 100*mix.Of(terrain.Mud), t.Kind, wheelName(slot)),
				Why:  "Half road, half block carries dry tracks; wet clay closes it.",
				Do:   "A dirt-biased tyre where so much of it is mud, or wait until it dries, or go round.",
			}
		}
	case share <= blockTread && mix.Road() >= wetRoadShare:
		tell = func() study.Words {
			return study.Words{
				What: study.Say("Rain, %.0f %% road, and a %s %s tyre.", 100*mix.Road(), t.Kind, wheelName(slot)),
				Why:  "Few blocks touch a wet road, and their rubber is hard: it brakes longer and lets go early.",
				Do:   "Slower and further apart in the wet, or a tyre with more road in it.",
			}
		}
	default:
		return study.Finding{}, false
	}
	return study.Finding{State: verdict.Watch, Tell: tell, Offer: func() []study.Remedy { return tyreNearer(f, slot, t, mix.Road()) }}, true
}

// endsUnlike speaks of two tyres that are made for different ground.
func endsUnlike(f *facts.All) (study.Finding, bool) {
	front, rear := f.Built.Tyre(parts.FrontTyre), f.Built.Tyre(parts.RearTyre)
	if front == nil || rear == nil {
		return study.Finding{}, false
	}
	ahead, behind := roadShareOf(front), roadShareOf(rear)
	if !(math.Abs(ahead-behind) > unlikeEnds) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Small: !f.Built.Bike.AntiLock,
		Offer: func() []study.Remedy { return tyreNearer(f, parts.FrontTyre, front, behind) },
		Tell: func() study.Words {
			words := study.Words{
				Short: study.Say("%s before %s", front.Kind, rear.Kind),
				What:  study.Say("In front %s, behind %s.", front.Kind, rear.Kind),
				Why:   "On the loose the front goes first, and it gives no notice.",
				Do:    "Bring the ends nearer to one another, more block in front than behind if they must differ.",
			}
			if ahead < behind {
				words.Why = "A little more block in front is usual; so much more lets the front go first on a wet road."
				words.Do = "Bring the ends nearer to one another, and find its limits in the wet slowly."
			}
			return words
		},
	}, true
}

func roadShareOf(t *parts.Tyre) float64 {
	c, _ := tyre.CharacterOf(t.Kind)
	return c.RoadShare
}

// tyreNearer offers the tyre whose kind suits the road share best, nearest in size to the
// one it replaces.
func tyreNearer(f *facts.All, slot parts.Slot, t *parts.Tyre, road float64) []study.Remedy {
	var best *parts.Part
	bestOff := math.Inf(1)
	for _, p := range f.Shelf {
		if p.Slot != slot || parts.TyreCode.In(p).RimIn != t.Size.RimIn {
			continue
		}
		off := math.Abs(roadShareOf(p.Tyre())-min(road, 0.6)) + math.Abs(p.Tyre().CircumferenceMM()/t.CircumferenceMM()-1)
		if p.Tyre().Kind != t.Kind && off < bestOff {
			best, bestOff = p, off
		}
	}
	return study.Take(best, "Take %s, nearer to your ground")
}
