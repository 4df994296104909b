package eval

import (
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/armour"
	"valiantmule/internal/core/study/bike"
	"valiantmule/internal/core/study/contact"
	"valiantmule/internal/core/study/electrics"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/study/inspection"
	"valiantmule/internal/core/study/journey"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/core/study/spend"
	"valiantmule/internal/core/study/stance"
	"valiantmule/internal/core/study/tyres"
)

// Studies are all there are, in the order in which their findings are shown: that of
// the work.
func Studies() []study.Study {
	return []study.Study{
		bike.Study, inspection.Study, tyres.Study, armour.Study, contact.Study, spend.Study,
		ranging.Study, loading.Study, gearing.Study, stance.Study, electrics.Study, ready.Study, journey.Study,
	}
}

// Program is the steps of studies in an order in which each finds what it needs,
// with the table of their figures.
type Program struct {
	rows  []*figure.Row
	table study.Table
	ofAll []study.Step // of the plan, run once for all its loadouts
	of    []study.Step // of a loadout
	rules []study.Rule
	needs []study.NeedRule
	// gauges is how many of the rows are on the strip; they come first.
	gauges int
}

// Compile orders the steps of studies, as a compiler orders its passes. Its errors
// name what does not fit together: a group of facts that nobody gives or that two
// give, a circle, a figure without a row or without a step.
func Compile(rows []*figure.Row, studies []study.Study) (*Program, error) {
	if err := figure.Check(rows); err != nil {
		return nil, err
	}
	p := &Program{rows: rows, table: study.Table{Place: make(map[figure.ID]int, len(rows)), By: make([]*study.Step, len(rows))}}
	for i, row := range rows {
		p.table.Place[row.ID] = i
		if row.Gauge {
			p.gauges = i + 1
		}
	}
	var steps []study.Step
	for _, s := range studies {
		steps = append(steps, s.Steps...)
		p.rules, p.needs = append(p.rules, s.Rules...), append(p.needs, s.Needs...)
	}
	steps = append(steps, p.counting(steps))
	if err := unique(p.rules, p.needs); err != nil {
		return nil, err
	}
	if err := givers(steps); err != nil {
		return nil, err
	}
	if err := p.readers(steps); err != nil {
		return nil, err
	}
	ordered, err := order(steps)
	if err != nil {
		return nil, err
	}
	for _, s := range ordered {
		if s.OfPlan {
			p.ofAll = append(p.ofAll, s)
		} else {
			p.of = append(p.of, s)
		}
	}
	return p, p.figures()
}

// mustCompile is Compile of what is known to fit together.
func mustCompile(rows []*figure.Row, studies []study.Study) *Program {
	p, err := Compile(rows, studies)
	if err != nil {
		panic(err)
	}
	return p
}

// unique looks for rules and needs that share an id, and for rules without a cause, or of a
// need that there is not.
func unique(rules []study.Rule, needs []study.NeedRule) error {
	seen := map[string]bool{}
	for _, r := range rules {
		if seen[r.ID] {
			return fmt.Errorf("two rules %q", r.ID)
		}
		if r.Cause.Rank() < 0 {
			return fmt.Errorf("rule %q has no cause of the table", r.ID)
		}
		if !r.Class.Valid() {
			return fmt.Errorf("rule %q has no class of what matters first", r.ID)
		}
		seen[r.ID] = true
	}
	clear(seen)
	for _, n := range needs {
		if seen[n.ID] {
			return fmt.Errorf("two needs %q", n.ID)
		}
		seen[n.ID] = true
	}
	for _, r := range rules {
		if r.Need != "" && !seen[r.Need] {
			return fmt.Errorf("rule %q is of the need %q, which there is not", r.ID, r.Need)
		}
	}
	return nil
}

// givers looks for groups that two steps give, and that a step needs and none gives.
func givers(steps []study.Step) error {
	by := map[facts.Set]string{}
	given, ofAll := facts.Inputs, facts.Inputs&^(facts.InLoadout|facts.InParts|facts.InTags|facts.InFigures)
	for _, s := range steps {
		for _, g := range s.Gives.Groups() {
			if other, twice := by[g]; twice {
				return fmt.Errorf("steps %q and %q both give %v", other, s.Name, g)
			}
			by[g] = s.Name
		}
		given |= s.Gives
		if s.OfPlan {
			ofAll |= s.Gives
		}
	}
	for _, s := range steps {
		if missing := s.Needs &^ given; missing != 0 {
			return fmt.Errorf("step %q needs %v, which no step gives", s.Name, missing)
		}
		if missing := s.Needs &^ ofAll; s.OfPlan && missing != 0 {
			return fmt.Errorf("step %q is of the plan and needs %v of a loadout", s.Name, missing)
		}
	}
	return nil
}

// readers looks for what rules and needs read and nobody gives or works out, and adds to
// what each reads the groups of the steps of its figures.
func (p *Program) readers(steps []study.Step) error {
	given := facts.Inputs
	by := map[figure.ID]facts.Set{}
	for _, s := range steps {
		given |= s.Gives
		for _, id := range s.Figures {
			by[id] = s.Needs | s.Gives
		}
	}
	read := func(what, id string, reads *facts.Set, figures []figure.ID) error {
		if missing := *reads &^ given; missing != 0 {
			return fmt.Errorf("%s %q reads %v, which no step gives", what, id, missing)
		}
		for _, f := range figures {
			if _, ok := p.table.Place[f]; !ok {
				return fmt.Errorf("%s %q reads the figure %q, which has no row", what, id, f)
			}
			*reads |= by[f]
		}
		return nil
	}
	for i := range p.rules {
		if err := read("rule", p.rules[i].ID, &p.rules[i].Reads, p.rules[i].Figures); err != nil {
			return err
		}
	}
	for i := range p.needs {
		if err := read("need", p.needs[i].ID, &p.needs[i].Reads, p.needs[i].Figures); err != nil {
			return err
		}
	}
	return nil
}

