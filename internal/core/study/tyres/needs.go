package tyres

import (
	"math"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
)

// From how much on a brief asks for tyres [practice where the handbook of the trade
// says so, else memory].
const (
	looseShare   = 0.3 // of the distance
	tyreRoadMost = 0.6 // road share of a tyre that is for loose ground
	mendFromKm   = 300.0
)

func tyresForTheGround(f *facts.All) (n study.Need, ok bool) {
	loose := f.Plan.Brief.Mix().Loose()
	if !(loose >= looseShare) {
		return n, false
	}
	met := roadShare(f.Built) <= math.Max(tyreRoadMost, 1-loose+0.15)
	tell := func() study.Answer {
		a := study.Answer{Because: study.Say("%.0f %% of the trip is off the road.", 100*loose), Bare: rearTyre(f.Standard), Fitted: rearTyre(f.Built)}
		if !met {
			a.Short = "a tyre with more block"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}

// roadShare is what of the road the rear tyre is made for, NaN when nobody has named
// it.
func roadShare(b *plan.Built) float64 {
	t := b.Tyre(parts.RearTyre)
	if t == nil {
		return math.NaN()
	}
	return roadShareOf(t)
}

func rearTyre(b *plan.Built) study.Text {
	t := b.Tyre(parts.RearTyre)
	if t == nil {
		return "a rear tyre that nobody has named"
	}
	c, _ := tyre.CharacterOf(t.Kind)
	return study.Say("%s, made for %.0f %% road", strings.ToLower(c.Name), 100*c.RoadShare)
}

func mendAFlat(f *facts.All) (n study.Need, ok bool) {
	km := f.Plan.Brief.Distance.In("km")
	if !(km >= mendFromKm) {
		return n, false
	}
	kit := f.Built.Part(parts.TyreKit)
	met := kit != nil
	tell := func() study.Answer {
		a := study.Answer{Because: study.Say("{%.0f km}, and help is not everywhere.", km), Bare: "nothing", Fitted: "nothing"}
		if met {
			a.Fitted = study.Text(kit.Name)
		} else {
			a.Short = "irons or plugs, and air"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}
