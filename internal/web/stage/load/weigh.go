package load

import (
	"crypto/rand"
	"fmt"
	"hash/fnv"
	"math"
	mathrand "math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/outside"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// weighView is the weighbridge: what is expected on it, what it read, and what that
// says of the bike.
type weighView struct {
	Has      bool
	Missing  bool // the expected axle loads are not known
	What     string
	Stands   []desk.OptionView // what may stand there
	With     []desk.OptionView // which parts
	State    string
	Parts    string
	Tank     desk.FieldView
	Choose   string // where that is chosen
	Fields   []desk.FieldView
	Faults   []desk.OptionView
	ID       string
	Error    string
	Note     string
	Read     string // where the bridge is asked
	Save     string
	Revoke   string
	Rows     []weighRow
	Corrects string
}

// weighRow is one weighing that stands.
type weighRow struct{ ID, On, What, Front, Rear, Sides string }

// stand is what may stand on the scales.
type stand struct {
	value, name   string
	rider, loaded bool
}

var stands = []stand{
	{"", "loaded, rider on it", true, true}, {"parked", "loaded, nobody on it", false, true},
	{"alone", "nothing packed, rider on it", true, false}, {"bare", "the bike alone", false, false},
}

// fittedParts are which parts are on it: what is planned, or what is fitted by now.
var fittedParts = []entry.Option{{Value: "", Name: "every part of the plan"}, {Value: "fitted", Name: "what is fitted by now"}}

// scaled is what stands on the scales: as chosen, with the tank's share, which is full where
// nobody says.
type scaled struct {
	loading.Scaled
	state, parts string
	words        string
	tank         string // as typed
	want         load.Wheels
	known        bool
	err          string // of the tank
}

func scaledOf(d *desk.Desk, form url.Values) (scaled, error) {
	on := scaled{state: form.Get("state"), parts: form.Get("parts")}
	at := max(0, slices.IndexFunc(stands, func(s stand) bool { return s.value == on.state }))
	on.Scaled = loading.Scaled{Rider: stands[at].rider, Loaded: stands[at].loaded, Tank: 1}
	on.words = stands[at].name
	var tank unit.Ratio
	on.tank = strings.TrimSpace(form.Get("tank"))
	err := d.Units.EnterField(entry.Ask("tank", "Tank at", "%", 0, 100, "", &tank), on.tank)
	switch {
	case err != nil:
		on.err = err.Error()
	case tank.Known():
		on.Tank = tank.In("")
		on.words += ", tank at " + tank.String()
	default:
		on.words += ", tank full"
	}
	facts := d.Report.Facts
	if on.parts != "" {
		on.words += ", with what is fitted by now"
		report, err := d.On.Evaluate(d.Plan.AsFitted())
		if err != nil {
			return on, err
		}
		facts = report.Facts
	}
	on.want, on.known = loading.ExpectedWheels(facts, on.Scaled)
	return on, nil
}

func weighPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	on, err := scaledOf(d, r.URL.Query())
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, on, nil, nil))
}

