package desk

import (
	"slices"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Size is how a gauge stands on the closed strip.
type Size string

// The sizes.
const (
	Large Size = "large" // the page's own, and the worst
	Mark  Size = "mark"  // whatever else speaks: its short name and its state
	Quiet Size = "quiet" // counted, until the strip is opened
)

// mostLarge is for how many large gauges there is room beside one page's own.
const mostLarge = 3

// sizesOf are the sizes of gauges on a page of a stage.
func sizesOf(gauges []study.Figure, stage figure.Stage) []Size {
	sizes := make([]Size, len(gauges))
	large := 0
	for i := range gauges {
		switch g := &gauges[i]; {
		case g.Stage == stage:
			sizes[i] = Large
			large++
		case g.State == verdict.OK:
			sizes[i] = Quiet
		default:
			sizes[i] = Mark
		}
	}
	for {
		worst := -1
		for i := range gauges {
			if sizes[i] == Mark && (worst < 0 || gauges[i].State.Rank() > gauges[worst].State.Rank()) {
				worst = i
			}
		}
		if worst < 0 {
			return sizes
		}
		sizes[worst] = Large
		if large++; large >= mostLarge {
			return sizes
		}
	}
}

// StripView is the verdict: the loadouts and all gauges, each at its size.
type StripView struct {
	Loadouts []LinkView
	Gauges   []GaugeView // all, in the order of the table
	Worst    []GaugeView // three of them, for where there is no room for more
	Good     int         // how many are ok
	More     int         // how many speak for which a row has no room
	Lacking  []LinkView  // what the others lack, each with the way to its field
	Usual    []LinkView  // numbers that nobody has said, likewise
}

// strip shows the loadouts and the gauges of a page.
func (d *Desk) strip(page string) StripView {
	var v StripView
	for _, l := range d.Plan.Loadouts {
		v.Loadouts = append(v.Loadouts, LinkView{l.Name, (&Desk{Snapshot: d.Snapshot, Loadout: l.ID}).Href(page), l.ID == d.Loadout})
	}
	var stage figure.Stage
	if at, _ := d.house.pageOf(page); at >= 0 {
		stage = d.house.Stages[at].ID
	}
	sizes := sizesOf(d.Report.Gauges, stage)
	for i, g := range d.Report.Gauges {
		shown := d.Linked(d.Report, GaugeOf(d.Units, g, d.Href("working/"+string(g.ID), "stage", page)))
		shown.Size = sizes[i]
		v.Gauges = append(v.Gauges, shown)
		if g.State == verdict.OK {
			v.Good++
		}
	}
	v.Worst = slices.Clone(v.Gauges)
	v.Lacking = MissingOf(v.Worst)
	worstFirst(v.Worst)
	v.Worst = v.Worst[:min(3, len(v.Worst))]
	for _, u := range d.Report.Usuals() {
		v.Usual = append(v.Usual, LinkView{Name: u.What, Href: d.Typed(u.At)})
	}
	return v
}

// rowMost is for how many gauges a card's one row has room.
const rowMost = 5

// Row is the strip of a card: the worst of what speaks, and how much is well and how much more
// speaks.
func (d *Desk) Row() StripView {
	var v StripView
	for _, g := range d.Report.Gauges {
		if g.State == verdict.OK {
			v.Good++
		} else {
			v.Gauges = append(v.Gauges, GaugeOf(d.Units, g, ""))
		}
	}
	worstFirst(v.Gauges)
	v.More = max(0, len(v.Gauges)-rowMost)
	v.Gauges = v.Gauges[:len(v.Gauges)-v.More]
	return v
}

// worstFirst puts gauges in order by how they stand.
func worstFirst(gauges []GaugeView) {
	slices.SortStableFunc(gauges, func(a, b GaugeView) int { return b.State.ID.Rank() - a.State.ID.Rank() })
}
