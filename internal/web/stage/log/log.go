package log

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study/journey"
	"valiantmule/internal/draw"
	"valiantmule/internal/web/desk"
)

// logView is the log of a trip.
type logView struct {
	desk.ReadingHead
	Has, Begun bool
	Says       string
	Falls      string // how often it fell against what was thought
	Kept       string
	Thumb      []desk.FieldView // the three
	Sources    []desk.OptionView
	As         []desk.OptionView
	Full       bool
	Grounds    []desk.FieldView
	Folds      []fold
	Add        string
	Revoke     string
	Track      string
	TrackError string
	TrackSays  string // of a file with several days
	Drawing    draw.Ridden
	Units      string // of the drawing
	Days       []dayRow
	Others     int // days of other trips of the bike
	Pages      desk.Paging
	Taught     []taughtRow
	Came       []cameRow // what was foretold at departure, and what came
	Offs       []offRow  // how far the model was off, trip by trip
	Working    []desk.GaugeView
}

// fold is some fields of a day that most days leave alone.
type fold struct {
	Name   string
	Fields []desk.FieldView
	Open   bool
}

// dayRow is one day of the table.
type dayRow struct {
	ID, On, Distance, By, Fuel, Broke, Rest, Note string
}

// taughtRow is what a figure was before the days, and is with them.
type taughtRow struct{ Name, Before, After string }

func logPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "log", nil, logOf(d, r.URL.Query().Get("page"), r.URL.Query().Get("kept"), nil, nil))
}

// folds are the fields of a day that are folded, by what one looks at in the evening.
var folds = []struct {
	name string
	keys []string
}{
	{"Falls and fixes", []string{"slow_falls", "fast_falls", "fixed", "kit"}},
	{"Tyres", []string{"tread_front", "tread_rear", "cold_front", "cold_rear", "hot_front", "hot_rear"}},
	{"Oil, chain, volts", []string{"oil", "chain", "volts"}},
	{"You, and where", []string{"hours", "hurt", "place"}},
}

func logOf(d *desk.Desk, page, kept string, form url.Values, errs desk.FormErrors) logView {
	v := logView{Has: d.Plan.Bike != nil, Add: d.Href("log"), Revoke: d.Href("log/revoke"), Track: d.Href("log/track"), Units: d.Units.Of("km")}
	if !v.Has {
		return v
	}
	v.form(d, form, errs)
	j := &d.Report.Facts.Journey
	v.Begun = len(j.Days) > 0
	v.Others = len(d.Plan.ReadingsOf(logbook.DayRidden)) - len(j.Days)
	v.table(d, page, kept)
	if v.Begun {
		v.Drawing = riddenDrawing(d, j.Days)
		v.Says = says(d)
		v.Falls = fallsWords(d)
		v.taught(d)
		v.came(d)
	}
	v.Working = d.Gauges(d.Report, "log", desk.Laid{}, figure.TyreLife, figure.Consumption, figure.OilUse, figure.ChainLeft, figure.FallsTimes)
	return v
}

// form is the day to be written down.
func (v *logView) form(d *desk.Desk, form url.Values, errs desk.FormErrors) {
	v.ReadingHead = desk.ReadingHeadOf(form, errs, "")
	blank := &logbook.Day{}
	fields := map[string]desk.FieldView{}
	for _, f := range blank.Fields() {
		fields[f.Key] = desk.FieldOf(d.Units, f, form, errs)
	}
	for _, t := range blank.Texts() {
		fields[t.Key] = desk.FieldView{Key: t.Key, Label: t.Label, Value: form.Get(t.Key), Error: errs[t.Key]}
	}
	v.Thumb = []desk.FieldView{fields["distance"], fields["litres"], fields["broke"]}
	for _, f := range folds {
		list := fold{Name: f.name}
		for _, key := range f.keys {
			list.Fields = append(list.Fields, fields[key])
			list.Open = list.Open || fields[key].Error != ""
		}
		v.Folds = append(v.Folds, list)
	}
	v.Grounds = desk.GroundFields(form)
	v.Sources = desk.OptionsOf(logbook.DistancesBy(), desk.Typed(form, "by", string(logbook.ByTrip)), "")
	v.As = d.RiddenAs(desk.Typed(form, "as", d.Loadout))
	v.Full = form.Has("full")
	v.TrackSays = form.Get("track")
	v.Folds = append([]fold{{Name: "Where the distance comes from", Fields: []desk.FieldView{fields["odometer"]}, Open: errs["odometer"] != "" || errs["by"] != ""}}, v.Folds...)
}

// daysAPage are the rows of the log on a page.
const daysAPage = 50

