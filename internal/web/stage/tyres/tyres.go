package tyres

import (
	"fmt"
	"net/http"
	"slices"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// tyresView is the tyres that can be had, each held against the plan.
type tyresView struct {
	Has    bool // a bike
	Lists  []desk.OptionList
	All    bool // also what does not go on the rims
	Toggle string
	Line   draw.Lineup
	Heads  []lineupHead
	Rows   []desk.LineupRow
	Clear  string // takes all away that stands beside
}

// lineupHead is one of the tyres that stand side by side.
type lineupHead struct{ Name, Word, Style string }

// maxBeside is how many tyres stand side by side.
const maxBeside = 4

// columns of the two wheels: what a rear tyre moves is mostly the gearing, what
// a front one moves the steering and the display.
var tyreColumns = map[parts.Slot][]desk.Column{
	parts.RearTyre:  {desk.Moves("Cost", "cost"), desk.Moves("Gearing", "gear-change"), desk.Moves("Cruise", "cruise-rpm"), desk.Moves("Pace", "crawl-speed"), desk.Becomes("Lasts", "rear-life")},
	parts.FrontTyre: {desk.Moves("Cost", "cost"), desk.Moves("Against rear", "wheel-mix"), desk.Moves("Seat", "seat-rise"), desk.Moves("Display", "speedometer"), desk.Becomes("Lasts", "front-life")},
}

func tyresPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	return s.PartsPage(w, r, "tyres", func(d *desk.Desk, tried desk.Laid) (any, error) {
		view := tyresView{Has: d.Plan.Bike != nil, All: r.URL.Query().Has("all")}
		if !view.Has {
			return view, nil
		}
		err := tyres(d, &view, r.URL.Query()["beside"], tried)
		return view, err
	})
}

func tyres(d *desk.Desk, view *tyresView, beside []string, tried desk.Laid) error {
	beside = known(d, beside)
	var keep []string
	for _, id := range beside {
		keep = append(keep, "beside", id)
	}
	everything := append(slices.Clone(keep), "all", "1")
	view.Toggle = d.Href("tyres", everything...)
	if view.All {
		view.Toggle, keep = d.Href("tyres", keep...), everything
	}
	built := d.Plan.Build(d.Loadout)
	pairs, err := pairsOf(d, built, keep, tried)
	if err != nil {
		return err
	}
	if len(pairs.Options) > 0 {
		view.Lists = append(view.Lists, pairs)
	}
	for _, slot := range []parts.Slot{parts.RearTyre, parts.FrontTyre} {
		rim := built.Rim(slot)
		fits := func(p *parts.Part) bool { return view.All || onRim(p, rim) }
		list, err := d.OptionsFor(slot, "tyres", fits, tyreColumns[slot], keep, tried)
		if err != nil {
			return err
		}
		list.Aside, list.Compare = rimWords(d, rim), true
		for i := range list.Options {
			if id := list.Options[i].ID; d.Shelf.Find(d.Plan.Bike, slot, id) != nil {
				list.Options[i].Beside = besideLink(d, beside, id, view.All, tried)
			}
		}
		view.Lists = append(view.Lists, list)
	}
	if len(beside) > 0 {
		view.Clear = d.Href("tyres", tried.Query()...)
	}
	return lineup(d, view, beside, tried)
}

// onRim reports whether a tyre is made for a rim, or nobody has said which that is.
func onRim(p *parts.Part, rim tyre.Rim) bool {
	return rim.DiameterIn == 0 || parts.TyreCode.In(p).RimIn == rim.DiameterIn
}

// known keeps the tyres that there are, as many as stand side by side.
func known(d *desk.Desk, ids []string) []string {
	var list []string
	for _, id := range ids {
		if tyrePart(d, id) != nil && !slices.Contains(list, id) && len(list) < maxBeside {
			list = append(list, id)
		}
	}
	return list
}

func tyrePart(d *desk.Desk, id string) *parts.Part {
	for _, p := range d.Shelf {
		if p.ID == id && p.Tyre() != nil {
			return p
		}
	}
	return nil
}

// besideLink puts a tyre beside the others or takes it away; without an address
// when there is no place left.
func besideLink(d *desk.Desk, beside []string, id string, all bool, tried desk.Laid) *desk.LinkView {
	link := &desk.LinkView{Name: "beside", Current: slices.Contains(beside, id)}
	query := tried.Query()
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
	link.Href = d.Href("tyres", query...)
	return link
}

