package ranging

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// routeForm is what is known of the route: grounds by stretch, and pumps.
var routeForm = desk.StageForm{
	Stage: "route", Title: "The route as typed", Save: "Save the route", Read: readRoute,
	View: func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		v := routeOf(d, typed, errs)
		v.Left = leftWords(d, r.URL.Query())
		return v, nil
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
	Left        []string // out of the file that has just come
	PartAction  string
	DropAction  string
	Shares      []shareRow
	desk.FormState
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
	Grounds  []desk.OptionView
	Error    string
	Out, New bool
}

// stopRow is one pump of the form.
type stopRow struct {
	Index                int
	ID, Name, At, Detour string
	Open, Note, Error    string
	Certainties          []desk.OptionView
	Closed, Out, New     bool
	Number               int
	Sign                 signView
}

// shareRow holds a ground's share of the route against the brief's.
type shareRow struct{ Name, Route, Brief string }

var (
	groundsList = &desk.List{Name: "Stretches", Columns: []string{"from", "to", "ground"}, Out: "out_ground"}
	stopsList   = &desk.List{Name: "Pumps", Columns: []string{"stop", "at", "detour", "certainty", "open", "note", "closed", "stop_id"}, Out: "out_stop"}
)

func (v routeView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Grounds {
		fields = append(fields, groundsList.Fields(row.Index, row.From, row.To, desk.Selected("", "", row.Grounds).Value)...)
	}
	for _, row := range v.Stops {
		fields = append(fields, stopsList.Fields(row.Index, row.Name, row.At, row.Detour, desk.Selected("", "", row.Certainties).Value, row.Open, row.Note, desk.Checked("", "", row.Closed).Value, row.ID)...)
	}
	return fields
}

