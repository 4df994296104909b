package baseline

import (
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// recordForm is what previous owners changed, and the bike as it really is.
var recordForm = desk.StageForm{
	Stage: "record", Title: "The record as typed", Save: "Save the record", Read: readRecord,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return record(d, typed, errs), nil
	},
}

type recordView struct {
	Wear    []wearRow
	Formula string // of what is left
	Bars    draw.Bars
	Changes []changeRow
	Facts   []factRow
	Names   []string         // of facts that are worth writing down
	Set     []desk.FieldView // how it was found set
	desk.FormState
}

// wearRow is a worn part against the trip.
type wearRow struct {
	Name, Now, Limit, Left string
	State                  desk.StateView
	Href                   string
}

type changeRow struct {
	Index                   int
	Name, Cost, Hours, Note string
	Error                   string
	Fates, Slots            []desk.OptionView
	Is                      string // what is there, where it has a place: teeth, a code, mm
	Out, New                bool
}

type factRow struct {
	Index           int
	Name, Value, On string
	Error           string
	Out, New        bool
}

var (
	changesList = &desk.List{Name: "Changes", Columns: []string{"change", "fate", "cost", "hours", "note", "slot", "is"}, Out: "out_change"}
	factsList   = &desk.List{Name: "As built", Columns: []string{"fact", "value", "on"}, Out: "out_fact"}
)

// worthNoting are facts that are forgotten first.
var worthNoting = []string{
	"Fork oil and level", "Fork clicks, standard", "Shock clicks, standard", "Shock preload", "Sprockets counted", "Tank to the brim", "Spark plug", "Headlamp bulb", "Main fuse",
	"Map or jets", "Immobiliser or module code", "Axle torque", "Link drop",
}

func (v recordView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Changes {
		fields = append(fields, changesList.Fields(row.Index, row.Name, desk.Selected("", "", row.Fates).Value, row.Cost, row.Hours, row.Note, desk.Selected("", "", row.Slots).Value, row.Is)...)
	}
	for _, row := range v.Facts {
		fields = append(fields, factsList.Fields(row.Index, row.Name, row.Value, row.On)...)
	}
	return append(fields, v.Set...)
}

