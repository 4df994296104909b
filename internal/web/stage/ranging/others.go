package ranging

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// othersForm is what other riders say, and who rides along.
var othersForm = desk.StageForm{
	Stage: "others", Title: "Others as typed", Save: "Save them", Read: readOthers,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return others(d, typed, errs), nil
	},
}

type othersView struct {
	Own, Theirs string // what stands beside each other
	Uses, Km    string
	Reports     []reportRow
	Group       []mateRow
	desk.FormState
}

type reportRow struct {
	Index                       int
	Who, Bike, Uses, Conditions string
	Own, Same, Out, New         bool
	Error                       string
}

type mateRow struct {
	Index       int
	Name, Range string
	Error       string
	Out, New    bool
}

var (
	reportsList = &desk.List{Name: "Reports", Columns: []string{"who", "bike", "uses", "conditions", "own", "same"}, Out: "out_report"}
	matesList   = &desk.List{Name: "Group", Columns: []string{"mate", "range"}, Out: "out_mate"}
)

func (v othersView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, r := range v.Reports {
		fields = append(fields, reportsList.Fields(r.Index, r.Who, r.Bike, r.Uses, r.Conditions, desk.Checked("", "", r.Own).Value, desk.Checked("", "", r.Same).Value)...)
	}
	for _, m := range v.Group {
		fields = append(fields, matesList.Fields(m.Index, m.Name, m.Range)...)
	}
	return fields
}

func (v othersView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func others(d *desk.Desk, form url.Values, errs desk.FormErrors) othersView {
	v := othersView{Uses: d.Units.Of("L/100 km"), Km: d.Units.Of("km"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("others/try"), Save: d.Href("others")}}
	for i := range desk.RowsOf(form, "who", len(d.Plan.Reports)) {
		var stored plan.Report
		if i < len(d.Plan.Reports) {
			stored = d.Plan.Reports[i]
		}
		row := reportRow{
			Index: i, New: i >= len(d.Plan.Reports), Out: form.Has(desk.RowKey("out_report", i)), Error: errs[desk.RowKey("who", i)], Own: stored.Own, Same: stored.Same,
			Who: desk.Typed(form, desk.RowKey("who", i), stored.Who), Bike: desk.Typed(form, desk.RowKey("bike", i), stored.Bike), Uses: desk.Typed(form, desk.RowKey("uses", i), d.Units.Shown(stored.Uses.String())),
			Conditions: desk.Typed(form, desk.RowKey("conditions", i), stored.Conditions),
		}
		if form != nil {
			row.Own, row.Same = form.Has(desk.RowKey("own", i)), form.Has(desk.RowKey("same", i))
		}
		v.Reports = append(v.Reports, row)
	}
	for i := range desk.RowsOf(form, "mate", len(d.Plan.Group)) {
		var stored plan.Mate
		if i < len(d.Plan.Group) {
			stored = d.Plan.Group[i]
		}
		v.Group = append(v.Group, mateRow{
			Index: i, New: i >= len(d.Plan.Group), Out: form.Has(desk.RowKey("out_mate", i)), Error: errs[desk.RowKey("mate", i)],
			Name: desk.Typed(form, desk.RowKey("mate", i), stored.Name), Range: desk.Typed(form, desk.RowKey("range", i), d.Units.Shown(stored.Range.String())),
		})
	}
	v.Own, v.Theirs = besideOthers(d)
	return v
}

// besideOthers is the plan's own consumption, and the weighed one of the reports
// with how far they lie apart.
func besideOthers(d *desk.Desk) (own, theirs string) {
	if f, ok := d.Report.Figure(figure.Consumption); ok && f.Known {
		own = desk.GaugeOf(d.Units, f, "").Band
	}
	if mean, low, high, ok := plan.Told(d.Plan.Reports); ok {
		words := func(v float64) string { return d.Units.Quantity(v, "L/100 km") }
		theirs = fmt.Sprintf("%s weighed, between %s and %s", words(mean), words(low), words(high))
	}
	return own, theirs
}

func readOthers(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Reports, changed.Group = nil, nil
	for i := 0; form.Has(desk.RowKey("who", i)); i++ {
		text := func(key string) string { return strings.TrimSpace(form.Get(desk.RowKey(key, i))) }
		r := plan.Report{Who: text("who"), Bike: text("bike"), Conditions: text("conditions"), Own: form.Has(desk.RowKey("own", i)), Same: form.Has(desk.RowKey("same", i))}
		if (r.Who == "" && text("uses") == "") || form.Has(desk.RowKey("out_report", i)) {
			continue
		}
		err := d.Units.Enter(&r.Uses, text("uses"), "L/100 km")
		if err == nil {
			err = r.Check()
		}
		if err == nil && r.Who == "" {
			err = fmt.Errorf("say who: a number without a source is worth nothing")
		}
		if err != nil {
			errs[desk.RowKey("who", i)] = err.Error()
		}
		changed.Reports = append(changed.Reports, r)
	}
	for i := 0; form.Has(desk.RowKey("mate", i)); i++ {
		m := plan.Mate{Name: strings.TrimSpace(form.Get(desk.RowKey("mate", i)))}
		far := strings.TrimSpace(form.Get(desk.RowKey("range", i)))
		if (m.Name == "" && far == "") || form.Has(desk.RowKey("out_mate", i)) {
			continue
		}
		err := d.Units.Enter(&m.Range, far, "km")
		if err == nil {
			err = m.Check()
		}
		if err == nil && m.Name == "" {
			err = fmt.Errorf("say who it is")
		}
		if err != nil {
			errs[desk.RowKey("mate", i)] = err.Error()
		}
		changed.Group = append(changed.Group, m)
	}
	if len(errs) == 0 {
		desk.Problems(&changed, "reports", errs)
	}
	var summary []string
	for _, part := range []struct{ name, was, now string }{
		{"Reports", reportsText(d.Plan.Reports), reportsText(changed.Reports)},
		{"Group", matesText(d.Plan.Group), matesText(changed.Group)},
	} {
		if part.was != part.now {
			summary = append(summary, part.name+": "+part.now)
		}
	}
	return &changed, summary, errs
}

func reportsText(list []plan.Report) string {
	words := make([]string, len(list))
	for i, r := range list {
		words[i] = strings.TrimSpace(fmt.Sprintf("%s %s %s %s", r.Who, r.Bike, r.Uses, r.Conditions))
		if r.Own {
			words[i] += ", own money"
		}
		if r.Same {
			words[i] += ", same version"
		}
	}
	return strings.Join(words, "; ")
}

func matesText(list []plan.Mate) string {
	words := make([]string, len(list))
	for i, m := range list {
		words[i] = m.Name + " " + m.Range.String()
	}
	return strings.Join(words, "; ")
}
