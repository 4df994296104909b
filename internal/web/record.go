package web

import (
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
)

// recordForm is what previous owners changed, and the bike as it really is.
var recordForm = stageForm{
	stage: "record", title: "The record as typed", save: "Save the record", read: (*desk).readRecord,
	view: func(_ *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		return d.record(typed, errs), nil
	},
}

type recordView struct {
	Wear    []wearRow
	Formula string // of what is left
	Bars    draw.Bars
	Changes []changeRow
	Facts   []factRow
	Names   []string // of facts that are worth writing down
	formState
}

// wearRow is a worn part against the trip.
type wearRow struct {
	Name, Now, Limit, Left string
	State                  stateView
	Href                   string
}

type changeRow struct {
	Index                   int
	Name, Cost, Hours, Note string
	Error                   string
	Fates                   []optionView
	Out, New                bool
}

type factRow struct {
	Index           int
	Name, Value, On string
	Error           string
	Out, New        bool
}

var (
	changesList = &list{Name: "Changes", Columns: []string{"change", "fate", "cost", "hours", "note"}, Out: "out_change"}
	factsList   = &list{Name: "As built", Columns: []string{"fact", "value", "on"}, Out: "out_fact"}
)

// worthNoting are facts that are forgotten first.
var worthNoting = []string{
	"Fork oil and level", "Fork clicks, standard", "Shock clicks, standard", "Shock preload", "Sprockets counted", "Tank to the brim", "Spark plug", "Headlamp bulb", "Main fuse",
	"Map or jets", "Immobiliser or module code", "Axle torque", "Link drop",
}

func (v recordView) fields() []fieldView {
	var fields []fieldView
	for _, row := range v.Changes {
		fields = append(fields, changesList.fields(row.Index, row.Name, selected("", "", row.Fates).Value, row.Cost, row.Hours, row.Note)...)
	}
	for _, row := range v.Facts {
		fields = append(fields, factsList.fields(row.Index, row.Name, row.Value, row.On)...)
	}
	return fields
}

