package brief

import (
	"cmp"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/instead"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/web/desk"
)

// pointsForm is every point in its place: in our order, in the rider's own, and what the rider
// has set aside.
var pointsForm = desk.StageForm{
	Stage: "points", Title: "Points as typed", Save: "Keep this order", Rows: true, Read: readPoints, View: viewPoints,
	Kept: func(s *desk.House, r *http.Request, d *desk.Desk, _ *plan.Plan) (string, error) {
		return d.Href(s.PageOf(cmp.Or(r.PostFormValue("from"), "points"))), nil
	},
}

// pointsView is all of them.
type pointsView struct {
	Has    bool
	Decide []pointRow
	Day    []desk.FindingView
	Know   []desk.FindingView
	Open   []desk.FindingView // of which a guess decides whether they are so
	Aside  []asideView
	Ask    *askView      // about the one that is to be set aside
	Take   *desk.WayView // what answers points without a part
	From   string        // the page that is gone back to
	whys   []desk.FieldView
	desk.FormState
}

// pointRow is a decision with its place in the rider's own order.
type pointRow struct {
	desk.PointView
	Key, Place, Error string
}

// asideView is a point that is set aside.
type asideView struct {
	desk.FindingView
	For, On string
}

// askView asks why a point is set aside, and for which loadout.
type askView struct {
	ID, What string
	Rating   bool // it is noted, and stays
	Why      desk.FieldView
	For      []desk.OptionView
}

// Fields lists the values of the form, for what changed in two places.
func (v pointsView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Decide {
		fields = append(fields, desk.FieldView{Key: row.Key, Label: row.What, Value: row.Place})
	}
	return append(fields, v.whys...)
}

