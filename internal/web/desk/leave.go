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
	"valiantmule/internal/core/study"
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
		l.Leave = d.leaveWords(standard.diff, "")
		return
	}
	best := slices.MaxFunc(l.Options[1:], func(a, b optionRow) int { return cmp.Compare(a.Does, b.Does) })
	l.Leave = d.leaveWords(best.diff, best.Name)
}

// LeaveWords are the argument for the standard part of a slot, for who reads what is left alone:
// against going back to it, or against a part.
func (d *Desk) LeaveWords(slot parts.Slot) (string, error) {
	built := d.Plan.Build(d.Loadout)
	list, err := d.OptionsFor(slot, "left", func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }, nil, nil, Laid{})
	return list.Leave, err
}

// leaveWords say what is kept by leaving an option alone, or with no name what going back to
// standard does.
func (d *Desk) leaveWords(diff eval.Difference, than string) string {
	settled, asked := len(study.Cards(diff.Vanish)), len(study.Cards(diff.Appear))
	if than == "" { // what going back takes off is kept
		words := append(d.kept(diff, -1), "settles "+ofYours(settled))
		switch asked {
		case 0:
		case 1:
			words = append(words, "and one comes back")
		default:
			words = append(words, fmt.Sprintf("and %d come back", asked))
		}
		return "Back to what it came with: " + strings.Join(words, ", ") + "."
	}
	words := than + " settles " + ofYours(settled)
	if asked > 0 {
		words += fmt.Sprintf(" and asks for %d more", asked)
	}
	if kept := d.kept(diff, 1); len(kept) > 0 {
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
