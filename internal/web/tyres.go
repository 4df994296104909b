package web

import (
	"fmt"
	"net/http"
	"slices"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/draw"
)

// tyresView is the tyres that can be had, each held against the plan.
type tyresView struct {
	Has    bool // a bike
	Lists  []optionList
	All    bool // also what does not go on the rims
	Toggle string
	Line   draw.Lineup
	Heads  []lineupHead
	Rows   []lineupRow
	Clear  string // takes all away that stands beside
}

// lineupHead is a column of the table under the drawing.
type lineupHead struct{ Name, Word, Style string }

// lineupRow is one property of the tyres in the line-up.
type lineupRow struct {
	Name  string
	Cells []string
}

// maxBeside is how many tyres stand side by side.
const maxBeside = 4

// columns of the two wheels: what a rear tyre moves is mostly the gearing, what
// a front one moves the steering and the display.
var tyreColumns = map[plan.Slot][]column{
	plan.RearTyre:  {moves("Cost", "cost"), moves("Gearing", "gear-change"), moves("Cruise", "cruise-rpm"), moves("Pace", "crawl-speed"), becomes("Lasts", "rear-life")},
	plan.FrontTyre: {moves("Cost", "cost"), moves("Against rear", "wheel-mix"), moves("Seat", "seat-rise"), moves("Display", "speedometer"), becomes("Lasts", "front-life")},
}

func (s *Server) tyresPage(w http.ResponseWriter, r *http.Request) error {
	return s.partsPage(w, r, "tyres", func(d *desk, tried []plan.Choice) (any, error) {
		view := tyresView{Has: d.Plan.Bike != nil, All: r.URL.Query().Has("all")}
		if !view.Has {
			return view, nil
		}
		err := d.tyres(&view, r.URL.Query()["beside"], tried)
		return view, err
	})
}

// partsPage is a page of options: what is tried lies on the bench.
func (s *Server) partsPage(w http.ResponseWriter, r *http.Request, page string, view func(d *desk, tried []plan.Choice) (any, error)) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	bench, tried, err := d.tried(r, page)
	if err != nil {
		return err
	}
	body, err := view(d, tried)
	if err != nil {
		return err
	}
	return s.showPage(w, r, http.StatusOK, d, page, bench, body)
}

func (d *desk) tyres(view *tyresView, beside []string, tried []plan.Choice) error {
	beside = d.known(beside)
	var keep []string
	for _, id := range beside {
		keep = append(keep, "beside", id)
	}
	everything := append(slices.Clone(keep), "all", "1")
	view.Toggle = d.href("tyres", everything...)
	if view.All {
		view.Toggle, keep = d.href("tyres", keep...), everything
	}
	built := d.Plan.Build(d.loadout)
	for _, slot := range []plan.Slot{plan.RearTyre, plan.FrontTyre} {
		rim := built.Rim(slot)
		fits := func(p *plan.Part) bool { return view.All || rim.DiameterIn == 0 || p.Tyre.Size.RimIn == rim.DiameterIn }
		list, err := d.optionsFor(slot, "tyres", fits, tyreColumns[slot], keep, tried)
		if err != nil {
			return err
		}
		list.Aside, list.Compare = d.rimWords(rim), true
		for i := range list.Options {
			if id := list.Options[i].ID; d.shelf.Find(d.Plan.Bike, slot, id) != nil {
				list.Options[i].Beside = d.besideLink(beside, id, view.All, tried)
			}
		}
		view.Lists = append(view.Lists, list)
	}
	if len(beside) > 0 {
		view.Clear = d.href("tyres", tries(tried)...)
	}
	return d.lineup(view, beside, tried)
}

// known keeps the tyres that there are, as many as stand side by side.
func (d *desk) known(ids []string) []string {
	var list []string
	for _, id := range ids {
		if d.tyrePart(id) != nil && !slices.Contains(list, id) && len(list) < maxBeside {
			list = append(list, id)
		}
	}
	return list
}

func (d *desk) tyrePart(id string) *plan.Part {
	for _, p := range d.shelf {
		if p.ID == id && p.Tyre != nil {
			return p
		}
	}
	return nil
}

// besideLink puts a tyre beside the others or takes it away; without an address
// when there is no place left.
func (d *desk) besideLink(beside []string, id string, all bool, tried []plan.Choice) *linkView {
	link := &linkView{Name: "beside", Current: slices.Contains(beside, id)}
	query := tries(tried)
	if all {
		query = append(query, "all", "1")
	}
	for _, other := range beside {
		if other != id {
			query = append(query, "beside", other)
		}
	}
	if !link.Current {
		if len(beside) == maxBeside {
			return link
		}
		query = append(query, "beside", id)
	}
	link.Href = d.href("tyres", query...)
	return link
}

