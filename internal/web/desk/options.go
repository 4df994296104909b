package desk

import (
	"cmp"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
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
	Slot      parts.Slot
	Name      string
	Aside     string // beside the name
	Columns   []string
	Options   []optionRow // all of them
	Hidden    int         // made for another size
	Compare   bool
	Leave     string    // the argument for the standard part
	LeaveHref string    // where it is left alone on purpose
	Left      string    // why it is, "" where it is not
	Ways      []WayView // a lesson, a skill, a setting

	Whole bool // nothing of it is folded: somebody has searched for just that
}

// optionsMost is how many options stand open beside the plan's, what is standard and the rider's
// own: those that do most for the points of the plan. A list that is hardly longer is not folded.
const (
	optionsMost  = 5
	foldedLeast  = 3
	filteredFrom = 9
)

// foldView are options of one kind that stand folded.
type foldView struct {
	Kind    string
	Options []optionRow
}

// Open are the options that stand open, in the order of the list: as it came, the plan's, the
// rider's own, what lies on the bench, and those that do most for the points of this plan.
func (l OptionList) Open() []optionRow {
	best := l.best()
	return slices.DeleteFunc(slices.Clone(l.Options), func(o optionRow) bool { return !slices.Contains(best, o.Href) })
}

// Folded are the others, by kind.
func (l OptionList) Folded() []foldView {
	best := l.best()
	var list []foldView
	for _, o := range l.Options {
		if slices.Contains(best, o.Href) {
			continue
		}
		at := slices.IndexFunc(list, func(f foldView) bool { return f.Kind == o.Kind })
		if at < 0 {
			at, list = len(list), append(list, foldView{Kind: o.Kind})
		}
		list[at].Options = append(list[at].Options, o)
	}
	return list
}

// Filtered reports whether the list is long enough to be searched by words.
func (l OptionList) Filtered() bool { return !l.Whole && len(l.Options) >= filteredFrom }

// best are the addresses of the options that stand open.
func (l OptionList) best() []string {
	var open []string
	others := make([]optionRow, 0, len(l.Options))
	for _, o := range l.Options {
		if o.Stays || o.Current || o.Tried || o.Own != "" {
			open = append(open, o.Href)
		} else {
			others = append(others, o)
		}
	}
	slices.SortStableFunc(others, func(a, b optionRow) int { return cmp.Compare(b.Does, a.Does) })
	if !l.Whole && len(others) >= optionsMost+foldedLeast {
		others = others[:optionsMost]
	}
	for _, o := range others {
		open = append(open, o.Href)
	}
	return open
}

// optionRow is one option with what it would move.
type optionRow struct {
	ID, Name, Sub, Price string
	Href                 string
	Beside               *LinkView // puts it beside others, or takes it away
	Current, Tried       bool
	Own                  string   // leads to the sheet of a part of the rider's own
	Cells                []string // by the list's columns
	Asks, Settles        int      // points that appear, and that it settles
	Does                 float64  // for the points of the plan
	Stays                bool     // as the bike came: it is never folded
	Kind                 string   // of a part in its slot, for what is folded
	State                StateView

	diff eval.Difference
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
	list.leave(d)
	return list, err
}

// Rows holds choices against the plan, each a link to itself on a page.
func (d *Desk) Rows(choices []plan.Choice, page string, columns []Column, keep []string, tried Laid) ([]optionRow, error) {
	sets := make([][]plan.Choice, len(choices))
	for i := range choices {
		sets[i] = choices[i : i+1]
	}
	return d.Sets(sets, page, columns, keep, tried)
}

// Sets is [Desk.Rows] of choices that are made together: each set is one option, named by its
// first part.
func (d *Desk) Sets(sets [][]plan.Choice, page string, columns []Column, keep []string, tried Laid) ([]optionRow, error) {
	alternatives := make([]eval.Alternative, len(sets))
	for i := range sets {
		sets[i] = d.Plan.Scoped(sets[i], d.Loadout)
		alternatives[i] = eval.Alternative{Label: Title(sets[i]), Plan: d.Plan.With(sets[i]...)}
	}
	differences, err := d.On.Preview(alternatives...)
	if err != nil {
		return nil, err
	}
	rows := make([]optionRow, len(sets))
	for i, set := range sets {
		c := set[0]
		o := d.option(c, differences[i], d.Plan.Chosen(c.Slot, d.Loadout))
		o.Href = d.Href(page, append(tried.Instead(set...), keep...)...)
		o.Tried = !slices.ContainsFunc(set, func(c plan.Choice) bool {
			return !slices.ContainsFunc(tried.Tried, func(t plan.Choice) bool { return tryOf(t) == tryOf(c) })
		})
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
		Name: choiceName(c), Asks: len(study.Cards(diff.Appear)), Settles: len(study.Cards(diff.Vanish)), Does: diff.Does(), State: StateOf(study.Worst(diff.Appear)),
		Stays: c.Part == nil, diff: diff,
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
	o.ID, o.Sub, o.Kind = part.ID, d.about(part), kindOf(part)
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

// kindOf is which kind of its slot a part is, "" for one that has none.
func kindOf(p *parts.Part) string {
	if t := p.Tyre(); t != nil {
		if character, ok := tyre.CharacterOf(t.Kind); ok {
			return character.Name
		}
	}
	if f := p.Filling(); f != nil {
		if content, ok := tyre.ContentOf(f.Kind); ok {
			return content.Name
		}
	}
	if g := p.Guard(); g != nil {
		return entry.NameOf(parts.Mounts(), string(g.Mount))
	}
	return ""
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
		if kind := kindOf(p); kind != "" {
			add(kind)
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
