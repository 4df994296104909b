package load

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// loadForm is where everything sits.
var loadForm = desk.StageForm{
	Stage: "load", Title: "With the things moved", Save: "Keep them there", Read: readWhere,
	View: func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		tried, err := d.Laid(r)
		if err != nil {
			return nil, err
		}
		return loadOf(d, tried, typed, errs)
	},
}

type loadView struct {
	Guessed string // what is carried by guess while nothing is packed, "" for nothing
	Has     bool
	Says    string
	Drawing draw.Balance
	Tried   bool
	Limits  []limitRow
	Rows    []whereRow
	Lists   []desk.OptionList
	Working []desk.GaugeView
	desk.FormState
}

// limitRow is one limit with what is on it.
type limitRow struct {
	Name, On, Limit, Left string
	State                 desk.StateView
}

// whereRow is one thing and where it is.
type whereRow struct {
	Index      int
	Name, Mass string
	Where      []desk.OptionView
	Sides      []desk.OptionView
	Error      string
}

func (v loadView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Rows {
		fields = append(fields, desk.FieldView{Key: desk.RowKey("where", row.Index), Label: row.Name, Value: desk.Selected("", "", row.Where).Value},
			desk.FieldView{Key: desk.RowKey("side", row.Index), Label: row.Name + ", side", Value: desk.Selected("", "", row.Sides).Value})
	}
	return fields
}

