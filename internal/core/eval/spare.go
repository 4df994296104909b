package eval

import (
	"cmp"
	"slices"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Does is how much a difference does for the points of a plan: each that it settles counts by how
// bad it is and what it would cost the trip, and each that appears counts against it.
func (d *Difference) Does() (good float64) {
	weigh := func(findings []study.Finding, sign float64) {
		for _, f := range study.Loud(findings) {
			good += sign * float64(f.State.Rank()) / float64(f.Class)
		}
	}
	weigh(d.Vanish, 1)
	weigh(d.Appear, -1)
	return good
}

// Spare is what the money of parts that come off would pay for: a way out of what is open then,
// held against the plan without them.
type Spare struct {
	Difference
	Choices []plan.Choice
}

// Spares are the ways out that settle points for the money of the plan's parts that choices take
// off, those that do most first; after is the report without them. There are none where something
// goes on in the place of one, or nobody knows what they cost.
func (b *Bench) Spares(after *LoadoutReport, off []plan.Choice) ([]Spare, error) {
	p := b.plain.Plan
	money := priceOff(p, b.plain.ID, off)
	if money == 0 {
		return nil, nil
	}
	var ways []study.Remedy
	for _, f := range study.InOrder(study.Loud(after.Findings)) {
		for _, r := range f.Remedies() {
			if sum, ok := priceOn(p, r.Choices, off); ok && sum <= money {
				ways = append(ways, r)
			}
		}
	}
	var list []Spare
	for _, r := range study.Distinct(ways) {
		changed := after.Plan.With(r.Choices...)
		of := after.of.again(changed)
		l, err := of.plan.Loadout(after.ID)
		if err != nil {
			return nil, err
		}
		then := b.program.again(after, of, l)
		then.shift(after)
		s := Spare{b.program.compare(after, &then), r.Choices}
		s.Alternative = Alternative{r.Label, changed}
		if len(study.Loud(s.Vanish)) > 0 {
			list = append(list, s)
		}
	}
	slices.SortStableFunc(list, func(a, b Spare) int { return cmp.Compare(b.Does(), a.Does()) })
	return list, nil
}

// priceOff is what the parts cost that choices take off, minor units of the plan's currency; 0
// where something goes on in their place, or none of their prices is known.
func priceOff(p *plan.Plan, loadout string, off []plan.Choice) (minor int64) {
	for _, c := range off {
		if c.Part != nil {
			return 0
		}
		if was := p.Chosen(c.Slot, loadout); was != nil {
			home, _, _ := p.Home(was.Price)
			minor += home.Minor()
		}
	}
	return minor
}

// priceOn is what parts cost together, minor units of the plan's currency; ok is false where that
// is not known, where one of them is had already, and where one goes into a slot that is just
// emptied.
func priceOn(p *plan.Plan, on, off []plan.Choice) (minor int64, ok bool) {
	for _, c := range on {
		if c.Part == nil || c.Part.Own() || slices.ContainsFunc(off, func(o plan.Choice) bool { return o.Slot == c.Slot }) {
			return 0, false
		}
		home, _, rated := p.Home(c.Part.Price)
		if !rated || !home.Known() {
			return 0, false
		}
		minor += home.Minor()
	}
	return minor, len(on) > 0
}