func (d *desk) rimWords(rim tyre.Rim) string {
	switch {
	case rim.DiameterIn == 0:
		return ""
	case rim.WidthIn == 0:
		return d.units.Plain(rim.DiameterIn, "in") + " rim"
	}
	return d.units.Plain(rim.WidthIn, "in") + " × " + d.units.Plain(rim.DiameterIn, "in") + " rim"
}

// contender is a tyre of the line-up with the plan that would ride on it.
type contender struct {
	name, word string
	style      draw.Style
	slot       plan.Slot
	tyre       *plan.Tyre
	part       *plan.Part // nil for the standard one
	plan       *plan.Plan
}

// lineup draws up to four tyres in true section, each over the standard one of
// its end: what stands beside, or else the plan's rear tyre and the one on the
// bench.
func (d *desk) lineup(view *tyresView, beside []string, tried []plan.Choice) error {
	list := d.contenders(beside, tried)
	alternatives := make([]eval.Alternative, len(list))
	for i, c := range list {
		alternatives[i] = eval.Alternative{Label: c.name, Plan: c.plan}
	}
	differences, err := d.on.Preview(alternatives...)
	if err != nil {
		return err
	}
	standard := d.Plan.BuildStandard()
	room := map[plan.Slot]draw.Clearance{
		plan.RearTyre:  {WidthMM: d.Plan.Bike.RearMaxWidth.In("mm"), DiameterMM: d.Plan.Bike.RearMaxDiameter.In("mm")},
		plan.FrontTyre: {WidthMM: d.Plan.Bike.FrontMaxWidth.In("mm"), DiameterMM: d.Plan.Bike.FrontMaxDiameter.In("mm")},
	}
	rows := make([]lineupRow, len(lineupRows))
	for i, row := range lineupRows {
		rows[i].Name = row.name
	}
	var drawn []draw.Contender
	for i, c := range list {
		shown := draw.Contender{Tyre: tyreOf(c.tyre, c.style), Room: room[c.slot]}
		if was := standard.Tyre(c.slot); was != nil && c.part != nil {
			shown.Standard = tyreOf(was, draw.Standard)
		}
		drawn = append(drawn, shown)
		view.Heads = append(view.Heads, lineupHead{c.name, c.word, string(c.style)})
		for j, row := range lineupRows {
			rows[j].Cells = append(rows[j].Cells, row.cell(d, c, differences[i]))
		}
	}
	view.Line, view.Rows = draw.TyreLineup(drawn), rows
	return nil
}

func tyreOf(t *plan.Tyre, style draw.Style) draw.Tyre {
	return draw.Tyre{Style: style, WidthMM: t.WidthMM(), DiameterMM: t.DiameterMM(), RimMM: 25.4 * t.Size.RimIn}
}

func (d *desk) contenders(beside []string, tried []plan.Choice) []contender {
	var list []contender
	for _, id := range beside {
		part := d.tyrePart(id)
		word := "beside"
		if own := d.Plan.Chosen(part.Slot, d.loadout); own != nil && own.ID == id {
			word = "in the plan"
		}
		choices := d.Plan.Scoped([]plan.Choice{{Slot: part.Slot, Part: part}}, d.loadout)
		list = append(list, contender{part.Name, word, draw.Current, part.Slot, part.Tyre, part, d.Plan.With(choices...)})
	}
	if len(list) > 0 {
		return list
	}
	slot := plan.RearTyre
	for _, c := range tried {
		if c.Slot == plan.FrontTyre {
			slot = plan.FrontTyre
		}
	}
	add := func(p *plan.Plan, word string, style draw.Style) {
		part := p.Build(d.loadout).Part(slot)
		if part == nil || part.Tyre == nil {
			return
		}
		c := contender{part.Name, word, style, slot, part.Tyre, part, p}
		if p.Chosen(slot, d.loadout) == nil {
			c.part = nil
		}
		list = append(list, c)
	}
	bare := *d.Plan
	bare.Lines = slices.DeleteFunc(slices.Clone(d.Plan.Lines), func(l plan.Line) bool { return l.Part != nil && l.Part.Slot == slot })
	add(&bare, "as it came", draw.Standard)
	if d.Plan.Chosen(slot, d.loadout) != nil {
		add(d.Plan, "in the plan", draw.Current)
	}
	if len(tried) > 0 {
		add(d.Plan.With(tried...), "on the bench", draw.Tried)
	}
	return list
}

