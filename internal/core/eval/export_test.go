package eval

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rules lists every rule in the order in which findings are shown.
func Rules() []study.Rule { return standard.rules }

// EachStep evaluates a loadout, and then runs each step again: once with everything
// known, once with nothing known but what it declares. It hands out what was known
// before, and after each of the two.
func EachStep(p *plan.Plan, shelf plan.Shelf, loadout string, hand func(step study.Step, before, after, alone *study.Run)) error {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return err
	}
	all := standard.run(standard.shared(of, "2026-11-26", shelf), l, standard.of, look{})
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

// EachReader asks each rule and need of a loadout: once with everything known, once with no
// group and no figure known but what it says that it reads.
func EachReader(p *plan.Plan, shelf plan.Shelf, loadout string, hand func(what string, known, alone any)) error {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return err
	}
	all := standard.run(standard.shared(of, "2026-11-26", shelf), l, standard.of, look{})
	alone := func(reads facts.Set, figures []figure.ID) *facts.All {
		r := copyOf(all)
		r.Forget(facts.Every &^ reads)
		for i := range r.Figures {
			if !slices.Contains(figures, r.Figures[i].ID) {
				r.Figures[i] = study.Begin(standard.rows[i], p.Currency)
			}
		}
		r.Figured = standard.figured(r.Figures)
		return r.All
	}
	type judgement struct {
		ok    bool
		state verdict.State
		aside string
	}
	for _, study := range Studies() {
		for _, rule := range study.Rules {
			one, said := rule.Judge(all.All)
			two, saidAlone := rule.Judge(alone(rule.Reads, rule.Figures))
			hand("rule "+rule.ID, judgement{said, one.State, one.Aside()}, judgement{saidAlone, two.State, two.Aside()})
		}
		if all.Risks == nil {
			continue
		}
		for _, need := range study.Needs {
			one, asked := need.Ask(all.All)
			two, askedAlone := need.Ask(alone(need.Reads, need.Figures))
			hand("need "+need.ID, [2]bool{asked, one.Met}, [2]bool{askedAlone, two.Met})
		}
	}
	return nil
}

func copyOf(r *study.Run) *study.Run {
	known, again := *r.All, *r
	again.All, again.Figures = &known, slices.Clone(r.Figures)
	return &again
}

// EachMove evaluates a plan, and then moves each of its guesses by itself to both ends. It
// hands out what figures and rules come to with what is downstream of its groups run again, and
// with everything.
func EachMove(p *plan.Plan, shelf plan.Shelf, loadout string, hand func(g *guess.Guess, some, all Moved)) error {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return err
	}
	report := standard.report(of, standard.shared(of, "2026-11-26", shelf), l)
	for i := range of.guesses {
		m := move{of.guesses[i : i+1], of.guesses[i].Enters}
		for _, at := range []float64{-1, 1} {
			some := standard.moved(&report, &m, at)
			then := of
			then.plan = guess.Moved(of.plan, m.guesses, at)
			whole := standard.report(then, standard.shared(then, "2026-11-26", shelf), &then.plan.Loadouts[slices.IndexFunc(then.plan.Loadouts, func(l plan.Loadout) bool { return l.ID == loadout })])
			says, found := make([]verdict.State, len(standard.rules)), whole.Findings
			for i := range says {
				if whole.spoke[i] {
					says[i], found = found[0].State, found[1:]
				}
			}
			hand(&of.guesses[i], Moved{some.figures, some.says}, Moved{whole.figures, says})
		}
	}
	return nil
}

// Moved is what a loadout comes to with a guess at one end.
type Moved struct {
	Figures []study.Figure
	Says    []verdict.State // of each rule, "" while it is silent
}
