package card

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/limp"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// section is a block of the card: what it is called, and what stands there.
type section struct {
	id, name string
	fill     func(*maker, *block)
}

// sections are all there are, in their usual order: what is looked for on the way first.
var sections = []section{
	{"pressures", "Pressures, cold", pressures},
	{"legs", "Fuel", legs},
	{"setting", "Preload and clicks", setting},
	{"buttons", "Buttons and modes", buttons},
	{"limp", "To get home", limpHome},
	{"sizes", "Sizes", sizes},
	{"entered", "Torque and volumes", entered},
	{"limits", "Limits", limits},
	{"call", "To call", call},
}

func sectionOf(id string) (section, bool) {
	at := slices.IndexFunc(sections, func(s section) bool { return s.id == id })
	if at < 0 {
		return section{}, false
	}
	return sections[at], true
}

// chosen are the sections that stand on a card, in the rider's order.
func chosen(c *plan.Card) []section {
	var list []section
	for _, id := range c.Order {
		if s, ok := sectionOf(id); ok {
			list = append(list, s)
		}
	}
	for _, s := range sections {
		if !slices.Contains(c.Order, s.id) {
			list = append(list, s)
		}
	}
	return slices.DeleteFunc(list, func(s section) bool { return slices.Contains(c.Off, s.id) })
}

// maker gathers what sections read.
type maker struct {
	d       *desk.Desk
	reports []*eval.LoadoutReport // of all loadouts, in their order
}

func makerOf(d *desk.Desk) *maker {
	m := &maker{d: d}
	for _, l := range d.Plan.Loadouts {
		if l.ID == d.Loadout {
			m.reports = append(m.reports, d.Report)
		} else if r, err := eval.EvaluateLoadout(d.Plan, d.Shelf, l.ID, d.AsOf); err == nil {
			m.reports = append(m.reports, r)
		}
	}
	return m
}

// block is a section as it is written.
type block struct {
	ID, Name string
	Head     []string
	Rows     [][]string
	Lines    []string
	Wide     bool // it takes the width of the sheet
	Asks     desk.LinkView
}

func (b *block) row(cells ...string) { b.Rows = append(b.Rows, cells) }

func (b *block) empty() bool { return len(b.Rows) == 0 && len(b.Lines) == 0 }

const dash = "–"

// pressures are those taken, front and rear, by surface and loadout.
func pressures(m *maker, b *block) {
	b.Head = []string{m.d.Units.Of("bar")}
	for _, r := range m.reports {
		b.Head = append(b.Head, r.Facts.Loadout.Name)
	}
	mix := m.d.Plan.Brief.Mix()
	for at, s := range terrain.Surfaces() {
		if mix.Said() && s.Share(mix) == 0 {
			continue
		}
		row, known := []string{s.Name}, false
		for _, r := range m.reports {
			cell := dash
			if at < len(r.Facts.Pressures) {
				p := r.Facts.Pressures[at]
				front, rear := bare(m.d, p.Front.Taken()), bare(m.d, p.Rear.Taken())
				cell, known = front+" / "+rear, known || front != dash || rear != dash
			}
			row = append(row, cell)
		}
		if known {
			b.row(row...)
		}
	}
	b.Asks = desk.LinkView{Name: "To the pressures", Href: m.d.Href("pressures")}
}

// bare is a pressure without its unit.
func bare(d *desk.Desk, kPa float64) string {
	if math.IsNaN(kPa) {
		return dash
	}
	own, symbol := d.Units.Convert(kPa/100, "bar")
	digits := 2
	if symbol != "bar" {
		digits = 0
	}
	return words.Number(own, digits)
}