// table lists the days of the trip, the newest first.
func (v *logView) table(d *desk.Desk, page, kept string) {
	days := slices.Clone(d.Report.Facts.Journey.Days)
	slices.Reverse(days)
	v.Pages = desk.PagesOf(len(days), daysAPage, page, func(n string) string { return d.Href("log", "page", n) })
	for _, r := range days[v.Pages.From:v.Pages.To] {
		v.Days = append(v.Days, rowOf(d, r))
		if r.ID == kept {
			v.Kept = "Kept: " + r.On + "."
		}
	}
}

// toldApart are the fields of a day that its row tells in words of their own.
var toldApart = []string{"distance", "litres", "slow_falls", "fast_falls", "broke", "fixed", "kit"}

// fallen says how often it fell, "" where nobody has said.
func fallen(day *logbook.Day) string {
	slow, fast, said := day.Falls()
	switch {
	case !said:
		return ""
	case slow+fast == 0:
		return "no fall"
	case fast == 0:
		return "fell " + times(slow) + ", slow"
	case slow == 0:
		return "fell " + times(fast) + ", fast"
	}
	return fmt.Sprintf("fell %.0f times, %.0f of them fast", slow+fast, fast)
}

func times(n float64) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%.0f times", n)
}

func lower(label string) string { return strings.ToLower(label[:1]) + label[1:] }

func rowOf(d *desk.Desk, r logbook.Reading) dayRow {
	day := r.Day()
	row := dayRow{ID: r.ID, On: r.On, Broke: day.Broke, Note: r.Note}
	switch {
	case day.ShownKm() == 0:
		row.Distance = "not ridden"
	case day.Distance.Known():
		row.Distance = d.Units.Quantity(day.Km(), "km")
		for _, by := range logbook.DistancesBy() {
			if by.Value == string(day.By) {
				row.By = by.Name
			}
		}
		if math.Abs(day.Km()-day.ShownKm()) > 0.5 {
			row.By += ", shown " + d.Units.Quantity(day.ShownKm(), "km")
		}
	}
	if day.Litres.Known() {
		row.Fuel = d.Units.Quantity(day.Litres.In("L"), "L")
		if day.Full {
			row.Fuel += ", full"
		}
	}
	var rest []string
	if falls := fallen(day); falls != "" {
		rest = append(rest, falls)
	}
	for _, f := range day.Fields() {
		if f.Entry.Known() && !slices.Contains(toldApart, f.Key) {
			rest = append(rest, lower(f.Label)+" "+d.Units.ShownOf(f.Entry))
		}
	}
	for _, t := range day.Texts() {
		if *t.Text != "" && !slices.Contains(toldApart, t.Key) {
			rest = append(rest, lower(t.Label)+" "+*t.Text)
		}
	}
	if day.Fixed != "" {
		fixed := "put right: " + day.Fixed
		if day.Kit != "" {
			fixed += ", from: " + day.Kit
		}
		rest = append(rest, fixed)
	}
	if g := desk.Grounds(d.Plan.Mixed(day)); g != "" && len(day.Ground) > 0 {
		rest = append(rest, g)
	}
	row.Rest = strings.Join(rest, "; ")
	return row
}

// riddenDrawing draws the days in the rider's units.
func riddenDrawing(d *desk.Desk, days []logbook.Reading) draw.Ridden {
	own := func(v float64, unit string) float64 { u, _ := d.Units.Convert(v, unit); return u }
	first, _ := calendar.ParseDay(days[0].On)
	var list []draw.RiddenDay
	for _, r := range days {
		day := r.Day()
		on, _ := calendar.ParseDay(r.On)
		row := draw.RiddenDay{On: int(on - first), Distance: own(day.Km(), "km"), Fuel: own(day.Litres.In("L"), "L"), Tread: day.TreadRear.In("mm"), Day: r.On}
		if t, err := time.Parse(time.DateOnly, r.On); err == nil {
			row.Day = t.Format("2 Jan")
		}
		row.Title = r.On + ": " + d.Units.Quantity(day.Ridden(), "km")
		row.FuelTitle = r.On + ": " + d.Units.Quantity(day.Litres.In("L"), "L")
		if day.TreadRear.Known() {
			row.TreadText = d.Units.ShownOf(&day.TreadRear)
		}
		list = append(list, row)
	}
	return draw.RiddenDays(list, own(d.Plan.Brief.Distance.In("km"), "km"), journey.PlannedDays(d.Report.Facts))
}

// says is where the trip stands.
func says(d *desk.Desk) string {
	j := &d.Report.Facts.Journey
	text := fmt.Sprintf("%s in %s", d.Units.Quantity(j.Km, "km"), days(len(j.Days)))
	trip := d.Plan.Brief.Distance.In("km")
	if trip > 0 {
		text += fmt.Sprintf(", %s to go", d.Units.Quantity(j.ToGo(trip), "km"))
		if tanks := journey.TanksToGo(d.Report.Facts); tanks >= 0.5 {
			text += fmt.Sprintf(": about %.0f tanks at this rate", math.Ceil(tanks))
		}
	}
	return text + "."
}

