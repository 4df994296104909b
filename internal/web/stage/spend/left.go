package spend

import (
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// leftForm is what is left alone on purpose: a list that is printed.
var leftForm = desk.StageForm{
	Stage: "left", Title: "What is left alone, as typed", Save: "Leave it alone", Rows: true, Read: readLeft,
	View: func(r *http.Request, d *desk.Desk, form url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return leftOf(r, d, form, errs)
	},
}

// leftView is the list, and the slot that is asked about.
type leftView struct {
	Has  bool
	List []leftRow
	Ask  *leftAsk
	desk.FormState
}

// leftRow is a slot that is left alone.
type leftRow struct {
	Slot, Name, Why, On string
	Argument            string // in figures of this plan
	Fitted              string // what the plan has there all the same, "" for nothing
}

// leftAsk asks why a slot is left alone.
type leftAsk struct {
	Name, Argument string
	Reason         desk.FieldView
}

// Fields lists the values of the form, for what changed in two places.
func (v leftView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.List {
		fields = append(fields, desk.FieldView{Key: "why." + row.Slot, Label: row.Name, Value: row.Why})
	}
	return fields
}

func (v leftView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func leftOf(r *http.Request, d *desk.Desk, form url.Values, errs desk.FormErrors) (desk.FormBody, error) {
	v := leftView{Has: d.Plan.Bike != nil, FormState: desk.FormState{Error: errs["form"], Try: d.Href("left/try"), Save: d.Href("left")}}
	if !v.Has {
		return v, nil
	}
	asked := r.FormValue("slot")
	for key := range form {
		if slot, ok := strings.CutPrefix(key, "why."); ok {
			asked = slot
		}
	}
	for _, alone := range d.Plan.Alone {
		row, err := leftRowOf(d, alone)
		if err != nil {
			return nil, err
		}
		v.List = append(v.List, row)
	}
	if _, ok := parts.KindOf(parts.Slot(asked)); ok {
		alone := plan.Alone{Slot: parts.Slot(asked)}
		if stored := d.Plan.LeftAlone(alone.Slot); stored != nil {
			alone = *stored
		}
		row, err := leftRowOf(d, alone)
		if err != nil {
			return nil, err
		}
		v.Ask = &leftAsk{row.Name, row.Argument, desk.ReasonOf(form, "why."+asked, row.Why, "Bearable for a day; weight saved beats a part added", errs)}
	}
	return v, nil
}

func leftRowOf(d *desk.Desk, alone plan.Alone) (leftRow, error) {
	kind, _ := parts.KindOf(alone.Slot)
	argument, err := d.LeaveWords(alone.Slot)
	row := leftRow{Slot: string(alone.Slot), Name: kind.Name, Why: alone.Why, On: alone.On, Argument: argument}
	if fitted := d.Plan.Chosen(alone.Slot, d.Loadout); fitted != nil {
		row.Fitted = fitted.Name
	}
	return row, err
}

// readLeft takes what the form says of slots, and of no others; without a reason a slot is not
// left alone any more.
func readLeft(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	changed, errs := d.Plan, desk.FormErrors{}
	var said []string
	for key := range form {
		id, ok := strings.CutPrefix(key, "why.")
		kind, known := parts.KindOf(parts.Slot(id))
		if !ok || !known {
			continue
		}
		why, was := strings.TrimSpace(form.Get(key)), ""
		if alone := d.Plan.LeftAlone(kind.Slot); alone != nil {
			was = alone.Why
		}
		switch {
		case why == was && why != "":
		case desk.RefusedReason(why) != "" && (why != "" || was == ""):
			errs[key] = desk.RefusedReason(why)
		default: // with nothing it is not left alone any more
			changed = changed.Leaving(plan.Alone{Slot: kind.Slot, Why: why, On: d.AsOf})
			said = append(said, desk.ChangedWords(kind.Name+" left alone", was, why))
		}
	}
	slices.Sort(said)
	return changed, said, errs
}