// legs are what is left at each pump, and what if one is shut.
func legs(m *maker, b *block) {
	r, u := &m.d.Report.Facts.Range, m.d.Units
	b.Head = []string{"to", u.Of("km"), "left, " + u.Of("L"), "if shut"}
	litres := func(v float64) string {
		own, _ := u.Convert(v, "L")
		return words.Number(own, 1)
	}
	left := func(marginL, reserveL float64) string { // what is in the tank there
		switch {
		case marginL+reserveL < 0:
			return "dry"
		case marginL < 0:
			return litres(marginL+reserveL) + " !"
		}
		return litres(marginL + reserveL)
	}
	for i, leg := range r.Legs {
		km, _ := u.Convert(leg.Km, "km")
		row := []string{leg.To, words.Number(km, 0), left(leg.MarginL, leg.ReserveL), dash}
		if joined, ok := r.Joined(i); ok {
			row[3] = left(joined.MarginL, joined.ReserveL)
		}
		b.row(row...)
	}
	if len(r.Legs) > 0 {
		b.Lines = append(b.Lines, fmt.Sprintf("Left is all of it, the reserve of %s too; ! goes into it. With %s on board.", litres(r.Legs[0].ReserveL)+" "+u.Of("L"), u.Quantity(r.Legs[0].HaveL, "L")))
	}
	b.Asks = desk.LinkView{Name: "To the range", Href: m.d.Href("range")}
}

// setting is preload and clicks by loadout.
func setting(m *maker, b *block) {
	b.Head = []string{""}
	for _, r := range m.reports {
		b.Head = append(b.Head, r.Facts.Loadout.Name)
	}
	ends := func(name string, of func(*facts.Springs) float64) {
		row, known := []string{name}, false
		for _, r := range m.reports {
			cell := dash
			if mm := of(&r.Facts.Springs); !math.IsNaN(mm) {
				cell, known = m.d.Units.Quantity(mm, "mm"), true
			}
			row = append(row, cell)
		}
		if known {
			b.row(row...)
		}
	}
	ends("Fork preload", func(s *facts.Springs) float64 { return s.Front.End.PreloadMM })
	ends("Shock preload", func(s *facts.Springs) float64 { return s.Rear.End.PreloadMM })
	for _, s := range terrain.Surfaces() {
		row, known := []string{"Clicks, " + strings.ToLower(s.Name)}, false
		for _, r := range m.reports {
			text := clicks(r.Facts.Loadout.ClicksOn(s.ID))
			row, known = append(row, text), known || text != dash
		}
		if known {
			b.row(row...)
		}
	}
	if now := clicks(m.d.Plan.Clicks); now != dash {
		b.Lines = append(b.Lines, "As it stands: "+now+".")
	}
	b.Lines = append(b.Lines, clicksKey)
	if len(b.Rows) == 0 && len(b.Lines) == 1 {
		b.Lines = nil
	}
	b.Asks = desk.LinkView{Name: "To the clicks", Href: m.d.Href("clickers")}
}

const clicksKey = "Clicks out from fully in: fork compression/rebound, shock compression/rebound."

func clicks(c plan.Clicks) string {
	var cells []string
	known := false
	for _, f := range c.Fields("") {
		text := dash
		if f.Entry.Known() {
			text, known = f.Entry.String(), true
		}
		cells = append(cells, text)
	}
	if !known {
		return dash
	}
	return cells[0] + "/" + cells[1] + " · " + cells[2] + "/" + cells[3]
}

func buttons(m *maker, b *block) {
	b.Head, b.Wide = []string{"", "press", "when", "key off"}, true
	for _, button := range m.d.Plan.Buttons {
		press := button.Press
		if button.Hold.Known() {
			press += ", hold " + m.d.Units.ShownOf(&button.Hold)
		}
		b.row(button.Does, press, or(button.When), or(button.KeyOff))
	}
	b.Asks = desk.LinkView{Name: "Write them down", Href: m.d.Href("buttons")}
}

func or(text string) string {
	if text == "" {
		return dash
	}
	return text
}

// limpHome is what to do with this kit, what is not carried, and how far it then gets.
func limpHome(m *maker, b *block) {
	b.Wide = true
	if m.d.Report.Facts.Built == nil {
		return
	}
	l := m.d.Report.Facts.Loadout
	has := func(id string) bool {
		item, _ := limp.ItemOf(id)
		is, _ := m.d.Plan.InKit(l, item)
		return is
	}
	for _, r := range limp.Rows(m.d.Report.Facts.Built.Stops()) {
		missing := r.Missing(has)
		says := r.With + " Then: " + r.Far + "."
		switch {
		case r.With == "":
			says = r.Without + " Then: " + r.Far + "."
		case len(missing) > 0:
			says = "Not along: " + strings.Join(missing, ", ") + ". " + r.Without
		}
		b.row(r.Name, m.d.Units.Prose(says))
	}
	b.Asks = desk.LinkView{Name: "What is along", Href: m.d.Href("on-card")}
}