func rimWords(d *desk.Desk, rim tyre.Rim) string {
	switch {
	case rim.DiameterIn == 0:
		return ""
	case rim.WidthIn == 0:
		return d.Units.Plain(rim.DiameterIn, "in") + " rim"
	}
	return d.Units.Plain(rim.WidthIn, "in") + " × " + d.Units.Plain(rim.DiameterIn, "in") + " rim"
}

// contender is a tyre of the line-up with the plan that would ride on it.
type contender struct {
	name, word string
	style      draw.Style
	slot       parts.Slot
	tyre       *parts.Tyre
	part       *parts.Part // nil for the standard one
	plan       *plan.Plan
}

// lineup draws up to four tyres in true section, each over the standard one of
// its end: what stands beside, or else the plan's rear tyre and the one on the
// bench.
func lineup(d *desk.Desk, view *tyresView, beside []string, tried desk.Laid) error {
	list := contenders(d, beside, tried)
	standard := d.Plan.BuildStandard()
	room := map[parts.Slot]draw.Clearance{
		parts.RearTyre:  {WidthMM: d.Plan.Bike.RearMaxWidth.In("mm"), DiameterMM: d.Plan.Bike.RearMaxDiameter.In("mm")},
		parts.FrontTyre: {WidthMM: d.Plan.Bike.FrontMaxWidth.In("mm"), DiameterMM: d.Plan.Bike.FrontMaxDiameter.In("mm")},
	}
	rows := make([]desk.LineupRow, len(lineupRows))
	for i, row := range lineupRows {
		rows[i].Name = row.name
		if row.name == perThousand {
			rows[i].Name += d.Units.Of("km")
		}
	}
	var drawn []draw.Contender
	for _, c := range list {
		shown := draw.Contender{Tyre: tyreOf(c.tyre, c.style), Room: room[c.slot]}
		if was := standard.Tyre(c.slot); was != nil && c.part != nil {
			shown.Standard = tyreOf(was, draw.Standard)
		}
		drawn = append(drawn, shown)
		view.Heads = append(view.Heads, lineupHead{Name: c.name, Word: c.word, Style: string(c.style)})
		after, err := d.Evaluate(c.plan)
		if err != nil {
			return err
		}
		for j, row := range lineupRows {
			rows[j].Cells = append(rows[j].Cells, row.cell(d, c, after))
		}
	}
	view.Line, view.Rows = draw.TyreLineup(drawn), rows
	return nil
}

func tyreOf(t *parts.Tyre, style draw.Style) draw.Tyre {
	return draw.Tyre{Style: style, WidthMM: t.WidthMM(), DiameterMM: t.DiameterMM(), RimMM: 25.4 * t.Size.RimIn}
}

func contenders(d *desk.Desk, beside []string, tried desk.Laid) []contender {
	var list []contender
	for _, id := range beside {
		part := tyrePart(d, id)
		if parts.TyreCode.In(part).IsZero() {
			continue // nothing to draw
		}
		word := "beside"
		if own := d.Plan.Chosen(part.Slot, d.Loadout); own != nil && own.ID == id {
			word = "in the plan"
		}
		choices := d.Plan.Scoped([]plan.Choice{{Slot: part.Slot, Part: part}}, d.Loadout)
		list = append(list, contender{part.Name, word, draw.Current, part.Slot, part.Tyre(), part, d.Plan.With(choices...)})
	}
	if len(list) > 0 {
		return list
	}
	slot := parts.RearTyre
	for _, c := range tried.Tried {
		if c.Slot == parts.FrontTyre {
			slot = parts.FrontTyre
		}
	}
	add := func(p *plan.Plan, word string, style draw.Style) {
		built := p.Build(d.Loadout)
		part := built.Part(slot)
		if built.Tyre(slot) == nil {
			return
		}
		c := contender{part.Name, word, style, slot, part.Tyre(), part, p}
		if p.Chosen(slot, d.Loadout) == nil {
			c.part = nil
		}
		list = append(list, c)
	}
	bare := *d.Plan
	bare.Lines = slices.DeleteFunc(slices.Clone(d.Plan.Lines), func(l plan.Line) bool { return l.Part != nil && l.Part.Slot == slot })
	add(&bare, "as it came", draw.Standard)
	if d.Plan.Chosen(slot, d.Loadout) != nil {
		add(d.Plan, "in the plan", draw.Current)
	}
	if tried.Any() {
		add(d.After.Facts.Plan, "on the bench", draw.Tried)
	}
	return list
}

// perThousand is the row of what tyres cost by distance; the rider's unit follows.
const perThousand = "Per 1000 "

