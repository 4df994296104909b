package bike

import (
	"cmp"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// cameForm is the sheet of one thing that the bike came with, of any kind.
var cameForm = desk.StageForm{
	Stage: "came", Title: "What it came with, as typed", Save: "Keep it as standard", Read: readCame, View: cameView,
	Kept: func(_ *desk.House, r *http.Request, d *desk.Desk, _ *plan.Plan) (string, error) {
		return d.Href("came", "slot", r.PostForm.Get("slot")), nil
	},
}

// cameBody is the sheet, or the choice of what.
type cameBody struct {
	Has        bool
	Known      []desk.LinkView // what is told of already
	Slots      []desk.OptionView
	Find       string // where the choice leads
	Slot       string
	Named      string // the slot in words
	Told       bool
	Gone       bool // it came with none
	Name, Said desk.FieldView
	desk.DraftView
	desk.FormState
}

func (v cameBody) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// Fields lists the values of the sheet, for what changed in two places.
func (v cameBody) Fields() []desk.FieldView {
	return append([]desk.FieldView{v.Name, v.Said, desk.Checked("gone", "It came with none", v.Gone)}, v.DraftView.Fields()...)
}

func cameView(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
	values := typed
	if typed == nil {
		values = r.URL.Query()
	}
	v := cameBody{Has: d.Plan.Bike != nil, Find: d.At() + "/came", FormState: desk.FormState{Error: errs["form"], Try: d.Href("came/try"), Save: d.Href("came")}}
	if !v.Has {
		return v, nil
	}
	slot := parts.Slot(values.Get("slot"))
	info, ok := parts.KindOf(slot)
	if slot != "" && !ok {
		return nil, store.ErrNotFound
	}
	v.Slots = desk.OptionsOf(parts.KindOptions(), string(slot), "Where it sits")
	for _, kind := range parts.Kinds() {
		if p := d.Plan.Bike.StandardIn(kind.Slot); p != nil {
			v.Known = append(v.Known, desk.LinkView{Name: kind.Name, Href: d.Href("came", "slot", string(kind.Slot)), Current: kind.Slot == slot})
		}
	}
	if slot == "" {
		return v, nil
	}
	v.Slot, v.Named, v.Gone = string(slot), strings.ToLower(info.Name), typed.Has("gone")
	part, told := d.Plan.Bike.Came(slot)
	v.Told = told
	v.Name = desk.FieldView{Key: "name", Label: "Name", Value: desk.Typed(typed, "name", part.Name), Error: errs["name"]}
	v.Said = desk.FieldView{Key: "note", Label: "Note", Value: desk.Typed(typed, "note", part.Note), Error: errs["note"]}
	v.DraftView = d.DraftOf(parts.DraftOf(&part), typed, errs)
	return v, nil
}

func readCame(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	slot := parts.Slot(form.Get("slot"))
	kind, ok := parts.KindOf(slot)
	if d.Plan.Bike == nil || !ok {
		return d.Plan, nil, desk.FormErrors{"form": "Choose what it came with first."}
	}
	errs := desk.FormErrors{}
	changed, b := *d.Plan, *d.Plan.Bike
	changed.Bike = &b
	if form.Has("gone") {
		b.ClearStandard(slot)
		return &changed, []string{"Standard " + strings.ToLower(kind.Name) + " taken out"}, errs
	}
	was, _ := b.Came(slot)
	draft := parts.DraftOf(&was)
	draft.Name, draft.Note = cmp.Or(strings.TrimSpace(form.Get("name")), was.Name), strings.TrimSpace(form.Get("note"))
	part := *d.ReadDraft(draft, form, errs)
	b.SetStandard(part)
	if len(errs) == 0 {
		at := slices.IndexFunc(b.Standard, func(p parts.Part) bool { return p.Slot == slot })
		desk.Problems(&changed, "bike.standard"+entry.At(at)+".", errs)
	}
	return &changed, []string{part.Name + ": its sheet"}, errs
}
