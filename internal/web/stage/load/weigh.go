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

func weighPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, nil, nil))
}

func weigh(d *desk.Desk, form url.Values, errs desk.FormErrors) weighView {
	v := weighView{Has: d.Plan.Bike != nil, Error: errs["form"], Read: d.Href("weigh/read"), Save: d.Href("weigh"), Revoke: d.Href("weigh/revoke"), ID: rand.Text()}
	if !v.Has {
		return v
	}
	if form.Get("id") != "" {
		v.ID = form.Get("id")
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	v.What = loadout.Name + ", rider on it, tank full"
	want, known := loading.ExpectedWheels(d.Report.Facts)
	v.Missing = !known
	for _, f := range []struct {
		key, label string
		want       float64
	}{{"front", "Front wheel", want.FrontKg}, {"rear", "Rear wheel", want.RearKg}, {"left", "Left side", want.LeftKg}, {"right", "Right side", want.RightKg}} {
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
	want, known := loading.ExpectedWheels(d.Report.Facts)
	if !known {
		return store.ErrNotFound
	}
	read, err := outside.Weigh(trueWheels(d.Plan.Bike.ID, want), outside.Fault(r.PostFormValue("fault")), mathrand.Uint64())
	if err != nil {
		return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, r.PostForm, desk.FormErrors{"form": err.Error()}))
	}
	form := url.Values{"fault": {r.PostFormValue("fault")}, "id": {r.PostFormValue("id")}}
	for key, kg := range map[string]float64{"front": read.FrontKg, "rear": read.RearKg, "left": read.LeftKg, "right": read.RightKg} {
		if !math.IsNaN(kg) {
			own, symbol := d.Units.Convert(kg, "kg")
			form.Set(key, strconv.FormatFloat(math.Round(10*own)/10, 'f', -1, 64)+" "+symbol)
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, "weigh", nil, weigh(d, form, nil))
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
	want, known := loading.ExpectedWheels(d.Report.Facts)
	if !known {
		return store.ErrNotFound
	}
	loadout, _ := d.Plan.Loadout(d.Loadout)
	m := &logbook.Weighing{Name: loadout.Name}
	errs := desk.FormErrors{}
	for _, f := range []struct {
		key   string
		entry entry.Entry
	}{{"front", &m.Front}, {"rear", &m.Rear}, {"left", &m.Left}, {"right", &m.Right}} {
		if err := d.Units.Enter(f.entry, strings.TrimSpace(r.PostFormValue(f.key)), "kg"); err != nil {
			errs[f.key] = err.Error()
		}
	}
	_ = m.ExpectedFront.Enter(strconv.FormatFloat(want.FrontKg, 'f', 2, 64), "kg") // plain numbers
	_ = m.ExpectedRear.Enter(strconv.FormatFloat(want.RearKg, 'f', 2, 64), "kg")
	reading := logbook.Reading{ID: r.PostFormValue("id"), Kind: logbook.Weighed, On: desk.Today(), Bike: d.Plan.Bike.ID, Read: m}
	if !entry.ValidID(reading.ID) {
		reading.ID = rand.Text()
	}
	desk.Believe(reading, r.PostForm, errs)
	return s.Keep(w, r, d, "weigh", reading, errs, func(errs desk.FormErrors) any { return weigh(d, r.PostForm, errs) })
}

// moreOrLess is a difference in words.
func moreOrLess(words func(float64) string, v float64) string {
	if v < 0 {
		return words(-v) + " less"
	}
	return words(v) + " more"
}