// lineupRows are the properties by which tyres stand side by side.
var lineupRows = []struct {
	name string
	cell func(d *desk.Desk, c contender, after *eval.LoadoutReport) string
}{
	{"Size", func(_ *desk.Desk, c contender, _ *eval.LoadoutReport) string { return c.tyre.Size.String() }},
	{"Kind", func(_ *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		character, _ := tyre.CharacterOf(c.tyre.Kind)
		return fmt.Sprintf("%s, %.0f %% road", character.Name, 100*character.RoadShare)
	}},
	{"Price", func(_ *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		if c.part == nil || !c.part.Price.Known() {
			return "–"
		}
		return c.part.Price.Display()
	}},
	{"Width, diameter", func(d *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		return d.Units.Plain(c.tyre.WidthMM(), "mm") + ", " + d.Units.Quantity(c.tyre.DiameterMM(), "mm")
	}},
	{"Roll-out", func(d *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		return d.Units.Quantity(c.tyre.CircumferenceMM(), "mm")
	}},
	{"Rim, its share of the width", func(d *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		rim := c.plan.Build(d.Loadout).Rim(c.slot)
		low, high := tyre.RimShareRange(c.tyre.Kind)
		if rim.WidthIn == 0 {
			return "rim width not known"
		}
		return fmt.Sprintf("%.0f %%, usual %.0f–%.0f %%", 100*tyre.RimShare(c.tyre.Size, rim), 100*low, 100*high)
	}},
	{"Carries, up to", func(d *desk.Desk, c contender, _ *eval.LoadoutReport) string {
		kg, known := tyre.MaxLoadKg(c.tyre.Size.LoadIndex)
		kmh, fast := tyre.MaxSpeedKmh(c.tyre.Size.Speed)
		if !known || !fast {
			return "not in the code"
		}
		return d.Units.Quantity(kg, "kg") + ", " + d.Units.Plain(kmh, "km/h")
	}},
	{"Lasts", func(d *desk.Desk, c contender, after *eval.LoadoutReport) string {
		f, _ := after.Figure(lifeOf[c.slot])
		if !f.Banded {
			return d.Units.Told(f)
		}
		return d.Units.Band(f)
	}},
	{"Does one set last the trip?", func(d *desk.Desk, c contender, after *eval.LoadoutReport) string { return lasts(d, c, after) }},
	{perThousand, func(d *desk.Desk, c contender, after *eval.LoadoutReport) string {
		f, _ := after.Figure(lifeOf[c.slot])
		if c.part == nil || !f.Known {
			return "–"
		}
		price, _, ok := d.Plan.Home(c.part.Price)
		if !ok {
			return "no price in " + d.Plan.Currency
		}
		life, _ := d.Units.Convert(f.Value, "km")
		return d.Units.Quantity(float64(price.Minor())/life*1000, d.Plan.Currency)
	}},
	{"Gearing, walking pace", func(d *desk.Desk, c contender, after *eval.LoadoutReport) string {
		if c.slot != parts.RearTyre {
			return "–"
		}
		change, _ := after.Figure(figure.GearChange)
		pace, _ := after.Figure(figure.CrawlSpeed)
		return d.Units.Told(change) + ", " + d.Units.Told(pace)
	}},
	{"Front against rear", func(d *desk.Desk, _ contender, after *eval.LoadoutReport) string {
		f, _ := after.Figure(figure.WheelMix)
		return d.Units.Told(f)
	}},
	{"To decide then", func(_ *desk.Desk, _ contender, after *eval.LoadoutReport) string {
		worst := study.Worst(after.Findings)
		return fmt.Sprintf("%d, worst %s", len(study.Cards(after.Findings)), worst)
	}},
}

var lifeOf = map[parts.Slot]figure.ID{parts.FrontTyre: figure.FrontLife, parts.RearTyre: figure.RearLife}

// lasts answers whether a tyre lasts the trip, or else from where another is
// needed.
func lasts(d *desk.Desk, c contender, after *eval.LoadoutReport) string {
	f, _ := after.Figure(lifeOf[c.slot])
	trip := d.Plan.Brief.Distance.In("km")
	switch {
	case !f.Banded:
		return d.Units.Told(f)
	case !(trip > 0):
		return "needs trip distance"
	case f.Low >= trip:
		return "yes, at the low end too"
	case f.Value >= trip:
		return "likely; look at it from " + d.Units.As(f.ID, f.Low)
	case f.High >= trip:
		return "if it goes well; have one waiting at " + d.Units.As(f.ID, f.Low)
	}
	return "no: change between " + d.Units.As(f.ID, f.Low) + " and " + d.Units.As(f.ID, f.High)
}
