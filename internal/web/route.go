package web

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
)

// routeForm is what is known of the route: grounds by stretch, and pumps.
var routeForm = stageForm{
	stage: "route", title: "The route as typed", save: "Save the route", read: (*desk).readRoute,
	view: func(_ *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		return d.routeView(typed, errs), nil
	},
}

type routeView struct {
	Has         bool
	Name        string
	Facts       []string
	Above       draw.Way
	Sections    draw.Sections
	Km          string
	Legend      []legendView
	Signs       []signView
	Grounds     []groundStretchRow
	Stops       []stopRow
	Parts       []string // of the kept track, where it has several
	GPX         string
	Import      string
	ImportError string
	PartAction  string
	DropAction  string
	Shares      []shareRow
	formState
}

// legendView is a pattern of lines with its ground.
type legendView struct {
	Ground terrain.Kind
	Name   string
	Share  string
}

// groundStretchRow is one stretch of the form.
type groundStretchRow struct {
	Index    int
	From, To string
	Grounds  []optionView
	Error    string
	Out, New bool
}

// stopRow is one pump of the form.
type stopRow struct {
	Index                int
	ID, Name, At, Detour string
	Open, Note, Error    string
	Certainties          []optionView
	Closed, Out, New     bool
	Number               int
	Sign                 signView
}

// shareRow holds a ground's share of the route against the brief's.
type shareRow struct{ Name, Route, Brief string }

var (
	groundsList = &list{Name: "Stretches", Columns: []string{"from", "to", "ground"}, Out: "out_ground"}
	stopsList   = &list{Name: "Pumps", Columns: []string{"stop", "at", "detour", "certainty", "open", "note", "closed", "stop_id"}, Out: "out_stop"}
)

func (v routeView) fields() []fieldView {
	var fields []fieldView
	for _, row := range v.Grounds {
		fields = append(fields, groundsList.fields(row.Index, row.From, row.To, selected("", "", row.Grounds).Value)...)
	}
	for _, row := range v.Stops {
		fields = append(fields, stopsList.fields(row.Index, row.Name, row.At, row.Detour, selected("", "", row.Certainties).Value, row.Open, row.Note, checked("", "", row.Closed).Value, row.ID)...)
	}
	return fields
}

