package web

import (
	"net/http"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/draw"
	"valiantmule/internal/words"
)

// tyresView is the tyres that can be had, each held against the plan.
type tyresView struct {
	Has     bool // a bike
	Wheels  []wheelView
	All     bool // also what does not go on the rims
	Toggle  string
	Section draw.Section
	Circles []circleView
}

// circleView is the table beside the drawing.
type circleView struct {
	Name, Size, Width, Diameter, RollOut string
	Style                                draw.Style
}

type wheelView struct {
	Slot    plan.Slot
	Name    string
	Rim     string
	Columns []string
	Options []tyreOption
	Hidden  int
}

// column is a figure that a wheel's options are compared by.
type column struct{ Title, Figure string }

// columns of the two wheels: what a rear tyre moves is mostly the gearing, what
// a front one moves the steering and the display.
var columns = map[plan.Slot][]column{
	plan.RearTyre:  {{"Cost", "cost"}, {"Gearing", "gear-change"}, {"Cruise", "cruise-rpm"}, {"Pace", "crawl-speed"}},
	plan.FrontTyre: {{"Cost", "cost"}, {"Against rear", "wheel-mix"}, {"Seat", "seat-rise"}, {"Display", "speedometer"}},
}

// tyreOption is one tyre with what it would move.
type tyreOption struct {
	Name, Size, Kind, Price, Mass, Width string
	Note                                 string
	Href                                 string
	Current, Tried                       bool
	Moves                                []string // by the wheel's columns
	Life                                 string
	Asks                                 int // findings that appear
	State                                stateView
}

func (s *Server) tyresPage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	bench, choices, err := d.tried(r, "tyres")
	if err != nil {
		return err
	}
	view := tyresView{Has: d.Plan.Bike != nil, All: r.URL.Query().Has("all")}
	if view.Has {
		if err := d.tyres(&view, choices); err != nil {
			return err
		}
	}
	return s.showStage(w, r, http.StatusOK, d, "tyres", bench, view)
}

func (d *desk) tyres(view *tyresView, tried []plan.Choice) error {
	everything := []string{"all", "1"}
	view.Toggle = d.href("tyres", everything...)
	var keep []string
	if view.All {
		view.Toggle, keep = d.href("tyres"), everything
	}
	for _, slot := range []plan.Slot{plan.RearTyre, plan.FrontTyre} {
		wheel, err := d.wheel(slot, view.All, keep, tried)
		if err != nil {
			return err
		}
		view.Wheels = append(view.Wheels, wheel)
	}
	d.circles(view, tried)
	return nil
}

// wheel lists the tyres for one wheel: the standard one, the shelf's.
func (d *desk) wheel(slot plan.Slot, all bool, keep []string, tried []plan.Choice) (wheelView, error) {
	b := d.Plan.Bike
	info, _ := plan.InfoOf(slot)
	rim := b.FrontRim()
	if slot == plan.RearTyre {
		rim = b.RearRim()
	}
	v := wheelView{Slot: slot, Name: info.Name}
	for _, c := range columns[slot] {
		v.Columns = append(v.Columns, c.Title)
	}
	if rim.DiameterIn > 0 {
		v.Rim = d.units.Plain(rim.DiameterIn, "in") + " rim"
		if rim.WidthIn > 0 {
			v.Rim = d.units.Plain(rim.WidthIn, "in") + " × " + v.Rim
		}
	}
	choices := []plan.Choice{{Slot: slot}}
	own := d.Plan.Chosen(slot)
	listed := own == nil
	for _, p := range d.shelf {
		if p.Slot != slot {
			continue
		}
		if !all && rim.DiameterIn > 0 && p.Tyre.Size.RimIn != rim.DiameterIn {
			v.Hidden++
			continue
		}
		listed = listed || own.ID == p.ID
		choices = append(choices, plan.Choice{Slot: slot, Part: p})
	}
	if !listed {
		choices = append(choices, plan.Choice{Slot: slot, Part: own})
	}
	alternatives := make([]eval.Alternative, len(choices))
	for i, c := range choices {
		alternatives[i] = eval.Alternative{Label: choiceName(c), Plan: d.Plan.With(c)}
	}
	differences, err := d.compare(alternatives...)
	if err != nil {
		return v, err
	}
	for i, c := range choices {
		v.Options = append(v.Options, d.tyreOption(c, differences[i], keep, tried))
	}
	return v, nil
}