// order puts each step behind those that give what it needs; else the steps stay as
// they stand.
func order(steps []study.Step) ([]study.Step, error) {
	ordered, given := make([]study.Step, 0, len(steps)), facts.Inputs
	waiting := slices.Clone(steps)
	for len(waiting) > 0 {
		at := slices.IndexFunc(waiting, func(s study.Step) bool { return given.Has(s.Needs) })
		if at < 0 {
			names := make([]string, len(waiting))
			for i, s := range waiting {
				names[i] = s.Name
			}
			return nil, fmt.Errorf("steps that wait for one another in a circle: %q", names)
		}
		given |= waiting[at].Gives
		ordered = append(ordered, waiting[at])
		waiting = slices.Delete(waiting, at, at+1)
	}
	return ordered, nil
}

// figures says which step works each figure out.
func (p *Program) figures() error {
	for _, list := range [][]study.Step{p.ofAll, p.of} {
		for i := range list {
			s := &list[i]
			for _, id := range s.Figures {
				at, ok := p.table.Place[id]
				switch {
				case !ok:
					return fmt.Errorf("step %q works out %q, which has no row", s.Name, id)
				case s.OfPlan:
					return fmt.Errorf("step %q is of the plan: it cannot work out %q", s.Name, id)
				case p.table.By[at] != nil:
					return fmt.Errorf("steps %q and %q both work out %q", p.table.By[at].Name, s.Name, id)
				}
				p.table.By[at] = s
			}
		}
	}
	for i, row := range p.rows {
		if p.table.By[i] == nil {
			return fmt.Errorf("no step works out %q", row.ID)
		}
	}
	return nil
}

// counting is the step behind all others: how many needs are not met.
func (p *Program) counting(others []study.Step) study.Step {
	all := facts.Inputs
	for _, s := range others {
		all |= s.Gives
	}
	return study.Step{Name: "needs", Needs: all, Figures: []figure.ID{figure.Needs}, Run: p.countNeeds}
}

// upTo is the loadout's steps that lead to a step, and it.
func (p *Program) upTo(last *study.Step) []study.Step {
	needs := last.Needs
	var steps []study.Step
	for i := len(p.of) - 1; i >= 0; i-- {
		s := &p.of[i]
		if s != last && s.Gives&needs == 0 {
			continue
		}
		needs |= s.Needs
		steps = append(steps, *s)
	}
	slices.Reverse(steps)
	return steps
}

// shared finds what all loadouts of a plan have in common.
func (p *Program) shared(of filled, asOf string, shelf plan.Shelf) *facts.All {
	now := of.plan
	f := facts.Unknown()
	f.Plan, f.Guessed, f.AsOf, f.Shelf = now, of.guessed, asOf, shelf
	if now.Bike != nil {
		f.Standard = now.BuildStandard()
	}
	p.ofPlan(&f, facts.Every, 0)
	return &f
}

// ofPlan runs the plan's steps that need something that has changed, or that give some groups;
// it returns what has changed then.
func (p *Program) ofPlan(f *facts.All, changed, give facts.Set) facts.Set {
	run := study.Run{All: f, Table: &p.table}
	for i := range p.ofAll {
		s := &p.ofAll[i]
		if s.Needs&changed == 0 && s.Gives&give == 0 {
			continue
		}
		changed |= s.Gives
		f.Forget(s.Gives)
		if f.Plan.Bike != nil || !s.Needs.Has(facts.Bike) {
			run.Step = s
			s.Run(&run)
		}
	}
	return changed
}

// run evaluates a loadout by some of the steps.
func (p *Program) run(shared *facts.All, l *plan.Loadout, steps []study.Step, look look) *study.Run {
	f := *shared
	f.Loadout = l
	if f.Plan.Bike != nil {
		f.Built = f.BuiltFor(l.ID)
	}
	r := &study.Run{All: &f, Figures: make([]study.Figure, len(p.rows)), Table: &p.table, Wanted: look.wanted, Working: look.working}
	f.Figured = p.figured(r.Figures)
	for i, row := range p.rows {
		r.Figures[i] = study.Begin(row, f.Plan.Currency)
	}
	for i := range steps {
		p.step(r, &steps[i])
	}
	return r
}

// step runs one step; its figures wait for a bike where it needs one and there is none.
func (p *Program) step(r *study.Run, s *study.Step) {
	if r.Built != nil || !s.Needs.Has(facts.Bike) {
		r.Step = s
		s.Run(r)
		return
	}
	for _, id := range s.Figures {
		r.Figures[p.table.Place[id]].Waits("a bike (Bike)")
	}
}

// figured is how rules and needs read figures.
func (p *Program) figured(list []study.Figure) func(figure.ID) facts.Figured {
	return func(id figure.ID) facts.Figured {
		at, ok := p.table.Place[id]
		if !ok {
			panic(fmt.Sprintf("a rule or need reads the figure %q, which has no row", id))
		}
		f := &list[at]
		read := facts.Figured{Known: f.Known, Value: f.Or(math.NaN()), Limit: math.NaN(), State: f.State, Less: f.AtLeast(), Low: math.NaN(), High: math.NaN()}
		if f.Limited {
			read.Limit = f.Limit
		}
		if f.Banded {
			read.Low, read.High = f.Low, f.High
		}
		if f.Usual > 0 && f.Open() {
			read.Measure = f.Missing
		}
		return read
	}
}

// look is which figure's working somebody wants to see.
type look struct {
	wanted  figure.ID
	working *sheet.Sheet
}