func weigh(d *desk.Desk, on scaled, form url.Values, errs desk.FormErrors) weighView {
	v := weighView{Has: d.Plan.Bike != nil, Error: errs["form"], Read: d.Href("weigh/read"), Save: d.Href("weigh"), Revoke: d.Href("weigh/revoke"), ID: rand.Text()}
	if !v.Has {
		return v
	}
	if form.Get("id") != "" {
		v.ID = form.Get("id")
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v.What, v.Missing = loadout.Name+", "+on.words, !on.known
	v.State, v.Parts, v.Choose = on.state, on.parts, d.At()+"/weigh"
	for _, s := range stands {
		v.Stands = append(v.Stands, desk.OptionView{Value: s.value, Name: s.name, Selected: s.value == on.state})
	}
	v.With = desk.OptionsOf(fittedParts, on.parts, "")
	v.Tank = desk.FieldView{Key: "tank", Label: "Tank at", Unit: "%", Value: on.tank, Error: on.err, Help: "As it is: by its gauge, or what went in since it was full. Empty: full."}
	for _, f := range []struct {
		key, label string
		want       float64
	}{
		{"front", "Front wheel", on.want.FrontKg}, {"rear", "Rear wheel", on.want.RearKg}, {"total", "or only in all", on.want.FrontKg + on.want.RearKg},
		{"left", "Left side", on.want.LeftKg}, {"right", "Right side", on.want.RightKg},
	} {
		v.Fields = append(v.Fields, desk.FieldView{Key: f.key, Label: f.label, Unit: d.Units.Of("kg"), Value: form.Get(f.key), Error: errs[f.key], Help: "expected " + d.Kg(f.want)})
	}
	for _, f := range outside.Faults() {
		v.Faults = append(v.Faults, desk.OptionView{Value: string(f.Fault), Name: f.Name, Selected: string(f.Fault) == form.Get("fault")})
	}
	for _, reading := range slices.Backward(d.Plan.ReadingsOf(logbook.Weighed)) {
		m := reading.Weighing()
		off := func(read, want float64) string {
			return fmt.Sprintf("%s (%s)", d.Kg(read), moreOrLess(d.Kg, read-want))
		}
		row := weighRow{ID: reading.ID, On: reading.On, What: m.Name, Front: off(m.Front.In("kg"), m.ExpectedFront.In("kg")), Rear: off(m.Rear.In("kg"), m.ExpectedRear.In("kg"))}
		if m.Total.Known() {
			row.Front, row.Rear = off(m.TotalKg(), m.ExpectedFront.In("kg")+m.ExpectedRear.In("kg"))+" in all", ""
		}
		if m.Left.Known() {
			row.Sides = d.Kg(math.Abs(m.Left.In("kg")-m.Right.In("kg"))) + " apart"
		}
		v.Rows = append(v.Rows, row)
	}
	if c := d.Plan.Correction(); c.Weighings > 0 {
		v.Corrects = fmt.Sprintf("By %d %s the front wheel carries %s and the rear %s, against what masses and places came to. Every figure counts with it.", c.Weighings, desk.Plural(c.Weighings, "weighing"), moreOrLess(d.Kg, c.FrontKg), moreOrLess(d.Kg, c.RearKg))
	}
	return v
}

// readBridge asks the simulated weighbridge; nothing is kept before the rider has
// seen it.
func readBridge(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	on, err := scaledOf(d, r.PostForm)
	if err != nil {
		return err
	}
	if !on.known {
		return store.ErrNotFound
	}
	read, err := outside.Weigh(trueWheels(d.Plan.Bike.ID, on.want), outside.Fault(r.PostFormValue("fault")), mathrand.Uint64())
	if err != nil {
		return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, on, r.PostForm, desk.FormErrors{"form": err.Error()}))
	}
	form := url.Values{"fault": {r.PostFormValue("fault")}, "id": {r.PostFormValue("id")}}
	for key, kg := range map[string]float64{"front": read.FrontKg, "rear": read.RearKg, "left": read.LeftKg, "right": read.RightKg} {
		if !math.IsNaN(kg) {
			own, symbol := d.Units.Convert(kg, "kg")
			form.Set(key, strconv.FormatFloat(math.Round(10*own)/10, 'f', -1, 64)+" "+symbol)
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, on, form, nil))
}

// trueWheels is what the simulated bike really weighs: a little off its sheet, the
// same each time.
func trueWheels(bike string, want load.Wheels) load.Wheels {
	h := fnv.New32a()
	_, _ = h.Write([]byte(bike)) // never fails
	front, rear := float64(h.Sum32()%40)/10-1, float64(h.Sum32()/40%50)/10-1
	want.FrontKg += front
	want.RearKg += rear
	want.LeftKg += (front + rear) / 2
	want.RightKg += (front + rear) / 2
	return want
}

// keepWeighing keeps what was read, once for the id of its form.
func keepWeighing(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	on, err := scaledOf(d, r.PostForm)
	if err != nil {
		return err
	}
	if !on.known {
		return store.ErrNotFound
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	m := &logbook.Weighing{Name: loadout.Name + ", " + on.words}
	errs := desk.FormErrors{}
	if on.err != "" {
		errs["tank"] = on.err
	}
	for _, f := range []struct {
		key   string
		entry entry.Entry
	}{{"front", &m.Front}, {"rear", &m.Rear}, {"total", &m.Total}, {"left", &m.Left}, {"right", &m.Right}} {
		if err := d.Units.Enter(f.entry, strings.TrimSpace(r.PostFormValue(f.key)), "kg"); err != nil {
			errs[f.key] = err.Error()
		}
	}
	_ = m.ExpectedFront.Enter(strconv.FormatFloat(on.want.FrontKg, 'f', 2, 64), "kg") // plain numbers
	_ = m.ExpectedRear.Enter(strconv.FormatFloat(on.want.RearKg, 'f', 2, 64), "kg")
	reading := logbook.Reading{ID: r.PostFormValue("id"), Kind: logbook.Weighed, On: desk.Today(), Bike: d.Plan.Bike.ID, Read: m}
	if !entry.ValidID(reading.ID) {
		reading.ID = rand.Text()
	}
	desk.Believe(reading, r.PostForm, errs)
	return s.Keep(w, r, d, "weigh", reading, errs, func(errs desk.FormErrors) any { return weigh(d, on, r.PostForm, errs) })
}

// moreOrLess is a difference in words.
func moreOrLess(words func(float64) string, v float64) string {
	if v < 0 {
		return words(-v) + " less"
	}
	return words(v) + " more"
}