func (v routeView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// routeView shows the route as it is, or as typed where that can be read.
func routeOf(d *desk.Desk, form url.Values, errs desk.FormErrors) routeView {
	v := routeView{Km: d.Units.Of("km"), Signs: signs(), Import: d.Href("route/import"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("route/try"), Save: d.Href("route")}}
	route := d.Plan.Route
	if route == nil {
		return v
	}
	v.Has, v.Name, v.GPX = true, route.Name, d.Href("route.gpx")
	v.Parts = route.Parts
	v.PartAction, v.DropAction = d.Href("route/part"), d.Href("route/drop")
	v.grounds(d, route, form, errs)
	v.stops(d, route, form, errs)
	shown := route
	if form != nil {
		if changed, _, wrong := readRoute(d, form); len(wrong) == 0 {
			shown = changed.Route
		}
	}
	climb := height(d, shown.ClimbM()) + " of climb, heights averaged over 300 m, turns of less than 10 m left out"
	if shown.Level {
		climb = "no heights in the file: nothing climbs"
	}
	v.Facts = []string{d.Units.Quantity(shown.LengthKm(), "km"), climb, fmt.Sprintf("%d pumps", len(shown.Open()))}
	pumps := pumps(d, desk.Laid{}, shown)
	for i := range pumps {
		pumps[i].Title = fmt.Sprintf("%d %s, %s", i+1, shown.Stops[i].Name, certainty(shown.Stops[i]))
	}
	v.Above = draw.WayFromAbove(shown, pumps, in(d, "km", 0))
	v.Sections = draw.RouteSections(shown, pumps, in(d, "km", 0), func(m float64) string { return height(d, m) })
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

func (v *routeView) grounds(d *desk.Desk, route *plan.Route, form url.Values, errs desk.FormErrors) {
	var kinds []entry.Option
	for _, g := range terrain.Grounds() {
		kinds = append(kinds, entry.Option{Value: string(g.Kind), Name: g.Name})
	}
	for i := range desk.RowsOf(form, "from", len(route.Ground)) {
		var stored plan.GroundStretch
		if i < len(route.Ground) {
			stored = route.Ground[i]
		}
		v.Grounds = append(v.Grounds, groundStretchRow{
			Index: i, New: i >= len(route.Ground), Out: form.Has(desk.RowKey("out_ground", i)), Error: errs[desk.RowKey("from", i)],
			From: desk.Typed(form, desk.RowKey("from", i), d.Units.Shown(stored.From.String())), To: desk.Typed(form, desk.RowKey("to", i), d.Units.Shown(stored.To.String())),
			Grounds: desk.OptionsOf(kinds, desk.Typed(form, desk.RowKey("ground", i), string(stored.Ground)), "not said"),
		})
	}
}

func (v *routeView) stops(d *desk.Desk, route *plan.Route, form url.Values, errs desk.FormErrors) {
	for i := range desk.RowsOf(form, "stop", len(route.Stops)) {
		stored := plan.Stop{Certainty: plan.Unsure}
		if i < len(route.Stops) {
			stored = route.Stops[i]
		}
		closed := stored.Closed
		if form != nil {
			closed = form.Has(desk.RowKey("closed", i))
		}
		row := stopRow{
			Index: i, Number: i + 1, New: i >= len(route.Stops), Out: form.Has(desk.RowKey("out_stop", i)), Error: errs[desk.RowKey("stop", i)], Closed: closed,
			ID: desk.Typed(form, desk.RowKey("stop_id", i), stored.ID), Name: desk.Typed(form, desk.RowKey("stop", i), stored.Name), At: desk.Typed(form, desk.RowKey("at", i), d.Units.Shown(stored.At.String())),
			Detour: desk.Typed(form, desk.RowKey("detour", i), d.Units.Shown(stored.Detour.String())), Open: desk.Typed(form, desk.RowKey("open", i), stored.Open), Note: desk.Typed(form, desk.RowKey("note", i), stored.Note),
			Certainties: desk.OptionsOf(plan.Certainties(), desk.Typed(form, desk.RowKey("certainty", i), string(stored.Certainty)), ""),
		}
		row.Sign = signView{stored.Certainty, closed, ""}
		v.Stops = append(v.Stops, row)
	}
}

// readRoute lays the stretches over one another in their order, and sorts the
// pumps by where they are.
func readRoute(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	if d.Plan.Route == nil {
		errs["form"] = "There is no route to change: bring one in first."
		return &changed, nil, errs
	}
	route := *d.Plan.Route
	route.Ground, route.Stops = nil, nil
	route = *route.Put(readGrounds(d, form, route.LengthKm(), errs)...)
	route.Stops = readStops(d, form, route.LengthKm(), errs)
	changed.Route = &route
	if len(errs) == 0 {
		desk.Problems(&changed, "route", errs)
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

func readGrounds(d *desk.Desk, form url.Values, length float64, errs desk.FormErrors) []plan.GroundStretch {
	var list []plan.GroundStretch
	for i := 0; form.Has(desk.RowKey("from", i)); i++ {
		from, to := strings.TrimSpace(form.Get(desk.RowKey("from", i))), strings.TrimSpace(form.Get(desk.RowKey("to", i)))
		s := plan.GroundStretch{Ground: terrain.Kind(form.Get(desk.RowKey("ground", i)))}
		if (from == "" && to == "") || form.Has(desk.RowKey("out_ground", i)) {
			continue
		}
		err := d.Units.Enter(&s.From, from, "km")
		if err == nil {
			err = d.Units.Enter(&s.To, to, "km")
		}
		if err == nil {
			err = s.Check(length)
		}
		if _, known := terrain.Of(s.Ground); err == nil && s.Ground != "" && !known {
			err = fmt.Errorf("%q is not a kind of ground", s.Ground)
		}
		if err != nil {
			errs[desk.RowKey("from", i)] = err.Error()
			continue
		}
		list = append(list, s)
	}
	return list
}

func readStops(d *desk.Desk, form url.Values, length float64, errs desk.FormErrors) []plan.Stop {
	var list []plan.Stop
	taken := map[string]bool{}
	for i := 0; form.Has(desk.RowKey("stop", i)); i++ {
		s := plan.Stop{
			ID: form.Get(desk.RowKey("stop_id", i)), Name: strings.TrimSpace(form.Get(desk.RowKey("stop", i))), Certainty: plan.Certainty(form.Get(desk.RowKey("certainty", i))),
			Open: strings.TrimSpace(form.Get(desk.RowKey("open", i))), Note: strings.TrimSpace(form.Get(desk.RowKey("note", i))), Closed: form.Has(desk.RowKey("closed", i)),
		}
		at := strings.TrimSpace(form.Get(desk.RowKey("at", i)))
		if (s.Name == "" && at == "") || form.Has(desk.RowKey("out_stop", i)) {
			continue
		}
		err := d.Units.Enter(&s.At, at, "km")
		if err == nil {
			err = d.Units.Enter(&s.Detour, form.Get(desk.RowKey("detour", i)), "km")
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
			errs[desk.RowKey("stop", i)] = err.Error()
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
