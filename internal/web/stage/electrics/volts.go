package electrics

import (
	"crypto/rand"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// voltsView is the worksheet of a voltmeter, and what was read so far.
type voltsView struct {
	Has     bool
	ID      string
	Asks    string // what is missing to say more than volts
	AllOn   string // what everything on means here
	Fields  []desk.FieldView
	On      desk.FieldView
	Note    desk.FieldView
	Error   string
	Add     string
	Revoke  string
	Kept    string
	Drawing draw.Volts
	Reads   []readView
	Working []desk.GaugeView
}

// readView is one reading, with what it says.
type readView struct {
	ID, On, Note, Read, Says string
	State                    desk.StateView
	Leads                    bool
}

func voltsPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "volts", nil, voltsOf(d, r.URL.Query().Get("kept"), nil, nil))
}

func voltsOf(d *desk.Desk, kept string, form url.Values, errs desk.FormErrors) voltsView {
	v := voltsView{Has: d.Plan.Bike != nil, ID: rand.Text(), Error: errs["form"], Add: d.Href("volts"), Revoke: d.Href("volts/revoke")}
	if !v.Has {
		return v
	}
	if id := form.Get("id"); id != "" {
		v.ID = id
	}
	if form == nil {
		form = url.Values{}
	}
	c := &d.Report.Facts.Charging
	v.On = desk.FieldView{Key: "on", Label: "Date", Value: desk.Today(), Error: errs["on"]}
	if form.Has("on") {
		v.On.Value = form.Get("on")
	}
	v.Note = desk.FieldView{Key: "note", Label: "Note", Value: form.Get("note"), Error: errs["note"], Help: "Which meter, how warm the engine was."}
	var blank plan.Volts
	for _, f := range blank.Fields() {
		v.Fields = append(v.Fields, desk.FieldOf(d.Units, f, form, errs))
	}
	if math.IsNaN(c.OwnW) {
		v.Asks = "Without what the bike itself draws volts say whether it holds, and correct no margin."
	}
	v.AllOn = allOnWords(c)
	v.reads(d, c, kept)
	v.Working = d.Gauges(d.Report, "volts", nil, "charge-margin", "charge-idle")
	return v
}

// allOnWords list what everything on means.
func allOnWords(c *facts.Charging) string {
	var names []string
	for _, a := range c.Draws {
		if a.FullW > 0 {
			names = append(names, a.Part.Name+", "+watts(a.FullW))
		}
	}
	if len(names) == 0 {
		return "Nothing hangs on it but the bike itself: main beam on."
	}
	text := "Everything on: main beam, " + strings.Join(names, "; ")
	if sum := c.OwnW + c.FullW; !math.IsNaN(sum) {
		text += ". Together with the bike itself " + watts(sum)
	}
	return text + "."
}

// reads lists what was read, the newest first.
func (v *voltsView) reads(d *desk.Desk, c *facts.Charging, kept string) {
	live := d.Plan.ReadingsOf(plan.VoltsRead)
	for i, r := range slices.Backward(live) {
		row := readView{ID: r.ID, On: r.On, Note: r.Note, Leads: r.ID == c.Read}
		var said []string
		var marks []draw.VoltRead
		for _, f := range r.Volts.Fields() {
			if q, ok := f.Entry.(interface{ In(string) float64 }); ok && f.Entry.Known() {
				said = append(said, strings.ToLower(f.Label)+" "+volts(q.In("V")))
				marks = append(marks, draw.VoltRead{Name: f.Label, Volts: q.In("V"), Words: volts(q.In("V"))})
			}
		}
		row.Read = strings.Join(said, ", ")
		row.State, row.Says = voltsSay(r.Volts)
		if row.Leads {
			row.Says += fmt.Sprintf(" By it the alternator gives %s at %s, by the sheet %s.", watts(c.Curve.W(plan.VoltsRPM)), d.Units.Quantity(plan.VoltsRPM, "rpm"), watts(c.Sheet.W(plan.VoltsRPM)))
		}
		if r.ID == kept {
			v.Kept = "Kept. " + row.Says
		}
		if i == len(live)-1 {
			v.Drawing = draw.VoltsRule(marks, power.RestingV, power.ChargingV, power.BoilsV)
		}
		v.Reads = append(v.Reads, row)
	}
}

func volts(v float64) string { return words.Number(v, 1) + " V" }

// voltsSay is what a reading means.
func voltsSay(v *plan.Volts) (desk.StateView, string) {
	idle, riding, all := v.Idle.In("V"), v.Riding.In("V"), v.AllOn.In("V")
	switch {
	case idle > power.BoilsV || riding > power.BoilsV || all > power.BoilsV:
		return desk.StateOf("over"), "Too much: the regulator does not regulate. Another one before the next ride; a lithium battery comes off first."
	case riding < power.ChargingV:
		return desk.StateOf("over"), "It does not charge as it should with nothing on: stator, regulator, a plug or an earth, before anything more hangs on it."
	case all < power.RestingV:
		return desk.StateOf("over"), "With everything on the battery gives, too: something has to go off."
	case all < power.ChargingV:
		return desk.StateOf("watch"), "With everything on it gives just what is drawn, and has nothing to spare."
	case idle < power.RestingV:
		return desk.StateOf("watch"), "It holds while it is ridden; at idle the battery gives."
	case math.IsNaN(riding) && math.IsNaN(all):
		return desk.StateOf("unknown"), "Idle alone says little: read it at a riding speed, with everything on."
	case math.IsNaN(all):
		return desk.StateOf("ok"), "It charges with nothing on. With everything on is what one wants to know."
	}
	return desk.StateOf("ok"), "It holds with everything on."
}

// addVolts keeps one reading, once for the id that its form was given.
func addVolts(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return desk.SeeOther(w, r, d.Href("volts"))
	}
	errs := desk.FormErrors{}
	reading := d.ReadingOf(plan.VoltsRead, r.PostForm, errs)
	reading.Volts = &plan.Volts{}
	desk.Enter(d.Units, reading.Volts.Fields(), r.PostForm, errs)
	if err := drawnThen(&d.Report.Facts.Charging, reading.Volts); err != nil {
		return err
	}
	if len(errs) == 0 {
		desk.Believe(reading, r.PostForm, errs)
	}
	return s.Keep(w, r, d, "volts", reading, errs, func(errs desk.FormErrors) any { return voltsOf(d, "", r.PostForm, errs) })
}

// drawnThen notes what was drawn while it was read, as the plan has it.
func drawnThen(c *facts.Charging, into *plan.Volts) error {
	for _, q := range []struct {
		into interface{ Enter(text, unit string) error }
		w    float64
	}{{&into.OwnW, c.OwnW}, {&into.AllOnW, c.OwnW + c.FullW}, {&into.RatedW, c.RatedW}} {
		if math.IsNaN(q.w) {
			continue
		}
		if err := q.into.Enter(strconv.FormatFloat(q.w, 'f', 1, 64), "W"); err != nil {
			return err
		}
	}
	return nil
}
