package card

import (
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/desk"
)

// buttonsForm is what the bike does when something is pressed, row by row.
var buttonsForm = desk.StageForm{
	Stage: "buttons", Title: "The buttons as typed", Save: "Keep them", Read: readButtons,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return buttonsOf(d, typed, errs), nil
	},
}

type buttonsView struct {
	Has  bool
	Rows []buttonRow
	Such []string // as one is called
	desk.FormState
}

type buttonRow struct {
	Index int
	Cells []desk.FieldView
	Out   desk.FieldView
	Error string
}

var buttonList = &desk.List{Name: "Buttons and modes", Columns: []string{"does", "press", "hold", "when", "key_off"}, Out: "out_button"}

// buttonNames are the labels of the columns.
var buttonNames = []string{"What it does", "Press, in order", "Hold", "When", "Falls back at key-off to"}

// such are what is forgotten first.
var such = []string{"Traction control off", "Anti-lock off, rear", "Map for loose ground", "Lamps as flood", "Trip meter to zero", "Clutch adjuster, to bump-start", "Breaker, reset", "Range on reserve"}

func (v buttonsView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Rows {
		values := make([]string, len(row.Cells))
		for i, c := range row.Cells {
			values[i] = c.Value
		}
		fields = append(fields, buttonList.Fields(row.Index, values...)...)
	}
	return fields
}

func (v buttonsView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func buttonsOf(d *desk.Desk, form url.Values, errs desk.FormErrors) buttonsView {
	v := buttonsView{Has: d.Plan.Bike != nil, Such: such, FormState: desk.FormState{Error: errs["form"], Try: d.Href("buttons/try"), Save: d.Href("buttons")}}
	for i := range desk.RowsOf(form, "does", len(d.Plan.Buttons)) {
		var b plan.Button
		if i < len(d.Plan.Buttons) {
			b = d.Plan.Buttons[i]
		}
		row := buttonRow{Index: i, Error: errs[desk.RowKey("does", i)], Out: desk.Checked(desk.RowKey("out_button", i), "out", form.Has(desk.RowKey("out_button", i)))}
		for at, stored := range []string{b.Does, b.Press, d.Units.ShownOf(&b.Hold), b.When, b.KeyOff} {
			key := desk.RowKey(buttonList.Columns[at], i)
			row.Cells = append(row.Cells, desk.FieldView{Key: key, Label: buttonNames[at], Value: desk.Typed(form, key, stored)})
		}
		v.Rows = append(v.Rows, row)
	}
	return v
}

func readButtons(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Buttons = nil
	for i := 0; form.Has(desk.RowKey("does", i)); i++ {
		cell := func(column string) string { return strings.TrimSpace(form.Get(desk.RowKey(column, i))) }
		b := plan.Button{Does: cell("does"), Press: cell("press"), When: cell("when"), KeyOff: cell("key_off")}
		if b == (plan.Button{}) && cell("hold") == "" || form.Has(desk.RowKey("out_button", i)) {
			continue
		}
		if err := d.Units.Enter(&b.Hold, cell("hold"), "s"); err != nil {
			errs[desk.RowKey("does", i)] = "hold: " + err.Error()
		}
		if b.Does == "" || b.Press == "" {
			errs[desk.RowKey("does", i)] = "what it does, and what is pressed"
		}
		changed.Buttons = append(changed.Buttons, b)
	}
	if slices.Equal(changed.Buttons, d.Plan.Buttons) {
		return &changed, nil, errs
	}
	return &changed, []string{"Buttons and modes"}, errs
}
