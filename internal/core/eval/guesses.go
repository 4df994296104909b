package eval

import (
	"cmp"
	"math"
	"reflect"
	"slices"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Guess is what stands in for something that nobody has said, and what hangs on it.
type Guess struct {
	guess.Guess
	Turns []Turn // that it could make, gauges first
}

// Turn is a gauge that stands otherwise, or a finding that speaks or falls silent, where a guess
// is at an end of its band.
type Turn struct {
	Figure *figure.Row // nil of a finding
	Rule   *study.Rule // nil of a gauge
}

// ToMeasure are guesses by what could turn for each minute that it takes to find them out, the
// most first; those that could turn nothing keep the order of the table behind them.
func ToMeasure(guesses []Guess) []Guess {
	list := slices.Clone(guesses)
	worth := func(g *Guess) float64 { return float64(len(g.Turns)) / math.Max(1, g.Minutes) }
	slices.SortStableFunc(list, func(a, b Guess) int { return cmp.Compare(worth(&b), worth(&a)) })
	return list
}

// filled is a plan with what is guessed of it.
type filled struct {
	loadout   string     // that it is ridden in
	raw, plan *plan.Plan // as it is ridden then
	guesses   []guess.Guess
	guessed   map[string]bool
}

func fill(p *plan.Plan, loadout string) filled {
	of := filled{loadout: loadout, raw: p.RiddenIn(loadout)}
	of.plan, of.guesses = guess.Fill(of.raw)
	if len(of.guesses) > 0 {
		of.guessed = make(map[string]bool, len(of.guesses))
		for i := range of.guesses {
			of.guessed[of.guesses[i].At] = true
		}
	}
	return of
}

// again is a change of the plan with the same guesses where bike and brief are the same: one
// made of the plan as the rider has it, or of the one with the guesses in it.
func (of *filled) again(now *plan.Plan) filled {
	now = now.RiddenIn(of.loadout)
	if !alike(now, of.raw) && !alike(now, of.plan) || now.Guesses != of.raw.Guesses {
		return of.elsewhere(now)
	}
	again := *of
	again.raw, again.plan = now, now
	if len(of.guesses) > 0 {
		changed := *now
		changed.Bike, changed.Brief, changed.Loadouts = of.plan.Bike, of.plan.Brief, of.plan.Loadouts
		again.plan = &changed
	}
	return again
}

// alike reports whether two plans have the same of all that guesses are made from and of.
func alike(a, b *plan.Plan) bool {
	return a.Bike == b.Bike && a.Like == b.Like && shared(a.Loadouts, b.Loadouts) && reflect.DeepEqual(&a.Brief, &b.Brief)
}

// elsewhere is a plan with another brief or bike. A bike that is guessed alike stays the same
// one, so that only what reads the brief is worked out again.
func (of *filled) elsewhere(now *plan.Plan) filled {
	then := fill(now, of.loadout)
	if now.Bike == of.raw.Bike && then.plan.Bike != of.plan.Bike && reflect.DeepEqual(then.plan.Bike, of.plan.Bike) {
		changed := *then.plan
		changed.Bike = of.plan.Bike
		then.plan = &changed
	}
	return then
}
