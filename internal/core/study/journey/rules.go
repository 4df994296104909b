package journey

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what is used up before home. They speak once the trip has begun and somebody has looked:
// before that the gauges do.

// underWay is how far it still is, km; ok is false before the first day, and where nobody has said how far the trip goes.
func underWay(f *facts.All) (toGo float64, ok bool) {
	trip := f.Plan.Brief.Distance.In("km")
	return f.Journey.ToGo(trip), trip > 0 && f.Journey.Km != 0
}

// roundKm is to what a distance before home is rounded.
const roundKm = 50

// short is by how far something ends before home, of a band; ok is false where even its low end lasts.
func short(toGo float64, f facts.Figured) (km float64, state verdict.State, ok bool) {
	switch {
	case !f.Known || !(f.Low < toGo) && !(f.Value < toGo):
		return 0, "", false
	case f.Value < toGo:
		return toGo - f.Value, verdict.Over, true
	}
	return toGo - f.Low, verdict.Watch, true
}

func rounded(km float64) float64 { return max(roundKm, float64(int(km/roundKm+0.5))*roundKm) }

func tyreEnds(f *facts.All) (study.Finding, bool) {
	j := &f.Journey
	toGo, ok := underWay(f)
	if !ok {
		return study.Finding{}, false
	}
	which, km, state := "", 0.0, verdict.State("")
	for _, t := range []struct {
		name   string
		treads facts.Treads
		life   figure.ID
	}{{"rear", j.Rear, figure.RearLife}, {"front", j.Front, figure.FrontLife}} {
		if t.treads.Our == 0 {
			continue
		}
		if by, s, ok := short(toGo, f.Figure(t.life)); ok && by > km {
			which, km, state = t.name, by, s
		}
	}
	if which == "" {
		return study.Finding{}, false
	}
	return study.FoundBy(km, 0, state, func() study.Words {
		words := study.Words{
			What: study.Say("The %s tyre ends about %.0f km before home.", which, rounded(km)),
			Why:  "By the depth of its tread on the way, and how fast that went down.",
			Do:   "Have one of its size sent to a place that lies ahead, or buy what there is in the next larger town; until then softer on the throttle, more road than stones, the pressure of the card.",
		}
		if state == verdict.Watch {
			words.What = study.Say("The %s tyre may end about %.0f km before home.", which, rounded(km))
			words.Do = "Read its depth again in some days: two readings far apart say most. Know where one of its size can be had."
		}
		return words
	})
}

func chainEnds(f *facts.All) (study.Finding, bool) {
	toGo, ok := underWay(f)
	if !ok || !(f.Journey.Chain.Spread > 0) {
		return study.Finding{}, false
	}
	km, state, ok := short(toGo, f.Figure(figure.ChainLeft))
	if !ok || state != verdict.Over {
		return study.Finding{}, false
	}
	return study.FoundBy(km, 0, state, func() study.Words {
		return study.Words{
			What: study.Say("At this rate the chain is done about %.0f km before home.", rounded(km)),
			Why:  "The axle moves back faster than usual: dirt, a dry chain, or hooked sprockets.",
			Do:   "Clean and oil it each evening; look at the sprockets' teeth; measure ten links. Know where a set can be had.",
		}
	})
}

// carriedL is how much oil somebody tops up without thinking [memory].
const carriedL = 0.5

func oilOnTheWay(f *facts.All) (study.Finding, bool) {
	toGo, ok := underWay(f)
	use := f.Figure(figure.OilUse)
	if !ok || !use.Known || !(f.Journey.Oil.Spread > 0) {
		return study.Finding{}, false
	}
	litres := use.Value / 1000 * toGo
	if litres <= carriedL {
		return study.Finding{}, false
	}
	return study.FoundBy(litres, carriedL, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("At this rate it takes %.1f L of oil more until home.", litres),
			Why:  "An engine that runs short of oil ends the trip.",
			Do:   "Look at the level each morning; carry a litre of the grade that the manual names, and buy the next before it is empty.",
		}
	})
}
