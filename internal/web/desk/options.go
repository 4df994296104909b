package desk

import (
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/words"
)

// OptionList is what can go into a slot, each held against the plan.
type OptionList struct {
	Slot    parts.Slot
	Name    string
	Aside   string // beside the name
	Columns []string
	Options []optionRow
	Hidden  int // made for another size
	Compare bool
}

// optionRow is one option with what it would move.
type optionRow struct {
	ID, Name, Sub, Price string
	Href                 string
	Beside               *LinkView // puts it beside others, or takes it away
	Current, Tried       bool
	Own                  string   // leads to the sheet of a part of the rider's own
	Cells                []string // by the list's columns
	Asks                 int      // findings that appear
	State                StateView
}

// Column is a figure that options are compared by.
type Column struct {
	Title string
	Cell  func(u words.Units, diff eval.Difference) string
	Money bool // it is a sum
}

// Moves is a column of what a figure moves by.
func Moves(title string, id figure.ID) Column {
	row, _ := figure.Of(id)
	return Column{Title: title, Money: row.IsSum(), Cell: func(u words.Units, diff eval.Difference) string { return deltaOf(u, diff, id) }}
}

// Becomes is a column of what a figure comes to.
func Becomes(title string, id figure.ID) Column {
	return Column{Title: title, Cell: func(u words.Units, diff eval.Difference) string {
		if f, ok := diff.After.Figure(id); ok {
			return u.Told(f)
		}
		return words.Unknown
	}}
}

// deltaOf is what an option moves a figure by, "" when it does not.
func deltaOf(u words.Units, diff eval.Difference, id figure.ID) string {
	for _, m := range diff.Moves {
		if m.After.ID == id {
			if delta, ok := m.Delta(); ok {
				return u.Delta(*m.After, delta)
			}
			if !m.After.Known {
				return u.Told(*m.After)
			}
			return u.Told(*m.Before)
		}
	}
	return ""
}

// ListsOf are the lists of a page's slots, each with columns of its own, of all that goes on
// or could.
func (d *Desk) ListsOf(slots []parts.Slot, page string, columns func(parts.Slot) []Column, tried Laid) ([]OptionList, error) {
	built := d.Plan.Build(d.Loadout)
	var lists []OptionList
	for _, slot := range slots {
		list, err := d.OptionsFor(slot, page, func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }, columns(slot), nil, tried)
		if err != nil {
			return nil, err
		}
		lists = append(lists, list)
	}
	return lists, nil
}

// OptionsFor lists the parts for a slot that a filter lets through, after the
// standard one, on a page, and the rider's own whatever the filter says; they are held
// against the plan only where the answer shows them.
func (d *Desk) OptionsFor(slot parts.Slot, page string, fits func(*parts.Part) bool, columns []Column, keep []string, tried Laid) (OptionList, error) {
	info, _ := parts.KindOf(slot)
	list := OptionList{Slot: slot, Name: info.Name}
	for _, c := range columns {
		list.Columns = append(list.Columns, c.Title)
	}
	choices := []plan.Choice{{Slot: slot}}
	own := d.Plan.Chosen(slot, d.Loadout)
	listed := own == nil
	for _, p := range d.Shelf {
		if p.Slot != slot {
			continue
		}
		if !p.Own() && !fits(p) {
			list.Hidden++
			continue
		}
		listed = listed || own.ID == p.ID
		choices = append(choices, plan.Choice{Slot: slot, Part: p})
	}
	if !listed {
		choices = append(choices, plan.Choice{Slot: slot, Part: own})
	}
	if !d.Wants("main") {
		return list, nil
	}
	var err error
	list.Options, err = d.Rows(choices, page, columns, keep, tried)
	return list, err
}

