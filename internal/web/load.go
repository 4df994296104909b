package web

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
)

// loadForm is where everything sits.
var loadForm = stageForm{
	stage: "load", title: "With the things moved", save: "Keep them there", read: (*desk).readWhere,
	view: func(r *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error) {
		tried, err := d.choices(r.URL.Query()["try"])
		if err != nil {
			return nil, err
		}
		return d.loadView(tried, typed, errs)
	},
}

type loadView struct {
	Has     bool
	Says    string
	Drawing draw.Balance
	Tried   bool
	Limits  []limitRow
	Rows    []whereRow
	Lists   []optionList
	Working []gaugeView
	formState
}

// limitRow is one limit with what is on it.
type limitRow struct {
	Name, On, Limit, Left string
	State                 stateView
}

// whereRow is one thing and where it is.
type whereRow struct {
	Index      int
	Name, Mass string
	Where      []optionView
	Sides      []optionView
	Error      string
}

func (v loadView) fields() []fieldView {
	var fields []fieldView
	for _, row := range v.Rows {
		fields = append(fields, fieldView{Key: rowKey("where", row.Index), Label: row.Name, Value: selected("", "", row.Where).Value},
			fieldView{Key: rowKey("side", row.Index), Label: row.Name + ", side", Value: selected("", "", row.Sides).Value})
	}
	return fields
}

func (v loadView) with(state formState) formBody {
	v.formState = state.at(v.formState)
	return v
}

// wheres are the bags that are on the bike, then the places.
func wheres(b *plan.Built) []plan.Option {
	var list []plan.Option
	for _, slot := range plan.BagSlots() {
		if p := b.Part(slot); p != nil && p.Bag != nil {
			list = append(list, plan.Option{Value: "bag:" + string(slot), Name: "in " + p.Name})
		}
	}
	for _, o := range places() {
		list = append(list, plan.Option{Value: "place:" + o.Value, Name: o.Name})
	}
	return list
}

// whereOf a load, as an option's value.
func whereOf(l plan.Load, b *plan.Built) string {
	if l.InBag(b) != nil {
		return "bag:" + string(l.Bag)
	}
	return "place:" + string(l.Place)
}

// moveTo puts a load where an option says.
func moveTo(l *plan.Load, where string, b *plan.Built) error {
	kind, id, _ := strings.Cut(where, ":")
	switch _, known := load.SpotOf(load.Place(id)); {
	case kind == "place" && known:
		l.Place, l.Bag = load.Place(id), ""
		return nil
	case kind == "bag":
		if p := b.Part(plan.Slot(id)); p != nil && p.Bag != nil {
			l.Bag, l.Place = plan.Slot(id), p.Sits()
			return nil
		}
	}
	return fmt.Errorf("%q is neither a bag that is on the bike nor a place", where)
}

// readWhere moves the things of the loadout on view.
func (d *desk) readWhere(form url.Values) (*plan.Plan, []string, formErrors) {
	errs := formErrors{}
	changed, loadout := d.Plan.OwnLoads(d.loadout)
	if d.Plan.Bike == nil {
		errs["form"] = "Choose a bike first."
		return changed, nil, errs
	}
	built := d.Plan.Build(d.loadout)
	var summary []string
	for i := range loadout.Loads {
		l := &loadout.Loads[i]
		was, wasSide := whereOf(*l, built), l.Side
		if where := form.Get(rowKey("where", i)); where != "" && where != was {
			if err := moveTo(l, where, built); err != nil {
				errs[rowKey("where", i)] = err.Error()
				continue
			}
			summary = append(summary, fmt.Sprintf("%s to %s", l.Name, strings.TrimPrefix(plan.NameOf(wheres(built), where), "in ")))
		}
		if form.Has(rowKey("side", i)) {
			l.Side = plan.Side(form.Get(rowKey("side", i)))
		}
		if l.Side != wasSide {
			summary = append(summary, fmt.Sprintf("%s %s", l.Name, sideWord(l.Side)))
		}
	}
	if len(errs) == 0 {
		problems(changed, "loadouts", errs)
	}
	return changed, summary, errs
}

func sideWord(s plan.Side) string {
	if s == plan.Middle {
		return "in the middle"
	}
	return "on the " + string(s)
}