func (v routeView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// routeView shows the route as it is, or as typed where that can be read.
func (d *desk) routeView(form url.Values, errs formErrors) routeView {
	v := routeView{Km: d.units.Of("km"), Signs: signs(), Import: d.href("route/import"), formState: formState{Error: errs["form"], Try: d.href("route/try"), Save: d.href("route")}}
	route := d.Plan.Route
	if route == nil {
		return v
	}
	v.Has, v.Name, v.GPX = true, route.Name, d.href("route.gpx")
	v.Parts = route.Parts
	v.PartAction, v.DropAction = d.href("route/part"), d.href("route/drop")
	v.grounds(route, form, errs)
	v.stops(route, form, errs)
	shown := route
	if form != nil {
		if changed, _, wrong := d.readRoute(form); len(wrong) == 0 {
			shown = changed.Route
		}
	}
	climb := d.height(shown.ClimbM()) + " of climb, heights averaged over 300 m, turns of less than 10 m left out"
	if shown.Level {
		climb = "no heights in the file: nothing climbs"
	}
	v.Facts = []string{d.units.Quantity(shown.LengthKm(), "km"), climb, fmt.Sprintf("%d pumps", len(shown.Open()))}
	pumps := d.pumps(looked{}, shown)
	for i := range pumps {
		pumps[i].Title = fmt.Sprintf("%d %s, %s", i+1, shown.Stops[i].Name, certainty(shown.Stops[i]))
	}
	v.Above = draw.WayFromAbove(shown, pumps, d.in("km", 0))
	v.Sections = draw.RouteSections(shown, pumps, d.in("km", 0), d.height)
	mix := shown.Mix()
	rest := 1 - mix.Sum()
	for i, g := range terrain.Grounds() {
		if share := mix.At(i); share > 0.0005 {
			v.Legend = append(v.Legend, legendView{g.Kind, g.Name, fmt.Sprintf("%.0f %%", 100*share)})
		}
		if share, brief := mix.At(i), d.Plan.Brief.Share(g.Kind); share > 0.0005 || brief.Known() {
			v.Shares = append(v.Shares, shareRow{g.Name, fmt.Sprintf("%.0f %%", 100*share), brief.String()})
		}
	}
	if rest > 0.001 {
		v.Legend = append(v.Legend, legendView{"", "Not said: taken as the brief's mix", fmt.Sprintf("%.0f %%", 100*rest)})
	}
	return v
}

func (v *routeView) grounds(route *plan.Route, form url.Values, errs formErrors) {
	var kinds []plan.Option
	for _, g := range terrain.Grounds() {
		kinds = append(kinds, plan.Option{Value: string(g.Kind), Name: g.Name})
	}
	for i := range rowsOf(form, "from", len(route.Ground)) {
		var stored plan.GroundStretch
		if i < len(route.Ground) {
			stored = route.Ground[i]
		}
		v.Grounds = append(v.Grounds, groundStretchRow{
			Index: i, New: i >= len(route.Ground), Out: form.Has(rowKey("out_ground", i)), Error: errs[rowKey("from", i)],
			From: typed(form, rowKey("from", i), stored.From.String()), To: typed(form, rowKey("to", i), stored.To.String()),
			Grounds: optionsOf(kinds, typed(form, rowKey("ground", i), string(stored.Ground)), "not said"),
		})
	}
}

func (v *routeView) stops(route *plan.Route, form url.Values, errs formErrors) {
	for i := range rowsOf(form, "stop", len(route.Stops)) {
		stored := plan.Stop{Certainty: plan.Unsure}
		if i < len(route.Stops) {
			stored = route.Stops[i]
		}
		closed := stored.Closed
		if form != nil {
			closed = form.Has(rowKey("closed", i))
		}
		row := stopRow{
			Index: i, Number: i + 1, New: i >= len(route.Stops), Out: form.Has(rowKey("out_stop", i)), Error: errs[rowKey("stop", i)], Closed: closed,
			ID: typed(form, rowKey("stop_id", i), stored.ID), Name: typed(form, rowKey("stop", i), stored.Name), At: typed(form, rowKey("at", i), stored.At.String()),
			Detour: typed(form, rowKey("detour", i), stored.Detour.String()), Open: typed(form, rowKey("open", i), stored.Open), Note: typed(form, rowKey("note", i), stored.Note),
			Certainties: optionsOf(plan.Certainties(), typed(form, rowKey("certainty", i), string(stored.Certainty)), ""),
		}
		row.Sign = signView{stored.Certainty, closed, ""}
		v.Stops = append(v.Stops, row)
	}
}

// readRoute lays the stretches over one another in their order, and sorts the
// pumps by where they are.
func (d *desk) readRoute(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	if d.Plan.Route == nil {
		errs["form"] = "There is no route to change: bring one in first."
		return &changed, nil, errs
	}
	route := *d.Plan.Route
	route.Ground, route.Stops = nil, nil
	route = *route.Put(d.readGrounds(form, route.LengthKm(), errs)...)
	route.Stops = d.readStops(form, route.LengthKm(), errs)
	changed.Route = &route
	if len(errs) == 0 {
		problems(&changed, "route", errs)
	}
	var summary []string
	for _, part := range []struct{ name, was, now string }{
		{"Grounds", groundsText(d.Plan.Route.Ground), groundsText(route.Ground)},
		{"Pumps", stopsText(d.Plan.Route.Stops), stopsText(route.Stops)},
	} {
		if part.was != part.now {
			summary = append(summary, part.name+": "+part.now)
		}
	}
	return &changed, summary, errs
}

func (d *desk) readGrounds(form url.Values, length float64, errs formErrors) []plan.GroundStretch {
	var list []plan.GroundStretch
	for i := 0; form.Has(rowKey("from", i)); i++ {
		from, to := strings.TrimSpace(form.Get(rowKey("from", i))), strings.TrimSpace(form.Get(rowKey("to", i)))
		s := plan.GroundStretch{Ground: terrain.Kind(form.Get(rowKey("ground", i)))}
		if (from == "" && to == "") || form.Has(rowKey("out_ground", i)) {
			continue
		}
		err := s.From.Enter(from, d.units.Of("km"))
		if err == nil {
			err = s.To.Enter(to, d.units.Of("km"))
		}
		if err == nil {
			err = s.Check(length)
		}
		if _, known := terrain.Of(s.Ground); err == nil && s.Ground != "" && !known {
			err = fmt.Errorf("%q is not a kind of ground", s.Ground)
		}
		if err != nil {
			errs[rowKey("from", i)] = err.Error()
			continue
		}
		list = append(list, s)
	}
	return list
}

func (d *desk) readStops(form url.Values, length float64, errs formErrors) []plan.Stop {
	var list []plan.Stop
	taken := map[string]bool{}
	for i := 0; form.Has(rowKey("stop", i)); i++ {
		s := plan.Stop{
			ID: form.Get(rowKey("stop_id", i)), Name: strings.TrimSpace(form.Get(rowKey("stop", i))), Certainty: plan.Certainty(form.Get(rowKey("certainty", i))),
			Open: strings.TrimSpace(form.Get(rowKey("open", i))), Note: strings.TrimSpace(form.Get(rowKey("note", i))), Closed: form.Has(rowKey("closed", i)),
		}
		at := strings.TrimSpace(form.Get(rowKey("at", i)))
		if (s.Name == "" && at == "") || form.Has(rowKey("out_stop", i)) {
			continue
		}
		err := s.At.Enter(at, d.units.Of("km"))
		if err == nil {
			err = s.Detour.Enter(form.Get(rowKey("detour", i)), d.units.Of("km"))
		}
		switch {
		case err == nil && s.Name == "":
			err = fmt.Errorf("say what it is called")
		case err == nil && !s.At.Known():
			err = fmt.Errorf("say where it is, from the start")
		case err == nil:
			err = s.Check(length)
		}
		if err != nil {
			errs[rowKey("stop", i)] = err.Error()
		}
		if s.ID == "" || taken[s.ID] {
			s.ID = freshStop(taken)
		}
		taken[s.ID] = true
		list = append(list, s)
	}
	slices.SortStableFunc(list, func(a, b plan.Stop) int {
		switch {
		case a.At.In("km") < b.At.In("km"):
			return -1
		case a.At.In("km") > b.At.In("km"):
			return 1
		}
		return 0
	})
	return list
}

// freshStop is the first id that no pump has.
func freshStop(taken map[string]bool) string {
	for n := 1; ; n++ {
		if id := fmt.Sprintf("stop-%d", n); !taken[id] {
			return id
		}
	}
}

func groundsText(list []plan.GroundStretch) string {
	words := make([]string, len(list))
	for i, s := range list {
		words[i] = fmt.Sprintf("%s to %s %s", s.From, s.To, s.Ground)
	}
	return strings.Join(words, "; ")
}

func stopsText(list []plan.Stop) string {
	words := make([]string, len(list))
	for i, s := range list {
		words[i] = strings.TrimSpace(fmt.Sprintf("%s at %s %s %s %s %s", s.Name, s.At, s.Detour, s.Certainty, s.Open, s.Note))
		if s.Closed {
			words[i] += " shut"
		}
	}
	return strings.Join(words, "; ")
}
