package armour

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/web/desk"
)

// ratesForm is every rate of the risks, to be changed by who knows better.
var ratesForm = desk.StageForm{
	Stage: "rates", Title: "The rates as typed", Save: "Save the rates", Read: readRates,
	View: func(_ *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		return riskRates(d, typed, errs), nil
	},
}

type ratesView struct {
	Per     string // distance, 1000 km
	Grounds []string
	Events  []rateTable
	Places  []rateTable
	Room    rateCell
	Own     int // how many are the rider's own
	desk.FormState
}

// rateTable is a row of rates.
type rateTable struct {
	Name  string
	Cells []rateCell
}

type rateCell struct {
	Key, Label, Name string
	Value, Usual     string
	Error            string
}

func (v ratesView) Fields() []desk.FieldView {
	fields := []desk.FieldView{{Key: v.Room.Key, Label: v.Room.Label, Value: v.Room.Value}}
	for _, tables := range [][]rateTable{v.Events, v.Places} {
		for _, t := range tables {
			for _, c := range t.Cells {
				fields = append(fields, desk.FieldView{Key: c.Key, Label: c.Label, Value: c.Value})
			}
		}
	}
	return fields
}

func (v ratesView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

func riskRates(d *desk.Desk, form url.Values, errs desk.FormErrors) ratesView {
	v := ratesView{Per: d.Units.Prose("1000 km"), Own: len(d.Plan.Risk), FormState: desk.FormState{Error: errs["form"], Try: d.Href("rates/try"), Save: d.Href("rates")}}
	cell := func(key, name string) rateCell {
		k, _ := guard.KeyOf(key)
		usual := strconv.FormatFloat(k.Value, 'f', -1, 64)
		if k.Unit == "%" {
			usual = strconv.FormatFloat(100*k.Value, 'g', 3, 64) + " %"
		} else if k.Unit != "" {
			usual += " " + k.Unit
		}
		return rateCell{Key: key, Label: k.Name, Name: name, Usual: usual, Value: desk.Typed(form, key, d.Units.Shown(d.Plan.Risk[key].String())), Error: errs[key]}
	}
	for _, g := range terrain.Grounds() {
		v.Grounds = append(v.Grounds, g.Name)
	}
	for _, h := range guard.Hazards() {
		row := rateTable{Name: h.Name}
		for _, g := range terrain.Grounds() {
			row.Cells = append(row.Cells, cell(guard.EventKey(h.Hazard, g.Kind), g.Name))
		}
		v.Events = append(v.Events, row)
	}
	v.Room = cell(guard.StrikeRoomKey, "Room under the engine, mm, that is worth 2.7 times the strikes")
	for _, p := range guard.Places() {
		if d.Plan.Bike != nil && !d.Plan.Bike.Vulnerable(p.Place) {
			continue
		}
		row := rateTable{Name: p.Name}
		repair := cell(guard.LossKey(p.Place, "repair"), "repair, "+d.Plan.Currency)
		repair.Usual = repairs(d, p)
		for _, b := range p.Breaks {
			info, _ := guard.HazardOf(b.Hazard)
			row.Cells = append(row.Cells, cell(guard.BreakKey(p.Place, b.Hazard), strings.ToLower(info.Name)+" breaks it"))
		}
		row.Cells = append(row.Cells, repair, cell(guard.LossKey(p.Place, "days"), "days until it runs"), cell(guard.LossKey(p.Place, "stranded"), "strands"))
		v.Places = append(v.Places, row)
	}
	return v
}

// repairs are a place's starting price for the class of the plan's bike; for none, of each
// class.
func repairs(d *desk.Desk, p guard.PlaceInfo) string {
	per := d.Plan.PerEuro()
	if math.IsNaN(per) {
		return "no rate for " + d.Plan.Currency
	}
	words := func(c guard.Class) string { return strconv.FormatFloat(math.Round(p.Loss.Repair[c]*per), 'f', -1, 64) }
	if d.Plan.Bike != nil && d.Plan.Bike.KerbMass.Known() {
		return words(guard.ClassOf(d.Plan.Bike.KerbMass.In("kg")))
	}
	return words(guard.LightBike) + ", " + words(guard.MiddleBike) + ", " + words(guard.HeavyBike)
}

func readRates(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Risk = plan.Risk{}
	var summary []string
	for _, k := range guard.Keys() {
		was := d.Plan.Risk[k.Key]
		if !form.Has(k.Key) { // of a place that this bike has not
			if was.Known() {
				changed.Risk[k.Key] = was
			}
			continue
		}
		var own unit.Ratio
		text := strings.TrimSpace(form.Get(k.Key))
		bare := ""
		if k.Unit == "%" {
			bare = "%"
		}
		text, err := d.Units.Numbers().PlainRatio(text)
		if err == nil {
			err = own.Enter(text, bare)
		}
		if err != nil {
			errs[k.Key] = err.Error()
			continue
		}
		if v := own.In(""); own.Known() && !(v >= k.Min && v <= k.Max) {
			errs[k.Key] = fmt.Sprintf("%s is outside %g–%g", own, k.Min, k.Max)
			continue
		}
		if own.Known() {
			changed.Risk[k.Key] = own
		}
		if was.String() != own.String() {
			summary = append(summary, desk.ChangedWords(k.Name, was.String(), own.String()))
		}
	}
	if len(changed.Risk) == 0 {
		changed.Risk = nil
	}
	return &changed, summary, errs
}
