package desk

import (
	"cmp"
	"fmt"
	"slices"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// spareMost is how many options are shown for the money of parts that come off.
const spareMost = 3

// forSpare are the ways out of the plan's points that the money of parts would pay for that come
// off on the bench, those that settle most first.
func (d *Desk) forSpare(l Laid, page string) ([]LinkView, error) {
	spare := d.spare(l.Tried)
	if spare == 0 {
		return nil, nil
	}
	ways := d.payable(l.Tried, spare)
	alternatives := make([]eval.Alternative, len(ways))
	for i, r := range ways {
		alternatives[i] = eval.Alternative{Label: r.Label, Plan: l.Plan.With(r.Choices...)}
	}
	bench, err := eval.NewBench(l.Plan, d.Shelf, d.Loadout, d.AsOf)
	if err != nil {
		return nil, err
	}
	differences, err := bench.Preview(alternatives...)
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(differences, func(a, b eval.Difference) int { return cmp.Compare(does(b), does(a)) })
	var list []LinkView
	for _, diff := range differences {
		n := len(study.Cards(diff.Vanish))
		if n == 0 || len(list) == spareMost {
			continue
		}
		at := slices.IndexFunc(ways, func(r study.Remedy) bool { return r.Label == diff.Alternative.Label })
		list = append(list, LinkView{Name: fmt.Sprintf("%s, settles %d", ways[at].Label, n), Href: d.Href(page, l.Query(ways[at].Choices...)...)})
	}
	return list, nil
}

// spare is what parts of the plan cost that choices take off, in minor units; 0 where anything
// goes on in their place.
func (d *Desk) spare(choices []plan.Choice) (minor int64) {
	for _, c := range choices {
		if c.Part != nil {
			return 0
		}
		if was := d.Plan.Chosen(c.Slot, d.Loadout); was != nil {
			if home, _, ok := d.Plan.Home(was.Price); ok && home.Known() {
				minor += home.Minor()
			}
		}
	}
	return minor
}

// payable are the ways out of what is open then that a sum pays for, each once; not those that put
// something into a slot that is just emptied.
func (d *Desk) payable(off []plan.Choice, spare int64) (ways []study.Remedy) {
	for _, f := range study.InOrder(study.Loud(d.After.Findings)) {
		for _, r := range f.Remedies() {
			known := slices.ContainsFunc(ways, func(o study.Remedy) bool { return o.Label == r.Label })
			if sum, ok := d.priced(r.Choices, off); ok && sum <= spare && !known {
				ways = append(ways, r)
			}
		}
	}
	return ways
}

// priced is what parts cost together; ok is false where that is not known, where one of them is
// had already, and where one goes into a slot that is just emptied.
func (d *Desk) priced(choices, off []plan.Choice) (minor int64, ok bool) {
	for _, c := range choices {
		if c.Part == nil || c.Part.Own() || slices.ContainsFunc(off, func(o plan.Choice) bool { return o.Slot == c.Slot }) {
			return 0, false
		}
		home, _, rated := d.Plan.Home(c.Part.Price)
		if !rated || !home.Known() {
			return 0, false
		}
		minor += home.Minor()
	}
	return minor, len(choices) > 0
}
