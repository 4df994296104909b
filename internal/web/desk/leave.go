package desk

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/instead"
	"valiantmule/internal/core/parts"
)

// leave is the argument for the standard part of a slot, in figures of this plan: against what the
// plan has there, or against the option that does most for its points.
func (l *OptionList) leave(d *Desk) {
	if len(l.Options) < 2 || !l.Options[0].Stays {
		return
	}
	standard := &l.Options[0]
	l.LeaveHref, l.Ways = d.Href("left", "slot", string(l.Slot)), d.Ways(instead.Beside(l.Slot))
	if alone := d.Plan.LeftAlone(l.Slot); alone != nil {
		l.Left = alone.Why
	}
	if !standard.Current {
		l.Leave = d.backWords(standard)
		return
	}
	best := slices.MaxFunc(l.Options[1:], func(a, b optionRow) int { return cmp.Compare(a.Does, b.Does) })
	l.Leave = d.leaveWords(&best)
}

// LeaveWords are the argument for the standard part of a slot, for who reads what is left alone:
// against going back to it, or against a part.
func (d *Desk) LeaveWords(slot parts.Slot) (string, error) {
	built := d.Plan.Build(d.Loadout)
	list, err := d.OptionsFor(slot, "left", func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }, nil, nil, Laid{})
	return list.Leave, err
}

// backWords say what going back to standard does: what it takes off is kept.
func (d *Desk) backWords(standard *optionRow) string {
	words := append(d.kept(standard.diff, -1), "settles "+ofYours(standard.Settles))
	switch standard.Asks {
	case 0:
	case 1:
		words = append(words, "and one comes back")
	default:
		words = append(words, fmt.Sprintf("and %d come back", standard.Asks))
	}
	return "Back to what it came with: " + strings.Join(words, ", ") + "."
}

// leaveWords say what is kept by leaving an option alone.
func (d *Desk) leaveWords(option *optionRow) string {
	words := option.Name + " settles " + ofYours(option.Settles)
	if option.Asks > 0 {
		words += fmt.Sprintf(" and asks for %d more", option.Asks)
	}
	if kept := d.kept(option.diff, 1); len(kept) > 0 {
		words = strings.Join(kept, ", ") + "; " + words
	}
	return "As it came: " + words + "."
}

// keptMasses are the figures that tell a difference of mass, the one at a wheel before all of it.
var keptMasses = []struct {
	id    figure.ID
	where string
}{{figure.FrontUnsprung, " at the front wheel"}, {figure.RearUnsprung, " at the rear wheel"}, {figure.LoadedMass, ""}}

// kept is the money and the mass that a difference adds, or with sign −1 takes off, in words.
func (d *Desk) kept(diff eval.Difference, sign float64) (words []string) {
	moved := map[figure.ID]float64{}
	for _, m := range diff.Moves {
		if by, ok := m.Delta(); ok {
			moved[m.After.ID] = sign * by
		}
	}
	if by := moved[figure.Cost]; by > 0 {
		words = append(words, d.Units.Quantity(by, d.Plan.Currency)+" kept")
	}
	for _, at := range keptMasses {
		if by := moved[at.id]; math.Abs(by) >= 0.1 {
			how := "lighter"
			if by < 0 {
				how = "heavier"
			}
			return append(words, d.Units.As(at.id, math.Abs(by))+" "+how+at.where)
		}
	}
	return words
}

// ofYours counts points of the rider's.
func ofYours(n int) string {
	switch n {
	case 0:
		return "none of your points"
	case 1:
		return "one of your points"
	}
	return fmt.Sprintf("%d of your points", n)
}
