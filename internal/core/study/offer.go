package study

import (
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// Take is the remedy of taking one part, none when there is none.
func Take(p *parts.Part, label string) []Remedy {
	if p == nil {
		return nil
	}
	return []Remedy{{Label: fmt.Sprintf(label, p.Name), Choices: []plan.Choice{{Slot: p.Slot, Part: p}}}}
}

// Together is the remedy of taking what a part needs, with whatever that needs in
// turn, as one choice with its sum; none when there is no way.
func Together(way []*parts.Part, with *parts.Part) []Remedy {
	if len(way) == 0 {
		return nil
	}
	r := Remedy{}
	var names []string
	sum := money.Amount{}
	for i, p := range way {
		names = append(names, p.Name)
		r.Choices = append(r.Choices, plan.Choice{Slot: p.Slot, Part: p})
		switch {
		case i == 0:
			sum = p.Price
		case sum.Known() && p.Price.Known() && sum.Code() == p.Price.Code():
			sum = money.New(sum.Minor()+p.Price.Minor(), sum.Code())
		default:
			sum = money.Amount{}
		}
	}
	r.Label = strings.Join(names, " with ")
	if len(way) > 1 && sum.Known() {
		r.Label += ", together " + sum.Display()
	}
	if with != nil && with.Slot != way[0].Slot { // what needs it is laid on top again, so that both are seen
		r.Choices = append(r.Choices, plan.Choice{Slot: with.Slot, Part: with})
	}
	return []Remedy{r}
}

// Distinct are remedies, each once by its label.
func Distinct(list []Remedy) []Remedy {
	var once []Remedy
	for _, r := range list {
		if !slices.ContainsFunc(once, func(d Remedy) bool { return d.Label == r.Label }) {
			once = append(once, r)
		}
	}
	return once
}

// Without is the remedy of leaving out what is in a slot.
func Without(f plan.Fitted) Remedy {
	return Remedy{"Without " + f.Part.Name, []plan.Choice{{Slot: f.Slot}}}
}

// Providing offers the first part for a slot that goes on and provides a tag.
func Providing(f *facts.All, slot parts.Slot, tag, label string) []Remedy {
	return offered(f, slot, label, func(p *parts.Part) bool { return slices.Contains(p.Provides, tag) })
}

// Offer is the first part for a slot that goes on and is liked, under its own name.
func Offer(f *facts.All, slot parts.Slot, likes func(*parts.Part) bool) []Remedy {
	return offered(f, slot, "%s", likes)
}

func offered(f *facts.All, slot parts.Slot, label string, likes func(*parts.Part) bool) []Remedy {
	for _, p := range f.Shelf {
		if p.Slot == slot && likes(p) && f.Built.Goes(p) {
			return Take(p, label)
		}
	}
	return nil
}