func (v recordView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func record(d *desk.Desk, form url.Values, errs desk.FormErrors) recordView {
	v := recordView{Names: worthNoting, Formula: baseline.LeftFormula.Text, FormState: desk.FormState{Error: errs["form"], Try: d.Href("record/try"), Save: d.Href("record")}}
	v.wear(d)
	in := d.Plan.Baseline
	for i := range desk.RowsOf(form, "change", len(in.Changes)) {
		stored := plan.Change{Fate: baseline.Keep}
		if i < len(in.Changes) {
			stored = in.Changes[i]
		}
		fates := make([]entry.Option, 0, 3)
		for _, f := range baseline.Fates() {
			fates = append(fates, entry.Option{Value: string(f.Fate), Name: f.Name})
		}
		v.Changes = append(v.Changes, changeRow{
			Index: i, New: i >= len(in.Changes), Out: form.Has(desk.RowKey("out_change", i)), Error: errs[desk.RowKey("change", i)],
			Name: desk.Typed(form, desk.RowKey("change", i), stored.Name), Cost: desk.Typed(form, desk.RowKey("cost", i), d.Units.Shown(stored.Cost.String())),
			Hours: desk.Typed(form, desk.RowKey("hours", i), d.Units.Shown(stored.Hours.String())), Note: desk.Typed(form, desk.RowKey("note", i), stored.Note),
			Fates: desk.OptionsOf(fates, desk.Typed(form, desk.RowKey("fate", i), string(stored.Fate)), ""),
			Slots: desk.OptionsOf(foundSlots(d.Units), desk.Typed(form, desk.RowKey("slot", i), slotOf(stored.Part)), "in words only"), Is: desk.Typed(form, desk.RowKey("is", i), isOf(stored.Part)),
		})
	}
	for _, f := range in.Set.Fields() {
		v.Set = append(v.Set, desk.FieldOf(d.Units, f, form, errs))
	}
	for i := range desk.RowsOf(form, "fact", len(in.AsBuilt)) {
		var stored plan.Fact
		if i < len(in.AsBuilt) {
			stored = in.AsBuilt[i]
		}
		v.Facts = append(v.Facts, factRow{
			Index: i, New: i >= len(in.AsBuilt), Out: form.Has(desk.RowKey("out_fact", i)), Error: errs[desk.RowKey("fact", i)],
			Name: desk.Typed(form, desk.RowKey("fact", i), stored.Name), Value: desk.Typed(form, desk.RowKey("value", i), stored.Value), On: desk.Typed(form, desk.RowKey("on", i), stored.On),
		})
	}
	return v
}

// foundSlots are the places in which a change of before is more than words: the figures
// follow what is there.
func foundSlots(u words.Units) []entry.Option {
	var list []entry.Option
	for _, info := range parts.Kinds() {
		if f, ok := parts.FoundBy(info.Slot); ok {
			name := info.Name
			if f.Unit != "" {
				name += ", " + u.Of(f.Unit)
			}
			list = append(list, entry.Option{Value: string(info.Slot), Name: name})
		}
	}
	return list
}

func slotOf(p *parts.Part) string {
	if p == nil {
		return ""
	}
	return string(p.Slot)
}

// isOf is what was found of a part, as typed.
func isOf(p *parts.Part) string {
	if p == nil {
		return ""
	}
	return parts.DraftOf(p).Found().Entry.String()
}

// readFound is the part that a row says is on the bike, nil for words only. One that the row
// leaves as it was keeps all that is known of it.
func readFound(d *desk.Desk, c plan.Change, was plan.Change, slot parts.Slot, is string) (*parts.Part, error) {
	if was.Part != nil && was.Part.Slot == slot && is == isOf(was.Part) {
		part := *was.Part
		if part.Name == was.Name {
			part.Name = c.Name
		}
		return &part, nil
	}
	if slot == "" {
		if is != "" {
			return nil, errors.New("say which place that is of")
		}
		return nil, nil
	}
	if _, ok := parts.FoundBy(slot); !ok {
		return nil, fmt.Errorf("%q is no place whose part is known by one number", slot)
	}
	draft := parts.DraftOf(&parts.Part{ID: "found-" + string(slot), Slot: slot, Name: c.Name, Origin: sheet.Measured})
	f := draft.Found()
	if err := d.Units.EnterField(f, is); err != nil {
		return nil, err
	}
	if !f.Entry.Known() {
		return nil, fmt.Errorf("%s: how many?", strings.ToLower(f.Label))
	}
	return draft.Done(), nil
}

// wear lists what was measured, with how far it still goes.
func (v *recordView) wear(d *desk.Desk) {
	trip := d.Plan.Brief.Distance.In("km")
	var bars []draw.Bar
	for _, a := range d.Plan.Baseline.Answers {
		c, ok := baseline.CheckOf(a.Check)
		if !ok || c.Wear == baseline.NoMeasure || !a.Now.Known() {
			continue
		}
		row := wearRow{Name: c.Name, Now: a.Now.String(), Limit: a.Limit.String(), Href: d.Href("baseline") + "#check-" + c.ID}
		row.Left, row.State = left(d, c, a.Worn())
		if row.Limit == "" {
			row.Limit, row.Left, row.State = "not said", "the manual's limit is missing", desk.StateOf("unknown")
		} else if row.Left == "" {
			row.Left, row.State = "its new measure, or what it has run, is missing", desk.StateOf("unknown")
		}
		if d.Plan.Chosen(plan.SlotOf(a.Check), d.Loadout) != nil {
			row.Left, row.State = "replaced by the plan", desk.StateOf("ok")
		} else if left := a.Worn().LeftKm(); !math.IsNaN(left) {
			bars = append(bars, draw.Bar{Name: c.Name, Value: left, Short: left < trip})
		}
		v.Wear = append(v.Wear, row)
	}
	v.Bars = draw.WearBars(bars, trip, func(km float64) string { return d.Units.Quantity(km, "km") })
}

func readRecord(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Baseline.Changes, changed.Baseline.AsBuilt = nil, nil
	said := desk.Enter(d.Units, desk.Sent(changed.Baseline.Set.Fields(), form), form, errs)
	for i := 0; form.Has(desk.RowKey("change", i)); i++ {
		c := plan.Change{Name: strings.TrimSpace(form.Get(desk.RowKey("change", i))), Fate: baseline.Fate(form.Get(desk.RowKey("fate", i))), Note: strings.TrimSpace(form.Get(desk.RowKey("note", i)))}
		if c.Name == "" || form.Has(desk.RowKey("out_change", i)) {
			continue
		}
		var err error
		if c.Cost, err = d.Units.Amount(form.Get(desk.RowKey("cost", i)), d.Plan.Currency); err == nil {
			err = d.Units.Enter(&c.Hours, form.Get(desk.RowKey("hours", i)), "h")
		}
		if err == nil {
			var was plan.Change
			if i < len(d.Plan.Baseline.Changes) {
				was = d.Plan.Baseline.Changes[i]
			}
			c.Part, err = readFound(d, c, was, parts.Slot(form.Get(desk.RowKey("slot", i))), strings.TrimSpace(form.Get(desk.RowKey("is", i))))
		}
		if err != nil {
			errs[desk.RowKey("change", i)] = err.Error()
		}
		changed.Baseline.Changes = append(changed.Baseline.Changes, c)
	}
	for i := 0; form.Has(desk.RowKey("fact", i)); i++ {
		f := plan.Fact{Name: strings.TrimSpace(form.Get(desk.RowKey("fact", i))), Value: strings.TrimSpace(form.Get(desk.RowKey("value", i))), On: strings.TrimSpace(form.Get(desk.RowKey("on", i)))}
		if (f.Name == "" && f.Value == "") || form.Has(desk.RowKey("out_fact", i)) {
			continue
		}
		var err error
		if f.On, err = d.Units.Date(f.On); err != nil {
			errs[desk.RowKey("fact", i)] = err.Error()
		}
		if f.Name == "" {
			errs[desk.RowKey("fact", i)] = "say what it is"
		}
		changed.Baseline.AsBuilt = append(changed.Baseline.AsBuilt, f)
	}
	if len(errs) == 0 {
		desk.Problems(&changed, "baseline", errs)
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
	summary = append(summary, said...)
	return &changed, summary, errs
}

func changesText(list []plan.Change) string {
	words := make([]string, len(list))
	for i, c := range list {
		words[i] = strings.TrimSpace(c.Name + " " + string(c.Fate) + " " + c.Cost.String() + " " + c.Hours.String() + " " + c.Note + " " + isOf(c.Part))
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
