package web

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/words"
)

// stateView is a state as it is shown: by shape and word.
type stateView struct {
	ID   verdict.State
	Word string
}

func stateOf(s verdict.State) stateView { return stateView{s, string(s)} }

// gaugeView is a figure of the verdict strip.
type gaugeView struct {
	ID, Name    string
	Limited     bool
	Value       string // with its unit, "?" when unknown
	Limit       string // "" when there is none
	LimitWord   string
	Band        string
	State       stateView
	Needs       string // the first thing that is missing, "" for a known figure
	Missing     []string
	Href        string  // of its working
	Fill, Notch float64 // 0–100 along its rule; Notch is -1 without a limit
}

// limitWord says on which side of its limit a figure should stay.
func limitWord(f study.Figure) string { return cmp.Or(f.LimitName, "max") }

func gaugeOf(u words.Units, f study.Figure, href string) gaugeView {
	g := gaugeView{ID: string(f.ID), Name: f.Name, Value: u.Value(f), State: stateOf(f.State), Missing: f.Missing, Href: href, Notch: -1}
	span := f.Value
	if f.Limited {
		g.Limited, g.Limit, g.LimitWord = true, u.Limit(f), limitWord(f)
		span = max(f.Value, f.Limit) * 1.15
		g.Notch = share(f.Limit, span)
	}
	if f.Known {
		g.Fill = share(f.Value, span)
	}
	if f.State == verdict.Unknown && len(f.Missing) > 0 {
		g.Needs, _, _ = strings.Cut(f.Missing[0], " (")
	}
	if f.Banded {
		g.Band = u.Band(f)
	}
	return g
}

// share of a span in hundredths, 0 where that means nothing.
func share(v, span float64) float64 {
	if !(span > 0) || math.IsInf(span, 0) || math.IsNaN(v) {
		return 0
	}
	return math.Round(1000*min(max(v/span, 0), 1)) / 10
}

// findingView is what a rule says, with its ways out.
type findingView struct {
	ID, What, Why, Do string
	State             stateView
	Remedies          []linkView
}

// wayOut is where a remedy is tried, on top of what lies on the bench.
type wayOut func(remedy []plan.Choice) (href string)

// findingsOf shows findings, the worst first; their remedies are the next things
// to put on the bench. Without a way out they are left as words.
func findingsOf(u words.Units, findings []study.Finding, to wayOut) []findingView {
	views := make([]findingView, len(findings))
	for i, f := range findings {
		told := f.Tell()
		views[i] = findingView{ID: f.ID, What: u.Text(told.What), Why: u.Text(told.Why), Do: u.Text(told.Do), State: stateOf(f.State)}
		if to == nil {
			continue
		}
		for _, remedy := range f.Remedies() {
			views[i].Remedies = append(views[i].Remedies, linkView{Name: remedy.Label, Href: to(remedy.Choices)})
		}
	}
	slices.SortStableFunc(views, func(a, b findingView) int { return b.State.ID.Rank() - a.State.ID.Rank() })
	return views
}

// moveView is a figure before and after.
type moveView struct {
	Name, Before, After, Delta string
	State, WasState            stateView
	Gauge                      bool
}

func moveOf(u words.Units, m eval.Move) moveView {
	v := moveView{
		Name: m.After.Name, Before: u.Value(m.Before), After: u.Value(m.After),
		State: stateOf(m.After.State), WasState: stateOf(m.Before.State), Gauge: m.After.Gauge,
	}
	if delta, ok := m.Delta(); ok {
		v.Delta = u.Delta(m.After, delta)
	}
	return v
}
