package electrics

import (
	"fmt"
	"math"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/lamp"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	study "valiantmule/internal/core/study/electrics"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// lightForm is how one rides by night, how the lamp is aimed, and what was looked at.
var lightForm = desk.SettingsOf(desk.StageForm{Stage: "light", Title: "By night as typed", Save: "Keep it so", Read: readLight}, lightOf)

type lightView struct {
	Has     bool
	Missing []desk.LinkView
	Says    string
	Speed   desk.Slider
	Sliders []desk.Slider // the others
	Ground  []desk.OptionView
	At      string // index of the ground on view
	Above   draw.Beams
	Side    draw.BeamSide
	Radius  string // of the bend
	Tilt    string
	Rows    []groundRow
	Lamps   []lampRow
	Looks   []lookView
	Looked  string
	Working []desk.GaugeView
	Lists   []desk.OptionList
	desk.FormState
}

// groundRow is a ground of the trip by night.
type groundRow struct {
	Name, Share, Sight, Stops, Needs string
	State                            desk.StateView
	Shown                            bool
}

// lampRow is a lamp in numbers.
type lampRow struct{ Name, Cd, Beam, Outward, Sits, Reach string }

// lookView is something to look at before an inspection.
type lookView struct {
	ID, Name, On string
	Seen         bool
}

func (v lightView) Fields() []desk.FieldView {
	fields := desk.SliderFields(append([]desk.Slider{v.Speed}, v.Sliders...))
	for _, l := range v.Looks {
		fields = append(fields, desk.Checked("look."+l.ID, l.Name, l.Seen))
	}
	return fields
}

func (v lightView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// nightKeys are the fields of the page: of the brief, then of the bike.
var nightKeys, lampKeys = []string{"night_cruise", "reacts", "sees_by"}, []string{"lamp_aim", "lamp_height"}

// keyed are the fields of some keys, in the order of the keys.
func keyed(fields []entry.Field, keys []string) []entry.Field {
	list := make([]entry.Field, 0, len(keys))
	for _, key := range keys {
		list = append(list, fields[slices.IndexFunc(fields, func(f entry.Field) bool { return f.Key == key })])
	}
	return list
}

// readLight is the plan with the night as typed, and what changed in words.
func readLight(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	summary := desk.Enter(d.Units, desk.Sent(keyed(changed.Brief.Fields(), nightKeys), form), form, errs)
	if d.Plan.Bike == nil {
		return &changed, summary, errs
	}
	bike := *d.Plan.Bike
	for _, f := range desk.Sent(keyed(bike.Fields(), lampKeys), form) {
		if said := desk.Enter(d.Units, []entry.Field{f}, form, errs); len(said) > 0 {
			bike.SetOrigin(f.Key, sheet.Measured)
			summary, changed.Bike = append(summary, said...), &bike
		}
	}
	if seen := seenTo(form, d.Plan); !slices.Equal(seen, d.Plan.Seen) {
		changed.Seen = seen
		summary = append(summary, fmt.Sprintf("Lamps looked at: %d of %d", len(changed.Seen), len(plan.Looks())))
	}
	return &changed, summary, errs
}

// seenTo is what is ticked, each with the day on which it first was; a form without the list
// leaves it.
func seenTo(form url.Values, p *plan.Plan) []plan.Look {
	if !form.Has("looks") {
		return p.Seen
	}
	var list []plan.Look
	for _, o := range plan.Looks() {
		if form.Get("look."+o.Value) == "" {
			continue
		}
		on, ok := p.SeenOf(o.Value)
		if !ok {
			on = desk.Today()
		}
		list = append(list, plan.Look{ID: o.Value, On: on})
	}
	return list
}

// lightSlots are what the page offers.
var lightSlots = []parts.Slot{parts.AuxLamps, parts.WideLamps, parts.DayLamps, parts.Headlamp, parts.HelmetLamp, parts.LampControl, parts.BrakeLamp}

func lightOf(d *desk.Desk, s desk.Shown) (desk.FormBody, error) {
	v := lightView{Has: s.After != nil, FormState: s.State}
	if !v.Has {
		return v, nil
	}
	l := &s.After.Facts.Light
	v.form(d, s)
	ground := v.grounds(d, s)
	speed := l.WishKmh
	if math.IsNaN(speed) {
		speed = l.Kmh
	}
	v.Above = draw.BeamsAbove(beamsOf(d, l, ground, speed))
	v.Radius = metres(d)(study.BendRadiusM)
	came := l.DownDeg + l.TiltDeg
	v.Side = draw.DippedSide(l.HeightMM, came, l.DownDeg, unitOf(d), metres(d), func(mm float64) string { return d.Units.Quantity(mm, "mm") })
	v.rows(d, s, speed)
	v.lamps(d, l)
	v.Says, v.Tilt = lightSays(d, l, ground, speed), tiltWords(l)
	v.Working = d.Gauges(s.After, "light", s.Tried, "night-speed", "lit-distance", "bend-lit", "dipped-reach", "beam-tilt")
	v.Missing = desk.MissingOf(d.Gauges(s.After, "light", s.Tried, "lit-distance", "bend-lit", "beam-tilt")) // what the others lack is asked for here
	var err error
	v.Lists, err = d.ListsOf(lightSlots, "light", lightColumns, s.Tried)
	return v, err
}

// lightColumns are what parts of a slot move here.
func lightColumns(slot parts.Slot) []desk.Column {
	cost, power := desk.Moves("Cost", "cost"), desk.Becomes("Charging then", "charge-margin")
	switch slot {
	case parts.LampControl, parts.BrakeLamp:
		return []desk.Column{cost, power}
	case parts.DayLamps:
		return []desk.Column{cost, {Title: "A year", Cell: aYear}, power}
	}
	return []desk.Column{cost, desk.Becomes("Night speed", "night-speed"), desk.Becomes("Of a bend", "bend-lit"), power}
}

// aYear is what lamps to be seen by cost a year.
func aYear(_ words.Units, diff eval.Difference) string {
	p := diff.After.Facts.Built.Part(parts.DayLamps)
	if p == nil {
		return ""
	}
	amount, ok := p.AYear()
	if !ok {
		return "price or life not said"
	}
	return amount.Display()
}

func metres(d *desk.Desk) func(m float64) string {
	return func(m float64) string {
		own, symbol := d.Units.Convert(m, "m")
		return words.Number(own, 0) + " " + symbol
	}
}

// unitOf is what the rider's unit for a way ahead is in m.
func unitOf(d *desk.Desk) float64 {
	own, _ := d.Units.Convert(1, "m")
	return 1 / own
}

// form are the sliders, the ground and the list.
func (v *lightView) form(d *desk.Desk, s desk.Shown) {
	l := &s.After.Facts.Light
	ends := map[string]struct{ low, high, step, holds float64 }{
		"night_cruise": {10, 130, 1, l.Kmh}, "reacts": {0.5, 4, 0.1, lamp.ReactionS}, "sees_by": {1, 5, 0.5, lamp.Lux},
		"lamp_aim": {0, 3, 0.05, lamp.AimDownDeg}, "lamp_height": {600, 1300, 5, l.HeightMM},
	}
	bike := *d.Plan.Bike
	brief := d.Plan.Brief
	for _, f := range append(keyed(brief.Fields(), nightKeys), keyed(bike.Fields(), lampKeys)...) {
		e := ends[f.Key]
		slider := d.SliderOf(f, e.low, e.high, e.step, s.Form, s.Errs)
		if !math.IsNaN(e.holds) {
			slider = slider.Holding(d, e.holds, f.Unit)
		}
		if f.Key == "night_cruise" {
			v.Speed = slider
			continue
		}
		v.Sliders = append(v.Sliders, slider)
	}
	for _, o := range plan.Looks() {
		on, seen := d.Plan.SeenOf(o.Value)
		if s.Form.Has("looks") {
			seen = s.Form.Get("look."+o.Value) != ""
		}
		v.Looks = append(v.Looks, lookView{o.Value, o.Name, on, seen})
	}
	v.Looked = fmt.Sprintf("%d of %d looked at", len(s.Plan.Seen), len(plan.Looks()))
}

// grounds lists the grounds to look at; the one on view is as chosen, or the one that allows
// least.
func (v *lightView) grounds(d *desk.Desk, s desk.Shown) terrain.Ground {
	at := terrain.Index(s.After.Facts.Light.Ground.Kind)
	asked := s.Query.Get("ground")
	if s.Form != nil {
		asked = s.Form.Get("ground")
	}
	if n, err := strconv.Atoi(asked); err == nil && n >= 0 && n < terrain.Count {
		at = n
	}
	at = max(at, 0)
	var options []entry.Option
	for i, g := range terrain.Grounds() {
		options = append(options, entry.Option{Value: strconv.Itoa(i), Name: g.Name})
	}
	v.At = strconv.Itoa(at)
	v.Ground = desk.OptionsOf(options, v.At, "")
	return terrain.Grounds()[at]
}

// beamsOf is what the drawing from above is made of.
func beamsOf(d *desk.Desk, l *facts.Light, g terrain.Ground, speedKmh float64) draw.BeamsIn {
	shine, n := l.Shine(), study.NightOn(g, l, speedKmh)
	in := draw.BeamsIn{
		All: func(deg float64) float64 { return lamp.ReachM(shine, deg, l.Lux) }, LitM: l.LitM, OwnM: n.SightM,
		ReactM: n.ReactM, StopM: n.StopM, BendM: l.BendM, RadiusM: study.BendRadiusM, LaneM: 3.5, Length: metres(d), UnitM: unitOf(d),
	}
	if in.OwnM < in.LitM {
		in.LaneM = 3
	}
	for _, b := range l.Beams {
		one := []lamp.Beam{b.Beam}
		in.Lamps = append(in.Lamps, draw.BeamIn{Name: b.Name, Reach: func(deg float64) float64 { return lamp.ReachM(one, deg, l.Lux) }})
	}
	return in
}

// rows are the grounds of the trip by night, or all where it names none.
func (v *lightView) rows(d *desk.Desk, s desk.Shown, speedKmh float64) {
	l, mix := &s.After.Facts.Light, s.Plan.Brief.Mix()
	for i, g := range terrain.Grounds() {
		shown := strconv.Itoa(i) == v.At
		if mix.Said() && mix.At(i) == 0 && !shown || math.IsNaN(l.LitM) {
			continue
		}
		n := study.NightOn(g, l, speedKmh)
		row := groundRow{Name: g.Name, Share: "–", Sight: metres(d)(n.SightM), Stops: d.Units.As("night-speed", n.MeetKmh), Needs: metres(d)(n.StopM), State: desk.StateOf("ok"), Shown: shown}
		if mix.Said() {
			row.Share = fmt.Sprintf("%.0f %%", 100*mix.At(i))
		}
		if n.StopM > n.SightM {
			row.State = desk.StateOf("over")
		}
		v.Rows = append(v.Rows, row)
	}
}

// lamps are the beams in numbers.
func (v *lightView) lamps(d *desk.Desk, l *facts.Light) {
	degrees := func(deg float64) string { return words.Number(deg, 0) + "°" }
	for _, b := range l.Beams {
		row := lampRow{Name: b.Name, Cd: words.Number(b.Cd, 0) + " cd", Beam: degrees(lamp.UsualBeamDeg) + ", taken", Outward: "–", Sits: "fixed", Reach: metres(d)(lamp.BeamM(b.CdAt(0), l.Lux))}
		if !math.IsNaN(b.AngleDeg) {
			row.Beam = degrees(b.AngleDeg)
		}
		if b.OutDeg > 0 {
			row.Outward = degrees(b.OutDeg)
		}
		switch {
		case b.Looks:
			row.Sits = "on the helmet"
		case b.Turns:
			row.Sits = "turns with the bars"
		}
		v.Lamps = append(v.Lamps, row)
	}
	for _, name := range l.Unsaid {
		v.Lamps = append(v.Lamps, lampRow{Name: name, Cd: "only lumens: ask for candela, or the angle", Beam: "not said", Outward: "–", Sits: "–", Reach: "not counted"})
	}
}

// tiltWords say what the load does to the dipped beam.
func tiltWords(l *facts.Light) string {
	switch {
	case math.IsNaN(l.DownDeg):
		return "How far the load tips the beam is not known: sag of both ends and the lamp's height."
	case l.DownDeg < lamp.AimLeastDeg:
		return fmt.Sprintf("Loaded it points %.2f° below level, and %.2f° is the least: it dazzles. Re-aim it, %.2f° down from there, or set the preload first.", l.DownDeg, lamp.AimLeastDeg, lamp.AimDownDeg-l.DownDeg)
	case l.TiltDeg > 0.05:
		return fmt.Sprintf("The load tips it up by %.2f°: aimed by you alone it is %.2f° below level as you ride.", l.TiltDeg, l.DownDeg)
	}
	return fmt.Sprintf("%.2f° below level as loaded.", l.DownDeg)
}

// lightSays is the page in a sentence.
func lightSays(d *desk.Desk, l *facts.Light, g terrain.Ground, speedKmh float64) string {
	if math.IsNaN(l.LitM) {
		return "How far the lamps show, and how fast one can stop in that."
	}
	n := study.NightOn(g, l, speedKmh)
	text := fmt.Sprintf("%s lit", metres(d)(l.LitM))
	if n.SightM < l.LitM {
		text += fmt.Sprintf(", half of it another's on %s", strings.ToLower(g.Name))
	}
	return text + fmt.Sprintf(". From %s on %s it stands after %s; stopping meets the light at %s.", d.Units.As("night-speed", speedKmh), strings.ToLower(g.Name), metres(d)(n.StopM), d.Units.As("night-speed", n.MeetKmh))
}
