package desk

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/instead"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// WayView is a lesson, a skill or a setting among the options of a slot.
type WayView struct {
	ID, Kind, Name, Does, Price, Hours string
	Answers                            []string // points of this plan, in words
	Href                               string   // where it is taken
}

// Ways that answer points without a part, of a list of them.
func (d *Desk) Ways(ways []instead.Way) []WayView {
	var list []WayView
	loud := study.Loud(d.Report.Findings)
	for _, w := range ways {
		v := WayView{ID: w.ID, Kind: string(w.Kind), Name: w.Name, Does: w.Does, Price: "nothing", Href: d.Href("points", "instead", w.ID)}
		if w.Euros > 0 {
			v.Price = d.Repair(w.Euros)
		}
		if w.Hours > 0 {
			v.Hours = d.Units.Quantity(w.Hours, "h")
		}
		for _, f := range loud {
			if slices.Contains(w.Answers, f.ID) {
				v.Answers = append(v.Answers, d.Units.Text(f.Tell().What))
			}
		}
		list = append(list, v)
	}
	return list
}

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
	best := slices.MaxFunc(l.Options[1:], func(a, b optionRow) int {
		switch {
		case a.Does > b.Does:
			return 1
		case a.Does < b.Does:
			return -1
		}
		return 0
	})
	l.Leave = d.leaveWords(best.diff, best.Name)
}

// LeaveWords are the argument for the standard part of a slot, for who reads what is left alone:
// against going back to it, or against a part.
func (d *Desk) LeaveWords(slot parts.Slot) string {
	built := d.Plan.Build(d.Loadout)
	list, err := d.OptionsFor(slot, "left", func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }, nil, nil, Laid{})
	if err != nil {
		return ""
	}
	return list.Leave
}

// leaveWords say what is kept by leaving an option alone, or with no name what going back to
// standard does.
func (d *Desk) leaveWords(diff eval.Difference, than string) string {
	sign := 1.0 // what the option adds is kept
	if than == "" {
		sign = -1
	}
	var kept []string
	delta := func(id figure.ID) (f study.Figure, by float64) {
		for _, m := range diff.Moves {
			if m.After.ID == id {
				if by, ok := m.Delta(); ok {
					return *m.After, sign * by
				}
			}
		}
		return f, 0
	}
	if f, by := delta(figure.Cost); by > 0 {
		kept = append(kept, d.Units.Quantity(by, f.Unit)+" kept")
	}
	for _, at := range []struct {
		id    figure.ID
		where string
	}{{figure.FrontUnsprung, " at the front wheel"}, {figure.RearUnsprung, " at the rear wheel"}, {figure.LoadedMass, ""}} {
		if _, by := delta(at.id); math.Abs(by) >= 0.1 {
			how := "lighter"
			if by < 0 {
				how = "heavier"
			}
			kept = append(kept, d.Units.As(at.id, math.Abs(by))+" "+how+at.where)
			break
		}
	}
	points := func(n int) string {
		switch n {
		case 0:
			return "none of your points"
		case 1:
			return "one of your points"
		}
		return fmt.Sprintf("%d of your points", n)
	}
	settled, asked := len(study.Cards(diff.Vanish)), len(study.Cards(diff.Appear))
	if than == "" { // back to standard
		kept = append(kept, "settles "+points(settled))
		switch asked {
		case 0:
		case 1:
			kept = append(kept, "and one comes back")
		default:
			kept = append(kept, fmt.Sprintf("and %d come back", asked))
		}
		return "Back to what it came with: " + strings.Join(kept, ", ") + "."
	}
	words := than + " settles " + points(settled)
	if asked > 0 {
		words += fmt.Sprintf(" and asks for %d more", asked)
	}
	if len(kept) > 0 {
		words = strings.Join(kept, ", ") + "; " + words
	}
	return "As it came: " + words + "."
}

// insteadMost is how many options are shown for the money of a part that is taken off.
const insteadMost = 3

// forItsMoney are the ways out of the plan's points that a part's price would pay for once it is
// off, those that settle most first.
func (d *Desk) forItsMoney(l Laid, page string) []LinkView {
	money := int64(0)
	for _, c := range l.Tried {
		if c.Part != nil {
			return nil
		}
		if was := d.Plan.Chosen(c.Slot, d.Loadout); was != nil {
			if home, _, ok := d.Plan.Home(was.Price); ok && home.Known() {
				money += home.Minor()
			}
		}
	}
	if money == 0 {
		return nil
	}
	var ways []study.Remedy
	for _, f := range study.InOrder(study.Loud(d.After.Findings)) {
		for _, r := range f.Remedies() {
			sum, buys := int64(0), len(r.Choices) > 0
			for _, c := range r.Choices {
				if c.Part == nil || c.Part.Own() || slices.ContainsFunc(l.Tried, func(t plan.Choice) bool { return t.Slot == c.Slot }) {
					buys = false
					break
				}
				home, _, ok := d.Plan.Home(c.Part.Price)
				buys = buys && ok && home.Known()
				sum += home.Minor()
			}
			if buys && sum <= money && !slices.ContainsFunc(ways, func(o study.Remedy) bool { return o.Label == r.Label }) {
				ways = append(ways, r)
			}
		}
	}
	alternatives := make([]eval.Alternative, len(ways))
	for i, r := range ways {
		alternatives[i] = eval.Alternative{Label: r.Label, Plan: l.Plan.With(r.Choices...)}
	}
	bench, err := eval.NewBench(l.Plan, d.Shelf, d.Loadout, d.AsOf)
	if err != nil {
		return nil
	}
	differences, err := bench.Preview(alternatives...)
	if err != nil {
		return nil
	}
	order := make([]int, len(ways))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		switch x, y := does(differences[a]), does(differences[b]); {
		case x > y:
			return -1
		case x < y:
			return 1
		}
		return 0
	})
	var list []LinkView
	for _, i := range order {
		if n := len(study.Cards(differences[i].Vanish)); n > 0 && len(list) < insteadMost {
			list = append(list, LinkView{Name: fmt.Sprintf("%s, settles %d", ways[i].Label, n), Href: d.Href(page, l.Query(ways[i].Choices...)...)})
		}
	}
	return list
}
