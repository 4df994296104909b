package tyres

import (
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// pressuresForm is the pressure card: what follows from load, stones, rim and
// maker, and the rider's own.
var pressuresForm = desk.StageForm{
	Stage: "pressures", Title: "The card as typed", Save: "Save the card", Read: readPressures,
	View: func(r *http.Request, d *desk.Desk, typed url.Values, errs desk.FormErrors) (desk.FormBody, error) {
		tried, err := d.Laid(r)
		if err != nil {
			return nil, err
		}
		return pressures(d, r.URL.Query().Get("at"), r.URL.Query().Get("wheel"), tried, typed, errs)
	},
}

type pressuresView struct {
	Has      bool
	Unit     string
	Loadout  string
	Tried    bool // with what lies on the bench
	Rows     []pressureRow
	Others   []otherCard // the other loadouts
	Surfaces []desk.LinkView
	Wheels   []desk.LinkView
	Contact  draw.Contact
	Hit      string // what the drawing shows
	States   []contactRow
	Working  []desk.StepView
	Notes    []string
	Asks     []string // what is missing for a whole card
	desk.FormState
}

// pressureRow is one surface of the card, both wheels.
type pressureRow struct {
	ID, Name, Share string
	Off             bool // not on this trip
	Ends            []pressureCell
}

type pressureCell struct {
	Key, Name, Value, Error string
	Advice                  string
	Why                     string // what sets the advice
	Href                    string // to the drawing of it
	Current                 bool
}

// otherCard is another loadout's card, as advice or as the rider has it.
type otherCard struct {
	Name string
	Rows []otherRow
}

type otherRow struct{ Name, Front, Rear string }

type contactRow struct{ Name, Pressure, Patch, Sink, Left, Style string }

func (v pressuresView) Fields() []desk.FieldView {
	var fields []desk.FieldView
	for _, row := range v.Rows {
		for _, c := range row.Ends {
			fields = append(fields, desk.FieldView{Key: c.Key, Label: c.Name + ", " + row.Name, Value: c.Value})
		}
	}
	return fields
}

func (v pressuresView) With(state desk.FormState) desk.FormBody {
	v.FormState = state.At(v.FormState)
	return v
}

// pressures is the card of the loadout on view, with what is tried on the bike.
func pressures(d *desk.Desk, at, wheel string, tried desk.Laid, form url.Values, errs desk.FormErrors) (pressuresView, error) {
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v := pressuresView{Has: d.Plan.Bike != nil, Unit: d.Units.Of("kPa"), Loadout: loadout.Name, Tried: tried.Any(),
		FormState: desk.FormState{Error: errs["form"], Try: d.Href("pressures/try"), Save: d.Href("pressures")}}
	if !v.Has {
		return v, nil
	}
	if _, ok := terrain.SurfaceOf(at); !ok {
		at = "rock"
	}
	if wheel != "front" {
		wheel = "rear"
	}
	shown := tried.Plan
	if form != nil && len(errs) == 0 {
		shown, _, _ = readPressures(d, form)
	}
	report, err := d.Evaluate(shown)
	if err != nil {
		return v, err
	}
	look := func(at, wheel string) string {
		return d.Href("pressures", append(tried.Query(), "at", at, "wheel", wheel)...)
	}
	for _, p := range report.Facts.Pressures {
		own := loadout.Pressure(p.Surface.ID)
		row := pressureRow{ID: p.Surface.ID, Name: p.Surface.Name, Share: surfaceWords(d, p.Surface), Off: p.Share == 0}
		for _, e := range []struct {
			name   string
			stored unit.Pressure
			end    facts.PressureEnd
		}{{"front", own.Front, p.Front}, {"rear", own.Rear, p.Rear}} {
			key := e.name + "." + p.Surface.ID
			row.Ends = append(row.Ends, pressureCell{
				Key: key, Name: strings.ToUpper(e.name[:1]) + e.name[1:], Value: desk.Typed(form, key, d.Units.Shown(e.stored.String())), Error: errs[key],
				Advice: pressureWords(d.Units, e.end.Advice), Why: setBy(d, p.Surface, e.end),
				Href: look(p.Surface.ID, e.name), Current: p.Surface.ID == at && e.name == wheel,
			})
		}
		v.Rows = append(v.Rows, row)
	}
	v.Asks = pressureAsks(d, report)
	if err := otherCards(d, &v); err != nil {
		return v, err
	}
	for _, s := range terrain.Surfaces() {
		v.Surfaces = append(v.Surfaces, desk.LinkView{Name: s.Name, Href: look(s.ID, wheel), Current: s.ID == at})
	}
	for _, name := range []string{"front", "rear"} {
		v.Wheels = append(v.Wheels, desk.LinkView{Name: strings.ToUpper(name[:1]) + name[1:] + " wheel", Href: look(at, name), Current: name == wheel})
	}
	return v, contact(d, &v, report, at, wheel)
}

// setBy says what sets the advice for a wheel on a surface.
func setBy(d *desk.Desk, s terrain.Surface, e facts.PressureEnd) string {
	if math.IsNaN(e.Advice) {
		return "a number is missing"
	}
	near := func(kPa float64) bool { return math.Abs(kPa-e.Advice) < 5 }
	switch {
	case s.ID == "road" && near(e.Placard):
		return "by the placard"
	case near(e.Load) && e.Slow < e.Load:
		return "to carry the axle; " + pressureWords(d.Units, e.Slow) + " do to " + d.Units.Quantity(tyre.SlowKmh, "km/h")
	case near(e.Load):
		return "to carry the axle"
	case near(e.Pinch):
		return "to keep stones off the rim"
	case near(e.Placard):
		return "by the placard; stones want " + pressureWords(d.Units, e.Pinch)
	case near(e.Bead):
		return "to stay on the rim"
	}
	return "the maker's least"
}

// pressureAsks is what the card lacks.
func pressureAsks(d *desk.Desk, report *eval.LoadoutReport) []string {
	var asks []string
	b, built := d.Plan.Bike, report.Facts.Built
	if !b.FrontPressure.Known() || !b.RearPressure.Known() {
		asks = append(asks, "the bike's placard pressures (Its sheet)")
	}
	for _, w := range wheelsOfBike {
		info, _ := parts.KindOf(w.tyre)
		switch t := built.Tyre(w.tyre); {
		case t == nil:
			asks = append(asks, info.Name)
		case !t.RatedAt.Known():
			asks = append(asks, info.Name+": the pressure on its sidewall, at which it carries its rated load")
		}
	}
	if math.IsNaN(report.Facts.Axles.Kg.Rear) {
		asks = append(asks, "the load on both axles")
	}
	return asks
}

// otherCards are the cards of the loadouts that are not on view.
func otherCards(d *desk.Desk, v *pressuresView) error {
	for _, l := range d.Plan.Loadouts {
		if l.ID == d.Loadout {
			continue
		}
		report, err := eval.EvaluateLoadout(d.Plan, nil, l.ID, d.AsOf)
		if err != nil {
			return err
		}
		card := otherCard{Name: l.Name}
		for _, p := range report.Facts.Pressures {
			card.Rows = append(card.Rows, otherRow{p.Surface.Name, pressureWords(d.Units, p.Front.Taken()), pressureWords(d.Units, p.Rear.Taken())})
		}
		v.Others = append(v.Others, card)
	}
	return nil
}

// contact draws one wheel on one surface, and works its pressure out.
func contact(d *desk.Desk, v *pressuresView, report *eval.LoadoutReport, at, wheel string) error {
	of := &study.RearWheel
	if wheel == study.FrontWheel.Name {
		of = &study.FrontWheel
	}
	axle := of.Of(report.Facts.Axles.Kg)
	t := report.Facts.Built.Tyre(of.Tyre)
	if t == nil {
		return nil
	}
	surface, _ := terrain.SurfaceOf(at)
	end, working, err := eval.PressureWorking(report.Facts.Plan, d.Loadout, of, at, d.AsOf)
	if err != nil {
		return err
	}
	v.Working, v.Notes = desk.StepsOf(d.Units, working), working.Notes
	hit := tyre.HitFactor(surface.Puncture())
	shape := t.Shape()
	words := func(mm float64) string { return d.Units.Quantity(mm, "mm") }
	states := []draw.ContactState{{Style: draw.Current, KPa: end.Taken(), LoadKg: axle, Text: pressureWords(d.Units, end.Taken())}}
	names := []string{"As the card has it"}
	if !math.IsNaN(end.Placard) && math.Abs(end.Placard-end.Taken()) > 1 {
		states = append(states, draw.ContactState{Style: draw.Standard, KPa: end.Placard, LoadKg: axle, Text: pressureWords(d.Units, end.Placard)})
		names = append(names, "By the placard")
	}
	filling := tyre.Filling("")
	if f := report.Facts.Built.Filling(of.Tube); f != nil {
		filling = f.Kind
	}
	v.Contact = draw.TyreContact(shape, hit, filling, states, words)
	v.Hit = d.Units.Quantity(axle, "kg") + " on it, hitting a stone of " + words(2*tyre.Rock) + " with " + d.Units.Plain(hit, "") + " times that"
	for i, s := range states {
		length, width := shape.Patch(s.LoadKg, s.KPa)
		sink := shape.SinkMM(hit*s.LoadKg, s.KPa, tyre.Rock)
		row := contactRow{Name: names[i], Pressure: s.Text, Patch: words(length) + " × " + words(width), Sink: words(min(sink, shape.RoomMM())), Left: "none: pinched", Style: string(s.Style)}
		switch left := shape.RoomMM() - sink; {
		case left > 0:
			row.Left = words(left)
		case s.KPa >= shape.PinchFloorKPa(s.LoadKg, hit, tyre.Rock, filling):
			row.Left = "none: what is inside takes it"
		}
		v.States = append(v.States, row)
	}
	return nil
}

// readPressures is the plan with the card as typed, and what changed in words.
func readPressures(d *desk.Desk, form url.Values) (*plan.Plan, []string, desk.FormErrors) {
	errs := desk.FormErrors{}
	changed := *d.Plan
	changed.Loadouts = slices.Clone(d.Plan.Loadouts)
	loadout, err := changed.Loadout(d.Loadout)
	if err != nil {
		return d.Plan, nil, desk.FormErrors{"form": err.Error()}
	}
	was := *loadout
	loadout.Pressures = nil
	var summary []string
	for _, s := range terrain.Surfaces() {
		before, now := was.Pressure(s.ID), plan.Pressure{Surface: s.ID}
		for _, e := range []struct {
			name        string
			before, now *unit.Pressure
		}{{"front", &before.Front, &now.Front}, {"rear", &before.Rear, &now.Rear}} {
			key := e.name + "." + s.ID
			if err := d.Units.Enter(e.now, form.Get(key), "kPa"); err != nil {
				errs[key] = err.Error()
			} else if kPa := e.now.In("kPa"); e.now.Known() && !(kPa >= 40 && kPa <= 450) {
				errs[key] = d.Units.Says(&entry.OutOfRange{Text: e.now.String(), Min: 40, Max: 450, Unit: "kPa"}).Error()
			} else if e.now.String() != e.before.String() {
				summary = append(summary, desk.ChangedWords(s.Name+", "+e.name, e.before.String(), e.now.String()))
			}
		}
		if now.Front.Known() || now.Rear.Known() {
			loadout.Pressures = append(loadout.Pressures, now)
		}
	}
	if len(summary) > 0 {
		summary[0] = "Pressures for " + loadout.Name + ": " + summary[0]
	}
	return &changed, summary, errs
}
