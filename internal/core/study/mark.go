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
	m := plan.Mark{State: f.State, Value: f.Value, Limit: f.Limit, Less: f.Value < f.Limit}
	if m.Value == 0 {
		worst := -1
		for _, id := range f.Figures {
			if g := f.facts.Figure(id); g.Known && g.State.Rank() > worst {
				worst, m.Value, m.Limit = g.State.Rank(), g.Value, 0
				if !math.IsNaN(g.Limit) {
					m.Limit = g.Limit
				}
				m.Less = g.Less
			}
		}
	}
	if !f.Reads.Has(facts.InParts) { // of all of them none in particular is meant
		m.Parts = f.read()
	}
	if m.Value == 0 && m.Parts == nil {
		m.Said = f.Tell().What.String()
	}
	return m
}

// read are the ids of the chosen parts of the families that the finding's rule reads, in order.
func (f Finding) read() []string {
	var list []string
	for i := range f.facts.Built.Fitted {
		fitted := &f.facts.Built.Fitted[i]
		if kind, ok := parts.KindOf(fitted.Slot); ok && fitted.Chosen && !slices.Contains(list, fitted.Part.ID) && f.Reads.Has(facts.OfFamily(kind.Family)) {
			list = append(list, fitted.Part.ID)
		}
	}
	slices.Sort(list)
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
