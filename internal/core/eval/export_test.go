package eval

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Rules lists every rule in the order in which findings are shown.
func Rules() []study.Rule { return standard.rules }

// EachStep evaluates a loadout, and then runs each step again: once with everything
// known, once with nothing known but what it declares. It hands out what was known
// before, and after each of the two.
func EachStep(p *plan.Plan, shelf plan.Shelf, loadout string, hand func(step study.Step, before, after, alone *study.Run)) error {
	l, err := p.Loadout(loadout)
	if err != nil {
		return err
	}
	all := standard.run(standard.shared(p, "2026-11-26", shelf, nil), l, standard.of, look{})
	for _, s := range slices.Concat(standard.ofAll, standard.of) {
		before := copyOf(all)
		before.Step = &s
		before.Forget(s.Gives)
		for _, id := range s.Figures {
			at := standard.table.Place[id]
			before.Figures[at] = study.Begin(standard.rows[at], p.Currency)
		}
		after, alone := copyOf(before), copyOf(before)
		s.Run(after)
		alone.Forget(facts.Every &^ s.Needs)
		for i, by := range standard.table.By {
			if by != nil && by.Gives&s.Needs == 0 {
				alone.Figures[i] = study.Begin(standard.rows[i], p.Currency)
			}
		}
		s.Run(alone)
		hand(s, before, after, alone)
	}
	return nil
}

func copyOf(r *study.Run) *study.Run {
	known, again := *r.All, *r
	again.All, again.Figures = &known, slices.Clone(r.Figures)
	return &again
}