func (v loadView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// wheres are the bags that are on the bike, then the places.
func wheres(b *plan.Built) []entry.Option {
	var list []entry.Option
	for _, slot := range parts.BagSlots() {
		if p := b.Part(slot); p != nil && p.Bag() != nil {
			list = append(list, entry.Option{Value: "bag:" + string(slot), Name: "in " + p.Name})
		}
	}
	for _, o := range desk.Places() {
		list = append(list, entry.Option{Value: "place:" + o.Value, Name: o.Name})
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
		if p := b.Part(parts.Slot(id)); p != nil && p.Bag() != nil {
			l.Bag, l.Place = parts.Slot(id), p.Sits()
			return nil
		}
	}
	return fmt.Errorf("%q is neither a bag that is on the bike nor a place", where)
}

// readWhere moves the things of the loadout on view.
func readWhere(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed, loadout := d.Plan.OwnLoads(d.Loadout)
	if d.Plan.Bike == nil {
		errs["form"] = "Choose a bike first."
		return changed, nil, errs
	}
	built := d.Plan.Build(d.Loadout)
	var summary []string
	for i := range loadout.Loads {
		l := &loadout.Loads[i]
		was, wasSide := whereOf(*l, built), l.Side
		if where := form.Get(desk.RowKey("where", i)); where != "" && where != was {
			if err := moveTo(l, where, built); err != nil {
				errs[desk.RowKey("where", i)] = err.Error()
				continue
			}
			summary = append(summary, fmt.Sprintf("%s to %s", l.Name, strings.TrimPrefix(entry.NameOf(wheres(built), where), "in ")))
		}
		if form.Has(desk.RowKey("side", i)) {
			l.Side = plan.Side(form.Get(desk.RowKey("side", i)))
		}
		if l.Side != wasSide {
			summary = append(summary, fmt.Sprintf("%s %s", l.Name, sideWord(l.Side)))
		}
	}
	if len(errs) == 0 {
		desk.Problems(changed, "loadouts", errs)
	}
	return changed, summary, errs
}

func sideWord(s plan.Side) string {
	if s == plan.Middle {
		return "in the middle"
	}
	return "on the " + string(s)
}

func loadOf(d *desk.Desk, tried desk.Laid, form url.Values, errs desk.FormErrors) (loadView, error) {
	v := loadView{Has: d.Plan.Bike != nil, Tried: form != nil || tried.Any(),
		FormState: desk.FormState{Error: errs["form"], Try: d.Href("load/try", tried.Query()...), Save: d.Href("load")}}
	if !v.Has {
		return v, nil
	}
	shown := tried.Plan
	if form != nil {
		typed, _, _ := readWhere(d, form)
		shown = tried.On(typed)
	}
	after, err := d.Evaluate(shown)
	if err != nil {
		return v, err
	}
	built := after.Facts.Built
	loadout, _ := shown.Loadout(d.Loadout)
	if len(loadout.Loads) == 0 {
		kg := 0.0
		for _, l := range after.Facts.Loadout.Loads { // what is guessed in their place
			kg += l.Mass.In("kg")
		}
		if kg > 0 {
			v.Guessed = d.Kg(kg)
		}
	}
	for i, l := range loadout.Loads {
		v.Rows = append(v.Rows, whereRow{
			Index: i, Name: l.Name, Mass: massOf(d, l), Error: errs[desk.RowKey("where", i)],
			Where: desk.OptionsOf(wheres(built), desk.Typed(form, desk.RowKey("where", i), whereOf(l, built)), ""),
			Sides: desk.OptionsOf(plan.Sides(), desk.Typed(form, desk.RowKey("side", i), string(l.Side)), ""),
		})
	}
	v.Drawing = balance(d, shown, after, v.Tried)
	v.limits(d, after)
	v.says(d, after)
	v.Working = d.Gauges(after, "load", tried, "loaded-mass", "axle-front", "axle-rear", "tyre-load", "payload-left", "left-right", "rack-load", "front-share", "centre-shift", "centre-height", "bag-fullest")
	return v, v.options(d, tried)
}

func (v *loadView) says(d *desk.Desk, after *eval.LoadoutReport) {
	share, _ := after.Figure(figure.FrontShare)
	shift, _ := after.Figure(figure.CentreShift)
	if share.Known && shift.Known {
		v.Says = fmt.Sprintf("%s of it on the front wheel; the centre sits %s behind that of the bike alone.", d.Units.Told(share), d.Units.Told(shift))
	}
}

// options lists racks and bags, held against the plan.
func (v *loadView) options(d *desk.Desk, tried desk.Laid) (err error) {
	columns := []desk.Column{desk.Moves("Cost", "cost"), desk.Moves("Mass", "loaded-mass"), desk.Moves("Front axle", "axle-front"), desk.Moves("Rear axle", "axle-rear"), desk.Becomes("Fullest bag", "bag-fullest"), desk.Becomes("Range", "range")}
	v.Lists, err = d.ListsOf(append(parts.RackSlots(), parts.BagSlots()...), "load", func(parts.Slot) []desk.Column { return columns }, tried)
	return err
}

// limits lists every limit with what is on it.
func (v *loadView) limits(d *desk.Desk, after *eval.LoadoutReport) {
	for _, id := range []figure.ID{"loaded-mass", "axle-front", "axle-rear", "rack-load"} {
		f, _ := after.Figure(id)
		row := limitRow{Name: f.Name, On: d.Units.Told(f), State: desk.StateOf(f.State)}
		if f.Limited {
			row.Limit, row.Left = d.Kg(f.Limit), desk.SignedWords(d.Kg, f.Limit-f.Value)
		}
		v.Limits = append(v.Limits, row)
	}
	v.Limits = append(v.Limits,
		tyreLimit(d, "Front tyre", after, after.Facts.Axles.Kg.Front, func(p facts.Pressure) facts.PressureEnd { return p.Front }),
		tyreLimit(d, "Rear tyre", after, after.Facts.Axles.Kg.Rear, func(p facts.Pressure) facts.PressureEnd { return p.Rear }))
	for _, b := range after.Facts.Bags.On {
		row := limitRow{Name: b.Part.Name, On: fmt.Sprintf("%s, %s", d.Kg(b.Kg), d.Units.Quantity(b.Litres, "L")), State: desk.StateOf("ok")}
		if !math.IsNaN(b.LimitKg) {
			row.Limit, row.Left = d.Kg(b.LimitKg)+", "+d.Units.Quantity(b.LimitL, "L"), desk.SignedWords(d.Kg, b.LimitKg-b.Kg)
		}
		switch {
		case figure.Past(b.Kg, b.LimitKg, 1):
			row.State = desk.StateOf("stop")
		case figure.Past(b.Litres, b.LimitL, 0):
			row.State = desk.StateOf("over")
		}
		v.Limits = append(v.Limits, row)
	}
}

// tyreLimit is what a tyre carries on the ground of the trip that it is run
// softest on.
func tyreLimit(d *desk.Desk, name string, after *eval.LoadoutReport, axleKg float64, end func(facts.Pressure) facts.PressureEnd) limitRow {
	row, least := limitRow{Name: name, On: d.Kg(axleKg), State: desk.StateOf("unknown")}, math.Inf(1)
	for _, p := range after.Facts.Pressures {
		e := end(p)
		if p.Share == 0 || math.IsNaN(e.Carries) || e.Carries >= least {
			continue
		}
		least = e.Carries
		row.Name = fmt.Sprintf("%s at %s, %s", name, d.Units.Quantity(e.Taken(), "kPa"), strings.ToLower(p.Surface.Name))
	}
	if math.IsInf(least, 1) {
		return row
	}
	row.Limit, row.Left, row.State = d.Kg(least), desk.SignedWords(d.Kg, least-axleKg), desk.StateOf("ok")
	if figure.Past(axleKg, least, 1) {
		row.State = desk.StateOf("stop")
	}
	return row
}

// balance draws the bike with everything on it.
func balance(d *desk.Desk, p *plan.Plan, after *eval.LoadoutReport, tried bool) draw.Balance {
	b := p.Bike
	base, seat := b.Wheelbase.In("mm"), b.SeatHeight.In("mm")
	loadout, _ := p.Loadout(d.Loadout)
	built := after.Facts.Built
	var masses []draw.Mass
	add := func(name string, mass float64, at load.Place, side float64, index int, ring bool) {
		masses = append(masses, draw.Mass{Kg: mass, XMM: at.XMM(base), ZMM: at.ZMM(seat), Side: side, Title: name + ", " + d.Kg(mass), Load: index, Ring: ring})
	}
	add("rider", p.Brief.Rider.In("kg"), loadout.Sits.Place(), 0, -1, true)
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
			place = built.Part(parts.Slot(id)).Sits()
		}
		spots = append(spots, draw.SpotFor(place, o.Value, o.Name, base, seat))
	}
	end := func(id figure.ID) draw.AxleEnd {
		f, _ := after.Figure(id)
		e := draw.AxleEnd{Kg: f.Value, LimitKg: math.NaN(), Text: d.Units.Told(f)}
		if !f.Known {
			e.Kg = math.NaN()
		}
		if f.Limited {
			e.LimitKg, e.Text = f.Limit, e.Text+" of "+d.Units.Quantity(f.Limit, "kg")
		}
		return e
	}
	bareShare := b.KerbFront.In("kg") / b.KerbMass.In("kg")
	was := desk.Silhouette(d.Plan.Bike, d.Report)
	if !tried {
		was.CentreXMM, was.CentreHeightMM = math.NaN(), math.NaN()
	}
	drawn := draw.BalanceOf(desk.Silhouette(b, after), masses, spots, bareShare*base, b.CentreHeight.In("mm"), was.CentreXMM, was.CentreHeightMM, end("axle-rear"), end("axle-front"), bareShare)
	sides := after.Facts.Bags.Sides
	drawn.LeftText, drawn.RightText = "left "+d.Kg(sides.LeftKg), "right "+d.Kg(sides.RightKg)
	return drawn
}
