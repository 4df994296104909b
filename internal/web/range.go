package web

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/draw"
	"valiantmule/internal/words"
)

// rangeForm is the cruise and the reserve that the fuel ladder is drawn for.
var rangeForm = stageForm{
	stage: "range", title: "With this cruise and reserve", save: "Keep cruise and reserve", read: (*desk).readRange,
	view: func(r *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		looked, err := d.looked(r.URL.Query())
		if err != nil {
			return nil, err
		}
		return d.fuel(looked, typed, errs)
	},
}

// looked is the plan that the range page shows: with parts on the bench and with
// pumps closed, or opened again, to see.
type looked struct {
	plan   *plan.Plan
	tried  []plan.Choice
	turned []string // ids of pumps
}

// query of what is looked at, with the pump turned too where one is given.
func (l looked) query(pump string) []string {
	query := tries(l.tried)
	for _, id := range l.turned {
		if id != pump {
			query = append(query, "pump", id)
		}
	}
	if pump != "" && !slices.Contains(l.turned, pump) {
		query = append(query, "pump", pump)
	}
	return query
}

// looked reads what an address tries and which pumps it turns.
func (d *desk) looked(query url.Values) (looked, error) {
	choices, err := d.choices(query["try"])
	if err != nil {
		return looked{}, err
	}
	l := looked{plan: d.Plan, tried: choices}
	if len(choices) > 0 && d.Plan.Bike != nil {
		l.plan = d.Plan.With(choices...)
	}
	if d.Plan.Route == nil {
		return l, nil
	}
	for _, s := range d.Plan.Route.Stops {
		if slices.Contains(query["pump"], s.ID) {
			l.turned = append(l.turned, s.ID)
		}
	}
	if len(l.turned) > 0 {
		changed := *l.plan
		changed.Route = changed.Route.Closing(l.turned...)
		l.plan = &changed
	}
	return l, nil
}

// bench lays what is looked at on the bench; nil when nothing is.
func (d *desk) benchOf(l looked) (*benchView, error) {
	if len(l.tried) == 0 && len(l.turned) == 0 {
		return nil, nil
	}
	var names []string
	if len(l.tried) > 0 {
		names = append(names, title(l.tried))
	}
	for _, id := range l.turned {
		names = append(names, d.turnedWords(id))
	}
	onto := func(remedy []plan.Choice) string {
		return d.href("range", looked{tried: merged(l.tried, remedy), turned: l.turned}.query("")...)
	}
	bench, err := d.bench(eval.Alternative{Label: strings.Join(names, ", "), Plan: l.plan}, "range", onto)
	if err != nil {
		return nil, err
	}
	bench.Action = "/plans/" + d.PlanID + "/choose"
	bench.lay(l.tried)
	bench.Pumps = l.turned
	return bench, nil
}

// turnedWords say what turning a pump does to it.
func (d *desk) turnedWords(id string) string {
	for _, s := range d.Plan.Route.Stops {
		if s.ID != id {
			continue
		}
		if s.Closed {
			return s.Name + " open"
		}
		return s.Name + " shut"
	}
	return id
}

func (s *Server) rangePage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	if r.URL.Query().Has("cruise") { // a link that slows down
		typed := url.Values{"cruise": {r.URL.Query().Get("cruise")}, "reserve": {d.Plan.Brief.Reserve.String()}}
		return s.showRange(w, r, d, typed)
	}
	return s.showRange(w, r, d, nil)
}

// rangeTry holds cruise and reserve as typed, with what is looked at, against the
// plan.
func (s *Server) rangeTry(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	return s.showRange(w, r, d, r.PostForm)
}

