package eval

import (
	"math"

	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
)

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
	Appear      []knock.Finding
	Vanish      []knock.Finding
	Stay        []knock.Finding // as they would read then
}

// Move is a figure before and after.
type Move struct{ Before, After Figure }

// Delta is what the figure moves by; ok is false when one side is unknown.
func (m Move) Delta() (delta float64, ok bool) {
	return m.After.Value - m.Before.Value, m.Before.Known && m.After.Known
}

// Preview holds each alternative against the plan in one loadout.
func Preview(p *plan.Plan, shelf plan.Shelf, loadout string, alternatives []Alternative) ([]Difference, error) {
	l, err := p.Loadout(loadout)
	if err != nil {
		return nil, err
	}
	all := sharedOf(p)
	before := newRun(p, all, shelf, l, "", nil).report()
	differences := make([]Difference, len(alternatives))
	for i, a := range alternatives {
		l, err := a.Plan.Loadout(loadout)
		if err != nil {
			return nil, err
		}
		after := newRun(a.Plan, sharedFrom(a.Plan, p, all), shelf, l, "", nil).report()
		differences[i] = compare(&before, &after)
		differences[i].Alternative = a
	}
	return differences, nil
}

func compare(before, after *LoadoutReport) Difference {
	d := Difference{After: after}
	pairs := func(was, now []Figure) {
		for i := range was {
			if i < len(now) && moved(was[i], now[i]) {
				d.Moves = append(d.Moves, Move{was[i], now[i]})
			}
		}
	}
	pairs(before.Gauges, after.Gauges)
	pairs(before.Others, after.Others)
	for _, f := range after.Findings {
		if find(before.Findings, f.ID) {
			d.Stay = append(d.Stay, f)
		} else {
			d.Appear = append(d.Appear, f)
		}
	}
	for _, f := range before.Findings {
		if !find(after.Findings, f.ID) {
			d.Vanish = append(d.Vanish, f)
		}
	}
	return d
}

func moved(was, now Figure) bool {
	if was.Known != now.Known || was.State != now.State {
		return true
	}
	return was.Known && math.Abs(was.Value-now.Value) > 1e-9*math.Max(1, math.Abs(was.Value))
}

func find(findings []knock.Finding, id string) bool {
	for _, f := range findings {
		if f.ID == id {
			return true
		}
	}
	return false
}