// Rows holds choices against the plan, each a link to itself on a page.
func (d *Desk) Rows(choices []plan.Choice, page string, columns []Column, keep []string, tried Laid) ([]optionRow, error) {
	choices = d.Plan.Scoped(choices, d.Loadout)
	alternatives := make([]eval.Alternative, len(choices))
	for i, c := range choices {
		alternatives[i] = eval.Alternative{Label: choiceName(c), Plan: d.Plan.With(c)}
	}
	differences, err := d.On.Preview(alternatives...)
	if err != nil {
		return nil, err
	}
	rows := make([]optionRow, len(choices))
	for i, c := range choices {
		o := d.option(c, differences[i], d.Plan.Chosen(c.Slot, d.Loadout))
		o.Href = d.Href(page, append(tried.Instead(c), keep...)...)
		o.Tried = slices.ContainsFunc(tried.Tried, func(t plan.Choice) bool { return tryOf(t) == tryOf(c) })
		for _, column := range columns {
			cell := column.Cell(d.Units, differences[i])
			if column.Money && c.Part != nil && c.Part.Price.Known() {
				if _, _, ok := d.Plan.Home(c.Part.Price); !ok { // no rate brings it home yet
					cell = "+" + c.Part.Price.Display()
				}
			}
			o.Cells = append(o.Cells, cell)
		}
		rows[i] = o
	}
	return rows, nil
}

func (d *Desk) option(c plan.Choice, diff eval.Difference, own *parts.Part) optionRow {
	o := optionRow{
		Name: choiceName(c), Asks: len(study.Cards(diff.Appear)), State: StateOf(study.Worst(diff.Appear)),
		Current: (c.Part == nil && own == nil) || (c.Part != nil && own != nil && own.ID == c.Part.ID),
	}
	part := c.Part
	if part == nil {
		part = d.Plan.Bike.StandardIn(c.Slot)
		for _, found := range d.Plan.Baseline.Found() { // what was on it when it came
			if found.Slot == c.Slot {
				part, o.Name = found, found.Name+", as it was found"
			}
		}
		if part == nil && c.Loadout == "" && !c.Slot.Comes() {
			o.Name = "None"
		}
	}
	if part == nil {
		return o
	}
	o.ID, o.Sub = part.ID, d.about(part)
	if part.Own() {
		o.Own = d.Href("part", "edit", part.ID)
	}
	if c.Part != nil && part.Price.Known() {
		o.Price = part.Price.Display()
		if home, by, ok := d.Plan.Home(part.Price); ok && by != nil {
			o.Price = home.Display()
		}
	}
	return o
}

// about is what a part is beyond its name.
func (d *Desk) about(p *parts.Part) string {
	text := ""
	add := func(words string) {
		if text != "" {
			text += ", "
		}
		text += words
	}
	if t := p.Tyre(); t != nil {
		if character, ok := tyre.CharacterOf(t.Kind); ok {
			add(character.Name)
		}
		add(t.Size.String())
		add(d.Units.Plain(t.WidthMM(), "mm") + " wide")
	}
	if f := p.Filling(); f != nil {
		if content, ok := tyre.ContentOf(f.Kind); ok && f.Kind == tyre.Tube && p.Price.Known() {
			add(content.Name)
		}
	}
	if p.Mass.Known() {
		add(d.Units.Plain(p.Mass.In("kg"), "kg"))
	}
	if p.Tyre() == nil && p.Filling() == nil && p.Guard() == nil {
		says := p.Says()
		for _, f := range says[:min(2, len(says))] {
			if q, ok := f.Entry.(interface{ In(unit string) float64 }); ok {
				label := strings.TrimPrefix(f.Label, "… ")
				add(strings.ToLower(label[:1]) + label[1:] + " " + d.Units.Plain(q.In(f.Unit), f.Unit))
			}
		}
	}
	if g := p.Guard(); g != nil {
		for _, m := range parts.Mounts() {
			if m.Value == string(g.Mount) {
				add("on the " + strings.Replace(m.Name, "glued or strapped", "surface, glued or strapped", 1))
			}
		}
		if g.Width.Known() {
			add(d.Units.Plain(g.Width.In("mm"), "mm") + " wider")
		}
		for _, a := range parts.Accesses() {
			if slices.Contains(g.Blocks, parts.Access(a.Value)) {
				add("before " + a.Name)
			}
		}
		if g.Bolts != "" {
			add(within(g.Bolts))
		}
	}
	return text
}

// Every lets all parts through.
func Every(*parts.Part) bool { return true }