func (s *Server) showRange(w http.ResponseWriter, r *http.Request, d *desk, typed url.Values) error {
	l, err := d.looked(r.URL.Query())
	if err != nil {
		return err
	}
	var errs formErrors
	var bench *benchView
	if typed == nil {
		bench, err = d.benchOf(l)
	} else {
		var changed *plan.Plan
		changed, _, errs = d.with(l.plan).readRange(typed)
		bench, err = rangeForm.bench(d, changed, errs)
	}
	if err != nil {
		return err
	}
	body, err := d.fuel(l, typed, errs)
	if err != nil {
		return err
	}
	return s.showPage(w, r, http.StatusOK, d, "range", bench, body)
}

type rangeView struct {
	Has     bool
	Missing []string
	Says    string
	Route   bool
	Ladder  draw.Ladder
	Litre   string // the unit of the ladder's scale
	Km      string
	Sliders []sliderView
	Legs    []legRow
	Ways    []wayRow
	Named   []namedWay
	Lists   []optionList
	Grounds []groundRow
	Working []gaugeView
	Signs   []signView
	formState
}

// sliderView is a number that is moved by hand.
type sliderView struct {
	Key, Label, Unit, Value, Help, Error string
	Min, Max, Step                       string
}

// legRow is one leg of the table.
type legRow struct {
	Number                     int
	From, To                   string
	Km, Climb, Ground          string
	Need, Have, Left, Dry, End string
	Shut                       string // what comes of it if the pump at its end is shut
	State                      stateView
	ShutState                  stateView
	Deciding                   bool
	Pump                       *linkView // to shut it and see
}

