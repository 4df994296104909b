package electrics

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/words"
)

// voltsView is the worksheet of a voltmeter, and what was read so far.
type voltsView struct {
	desk.ReadingHead
	Has     bool
	Asks    string // what is missing to say more than volts
	AllOn   string // what everything on means here
	Fields  []desk.FieldView
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
	v := voltsView{Has: d.Plan.Bike != nil, Add: d.Href("volts"), Revoke: d.Href("volts/revoke")}
	if !v.Has {
		return v
	}
	v.ReadingHead = desk.ReadingHeadOf(form, errs, "Which meter, how warm the engine was.")
	if form == nil {
		form = url.Values{}
	}
	c := &d.Report.Facts.Charging
	var blank logbook.Volts
	for _, f := range blank.Fields() {
		v.Fields = append(v.Fields, desk.FieldOf(d.Units, f, form, errs))
	}
	if math.IsNaN(c.OwnW) {
		v.Asks = "Without what the bike itself draws volts say whether it holds, and correct no margin."
	}
	v.AllOn = allOnWords(c)
	v.reads(d, c, kept)
	v.Working = d.Gauges(d.Report, "volts", desk.Laid{}, "charge-margin", "charge-idle")
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
	live := d.Plan.ReadingsOf(logbook.VoltsRead)
	for i, r := range slices.Backward(live) {
		row := readView{ID: r.ID, On: r.On, Note: r.Note, Leads: r.ID == c.Read}
		var said []string
		var marks []draw.VoltRead
		for _, f := range r.Volts().Fields() {
			if q, ok := f.Entry.(interface{ In(string) float64 }); ok && f.Entry.Known() {
				said = append(said, strings.ToLower(f.Label)+" "+volts(q.In("V")))
				marks = append(marks, draw.VoltRead{Name: f.Label, Volts: q.In("V"), Words: volts(q.In("V"))})
			}
		}
		row.Read = strings.Join(said, ", ")
		means := meterWords[power.MeterOf(r.Volts().Idle.In("V"), r.Volts().Riding.In("V"), r.Volts().AllOn.In("V"), c.Chemistry)]
		row.State, row.Says = desk.StateOf(means.state), means.says
		if row.Leads {
			row.Says += fmt.Sprintf(" By it the alternator gives %s at %s, by the sheet %s.", watts(c.Curve.W(logbook.VoltsRPM)), d.Units.Quantity(logbook.VoltsRPM, "rpm"), watts(c.Sheet.W(logbook.VoltsRPM)))
		}
		if r.ID == kept {
			v.Kept = "Kept. " + row.Says
		}
		if i == len(live)-1 {
			v.Drawing = draw.VoltsRule(marks, c.Chemistry.RestingV, c.Chemistry.ChargingV, power.BoilsV)
		}
		v.Reads = append(v.Reads, row)
	}
}

func volts(v float64) string { return words.Number(v, 1) + " V" }

// meterWords are what a reading means.
var meterWords = map[power.Meter]struct {
	state verdict.State
	says  string
}{
	power.Boils:       {verdict.Over, "Too much: the regulator does not regulate. Another one before the next ride; a lithium battery comes off first."},
	power.NotCharging: {verdict.Over, "It does not charge as it should with nothing on: stator, regulator, a plug or an earth, before anything more hangs on it."},
	power.Drains:      {verdict.Over, "With everything on the battery gives, too: something has to go off."},
	power.JustHolds:   {verdict.Watch, "With everything on it gives just what is drawn, and has nothing to spare."},
	power.DrainsIdle:  {verdict.Watch, "It holds while it is ridden; at idle the battery gives."},
	power.IdleAlone:   {verdict.Unknown, "Idle alone says little: read it at a riding speed, with everything on."},
	power.ChargesBare: {verdict.OK, "It charges with nothing on. With everything on is what one wants to know."},
	power.Holds:       {verdict.OK, "It holds with everything on."},
}

// fillVolts enters what was read, and what was drawn then, as the plan has it.
func fillVolts(d *desk.Desk, form url.Values, into *logbook.Reading, errs desk.FormErrors) error {
	v := &logbook.Volts{}
	into.Read = v
	desk.Enter(d.Units, v.Fields(), form, errs)
	return d.Drawn(v)
}