func (d *desk) tyreOption(c plan.Choice, diff eval.Difference, keep []string, tried []plan.Choice) tyreOption {
	part := c.Part
	if part == nil {
		part = d.Plan.Bike.StandardIn(c.Slot)
	}
	own := d.Plan.Chosen(c.Slot)
	o := tyreOption{
		Name: choiceName(c), Href: d.href("tyres", append(tries([]plan.Choice{c}), keep...)...), Asks: len(diff.Appear),
		Current: (c.Part == nil && own == nil) || (c.Part != nil && own != nil && own.ID == c.Part.ID),
	}
	for _, column := range columns[c.Slot] {
		o.Moves = append(o.Moves, deltaOf(d.units, diff, column.Figure))
	}
	o.Life = "?"
	if f, ok := diff.After.Figure(lifeOf[c.Slot]); ok && f.Known {
		o.Life = d.units.Value(f)
	}
	for _, t := range tried {
		o.Tried = o.Tried || tryOf(t) == tryOf(c)
	}
	o.State = stateOf(knock.Worst(diff.Appear))
	if part != nil {
		o.Note = part.Note
		if part.Mass.Known() {
			o.Mass = d.units.Plain(part.Mass.In("kg"), "kg")
		}
		if part.Price.Known() {
			o.Price = part.Price.Display()
		}
		if t := part.Tyre; t != nil {
			o.Size, o.Width = t.Size.String(), d.units.Plain(t.WidthMM(), "mm")
			if character, ok := tyre.CharacterOf(t.Kind); ok {
				o.Kind = character.Name
			}
		}
	}
	return o
}

var lifeOf = map[plan.Slot]string{plan.FrontTyre: "front-life", plan.RearTyre: "rear-life"}

// deltaOf is what an option moves a figure by, "" when it does not.
func deltaOf(u words.Units, diff eval.Difference, id string) string {
	for _, m := range diff.Moves {
		if m.After.ID == id {
			if delta, ok := m.Delta(); ok {
				return u.Delta(m.After, delta)
			}
			return "?"
		}
	}
	return ""
}

// circles draws the rear tyre in true section: standard, in the plan, tried.
func (d *desk) circles(view *tyresView, tried []plan.Choice) {
	built := []struct {
		name  string
		style draw.Style
		tyre  *plan.Tyre
	}{
		{"Standard", draw.Standard, d.Plan.BuildStandard().Tyre(plan.RearTyre)},
		{"In the plan", draw.Current, d.Plan.Build().Tyre(plan.RearTyre)},
	}
	if len(tried) > 0 {
		built = append(built, struct {
			name  string
			style draw.Style
			tyre  *plan.Tyre
		}{"On the bench", draw.Tried, d.Plan.With(tried...).Build().Tyre(plan.RearTyre)})
	}
	var tyres []draw.Tyre
	for _, b := range built {
		if b.tyre == nil {
			continue
		}
		tyres = append(tyres, draw.Tyre{
			Style: b.style, WidthMM: b.tyre.WidthMM(), DiameterMM: b.tyre.DiameterMM(), RimMM: 25.4 * b.tyre.Size.RimIn,
		})
		view.Circles = append(view.Circles, circleView{
			b.name, b.tyre.Size.String(), d.units.Plain(b.tyre.WidthMM(), "mm"), d.units.Quantity("", b.tyre.DiameterMM(), "mm"), d.units.Quantity("", b.tyre.CircumferenceMM(), "mm"), b.style,
		})
	}
	view.Section = draw.Tyres(tyres, draw.Clearance{WidthMM: d.Plan.Bike.RearMaxWidth.In("mm"), DiameterMM: d.Plan.Bike.RearMaxDiameter.In("mm")})
}