// wayRow is one way to close the short leg.
type wayRow struct {
	Name, Href, Cost, Mass, Hours, Range string
	State                                stateView
	Tried                                bool
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

func (v rangeView) fields() []fieldView {
	fields := make([]fieldView, len(v.Sliders))
	for i, s := range v.Sliders {
		fields[i] = fieldView{Key: s.Key, Label: s.Label, Unit: s.Unit, Value: s.Value}
	}
	return fields
}

func (v rangeView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// readRange takes cruise and reserve.
func (d *desk) readRange(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	summary := enter(d.units, changed.Brief.Riding(), form, errs)
	return &changed, summary, errs
}

// fuel is the page: what is looked at, with what is typed.
func (d *desk) fuel(l looked, form url.Values, errs formErrors) (rangeView, error) {
	v := rangeView{Has: d.Plan.Bike != nil, Route: d.Plan.Route != nil, Signs: signs(), Km: d.units.Of("km"), Litre: d.units.Of("L"),
		formState: formState{Error: errs["form"], Try: d.href("range/try", l.query("")...), Save: d.href("range")}}
	if !v.Has {
		return v, nil
	}
	shown := l.plan
	if form != nil {
		shown, _, _ = d.with(l.plan).readRange(form)
	}
	after, err := d.on.Evaluate(shown)
	if err != nil {
		return v, err
	}
	v.sliders(d, shown, form, errs)
	gauge, _ := after.Figure(figure.Distance)
	v.Missing = gauge.Missing
	v.legs(d, l, shown, after)
	if ladder, ok := ranging.FuelLadder(after.Facts); ok {
		v.Ladder = draw.FuelLadder(ladder, after.Facts.Range.Legs, shown.Route, ranging.Profile(shown), d.pumps(l, shown.Route),
			d.in("L", 1), d.in("km", 0), d.height)
	}
	v.Says = d.rangeSays(after, gauge)
	for _, id := range []figure.ID{"range", "usable-fuel", "consumption", "leg-margin", "dry-chance", "fuel-factor", "drag-area"} {
		if f, ok := after.Figure(id); ok {
			v.Working = append(v.Working, gaugeOf(d.units, f, d.href("working/"+string(id), append([]string{"stage", "range"}, tries(l.tried)...)...)))
		}
	}
	for _, g := range ranging.Grounds(after.Facts) {
		v.Grounds = append(v.Grounds, groundRow{
			g.Ground.Name, d.units.Quantity(g.Kmh, "km/h"), d.units.Quantity(g.RPM, "rpm"), strconv.Itoa(g.Gear), d.units.Quantity(g.Litres, "L/100 km"),
			d.units.Quantity(g.Litres-fuel.BandSigma*g.Spread, "L/100 km") + " to " + d.units.Quantity(g.Litres+fuel.BandSigma*g.Spread, "L/100 km"),
		})
	}
	if err := v.ways(d, l); err != nil {
		return v, err
	}
	return v, v.carriers(d, l)
}

// in turns numbers of a metric unit into the rider's, bare and in words.
func (d *desk) in(metric string, digits int) func(v float64) (float64, string) {
	return func(v float64) (float64, string) {
		own, symbol := d.units.Convert(v, metric)
		if symbol != metric && metric == "L" {
			digits = 2
		}
		return own, words.Number(own, digits) + " " + symbol
	}
}

// height of ground: in feet for those who ride in miles.
func (d *desk) height(m float64) string {
	if d.units.Of("km") == "mi" {
		return words.Number(m/0.3048, 0) + " ft"
	}
	return words.Number(m, 0) + " m"
}

func (d *desk) rangeSays(after *eval.LoadoutReport, gauge study.Figure) string {
	leg, ok := after.Facts.Range.Decides()
	if !gauge.Known || !ok {
		return ""
	}
	km := func(v float64) string { return d.units.Quantity(v, "km") }
	where := "The longest gap of the brief decides"
	if after.Facts.Plan.Route != nil {
		where = fmt.Sprintf("%s to %s decides", leg.From, leg.To)
	} else if !gauge.Limited {
		return fmt.Sprintf("%s to %s before the reserve.", km(gauge.Low), km(gauge.High))
	}
	return fmt.Sprintf("%s: %s, and %s to %s before the reserve on such ground.", where, km(leg.Km), km(gauge.Low), km(gauge.High))
}

func (v *rangeView) sliders(d *desk, shown *plan.Plan, form url.Values, errs formErrors) {
	for _, f := range shown.Brief.Riding() {
		low, high, step := 60.0, 140.0, 5.0
		if f.Key == "reserve" {
			low, high, step = 0, 40, 1
		}
		low, unit := d.units.Convert(low, f.Unit)
		high, _ = d.units.Convert(high, f.Unit)
		s := sliderView{Key: f.Key, Label: f.Label, Unit: unit, Help: f.Help, Error: errs[f.Key], Min: fmt.Sprintf("%.0f", low), Max: fmt.Sprintf("%.0f", high), Step: fmt.Sprintf("%.0f", step)}
		s.Value = typed(form, f.Key, f.Entry.String())
		v.Sliders = append(v.Sliders, s)
	}
}

// legs fills the table.
func (v *rangeView) legs(d *desk, l looked, shown *plan.Plan, after *eval.LoadoutReport) {
	f := after.Facts.Range
	for i, leg := range f.Legs {
		if math.IsNaN(leg.NeedL) || math.IsNaN(leg.HaveL) {
			return
		}
		low, mid, high := leg.ArriveL()
		litre := func(v float64) string { return d.units.Quantity(v, "L") }
		row := legRow{
			Number: i + 1, From: leg.From, To: leg.To, Km: d.units.Quantity(leg.Km, "km"), Climb: d.height(leg.UpM), Ground: grounds(leg.Mix),
			Need: litre(leg.NeedL), Have: litre(leg.HaveL), Left: signedWords(litre, leg.MarginL), Dry: chance(leg.Dry), End: litre(mid),
			State: legState(leg), Deciding: i == f.Deciding,
		}
		if mid > 0 {
			row.End = litre(low) + " to " + litre(high)
		}
		if joined, ok := f.Joined(i); ok {
			row.Shut, row.ShutState = signedWords(litre, joined.MarginL), legState(joined)
			row.Pump = &linkView{Name: "Shut " + leg.To, Href: d.href("range", l.query(leg.Ends.ID)...)}
		}
		v.Legs = append(v.Legs, row)
	}
}

func legState(l facts.Leg) stateView {
	switch {
	case l.Short():
		return stateOf(verdict.Over)
	case l.Thirsty():
		return stateOf(verdict.Watch)
	}
	return stateOf(verdict.OK)
}

// signedWords of a quantity.
func signedWords(words func(float64) string, v float64) string {
	if v < 0 {
		return "−" + words(-v)
	}
	return words(v)
}

// grounds names the two largest shares of a mix.
func grounds(mix terrain.Mix) string {
	type share struct {
		name string
		of   float64
	}
	var list []share
	for i, g := range terrain.Grounds() {
		if mix.At(i) >= 0.05 {
			list = append(list, share{g.Name, mix.At(i)})
		}
	}
	slices.SortStableFunc(list, func(a, b share) int { return int(1000 * (b.of - a.of)) })
	var words []string
	for i, s := range list {
		if i < 2 {
			words = append(words, fmt.Sprintf("%.0f %% %s", 100*s.of, strings.ToLower(s.name)))
		}
	}
	return strings.Join(words, ", ")
}

// pumps are the stops of a route with their signs; each leads to the page with it
// turned.
func (d *desk) pumps(l looked, route *plan.Route) []draw.Pump {
	if route == nil {
		return nil
	}
	pumps := make([]draw.Pump, len(route.Stops))
	for i, s := range route.Stops {
		p := draw.Pump{ID: s.ID, Number: i + 1, Name: s.Name, Certainty: s.Certainty, Closed: s.Closed, Href: d.href("range", l.query(s.ID)...)}
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
	text := plan.NameOf(plan.Certainties(), string(s.Certainty))
	if s.Open != "" {
		text += " (" + s.Open + ")"
	}
	return text
}

// ways lists what closes the leg that decides, on top of what is looked at.
func (v *rangeView) ways(d *desk, l looked) error {
	bench, err := eval.NewBench(l.plan, d.shelf, d.loadout, d.asOf)
	if err != nil {
		return err
	}
	ways, err := bench.Ways()
	if err != nil {
		return err
	}
	href := func(w eval.Way) string {
		switch {
		case w.Choices != nil:
			return d.href("range", looked{tried: merged(l.tried, w.Choices), turned: l.turned}.query("")...)
		case w.Reopens != nil:
			return d.href("range", l.query(w.Reopens.ID)...)
		}
		return d.href("range", append(l.query(""), "cruise", w.Cruise.String())...)
	}
	for _, w := range ways {
		after, _ := w.After.Figure(figure.Distance)
		cost, _ := w.After.Figure(figure.Cost)
		mass, _ := w.After.Figure(figure.LoadedMass)
		row := wayRow{Name: w.Alternative.Label, Href: href(w), Cost: d.units.Delta(cost, w.CostMin), Mass: d.units.Delta(mass, w.MassKg), Range: d.units.Value(after), State: stateOf(after.State)}
		if w.Hours > 0 {
			row.Hours = d.units.Plain(w.Hours, "h")
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

// carriers lists tanks, bladders and cans, held against the plan.
func (v *rangeView) carriers(d *desk, l looked) error {
	built := d.Plan.Build(d.loadout)
	fits := func(p *plan.Part) bool { return d.shelf.CouldFit(built, p) }
	columns := []column{moves("Cost", "cost"), moves("Mass", "loaded-mass"), moves("Rear axle", "axle-rear"), becomes("Fuel then", "usable-fuel"), becomes("Range then", "range"), moves("Own hours", "own-hours")}
	var keep []string
	for _, id := range l.turned {
		keep = append(keep, "pump", id)
	}
	for _, slot := range plan.FuelSlots() {
		list, err := d.optionsFor(slot, "range", fits, columns, keep, l.tried)
		if err != nil {
			return err
		}
		v.Lists = append(v.Lists, list)
	}
	return nil
}