func (v recordView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// rowsOf is how many rows of a list a page shows: those sent, or those stored and
// some blank ones.
func rowsOf(form url.Values, key string, stored int) int {
	if form == nil {
		return stored + blankRows
	}
	rows := 0
	for form.Has(rowKey(key, rows)) {
		rows++
	}
	return rows
}

func (d *desk) record(form url.Values, errs formErrors) recordView {
	v := recordView{Names: worthNoting, Formula: baseline.LeftFormula.Text, formState: formState{Error: errs["form"], Try: d.href("record/try"), Save: d.href("record")}}
	v.wear(d)
	in := d.Plan.Baseline
	for i := range rowsOf(form, "change", len(in.Changes)) {
		stored := plan.Change{Fate: baseline.Keep}
		if i < len(in.Changes) {
			stored = in.Changes[i]
		}
		fates := make([]plan.Option, 0, 3)
		for _, f := range baseline.Fates() {
			fates = append(fates, plan.Option{Value: string(f.Fate), Name: f.Name})
		}
		v.Changes = append(v.Changes, changeRow{
			Index: i, New: i >= len(in.Changes), Out: form.Has(rowKey("out_change", i)), Error: errs[rowKey("change", i)],
			Name: typed(form, rowKey("change", i), stored.Name), Cost: typed(form, rowKey("cost", i), stored.Cost.String()),
			Hours: typed(form, rowKey("hours", i), stored.Hours.String()), Note: typed(form, rowKey("note", i), stored.Note),
			Fates: optionsOf(fates, typed(form, rowKey("fate", i), string(stored.Fate)), ""),
		})
	}
	for i := range rowsOf(form, "fact", len(in.AsBuilt)) {
		var stored plan.Fact
		if i < len(in.AsBuilt) {
			stored = in.AsBuilt[i]
		}
		v.Facts = append(v.Facts, factRow{
			Index: i, New: i >= len(in.AsBuilt), Out: form.Has(rowKey("out_fact", i)), Error: errs[rowKey("fact", i)],
			Name: typed(form, rowKey("fact", i), stored.Name), Value: typed(form, rowKey("value", i), stored.Value), On: typed(form, rowKey("on", i), stored.On),
		})
	}
	return v
}

// wear lists what was measured, with how far it still goes.
func (v *recordView) wear(d *desk) {
	trip := d.Plan.Brief.Distance.In("km")
	var bars []draw.Bar
	for _, a := range d.Plan.Baseline.Answers {
		c, ok := baseline.CheckOf(a.Check)
		if !ok || c.Wear == baseline.NoMeasure || !a.Now.Known() {
			continue
		}
		row := wearRow{Name: c.Name, Now: a.Now.String(), Limit: a.Limit.String(), Href: d.href("baseline") + "#check-" + c.ID}
		row.Left, row.State = d.left(c, a.Worn())
		if row.Limit == "" {
			row.Limit, row.Left, row.State = "?", "the manual's limit is missing", stateOf("unknown")
		} else if row.Left == "" {
			row.Left, row.State = "its new measure, or what it has run, is missing", stateOf("unknown")
		}
		if d.Plan.Chosen(plan.SlotOf(a.Check), d.loadout) != nil {
			row.Left, row.State = "replaced by the plan", stateOf("ok")
		} else if left := a.Worn().LeftKm(); !math.IsNaN(left) {
			bars = append(bars, draw.Bar{Name: c.Name, Value: left, Short: left < trip})
		}
		v.Wear = append(v.Wear, row)
	}
	v.Bars = draw.WearBars(bars, trip, func(km float64) string { return d.units.Quantity(km, "km") })
}

func (d *desk) readRecord(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed := *d.Plan
	changed.Baseline.Changes, changed.Baseline.AsBuilt = nil, nil
	for i := 0; form.Has(rowKey("change", i)); i++ {
		c := plan.Change{Name: strings.TrimSpace(form.Get(rowKey("change", i))), Fate: baseline.Fate(form.Get(rowKey("fate", i))), Note: strings.TrimSpace(form.Get(rowKey("note", i)))}
		if c.Name == "" || form.Has(rowKey("out_change", i)) {
			continue
		}
		var err error
		if c.Cost, err = readAmount(form.Get(rowKey("cost", i)), d.Plan.Currency); err == nil {
			err = c.Hours.Enter(form.Get(rowKey("hours", i)), "h")
		}
		if err != nil {
			errs[rowKey("change", i)] = err.Error()
		}
		changed.Baseline.Changes = append(changed.Baseline.Changes, c)
	}
	for i := 0; form.Has(rowKey("fact", i)); i++ {
		f := plan.Fact{Name: strings.TrimSpace(form.Get(rowKey("fact", i))), Value: strings.TrimSpace(form.Get(rowKey("value", i))), On: strings.TrimSpace(form.Get(rowKey("on", i)))}
		if (f.Name == "" && f.Value == "") || form.Has(rowKey("out_fact", i)) {
			continue
		}
		if f.Name == "" {
			errs[rowKey("fact", i)] = "say what it is"
		}
		changed.Baseline.AsBuilt = append(changed.Baseline.AsBuilt, f)
	}
	if len(errs) == 0 {
		problems(&changed, "baseline", errs)
	}
	var summary []string
	for _, part := range []struct{ name, was, now string }{
		{"Changes of before", changesText(d.Plan.Baseline.Changes), changesText(changed.Baseline.Changes)},
		{"As built", factsText(d.Plan.Baseline.AsBuilt), factsText(changed.Baseline.AsBuilt)},
	} {
		if part.was != part.now {
			summary = append(summary, part.name+": "+part.now)
		}
	}
	return &changed, summary, errs
}

func changesText(list []plan.Change) string {
	words := make([]string, len(list))
	for i, c := range list {
		words[i] = strings.TrimSpace(c.Name + " " + string(c.Fate) + " " + c.Cost.String() + " " + c.Hours.String() + " " + c.Note)
	}
	return strings.Join(words, "; ")
}

func factsText(list []plan.Fact) string {
	words := make([]string, len(list))
	for i, f := range list {
		words[i] = strings.TrimSpace(f.Name + " " + f.Value + " " + f.On)
	}
	return strings.Join(words, "; ")
}
