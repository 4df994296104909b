package eval

import (
	"math"
	"slices"
	"sync"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Bench is a plan in one loadout with what all alternatives are held against: the
// report before, and what a change of the plan mostly leaves as it was.
type Bench struct {
	plain   LoadoutReport // by the guesses as they are
	whole   LoadoutReport // with their bands, once somebody looks
	once    sync.Once
	program *Program
}

// NewBench evaluates a plan in a loadout as of a day. The shelf may be nil.
func NewBench(p *plan.Plan, shelf plan.Shelf, loadout, asOf string) (*Bench, error) {
	return standard.NewBench(p, shelf, loadout, asOf)
}

// NewBench is [NewBench] by this program.
func (pr *Program) NewBench(p *plan.Plan, shelf plan.Shelf, loadout, asOf string) (*Bench, error) {
	of := fill(p, loadout)
	l, err := of.plan.Loadout(loadout)
	if err != nil {
		return nil, err
	}
	return &Bench{plain: pr.report(of, pr.shared(of, asOf, shelf), l), program: pr}, nil
}

// Report is the plan's own.
func (b *Bench) Report() *LoadoutReport {
	b.once.Do(func() {
		b.whole = b.plain
		b.program.widen(&b.whole)
	})
	return &b.whole
}

// Plain is the plan's own by the guesses as they are, without their bands: for who only writes.
func (b *Bench) Plain() *LoadoutReport { return &b.plain }

// Evaluate is the report of a change of the plan in the bench's loadout, with the bands of the
// plan moved along.
func (b *Bench) Evaluate(p *plan.Plan) (*LoadoutReport, error) {
	report, err := b.evaluate(p)
	if err == nil && report != b.Report() {
		report.shift(b.Report())
	}
	return report, err
}

func (b *Bench) evaluate(p *plan.Plan) (*LoadoutReport, error) {
	if p == b.plain.Plan {
		return b.Report(), nil
	}
	of := b.plain.of.again(p)
	l, err := of.plan.Loadout(b.plain.ID)
	if err != nil {
		return nil, err
	}
	report := b.program.again(&b.plain, of, l)
	return &report, nil
}

// Alternative is something a rider points at before choosing it, as the plan it
// would make: parts chosen by [plan.Plan.With], a brief as typed, another bike.
type Alternative struct {
	Label string
	Plan  *plan.Plan
}

// Difference is what an alternative would do to the plan in one loadout.
type Difference struct {
	Alternative Alternative
	After       *LoadoutReport
	Moves       []Move // figures that change, gauges first
	Appear      []study.Finding
	Vanish      []study.Finding // that it settles
	Unseen      []study.Finding // that nobody can judge any more: a number went missing
	Stay        []study.Finding // as they would read then
}

// Move is a figure before and after, as the two reports have it.
type Move struct{ Before, After *study.Figure }

// Delta is what the figure moves by; ok is false when one side is unknown.
func (m Move) Delta() (delta float64, ok bool) {
	return m.After.Value - m.Before.Value, m.Before.Known && m.After.Known
}

// Preview holds each alternative against the plan.
func (b *Bench) Preview(alternatives ...Alternative) ([]Difference, error) {
	differences, failed := make([]Difference, len(alternatives)), make([]error, len(alternatives))
	each(len(alternatives), func(i int) {
		after, err := b.Evaluate(alternatives[i].Plan)
		if err != nil {
			failed[i] = err
			return
		}
		differences[i] = b.program.compare(b.Report(), after)
		differences[i].Alternative = alternatives[i]
	})
	for _, err := range failed {
		if err != nil {
			return nil, err
		}
	}
	return differences, nil
}

// Lay holds one alternative against the plan as [Bench.Preview] does, with the bands of its own
// guesses worked out: what it stands on then, and not what the plan stood on before.
func (b *Bench) Lay(alternative Alternative) (Difference, error) {
	after, err := b.evaluate(alternative.Plan)
	if err != nil {
		return Difference{}, err
	}
	if after != b.Report() {
		b.program.widen(after)
	}
	d := b.program.compare(b.Report(), after)
	d.Alternative = alternative
	return d, nil
}

// Hangs are the guesses that decide how a gauge stands that moves, each once: what is measured
// before the alternative is bought.
func (d *Difference) Hangs() []Guess {
	var list []Guess
	for _, m := range d.Moves {
		if !m.After.Gauge || !m.After.Between {
			continue
		}
		for _, what := range m.After.Missing {
			at := slices.IndexFunc(d.After.Guesses, func(g Guess) bool { return g.Name == what })
			if at >= 0 && !slices.ContainsFunc(list, func(g Guess) bool { return g.Name == what }) {
				list = append(list, d.After.Guesses[at])
			}
		}
	}
	return ToMeasure(list)
}

// compare pairs figures by their place in the one table that both reports have. What a rule
// no longer says is settled only where no figure that it judges by got worse: then another
// rule has it now.
func (p *Program) compare(before, after *LoadoutReport) Difference {
	d := Difference{After: after}
	d.Moves = make([]Move, 0, len(before.figures)/2)
	for i := range before.figures {
		if was, now := &before.figures[i], &after.figures[i]; moved(was, now) {
			d.Moves = append(d.Moves, Move{was, now})
		}
	}
	d.Stay = make([]study.Finding, 0, len(after.Findings))
	was, now := before.Findings, after.Findings // both in the order of the rules
	for i := range max(len(before.spoke), len(after.spoke)) {
		spoke, speaks := i < len(before.spoke) && before.spoke[i], i < len(after.spoke) && after.spoke[i]
		switch {
		case spoke && speaks:
			d.Stay = append(d.Stay, now[0])
		case speaks:
			d.Appear = append(d.Appear, now[0])
		case spoke && blinded(before, after, was[0].Stage):
			d.Unseen = append(d.Unseen, was[0])
		case spoke && !p.worse(&p.rules[i], before, after):
			d.Vanish = append(d.Vanish, was[0])
		}
		if spoke {
			was = was[1:]
		}
		if speaks {
			now = now[1:]
		}
	}
	return d
}

// worse reports whether a figure that a rule judges by stands worse than before.
func (p *Program) worse(rule *study.Rule, before, after *LoadoutReport) bool {
	return slices.ContainsFunc(rule.Figures, func(id figure.ID) bool {
		at := p.table.Place[id]
		return after.figures[at].State.Rank() > before.figures[at].State.Rank()
	})
}

// blinded reports whether a gauge of a stage was known before and is not after: then a
// rule of that stage that falls silent has not been answered.
func blinded(before, after *LoadoutReport, stage figure.Stage) bool {
	for i := range before.Gauges {
		if was, now := &before.Gauges[i], &after.Gauges[i]; was.Stage == stage && was.Known && !now.Known {
			return true
		}
	}
	return false
}

func moved(was, now *study.Figure) bool {
	if was.Known != now.Known || was.State != now.State {
		return true
	}
	return was.Known && math.Abs(was.Value-now.Value) > 1e-9*math.Max(1, math.Abs(was.Value))
}