func days(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}

// fallsWords say how often it fell against what was thought, in words; the working has the number.
func fallsWords(d *desk.Desk) string {
	j := &d.Report.Facts.Journey
	if j.Expected == 0 {
		return ""
	}
	switch j.Often.Beside() {
	case -1:
		return "You fall less often than was thought."
	case 1:
		return "You fall more often than was thought: what breaks counts it."
	}
	return "You fall about as often as was thought."
}

// taught are figures before the days and with them.
func (v *logView) taught(d *desk.Desk) {
	before, ofDays := *d.Plan, map[string]bool{}
	for _, r := range d.Plan.ReadingsOf(logbook.DayRidden) {
		ofDays[r.ID], ofDays[logbook.Beside(r.ID)] = true, true
	}
	before.Readings = slices.DeleteFunc(slices.Clone(d.Plan.Readings), func(r logbook.Reading) bool { return ofDays[r.ID] })
	was, err := d.On.Evaluate(&before)
	if err != nil {
		return
	}
	for _, id := range []figure.ID{figure.Consumption, figure.Distance, figure.RearLife, figure.FrontLife, figure.ChainLeft, figure.OilUse, figure.ChargeMargin, figure.ArmourStranded} {
		a, _ := was.Figure(id)
		b, ok := d.Report.Figure(id)
		if !ok || !b.Known || a.Value == b.Value && a.Low == b.Low && a.High == b.High {
			continue
		}
		row := taughtRow{Name: d.Units.Name(a.Row), Before: d.Units.Told(a), After: d.Units.Told(b)}
		if a.Banded && b.Banded {
			row.Before, row.After = desk.GaugeOf(d.Units, a, "").Band, desk.GaugeOf(d.Units, b, "").Band
		}
		v.Taught = append(v.Taught, row)
	}
}

// addDay keeps a day, once for the id that its form was given; with the first one of a trip what is expected of it, and
// volts that were read in the evening beside it, as those of the alternator.
func addDay(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return desk.SeeOther(w, r, d.Href("log"))
	}
	errs := desk.FormErrors{}
	day := d.ReadingOf(logbook.DayRidden, r.PostForm, errs)
	if err := fillDay(d, r.PostForm, &day, errs); err != nil {
		return err
	}
	if len(errs) == 0 {
		desk.Believe(day, r.PostForm, errs)
	}
	others := foretold(d, day.On)
	if volts := day.Day().Volts; volts.Known() && len(errs) == 0 {
		read := &logbook.Volts{AllOn: volts}
		if err := d.Drawn(read); err != nil {
			return err
		}
		others = append(others, logbook.Reading{ID: logbook.Beside(day.ID), Kind: logbook.VoltsRead, On: day.On, Bike: day.Bike, Read: read})
	}
	return s.Keep(w, r, d, "log", day, errs, func(errs desk.FormErrors) any { return logOf(d, "", "", r.PostForm, errs) }, others...)
}

// fillDay enters what was ridden, and by what the plan had it then.
func fillDay(d *desk.Desk, form url.Values, into *logbook.Reading, errs desk.FormErrors) error {
	day := &logbook.Day{Trip: d.Plan.Trip, By: logbook.DistanceBy(form.Get("by")), Full: form.Has("full")}
	into.Read = day
	desk.Enter(d.Units, day.Fields(), form, errs)
	for _, t := range day.Texts() {
		*t.Text = strings.TrimSpace(form.Get(t.Key))
	}
	if !day.Distance.Known() && day.Odometer.Known() && errs["odometer"] == "" {
		others := slices.DeleteFunc(d.Plan.ReadingsOf(logbook.DayRidden), func(r logbook.Reading) bool { return r.ID == into.ID }) // sent twice
		km, err := day.SinceLast(others, into.On)
		if err != nil {
			errs["odometer"] = err.Error()
		} else if err := desk.NoteThen(1, desk.Then{Into: &day.Distance, V: km, Unit: "km"}); err != nil {
			return err
		}
		day.By = logbook.ByOdometer
	}
	day.Ground = d.GroundOf(form, errs)
	day.As = d.Ridden(form.Get("as"))
	return desk.NoteThen(4, desk.Then{Into: &day.Shows, V: shows(d, day.By), Unit: ""})
}

// shows is what the bike's own meter shows over the true distance, NaN where it does not matter or is not known.
func shows(d *desk.Desk, by logbook.DistanceBy) float64 {
	factor := d.Report.Facts.Speedo.Factor
	if !by.OwnMeter() || factor == 1 {
		return math.NaN()
	}
	return factor
}