func (v pointsView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func viewPoints(r *http.Request, d *desk.Desk, form url.Values, errs desk.FormErrors) (desk.FormBody, error) {
	v := pointsView{Has: d.Plan.Bike != nil, From: cmp.Or(r.FormValue("from"), "points"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("points/try"), Save: d.Href("points")}}
	d.Told = true
	findings := d.Report.Findings
	for i, c := range study.Cards(findings) {
		row := pointRow{PointView: d.Point(c, i+1, "points", d.OnTop("points", desk.Laid{})), Key: "place." + c.Lead.ID}
		stored := ""
		if row.Yours > 0 {
			stored = strconv.Itoa(row.Yours)
		}
		row.Place, row.Error = desk.Typed(form, row.Key, stored), errs[row.Key]
		v.Decide = append(v.Decide, row)
	}
	told := func(list []study.Finding) (views []desk.FindingView) {
		for _, f := range list {
			views = append(views, d.Finding(f))
		}
		return views
	}
	v.Day, v.Know, v.Open = told(study.OfTheDay(findings)), told(study.SmallThings(findings)), told(study.Guessed(findings))
	for _, f := range study.SetAside(findings) {
		v.Aside = append(v.Aside, asideView{d.Finding(f), forWords(d.Plan, f.Waived.Loadout), f.Waived.On})
	}
	for _, f := range findings {
		why := desk.FieldView{Key: "why." + f.ID, Label: d.Finding(f).What}
		if w := d.Plan.Waiver(f.ID, d.Loadout); w != nil {
			why.Value = w.Why
		}
		v.whys = append(v.whys, why)
		_, typed := form["why."+f.ID]
		if typed || form == nil && r.URL.Query().Get("finding") == f.ID {
			v.Ask = ask(d, f, form, errs)
		}
	}
	if way, ok := instead.Of(r.FormValue("instead")); ok {
		v.Take = &d.Ways([]instead.Way{way})[0]
	}
	return v, nil
}

// ask is the question about one point.
func ask(d *desk.Desk, f study.Finding, form url.Values, errs desk.FormErrors) *askView {
	view := d.Finding(f)
	a := &askView{ID: f.ID, What: view.What, Rating: f.State == verdict.Stop}
	a.Why = desk.ReasonOf(form, "why."+f.ID, view.Waived, "I know: I walk those kilometres", errs)
	options := []entry.Option{{Value: d.Loadout, Name: forWords(d.Plan, d.Loadout)}}
	a.For = desk.OptionsOf(options, form.Get("for."+f.ID), forWords(d.Plan, ""))
	return a
}

// forWords say for which loadout a point is set aside.
func forWords(p *plan.Plan, id string) string {
	if l, err := p.Loadout(id); err == nil {
		return "for “" + l.Name + "” only"
	}
	return "for every loadout"
}

// readPoints sets points aside, makes them points again, and takes the rider's own order: of
// what the form asks, and of nothing else.
func readPoints(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	changed, errs := d.Plan, desk.FormErrors{}
	var said []string
	places := map[string]int{}
	for _, f := range d.On.Report().Findings {
		what := func() string { return d.Finding(f).What }
		if slices.Contains(form["back"], f.ID) && f.Waived != nil {
			changed = changed.Waived(plan.Waiver{Finding: f.ID, Loadout: d.Loadout})
			said = append(said, "A point again: "+what())
		}
		if _, asked := form["why."+f.ID]; asked {
			w := plan.Waiver{Finding: f.ID, Loadout: form.Get("for." + f.ID), Why: strings.TrimSpace(form.Get("why." + f.ID)), On: d.AsOf, Mark: f.Mark()}
			switch problem := refusedWaiver(d.Plan, w); {
			case problem != "":
				errs["why."+f.ID] = problem
			case d.Plan.Waiver(f.ID, w.Loadout) == nil || f.Back != "" || d.Plan.Waiver(f.ID, w.Loadout).Why != w.Why:
				changed = changed.Waived(w)
				said = append(said, "Set aside, "+forWords(d.Plan, w.Loadout)+": "+what()+" "+w.Why)
			}
		}
		if text := strings.TrimSpace(form.Get("place." + f.ID)); text != "" {
			n, err := strconv.Atoi(text)
			if err != nil || n < 1 {
				errs["place."+f.ID] = "Want a place in the order: 1, 2, 3 …"
			}
			places[f.ID] = n
		}
	}
	if way, ok := instead.Of(form.Get("instead")); ok {
		var how string
		if changed, how = taken(d, changed, way); how == "" {
			errs["form"] = way.Name + " answers none of the points as they stand now."
		} else {
			said = append(said, how)
		}
	}
	if order := ordered(d.Plan.Order, places, form); !slices.Equal(order, d.Plan.Order) {
		own := *changed
		own.Order = order
		changed, said = &own, append(said, fmt.Sprintf("Your own order of %d points", len(order)))
	}
	return changed, said, errs
}

// taken is a plan with a lesson, a skill or a setting in place of a part: the points that it
// answers are set aside, and what it costs is a line; said is "" where there are none.
func taken(d *desk.Desk, p *plan.Plan, way instead.Way) (changed *plan.Plan, said string) {
	changed = p
	n := 0
	for _, f := range study.Loud(d.On.Report().Findings) {
		if slices.Contains(way.Answers, f.ID) {
			changed = changed.Waived(plan.Waiver{Finding: f.ID, Why: way.Name, On: d.AsOf, Mark: f.Mark()})
			n++
		}
	}
	if n == 0 {
		return p, ""
	}
	line := plan.Line{Kind: plan.Lesson, Name: way.Name, Need: plan.Wanted}
	if way.Euros > 0 && !slices.ContainsFunc(p.Lines, func(l plan.Line) bool { return l.Kind == plan.Lesson && l.Name == way.Name }) {
		line.Amount = money.New(int64(math.Round(way.Euros*money.Minors(p.Currency))), p.Currency)
		lined := *changed
		lined.Lines = append(slices.Clone(changed.Lines), line)
		changed = &lined
	}
	return changed, fmt.Sprintf("%s, in place of a part: %d points set aside", way.Name, n)
}

// refusedWaiver says why a point cannot be set aside so.
func refusedWaiver(p *plan.Plan, w plan.Waiver) string {
	if problem := desk.RefusedReason(w.Why); problem != "" {
		return problem
	}
	if _, err := p.Loadout(w.Loadout); w.Loadout != "" && err != nil {
		return "There is no such loadout in the plan."
	}
	return ""
}

// ordered are the rules by the places that are typed; those of which the form does not ask keep
// theirs behind them.
func ordered(was []string, places map[string]int, form url.Values) []string {
	var list []string
	for id := range places {
		list = append(list, id)
	}
	slices.SortFunc(list, func(a, b string) int {
		return cmp.Or(places[a]-places[b], slices.Index(was, a)-slices.Index(was, b), strings.Compare(a, b))
	})
	for _, id := range was {
		if _, asked := form["place."+id]; !asked {
			list = append(list, id)
		}
	}
	return list
}