// lineupRows are the properties by which tyres stand side by side.
var lineupRows = []struct {
	name string
	cell func(d *desk, c contender, diff eval.Difference) string
}{
	{"Size", func(_ *desk, c contender, _ eval.Difference) string { return c.tyre.Size.String() }},
	{"Kind", func(_ *desk, c contender, _ eval.Difference) string {
		character, _ := tyre.CharacterOf(c.tyre.Kind)
		return fmt.Sprintf("%s, %.0f %% road", character.Name, 100*character.RoadShare)
	}},
	{"Price", func(_ *desk, c contender, _ eval.Difference) string {
		if c.part == nil || !c.part.Price.Known() {
			return "–"
		}
		return c.part.Price.Display()
	}},
	{"Width, diameter", func(d *desk, c contender, _ eval.Difference) string {
		return d.units.Plain(c.tyre.WidthMM(), "mm") + ", " + d.units.Quantity(c.tyre.DiameterMM(), "mm")
	}},
	{"Roll-out", func(d *desk, c contender, _ eval.Difference) string {
		return d.units.Quantity(c.tyre.CircumferenceMM(), "mm")
	}},
	{"Rim, its share of the width", func(d *desk, c contender, _ eval.Difference) string {
		rim := c.plan.Build(d.loadout).Rim(c.slot)
		low, high := tyre.RimShareRange(c.tyre.Kind)
		if rim.WidthIn == 0 {
			return "rim width not known"
		}
		return fmt.Sprintf("%.0f %%, usual %.0f–%.0f %%", 100*tyre.RimShare(c.tyre.Size, rim), 100*low, 100*high)
	}},
	{"Carries, up to", func(d *desk, c contender, _ eval.Difference) string {
		kg, known := tyre.MaxLoadKg(c.tyre.Size.LoadIndex)
		kmh, fast := tyre.MaxSpeedKmh(c.tyre.Size.Speed)
		if !known || !fast {
			return "not in the code"
		}
		return d.units.Quantity(kg, "kg") + ", " + d.units.Plain(kmh, "km/h")
	}},
	{"Lasts", func(d *desk, c contender, diff eval.Difference) string {
		f, _ := diff.After.Figure(lifeOf[c.slot])
		if !f.Banded {
			return "?"
		}
		return d.units.Band(f)
	}},
	{"Does one set last the trip?", func(d *desk, c contender, diff eval.Difference) string { return d.lasts(c, diff.After) }},
	{"Per 1 000 km", func(d *desk, c contender, diff eval.Difference) string {
		f, _ := diff.After.Figure(lifeOf[c.slot])
		if c.part == nil || !f.Known {
			return "–"
		}
		price, _, ok := d.Plan.Home(c.part.Price)
		if !ok {
			return "?"
		}
		return d.units.Quantity(float64(price.Minor())/f.Value*1000, d.Plan.Currency)
	}},
	{"Gearing, walking pace", func(d *desk, c contender, diff eval.Difference) string {
		if c.slot != plan.RearTyre {
			return "–"
		}
		change, _ := diff.After.Figure(figure.GearChange)
		pace, _ := diff.After.Figure(figure.CrawlSpeed)
		return d.units.Value(change) + ", " + d.units.Value(pace)
	}},
	{"Front against rear", func(d *desk, _ contender, diff eval.Difference) string {
		f, _ := diff.After.Figure(figure.WheelMix)
		return d.units.Value(f)
	}},
	{"Open points then", func(_ *desk, _ contender, diff eval.Difference) string {
		worst := study.Worst(diff.After.Findings)
		return fmt.Sprintf("%d, worst %s", len(diff.After.Findings), worst)
	}},
}

var lifeOf = map[plan.Slot]figure.ID{plan.FrontTyre: figure.FrontLife, plan.RearTyre: figure.RearLife}

// lasts answers whether a tyre lasts the trip, or else from where another is
// needed.
func (d *desk) lasts(c contender, after *eval.LoadoutReport) string {
	f, _ := after.Figure(lifeOf[c.slot])
	trip := d.Plan.Brief.Distance.In("km")
	switch {
	case !f.Banded || !(trip > 0):
		return "?"
	case f.Low >= trip:
		return "yes, at the low end too"
	case f.Value >= trip:
		return "likely; look at it from " + d.units.As(f.ID, f.Low)
	case f.High >= trip:
		return "if it goes well; have one waiting at " + d.units.As(f.ID, f.Low)
	}
	return "no: change between " + d.units.As(f.ID, f.Low) + " and " + d.units.As(f.ID, f.High)
}
