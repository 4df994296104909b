package ranging

import (
	"fmt"
	"math"
	"net/url"
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// rangeForm is the cruise and the reserve that the fuel ladder is drawn for.
var rangeForm = desk.SettingsOf(desk.StageForm{
	Stage: "range", Title: "With this cruise and reserve", Save: "Keep cruise and reserve", Read: readRange,
}, rangeOf)

type rangeView struct {
	Has     bool
	Missing []desk.LinkView
	Says    string
	Route   bool
	Ladder  draw.Ladder
	Litre   string // the unit of the ladder's scale
	Km      string
	Sliders []desk.Slider
	Legs    []legRow
	Ways    []wayRow
	Named   []namedWay
	Lists   []desk.OptionList
	Grounds []groundRow
	Working []desk.GaugeView
	Signs   []signView
	desk.FormState
}

// legRow is one leg of the table.
type legRow struct {
	Number                     int
	From, To                   string
	Km, Climb, Ground          string
	Need, Have, Left, Dry, End string
	Shut                       string // what comes of it if the pump at its end is shut
	State                      desk.StateView
	ShutState                  desk.StateView
	Deciding                   bool
	Pump                       *desk.LinkView // to shut it and see
}

// wayRow is one way to close the short leg.
type wayRow struct {
	Name, Href, Cost, Mass, Hours, Range string
	State                                desk.StateView
}

type namedWay struct{ What, Name, Href string }

// groundRow is what the bike burns on one kind of ground.
type groundRow struct{ Name, Speed, RPM, Gear, Uses, Band string }

// signView is a sign of the drawing with its meaning.
type signView struct {
	Certainty plan.Certainty
	Closed    bool
	Name      string
}

// signs of pumps, for the key of a drawing.
func signs() []signView {
	var list []signView
	for _, c := range plan.Certainties() {
		list = append(list, signView{plan.Certainty(c.Value), false, c.Name})
	}
	return append(list, signView{plan.Sure, true, "shut"})
}

func (v rangeView) Fields() []desk.FieldView {
	return desk.SliderFields(v.Sliders)
}

func (v rangeView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// readRange takes cruise and reserve.
func readRange(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	summary := desk.Enter(d.Units, changed.Brief.Riding(), form, errs)
	return &changed, summary, errs
}

// rangeOf is the page.
func rangeOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	v := rangeView{Has: d.Plan.Bike != nil, Route: d.Plan.Route != nil, Signs: signs(), Km: d.Units.Of("km"), Litre: d.Units.Of("L"), FormState: s.State}
	if !v.Has {
		return v, nil
	}
	l, shown, after := s.Tried, s.Plan, s.After
	v.sliders(d, shown, s.Form, s.Errs)
	gauge, _ := after.Figure(figure.Distance)
	if !gauge.Known {
		v.Missing = desk.MissingOf(d.Gauges(after, "range", l, figure.Distance))
	}
	v.legs(d, l, shown, after)
	if ladder, ok := ranging.FuelLadder(after.Facts); ok {
		v.Ladder = draw.FuelLadder(ladder, after.Facts.Range.Legs, shown.Route, ranging.Profile(shown), pumps(d, l, shown.Route),
			in(d, "L", 1), in(d, "km", 0), func(m float64) string { return height(d, m) })
	}
	v.Says = rangeSays(d, after, gauge)
	v.Working = d.Gauges(after, "range", l, "range", "usable-fuel", "consumption", "leg-margin", "dry-chance", "fuel-factor", "drag-area")
	for _, g := range ranging.Grounds(after.Facts) {
		v.Grounds = append(v.Grounds, groundRow{
			g.Ground.Name, d.Units.Quantity(g.Kmh, "km/h"), d.Units.Quantity(g.RPM, "rpm"), strconv.Itoa(g.Gear), d.Units.Quantity(g.Litres, "L/100 km"),
			d.Units.Quantity(g.Litres-fuel.BandSigma*g.Spread, "L/100 km") + " to " + d.Units.Quantity(g.Litres+fuel.BandSigma*g.Spread, "L/100 km"),
		})
	}
	if err := v.ways(d, l); err != nil {
		return v, err
	}
	return v, v.carriers(d, l)
}

// in turns numbers of a metric unit into the rider's, bare and in words.
func in(d *desk.Desk, metric string, digits int) func(v float64) (float64, string) {
	return func(v float64) (float64, string) {
		own, symbol := d.Units.Convert(v, metric)
		if symbol != metric && metric == "L" {
			digits = 2
		}
		return own, words.Number(own, digits) + " " + symbol
	}
}

// height of ground: in feet for those who ride in miles.
func height(d *desk.Desk, m float64) string {
	if d.Units.Of("km") == "mi" {
		return words.Number(m/0.3048, 0) + " ft"
	}
	return words.Number(m, 0) + " m"
}

func rangeSays(d *desk.Desk, after *eval.LoadoutReport, gauge study.Figure) string {
	leg, ok := after.Facts.Range.Decides()
	if !gauge.Known || !ok {
		return ""
	}
	km := func(v float64) string { return d.Units.Quantity(v, "km") }
	where := "The longest gap of the brief decides"
	if after.Facts.Plan.Route != nil {
		where = fmt.Sprintf("%s to %s decides", leg.From, leg.To)
	} else if !gauge.Limited {
		return fmt.Sprintf("%s to %s before the reserve.", km(gauge.Low), km(gauge.High))
	}
	return fmt.Sprintf("%s: %s, and %s to %s before the reserve on such ground.", where, km(leg.Km), km(gauge.Low), km(gauge.High))
}

func (v *rangeView) sliders(d *desk.Desk, shown *plan.Plan, form url.Values, errs desk.FormErrors) {
	for _, f := range shown.Brief.Riding() {
		low, high, step := 60.0, 140.0, 5.0
		if f.Key == "reserve" {
			low, high, step = 0, 40, 1
		}
		v.Sliders = append(v.Sliders, d.SliderOf(f, low, high, step, form, errs))
	}
}

// legs fills the table.
func (v *rangeView) legs(d *desk.Desk, l desk.Laid, shown *plan.Plan, after *eval.LoadoutReport) {
	f := after.Facts.Range
	for i, leg := range f.Legs {
		if math.IsNaN(leg.NeedL) || math.IsNaN(leg.HaveL) {
			return
		}
		low, mid, high := leg.ArriveL()
		litre := func(v float64) string { return d.Units.Quantity(v, "L") }
		row := legRow{
			Number: i + 1, From: leg.From, To: leg.To, Km: d.Units.Quantity(leg.Km, "km"), Climb: height(d, leg.UpM), Ground: desk.Grounds(leg.Mix),
			Need: litre(leg.NeedL), Have: litre(leg.HaveL), Left: desk.SignedWords(litre, leg.MarginL), Dry: desk.Chance(leg.Dry), End: litre(mid),
			State: legState(leg), Deciding: i == f.Deciding,
		}
		if mid > 0 {
			row.End = litre(low) + " to " + litre(high)
		}
		if joined, ok := f.Joined(i); ok {
			row.Shut, row.ShutState = desk.SignedWords(litre, joined.MarginL), legState(joined)
			row.Pump = &desk.LinkView{Name: "Shut " + leg.To, Href: d.Href("range", l.Turning(pumpKey, leg.Ends.ID)...)}
		}
		v.Legs = append(v.Legs, row)
	}
}

func legState(l facts.Leg) desk.StateView {
	switch {
	case l.Short():
		return desk.StateOf(verdict.Over)
	case l.Thirsty():
		return desk.StateOf(verdict.Watch)
	}
	return desk.StateOf(verdict.OK)
}

// pumps are the stops of a route with their signs; each leads to the page with it
// turned.
func pumps(d *desk.Desk, l desk.Laid, route *plan.Route) []draw.Pump {
	if route == nil {
		return nil
	}
	pumps := make([]draw.Pump, len(route.Stops))
	for i, s := range route.Stops {
		p := draw.Pump{ID: s.ID, Number: i + 1, Name: s.Name, Certainty: s.Certainty, Closed: s.Closed, Href: d.Href("range", l.Turning(pumpKey, s.ID)...)}
		p.Title = s.Name + ", " + certainty(s)
		if s.Closed {
			p.Title += ", shut: open it and see"
		} else {
			p.Title += ": shut it and see"
		}
		pumps[i] = p
	}
	return pumps
}

func certainty(s plan.Stop) string {
	text := entry.NameOf(plan.Certainties(), string(s.Certainty))
	if s.Open != "" {
		text += " (" + s.Open + ")"
	}
	return text
}

// ways lists what closes the leg that decides, on top of what is looked at.
func (v *rangeView) ways(d *desk.Desk, l desk.Laid) error {
	bench := d.On
	if l.Any() {
		var err error
		if bench, err = eval.NewBench(l.Plan, d.Shelf, d.Loadout, d.AsOf); err != nil {
			return err
		}
	}
	ways, err := bench.Ways()
	if err != nil {
		return err
	}
	href := func(w eval.Way) string {
		switch {
		case w.Choices != nil:
			return d.Href("range", l.Query(w.Choices...)...)
		case w.Reopens != nil:
			return d.Href("range", l.Turning(pumpKey, w.Reopens.ID)...)
		}
		return d.Href("range", l.Turning(cruiseKey, w.Cruise.String())...)
	}
	for _, w := range ways {
		after, _ := w.After.Figure(figure.Distance)
		cost, _ := w.After.Figure(figure.Cost)
		mass, _ := w.After.Figure(figure.LoadedMass)
		row := wayRow{Name: w.Alternative.Label, Href: href(w), Cost: movedBy(d, cost, w.CostMin), Mass: movedBy(d, mass, w.MassKg), Range: d.Units.Told(after), State: desk.StateOf(after.State)}
		if w.Hours > 0 {
			row.Hours = d.Units.Plain(w.Hours, "h")
		}
		v.Ways = append(v.Ways, row)
	}
	for _, least := range []struct {
		what string
		of   func(eval.Way) float64
	}{
		{"Cheapest", func(w eval.Way) float64 { return w.CostMin }},
		{"Lightest", func(w eval.Way) float64 { return w.MassKg }},
		{"Simplest", func(w eval.Way) float64 { return w.Hours }},
	} {
		if w := eval.Least(ways, least.of); w != nil {
			v.Named = append(v.Named, namedWay{least.what, w.Alternative.Label, href(*w)})
		}
	}
	return nil
}

// movedBy is what a way moves a figure by, or that nobody knows.
func movedBy(d *desk.Desk, f study.Figure, by float64) string {
	if math.IsNaN(by) {
		return "no price in " + d.Plan.Currency
	}
	return d.Units.Delta(f, by)
}

// carriers lists tanks, bladders and cans, held against the plan.
func (v *rangeView) carriers(d *desk.Desk, l desk.Laid) error {
	built := d.Plan.Build(d.Loadout)
	fits := func(p *parts.Part) bool { return d.Shelf.CouldFit(built, p) }
	columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Moves("Rear axle", "axle-rear"), desk.Becomes("Fuel then", "usable-fuel"), desk.Becomes("Range then", "range"), desk.Moves("Own hours", "own-hours")}
	for _, slot := range parts.FuelSlots() {
		list, err := d.OptionsFor(slot, "range", fits, columns, nil, l)
		if err != nil {
			return err
		}
		v.Lists = append(v.Lists, list)
	}
	return nil
}
