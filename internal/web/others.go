package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
)

// othersForm is what other riders say, and who rides along.
var othersForm = stageForm{
	stage: "others", title: "Others as typed", save: "Save them", read: (*desk).readOthers,
	view: func(_ *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		return d.others(typed, errs), nil
	},
}

type othersView struct {
	Own, Theirs string // what stands beside each other
	Uses, Km    string
	Reports     []reportRow
	Group       []mateRow
	formState
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
	reportsList = &list{Name: "Reports", Columns: []string{"who", "bike", "uses", "conditions", "own", "same"}, Out: "out_report"}
	matesList   = &list{Name: "Group", Columns: []string{"mate", "range"}, Out: "out_mate"}
)

func (v othersView) fields() []fieldView {
	var fields []fieldView
	for _, r := range v.Reports {
		fields = append(fields, reportsList.fields(r.Index, r.Who, r.Bike, r.Uses, r.Conditions, checked("", "", r.Own).Value, checked("", "", r.Same).Value)...)
	}
	for _, m := range v.Group {
		fields = append(fields, matesList.fields(m.Index, m.Name, m.Range)...)
	}
	return fields
}

func (v othersView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

func (d *desk) others(form url.Values, errs formErrors) othersView {
	v := othersView{Uses: d.units.Of("L/100 km"), Km: d.units.Of("km"), formState: formState{Error: errs["form"], Try: d.href("others/try"), Save: d.href("others")}}
	for i := range rowsOf(form, "who", len(d.Plan.Reports)) {
		var stored plan.Report
		if i < len(d.Plan.Reports) {
			stored = d.Plan.Reports[i]
		}
		row := reportRow{
			Index: i, New: i >= len(d.Plan.Reports), Out: form.Has(rowKey("out_report", i)), Error: errs[rowKey("who", i)], Own: stored.Own, Same: stored.Same,
			Who: typed(form, rowKey("who", i), stored.Who), Bike: typed(form, rowKey("bike", i), stored.Bike), Uses: typed(form, rowKey("uses", i), stored.Uses.String()),
			Conditions: typed(form, rowKey("conditions", i), stored.Conditions),
		}
		if form != nil {
			row.Own, row.Same = form.Has(rowKey("own", i)), form.Has(rowKey("same", i))
		}
		v.Reports = append(v.Reports, row)
	}
	for i := range rowsOf(form, "mate", len(d.Plan.Group)) {
		var stored plan.Mate
		if i < len(d.Plan.Group) {
			stored = d.Plan.Group[i]
		}
		v.Group = append(v.Group, mateRow{
			Index: i, New: i >= len(d.Plan.Group), Out: form.Has(rowKey("out_mate", i)), Error: errs[rowKey("mate", i)],
			Name: typed(form, rowKey("mate", i), stored.Name), Range: typed(form, rowKey("range", i), stored.Range.String()),
		})
	}
	v.Own, v.Theirs = d.besideOthers()
	return v
}

// besideOthers is the plan's own consumption, and the weighed one of the reports
// with how far they lie apart.
func (d *desk) besideOthers() (own, theirs string) {
	if f, ok := d.report.Figure(figure.Consumption); ok && f.Known {
		own = gaugeOf(d.units, f, "").Band
	}
	if mean, low, high, ok := plan.Told(d.Plan.Reports); ok {
		words := func(v float64) string { return d.units.Quantity(v, "L/100 km") }
		theirs = fmt.Sprintf("%s weighed, between %s and %s", words(mean), words(low), words(high))
	}
	return own, theirs
}

func (d *desk) readOthers(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	changed.Reports, changed.Group = nil, nil
	for i := 0; form.Has(rowKey("who", i)); i++ {
		text := func(key string) string { return strings.TrimSpace(form.Get(rowKey(key, i))) }
		r := plan.Report{Who: text("who"), Bike: text("bike"), Conditions: text("conditions"), Own: form.Has(rowKey("own", i)), Same: form.Has(rowKey("same", i))}
		if (r.Who == "" && text("uses") == "") || form.Has(rowKey("out_report", i)) {
			continue
		}
		err := r.Uses.Enter(text("uses"), d.units.Of("L/100 km"))
		if err == nil {
			err = r.Check()
		}
		if err == nil && r.Who == "" {
			err = fmt.Errorf("say who: a number without a source is worth nothing")
		}
		if err != nil {
			errs[rowKey("who", i)] = err.Error()
		}
		changed.Reports = append(changed.Reports, r)
	}
	for i := 0; form.Has(rowKey("mate", i)); i++ {
		m := plan.Mate{Name: strings.TrimSpace(form.Get(rowKey("mate", i)))}
		far := strings.TrimSpace(form.Get(rowKey("range", i)))
		if (m.Name == "" && far == "") || form.Has(rowKey("out_mate", i)) {
			continue
		}
		err := m.Range.Enter(far, d.units.Of("km"))
		if err == nil {
			err = m.Check()
		}
		if err == nil && m.Name == "" {
			err = fmt.Errorf("say who it is")
		}
		if err != nil {
			errs[rowKey("mate", i)] = err.Error()
		}
		changed.Group = append(changed.Group, m)
	}
	if len(errs) == 0 {
		problems(&changed, "reports", errs)
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
