package study

import (
	"fmt"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
)

// Take is the remedy of taking one part, none when there is none.
func Take(p *plan.Part, label string) []Remedy {
	if p == nil {
		return nil
	}
	return []Remedy{{Label: fmt.Sprintf(label, p.Name), Choices: []plan.Choice{{Slot: p.Slot, Part: p}}}}
}

// Without is the remedy of leaving out what is in a slot.
func Without(f plan.Fitted) Remedy {
	return Remedy{"Without " + f.Part.Name, []plan.Choice{{Slot: f.Slot}}}
}

// Providing offers the first part for a slot that goes on and provides a tag.
func Providing(f *facts.All, slot plan.Slot, tag, label string) []Remedy {
	return offered(f, slot, label, func(p *plan.Part) bool { return slices.Contains(p.Provides, tag) })
}

// Offer is the first part for a slot that goes on and is liked, under its own name.
func Offer(f *facts.All, slot plan.Slot, likes func(*plan.Part) bool) []Remedy {
	return offered(f, slot, "%s", likes)
}

func offered(f *facts.All, slot plan.Slot, label string, likes func(*plan.Part) bool) []Remedy {
	for _, p := range f.Shelf {
		if p.Slot == slot && likes(p) && f.Built.Fits(p) {
			return Take(p, label)
		}
	}
	return nil
}
