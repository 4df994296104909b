package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/verdict"
)

// Waiver is a point that its rider has set aside, and why: in one loadout or in all. It keeps
// what the point went by on that day, so that it comes back when that is worse.
type Waiver struct {
	Finding string `json:"finding" is:"id"` // the rule's id
	Loadout string `json:"loadout,omitempty"`
	Why     string `json:"why"`
	On      string `json:"on,omitempty" is:"date"`
	Mark
}

// Mark is what a finding goes by: its state, its number against its limit where it has them, and
// the parts that it is about.
type Mark struct {
	State verdict.State `json:"state,omitempty"`
	Value float64       `json:"value,omitempty"` // in the rule's own unit, 0 for none
	Limit float64       `json:"limit,omitempty"` // in the same, 0 for none
	Less  bool          `json:"less,omitempty"`  // the less, the worse
	Parts []string      `json:"parts,omitempty"` // ids, in order
	Said  string        `json:"said,omitempty"`  // of one that has neither: what was the case
}

// worseBy is by how much of itself a number has to be worse before a point that was set aside
// comes back.
const worseBy = 0.1

// Worse says how a finding is another one than when its mark was made, "" while it is the same
// or better.
func (m Mark) Worse(now Mark) string {
	away := 1.0 // the way in which the number gets worse
	if m.Less {
		away = -1
	}
	switch {
	case now.State.Rank() > m.State.Rank():
		return fmt.Sprintf("it was %s and is %s", m.State, now.State)
	case math.Abs(now.Limit-m.Limit) > 1e-9*math.Abs(m.Limit):
		return "its limit is another"
	case !slices.Equal(m.Parts, now.Parts):
		return "the part is another"
	case (now.Value-m.Value)*away > worseBy*math.Abs(m.Value)*(1+1e-9):
		return "its number is worse by a tenth"
	case m.Said != now.Said:
		return "the case is another"
	}
	return ""
}

// Waiver finds what is set aside of a finding in a loadout: that loadout's own before the one of
// all.
func (p *Plan) Waiver(finding, loadout string) *Waiver {
	var of *Waiver
	for i := range p.Waivers {
		w := &p.Waivers[i]
		if w.Finding == finding && (w.Loadout == loadout || w.Loadout == "" && of == nil) {
			of = w
		}
	}
	return of
}

// Waived is the plan with a point set aside; one without a reason is a point again.
func (p *Plan) Waived(w Waiver) *Plan {
	changed := *p
	changed.Waivers = slices.DeleteFunc(slices.Clone(p.Waivers), func(o Waiver) bool {
		return o.Finding == w.Finding && (o.Loadout == w.Loadout || w.Loadout == "" || o.Loadout == "" && w.Why == "")
	})
	if w.Why != "" {
		changed.Waivers = append(changed.Waivers, w)
	}
	slices.SortStableFunc(changed.Waivers, func(a, b Waiver) int {
		return cmp.Or(strings.Compare(a.Finding, b.Finding), strings.Compare(a.Loadout, b.Loadout))
	})
	return &changed
}

// maxWaivers is more than there are rules in every loadout of a plan.
const maxWaivers = 1000

func (p *Plan) validateWaivers(v *entry.Problems) {
	v.Few("waived", len(p.Waivers), maxWaivers)
	seen := map[[2]string]bool{}
	for i := range p.Waivers {
		w, path := &p.Waivers[i], "waived"+entry.At(i)
		v.ID(path+".finding", w.Finding, "the id of a rule")
		v.That(w.Loadout == "" || entry.IsSlug(w.Loadout), path+".loadout", "%q is not the id of a loadout", w.Loadout)
		v.That(!seen[[2]string{w.Finding, w.Loadout}], path, "%q is set aside twice", w.Finding)
		seen[[2]string{w.Finding, w.Loadout}] = true
		v.Name(path+".why", w.Why)
		v.Date(path+".on", w.On)
		v.That(w.State == "" || slices.Contains(verdict.Points(), w.State), path+".state", "%q is no state of a point", w.State)
		v.That(len(w.Said) <= maxInput, path+".said", "is longer than %d bytes", maxInput)
		v.Few(path+".parts", len(w.Parts), maxFacts)
		for _, id := range w.Parts {
			v.That(len(id) <= entry.MaxName, path+".parts", "hold an id longer than %d bytes", entry.MaxName)
		}
	}
	v.Few("order", len(p.Order), maxWaivers)
	for i, id := range p.Order {
		v.ID("order"+entry.At(i), id, "the id of a rule")
		v.That(slices.Index(p.Order, id) == i, "order"+entry.At(i), "%q stands there twice", id)
	}
}
