package study

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// Mark is what the finding goes by: what is worse than that is another finding to a rider who
// has set it aside.
func (f Finding) Mark() plan.Mark {
	m := plan.Mark{State: f.State, Value: f.Value, Limit: f.Limit}
	if m.Value == 0 {
		worst := -1
		for _, id := range f.rule.Figures {
			if g := f.facts.Figure(id); g.Known && g.State.Rank() > worst {
				worst, m.Value, m.Limit = g.State.Rank(), g.Value, 0
				if !math.IsNaN(g.Limit) {
					m.Limit = g.Limit
				}
			}
		}
	}
	about := f.About
	if about == nil && !f.rule.Reads.Has(facts.InParts) {
		about = f.read()
	}
	for _, p := range about {
		if !slices.Contains(m.Parts, p.ID) {
			m.Parts = append(m.Parts, p.ID)
		}
	}
	slices.Sort(m.Parts)
	return m
}

// read are the chosen parts of the families that the finding's rule reads; one that reads all of
// them says what it is about.
func (f Finding) read() []*parts.Part {
	var list []*parts.Part
	for i := range f.facts.Built.Fitted {
		fitted := &f.facts.Built.Fitted[i]
		if kind, ok := parts.KindOf(fitted.Slot); ok && fitted.Chosen && f.rule.Reads.Has(facts.OfFamily(kind.Family)) {
			list = append(list, fitted.Part)
		}
	}
	return list
}

// Weigh says by its rider's waivers whether a finding is set aside, or why it has come back.
func (f *Finding) Weigh(p *plan.Plan, loadout string) {
	w := p.Waiver(f.ID, loadout)
	if f.Waived, f.Back = nil, ""; w == nil {
		return
	}
	if f.Back = w.Worse(f.Mark()); f.Back == "" {
		f.Waived = w
	}
}
