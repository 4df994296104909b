package bike

import (
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// touchesForm is what of the build is in each other's way.
var touchesForm = desk.StageForm{
	Stage: "touches", Title: "What touches what, as typed", Save: "Save what touches", Read: readTouches,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return touchesOf(d, typed, errs), nil
	},
}

// touchesView is one row for each, and those that are worth a look.
type touchesView struct {
	Has   bool
	Rows  []touchRow
	Usual []usualRow
	Unit  string
	desk.FormState
}

type touchRow struct {
	Index                int
	New, Out, Mended     bool
	Away                 bool // one of the two is not on the bike
	Ones, Hows, Others   []desk.OptionView
	Room, Words, Between string
	Error                string
}

// usualRow is two things that are often in each other's way.
type usualRow struct {
	Key, Name string
	On        bool
}

func (v touchesView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// Fields lists the values of the form, for what changed in two places.
func (v touchesView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, r := range v.Rows {
		at := func(name string) string { return desk.RowKey(name, r.Index) }
		fields = append(fields, desk.Selected(at("one"), "One", r.Ones), desk.Selected(at("how"), "How", r.Hows), desk.Selected(at("other"), "The other", r.Others),
			desk.FieldView{Key: at("room"), Label: "Between them", Value: r.Room}, desk.FieldView{Key: at("words"), Label: "In words", Value: r.Words}, desk.Checked(at("mended"), "Mended", r.Mended))
	}
	return fields
}

func touchesOf(d *desk.Desk, form url.Values, errs desk.FormErrors) touchesView {
	v := touchesView{Has: d.Plan.Bike != nil, Unit: d.Units.Of("mm"), FormState: desk.FormState{Error: errs["form"], Try: d.Href("touches/try"), Save: d.Href("touches")}}
	if !v.Has {
		return v
	}
	built, ends := d.Plan.Build(d.Loadout), d.Plan.Ends()
	for i := range desk.RowsOf(form, "one", len(d.Plan.Touches)) {
		stored := plan.Touch{How: plan.Touches}
		if i < len(d.Plan.Touches) {
			stored = d.Plan.Touches[i]
		}
		at := func(name string) string { return desk.RowKey(name, i) }
		row := touchRow{
			Index: i, New: i >= len(d.Plan.Touches), Out: form.Has(at("out")), Mended: stored.Mended, Error: errs[at("one")],
			Ones: desk.OptionsOf(ends, desk.Typed(form, at("one"), string(stored.One)), "Something"), Hows: desk.OptionsOf(plan.Meetings(), desk.Typed(form, at("how"), string(stored.How)), ""),
			Others: desk.OptionsOf(ends, desk.Typed(form, at("other"), string(stored.Other)), "something else"),
			Room:   desk.Typed(form, at("room"), d.Units.Shown(stored.Room.String())), Words: desk.Typed(form, at("words"), stored.Words),
			Between: entry.NameOf(ends, string(stored.One)) + " and " + entry.NameOf(ends, string(stored.Other)),
		}
		if form != nil {
			row.Mended = form.Has(at("mended"))
		}
		row.Away = !row.New && !stored.Meets(built)
		v.Rows = append(v.Rows, row)
	}
	for _, t := range d.Plan.UsualTouches(built) {
		key := "usual." + string(t.One) + "." + string(t.Other)
		v.Usual = append(v.Usual, usualRow{key, entry.NameOf(ends, string(t.One)) + " and " + entry.NameOf(ends, string(t.Other)) + ": " + t.Words, form.Has(key)})
	}
	return v
}

func readTouches(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	if d.Plan.Bike == nil {
		return d.Plan, nil, desk.FormErrors{"form": "Take a bike first."}
	}
	changed.Touches = nil
	for i := 0; form.Has(desk.RowKey("one", i)); i++ {
		at := func(name string) string { return desk.RowKey(name, i) }
		t := plan.Touch{
			One: plan.End(form.Get(at("one"))), How: plan.Meeting(form.Get(at("how"))), Other: plan.End(form.Get(at("other"))),
			Words: strings.TrimSpace(form.Get(at("words"))), Mended: form.Has(at("mended")),
		}
		if form.Has(at("out")) || t.One == "" && t.Other == "" && t.Words == "" && form.Get(at("room")) == "" {
			continue
		}
		if i < len(d.Plan.Touches) { // as it was typed
			t.Room = d.Plan.Touches[i].Room
		}
		err := d.Units.Enter(&t.Room, form.Get(at("room")), "mm")
		switch {
		case err != nil:
			errs[at("one")] = err.Error()
		case t.One == "" || t.Other == "":
			errs[at("one")] = "say which two things"
		case t.One == t.Other:
			errs[at("one")] = "that is the same thing twice"
		}
		changed.Touches = append(changed.Touches, t)
	}
	for _, t := range d.Plan.UsualTouches(d.Plan.Build(d.Loadout)) {
		if form.Has("usual." + string(t.One) + "." + string(t.Other)) {
			changed.Touches = append(changed.Touches, t)
		}
	}
	if len(errs) == 0 {
		desk.Problems(&changed, "touches", errs)
	}
	if slices.Equal(d.Plan.Touches, changed.Touches) {
		return &changed, nil, errs
	}
	return &changed, []string{"What touches: " + touchesText(&changed)}, errs
}

func touchesText(p *plan.Plan) string {
	names, list := p.Ends(), make([]string, len(p.Touches))
	for i, t := range p.Touches {
		list[i] = entry.NameOf(names, string(t.One)) + " " + entry.NameOf(plan.Meetings(), string(t.How)) + " " + entry.NameOf(names, string(t.Other))
		if t.Mended {
			list[i] += ", mended"
		}
	}
	if len(list) == 0 {
		return "nothing"
	}
	return strings.Join(list, "; ")
}