// sizes are what one asks for over a counter.
func sizes(m *maker, b *block) {
	built := m.d.Report.Facts.Built
	if built == nil {
		return
	}
	for _, slot := range []parts.Slot{parts.FrontTyre, parts.RearTyre} {
		if t := built.Tyre(slot); t != nil && t.Size.String() != "" {
			kind, _ := parts.KindOf(slot)
			b.row(kind.Name, t.Size.String())
		}
	}
	if pair := m.d.Report.Facts.Drive.Pair; pair.Front > 0 && pair.Rear > 0 && !built.Bike.Shaft() {
		text := fmt.Sprintf("%d / %d", pair.Front, pair.Rear)
		if links, ok := m.d.Report.Figure(figure.ChainLinks); ok && links.Known {
			text += ", " + m.d.Units.Value(links)
		}
		if built.Bike.Chain != "" {
			text += " of " + built.Bike.Chain
		}
		b.row("Sprockets, chain", text)
	}
	for _, f := range factsLike(m.d.Plan, "bulb", "fuse", "plug", "code") {
		b.row(f.Name, f.Value)
	}
	if text := fuses(&m.d.Report.Facts.Wiring); text != "" {
		b.row("Fuses added", text)
	}
	b.Asks = desk.LinkView{Name: "To the record", Href: m.d.Href("record")}
}

// fuses are those of what was added, by size.
func fuses(w *facts.Wiring) string {
	var list []string
	for i := range w.Circuits {
		if c := &w.Circuits[i]; c.Err == nil && c.Channel == 0 && c.Draw != nil && c.Draw.Part != nil {
			list = append(list, fmt.Sprintf("%s %s A", c.Draw.Part.Name, words.Number(c.InA(), 1)))
		}
	}
	return strings.Join(list, "; ")
}

// factsLike are facts of the record whose names have one of some words.
func factsLike(p *plan.Plan, names ...string) []plan.Fact {
	var list []plan.Fact
	for _, f := range p.Baseline.AsBuilt {
		if f.Value != "" && slices.ContainsFunc(names, func(n string) bool { return strings.Contains(strings.ToLower(f.Name), n) }) {
			list = append(list, f)
		}
	}
	return list
}

// entered is what somebody wrote down of the manual: torque, volumes, aim.
func entered(m *maker, b *block) {
	said := factsLike(m.d.Plan, "bulb", "fuse", "plug", "code")
	for _, f := range m.d.Plan.Baseline.AsBuilt {
		if f.Value != "" && !slices.Contains(said, f) {
			b.row(f.Name, f.Value)
		}
	}
	for i := range m.d.Plan.Lines {
		l := &m.d.Plan.Lines[i]
		if s := l.Supplied(); s.Torque != "" && l.Standing() == plan.In {
			b.row(l.Title(), s.Torque)
		}
	}
	b.Asks = desk.LinkView{Name: "To the record", Href: m.d.Href("record")}
}

// limits are what bags and bike bear, as their makers say.
func limits(m *maker, b *block) {
	u, bike := m.d.Units, m.d.Plan.Bike
	if bike == nil {
		return
	}
	if q := bike.Permitted; q.Known() {
		b.row("All of it at most", u.Quantity(q.In("kg"), "kg"))
	}
	for _, f := range m.d.Report.Facts.Built.Fitted {
		if q := parts.Carries.In(f.Part); q.Known() {
			b.row(f.Part.Name, "at most "+u.ShownOf(&q))
		}
		if q := parts.MaxSpeed.In(f.Part); q.Known() {
			b.row(f.Part.Name, "to "+u.ShownOf(&q))
		}
	}
	if night, ok := m.d.Report.Figure(figure.NightSpeed); ok && night.Known {
		b.row("By night, by arithmetic", u.Value(night))
	}
}

// call is whom to call, where the rider has ticked it.
func call(m *maker, b *block) {
	c := &m.d.Plan.Card
	if !c.Told {
		return
	}
	for _, who := range c.Call {
		b.row(who.Name, who.Number)
	}
	if c.Blood != "" {
		b.row("Blood group", c.Blood)
	}
}