func (d *desk) loadView(tried []plan.Choice, form url.Values, errs formErrors) (loadView, error) {
	v := loadView{Has: d.Plan.Bike != nil, Tried: form != nil || len(tried) > 0,
		formState: formState{Error: errs["form"], Try: d.href("load/try", tries(tried)...), Save: d.href("load")}}
	if !v.Has {
		return v, nil
	}
	shown := d.Plan
	if form != nil {
		shown, _, _ = d.readWhere(form)
	}
	shown = shown.With(tried...)
	after, err := d.on.Evaluate(shown)
	if err != nil {
		return v, err
	}
	built := after.Facts.Built
	loadout, _ := shown.Loadout(d.loadout)
	for i, l := range loadout.Loads {
		v.Rows = append(v.Rows, whereRow{
			Index: i, Name: l.Name, Mass: l.Mass.String(), Error: errs[rowKey("where", i)],
			Where: optionsOf(wheres(built), typed(form, rowKey("where", i), whereOf(l, built)), ""),
			Sides: optionsOf(plan.Sides(), typed(form, rowKey("side", i), string(l.Side)), ""),
		})
	}
	v.Drawing = d.balance(shown, after, v.Tried)
	v.limits(d, after)
	v.says(d, after)
	for _, id := range []figure.ID{"loaded-mass", "axle-front", "axle-rear", "tyre-load", "payload-left", "left-right", "rack-load", "front-share", "centre-shift", "centre-height", "bag-fullest"} {
		if f, ok := after.Figure(id); ok {
			v.Working = append(v.Working, gaugeOf(d.units, f, d.href("working/"+string(id), append([]string{"stage", "load"}, tries(tried)...)...)))
		}
	}
	return v, v.options(d, tried)
}

func (v *loadView) says(d *desk, after *eval.LoadoutReport) {
	share, _ := after.Figure(figure.FrontShare)
	shift, _ := after.Figure(figure.CentreShift)
	if share.Known && shift.Known {
		v.Says = fmt.Sprintf("%s of it on the front wheel; the centre sits %s behind that of the bike alone.", d.units.Value(share), d.units.Value(shift))
	}
}

// options lists racks and bags, held against the plan.
func (v *loadView) options(d *desk, tried []plan.Choice) error {
	built := d.Plan.Build(d.loadout)
	fits := func(p *plan.Part) bool { return d.shelf.CouldFit(built, p) }
	columns := []column{moves("Cost", "cost"), moves("Mass", "loaded-mass"), moves("Front axle", "axle-front"), moves("Rear axle", "axle-rear"), becomes("Fullest bag", "bag-fullest"), becomes("Range", "range")}
	for _, slot := range append(plan.RackSlots(), plan.BagSlots()...) {
		list, err := d.optionsFor(slot, "load", fits, columns, nil, tried)
		if err != nil {
			return err
		}
		v.Lists = append(v.Lists, list)
	}
	return nil
}

// limits lists every limit with what is on it.
func (v *loadView) limits(d *desk, after *eval.LoadoutReport) {
	for _, id := range []figure.ID{"loaded-mass", "axle-front", "axle-rear", "rack-load"} {
		f, _ := after.Figure(id)
		row := limitRow{Name: f.Name, On: d.units.Value(f), State: stateOf(f.State)}
		if f.Limited {
			row.Limit, row.Left = d.kg(f.Limit), signedWords(d.kg, f.Limit-f.Value)
		}
		v.Limits = append(v.Limits, row)
	}
	v.Limits = append(v.Limits,
		tyreLimit(d, "Front tyre", after, after.Facts.Axles.Kg.Front, func(p facts.Pressure) facts.PressureEnd { return p.Front }),
		tyreLimit(d, "Rear tyre", after, after.Facts.Axles.Kg.Rear, func(p facts.Pressure) facts.PressureEnd { return p.Rear }))
	for _, b := range after.Facts.Bags.On {
		row := limitRow{Name: b.Part.Name, On: fmt.Sprintf("%s, %s", d.kg(b.Kg), d.units.Quantity(b.Litres, "L")), State: stateOf("ok")}
		if !math.IsNaN(b.LimitKg) {
			row.Limit, row.Left = d.kg(b.LimitKg)+", "+d.units.Quantity(b.LimitL, "L"), signedWords(d.kg, b.LimitKg-b.Kg)
		}
		switch {
		case b.Kg > b.LimitKg:
			row.State = stateOf("stop")
		case b.Litres > b.LimitL:
			row.State = stateOf("over")
		}
		v.Limits = append(v.Limits, row)
	}
}

// kg is a mass on the bike in the rider's units.
func (d *desk) kg(v float64) string { return d.units.As(figure.LoadedMass, v) }

// tyreLimit is what a tyre carries on the ground of the trip that it is run
// softest on.
func tyreLimit(d *desk, name string, after *eval.LoadoutReport, axleKg float64, end func(facts.Pressure) facts.PressureEnd) limitRow {
	row, least := limitRow{Name: name, On: d.kg(axleKg), State: stateOf("unknown")}, math.Inf(1)
	for _, p := range after.Facts.Pressures {
		e := end(p)
		if p.Share == 0 || math.IsNaN(e.Carries) || e.Carries >= least {
			continue
		}
		least = e.Carries
		row.Name = fmt.Sprintf("%s at %s, %s", name, d.units.Quantity(e.Taken(), "kPa"), strings.ToLower(p.Surface.Name))
	}
	if math.IsInf(least, 1) {
		return row
	}
	row.Limit, row.Left, row.State = d.kg(least), signedWords(d.kg, least-axleKg), stateOf("ok")
	if least < axleKg {
		row.State = stateOf("stop")
	}
	return row
}

// balance draws the bike with everything on it.
func (d *desk) balance(p *plan.Plan, after *eval.LoadoutReport, tried bool) draw.Balance {
	b := p.Bike
	base, seat := b.Wheelbase.In("mm"), b.SeatHeight.In("mm")
	loadout, _ := p.Loadout(d.loadout)
	built := after.Facts.Built
	var masses []draw.Mass
	add := func(name string, mass float64, at load.Place, side float64, index int, ring bool) {
		masses = append(masses, draw.Mass{Kg: mass, XMM: at.XMM(base), ZMM: at.ZMM(seat), Side: side, Title: name + ", " + d.kg(mass), Load: index, Ring: ring})
	}
	add("rider", p.Brief.Rider.In("kg"), load.Rider, 0, -1, true)
	if loadout.Pillion.Known() {
		add("passenger", loadout.Pillion.In("kg"), load.Pillion, 0, -1, true)
	}
	for i, l := range loadout.Loads {
		add(l.Name, l.Mass.In("kg"), l.Sits(built), l.Side.Sign(), i, false)
	}
	var spots []draw.Spot
	for _, o := range wheres(built) {
		kind, id, _ := strings.Cut(o.Value, ":")
		place := load.Place(id)
		if kind == "bag" {
			place = built.Part(plan.Slot(id)).Sits()
		}
		spots = append(spots, draw.SpotFor(place, o.Value, o.Name, base, seat))
	}
	end := func(id figure.ID) draw.AxleEnd {
		f, _ := after.Figure(id)
		e := draw.AxleEnd{Kg: f.Value, LimitKg: math.NaN(), Text: d.units.Value(f)}
		if !f.Known {
			e.Kg = math.NaN()
		}
		if f.Limited {
			e.LimitKg, e.Text = f.Limit, e.Text+" of "+d.units.Quantity(f.Limit, "kg")
		}
		return e
	}
	bareShare := b.KerbFront.In("kg") / b.KerbMass.In("kg")
	was := silhouette(d.Plan.Bike, d.report)
	if !tried {
		was.CentreXMM, was.CentreHeightMM = math.NaN(), math.NaN()
	}
	drawn := draw.BalanceOf(silhouette(b, after), masses, spots, bareShare*base, b.CentreHeight.In("mm"), was.CentreXMM, was.CentreHeightMM, end("axle-rear"), end("axle-front"), bareShare)
	sides := after.Facts.Bags.Sides
	drawn.LeftText, drawn.RightText = "left "+d.kg(sides.LeftKg), "right "+d.kg(sides.RightKg)
	return drawn
}
