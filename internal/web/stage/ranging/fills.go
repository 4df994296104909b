package ranging

import (
	"crypto/rand"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
	"valiantmule/internal/format"
	"valiantmule/internal/format/fillcsv"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// fillsView is the log of fills and what it teaches.
type fillsView struct {
	Has     bool
	Says    string
	Drawing draw.Learnt
	Uses    string // the unit of the drawing
	Fills   []fillRow
	Revoked []fillRow
	Gone    int // how many are revoked in all
	Pages   desk.Paging
	Every   int // of how many tanks one is drawn, 1 for each
	Form    fillForm
	Before  []estimateRow
	Formula string
	Add     string
	Revoke  string
	Took    string // what an import did
	desk.CSVView
}

// fillRow is one fill of the table.
type fillRow struct {
	ID, On, Litres, Distance, By, Ground, As, Note string
	Full                                           bool
	Uses, Expected                                 string // of the interval that it ends
	State                                          desk.StateView
	Flag                                           string // why it is looked at
}

// fillForm is a fill to be written down.
type fillForm struct {
	ID      string
	Fields  []desk.FieldView
	Sources []desk.OptionView
	As      []desk.OptionView
	Partial bool
	Missed  bool
	Grounds []desk.FieldView
	Error   string
}

// estimateRow is what the model makes of something before and after the fills.
type estimateRow struct{ Name, Before, After string }

func fillsPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	view := fillsAt(d, r.URL.Query().Get("page"), nil, nil)
	if n := r.URL.Query().Get("took"); n != "" && len(n) < 6 {
		view.Took = n + " fills were taken into the log."
	}
	return s.ShowPage(w, r, http.StatusOK, d, "fills", nil, view)
}

// fills is the first page, with what was typed for another fill.
func fills(d *desk.Desk, form url.Values, errs desk.FormErrors) fillsView {
	return fillsAt(d, "", form, errs)
}

// fillsAt is a page of the log.
func fillsAt(d *desk.Desk, page string, form url.Values, errs desk.FormErrors) fillsView {
	v := fillsView{
		Has: d.Plan.Bike != nil, Uses: d.Units.Of("L/100 km"), Formula: fuel.LearnFormula.Text,
		Add: d.Href("fills"), Revoke: d.Href("fills/revoke"), CSVView: desk.CSVView{File: d.Href("fills.csv"), Import: d.Href("fills/import")},
	}
	if !v.Has {
		return v
	}
	v.Form = fillFormOf(d, form, errs)
	v.table(d, d.Report.Facts.Learning, page)
	v.estimates(d, d.Report.Facts.Learning)
	return v
}

func fillFormOf(d *desk.Desk, form url.Values, errs desk.FormErrors) fillForm {
	f := fillForm{ID: rand.Text(), Partial: form.Has("partial"), Missed: form.Has("missed"), Error: errs["form"]}
	if form.Get("id") != "" {
		f.ID = form.Get("id")
	}
	field := func(key, label, metric, help string) {
		f.Fields = append(f.Fields, desk.FieldView{Key: key, Label: label, Unit: d.Units.Of(metric), Help: help, Value: form.Get(key), Error: errs[key]})
	}
	field("on", "Date", "", "")
	field("litres", "Filled", "L", "")
	field("odometer", "Odometer", "km", "What it shows.")
	field("trip", "Or since the last fill", "km", "One of the two is enough.")
	field("cruise", "Held on the road", "km/h", "")
	field("note", "Note", "", "")
	if form == nil {
		f.Fields[0].Value, f.Fields[4].Value = desk.Today(), d.Plan.Brief.Cruise.String()
		f.Fields[0].Today = true
	}
	f.Sources = desk.OptionsOf(logbook.DistancesBy(), desk.Typed(form, "by", string(logbook.ByOdometer)), "")
	f.As = d.RiddenAs(form.Get("as"))
	f.Grounds = desk.GroundFields(form)
	return f
}

// Rows of the log on a page, revoked ones that are named, and tanks that are drawn.
const (
	fillsAPage   = 50
	revokedNamed = 20
	tanksDrawn   = 20
)

// table lists the log, the newest first, with what each full tank came to.
func (v *fillsView) table(d *desk.Desk, learning facts.Learning, page string) {
	ends := map[string]int{}
	for i, in := range learning.Intervals {
		ends[in.Last().ID] = i
	}
	live := d.Plan.ReadingsOf(logbook.FillReading)
	slices.Reverse(live)
	v.Pages = desk.PagesOf(len(live), fillsAPage, page, func(n string) string { return d.Href("fills", "page", n) })
	for _, r := range live[v.Pages.From:v.Pages.To] {
		row := fillRowOf(d, r)
		if i, ok := ends[r.ID]; ok {
			in, verdict := learning.Intervals[i], learning.Taught.Each[i]
			row.Uses = d.Units.Quantity(in.Litres/in.Km*100, "L/100 km")
			row.Expected = d.Units.Quantity(verdict.Expected/in.Km*100, "L/100 km")
			row.State = desk.StateOf("ok")
			if verdict.Flagged() {
				row.State = desk.StateOf("watch")
				row.Flag = fmt.Sprintf("Lies %.1f spreads off the others and counts for %.0f %%: a misread meter, a fill that is missing, another bike's can?", verdict.Off, 100*verdict.Weight)
			}
		}
		v.Fills = append(v.Fills, row)
	}
	alive := map[string]bool{}
	for _, r := range live {
		alive[r.ID] = true
	}
	for _, r := range slices.Backward(d.Plan.Readings) {
		if r.Kind == logbook.FillReading && r.Bike == d.Plan.Bike.ID && !alive[r.ID] {
			if v.Gone++; v.Gone <= revokedNamed {
				v.Revoked = append(v.Revoked, fillRowOf(d, r))
			}
		}
	}
}

func fillRowOf(d *desk.Desk, r logbook.Reading) fillRow {
	row := fillRow{ID: r.ID, On: r.On, Litres: d.Units.Quantity(r.Fill().Litres.In("L"), "L"), Full: !r.Fill().Partial, As: r.Fill().As.Name, Note: r.Note}
	switch {
	case r.Fill().Trip.Known():
		row.Distance = "+" + d.Units.Quantity(r.Fill().Trip.In("km"), "km")
	default:
		row.Distance = "at " + d.Units.Quantity(r.Fill().Odometer.In("km"), "km")
	}
	row.By = entry.NameOf(logbook.DistancesBy(), string(r.Fill().By))
	if row.Ground = desk.Grounds(terrain.MixOfStretches(r.Fill().Ground)); row.Ground == "" {
		row.Ground = "paved road"
	}
	return row
}

// estimates draws how the estimate settled and compares it with the first guess.
func (v *fillsView) estimates(d *desk.Desk, learning facts.Learning) {
	own := func(per100 float64) float64 { u, _ := d.Units.Convert(per100, "L/100 km"); return u }
	var stands []draw.Estimate
	over := learning.Stands(tanksDrawn)
	v.Every = max(1, len(learning.Tankfuls)/tanksDrawn)
	for _, stand := range over {
		litres, spread := ranging.OnTheRoad(d.Report.Facts, stand.Model)
		high, low := own(litres+fuel.BandSigma*spread), own(max(0.2*litres, litres-fuel.BandSigma*spread))
		if high < low { // miles per gallon grow the other way
			low, high = high, low
		}
		stands = append(stands, draw.Estimate{Mid: own(litres), Half: (high - low) / 2})
	}
	one, _ := ranging.OnTheRoad(d.Report.Facts, fuel.Anchored(1, true))
	var said []draw.Said
	for _, stand := range over[1:] {
		i := stand.Tanks - 1
		t, last := learning.Tankfuls[i], learning.Intervals[i].Last()
		value := own(one * t.Litres / t.By.Total())
		day := last.On
		if t, err := time.Parse(time.DateOnly, day); err == nil {
			day = t.Format("2 Jan")
		}
		said = append(said, draw.Said{Value: value, Flagged: learning.Taught.Each[i].Flagged(), Day: day, Title: fmt.Sprintf("%s: %s as on the road", last.On, d.Units.Quantity(one*t.Litres/t.By.Total(), "L/100 km"))})
	}
	if one == one && len(said) > 0 {
		// The sheet's consumption is mixed use; here all is compared on the road.
		paper := math.NaN()
		if d.Plan.Bike.Economy.Known() {
			paper = stands[0].Mid
		}
		v.Drawing = draw.Estimates(stands, said, paper)
	}
	before := *d.Plan
	before.Readings = nil
	if was, err := d.On.Evaluate(&before); err == nil {
		for _, id := range []figure.ID{"range", "consumption", "dry-chance"} {
			a, _ := was.Figure(id)
			b, _ := d.Report.Figure(id)
			row := estimateRow{Name: a.Name, Before: d.Units.Told(a), After: d.Units.Told(b)}
			if a.Banded && b.Banded {
				row.Before, row.After = desk.GaugeOf(d.Units, a, "").Band, desk.GaugeOf(d.Units, b, "").Band
			}
			v.Before = append(v.Before, row)
		}
	}
	n := len(learning.Intervals)
	switch {
	case n == 0:
		v.Says = "No full tank follows another yet: the model rests on the sheet alone. Three from full to full correct it."
	case n < 3:
		v.Says = fmt.Sprintf("%d of the 3 full tanks after one another that it takes to trust them.", n)
	default:
		v.Says = fmt.Sprintf("%d tanks from full to full lead now; this bike burns %.2f times what its sheet leads one to expect on the road, %.2f off it, and rides differ by %.0f %%.",
			n, learning.Taught.Road/learning.First.Road, learning.Taught.Loose/learning.First.Loose, 100*learning.Taught.Ride)
	}
}

// addFill keeps one fill, once for the id that its form was given.
func addFill(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	reading, errs := readFill(d, r.PostForm)
	return s.Keep(w, r, d, "fills", reading, errs, func(errs desk.FormErrors) any { return fills(d, r.PostForm, errs) })
}

// readFill reads a fill from its form, with the bike as it was ridden.
func readFill(d *desk.Desk, form url.Values) (logbook.Reading, desk.FormErrors) {
	errs := desk.FormErrors{}
	f := &logbook.Fill{By: logbook.DistanceBy(form.Get("by")), Partial: form.Has("partial"), Missed: form.Has("missed")}
	r := logbook.Reading{ID: form.Get("id"), Kind: logbook.FillReading, Bike: d.Plan.Bike.ID, Note: strings.TrimSpace(form.Get("note")), Read: f}
	if !entry.ValidID(r.ID) {
		r.ID = rand.Text()
	}
	var err error
	if r.On, err = d.Units.Date(form.Get("on")); err != nil {
		errs["on"] = err.Error()
	}
	f.As = d.Ridden(form.Get("as"))
	for _, q := range []struct {
		key, metric string
		entry       entry.Entry
	}{{"litres", "L", &f.Litres}, {"odometer", "km", &f.Odometer}, {"trip", "km", &f.Trip}, {"cruise", "km/h", &f.As.Cruise}} {
		if err := d.Units.Enter(q.entry, strings.TrimSpace(form.Get(q.key)), q.metric); err != nil {
			errs[q.key] = err.Error()
		}
	}
	if !f.Odometer.Known() && !f.Trip.Known() && len(d.Plan.ReadingsOf(logbook.FillReading)) > 0 && errs["odometer"] == "" && errs["trip"] == "" {
		errs["odometer"] = "give the odometer, or the distance since the fill before; only the first needs neither"
	}
	if f.Ground = d.GroundOf(form, errs); len(f.Ground) == 0 {
		f.Ground = d.Plan.Brief.Terrain
	}
	desk.Believe(r, form, errs)
	return r, errs
}

func fillsFile(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	desk.Attach(w, "text/csv; charset=utf-8", format.FileName(d.Plan.Name, ".fills.csv"))
	return fillcsv.Write(w, d.Plan.ReadingsOf(logbook.FillReading))
}

// importFills looks a file of fills through. Nothing is kept until the rider takes
// the good rows.
func importFills(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	view := fills(d, nil, nil)
	if view.CSV, err = desk.SentFile(r); err != nil {
		return err
	}
	rows, err := fillcsv.Read([]byte(view.CSV), d.Plan.Bike.ID)
	if err != nil {
		view.CSVError = "Nothing was taken: " + err.Error() + "."
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "fills", nil, view)
	}
	good := goodFills(d, rows, &view)
	if r.PostFormValue("take") != "" && len(good) > 0 {
		added, err := s.Store.AddReadings(r.Context(), s.Rider(r), d.ID, good)
		if errors.Is(err, store.ErrFull) {
			view.CSVError = "Nothing was taken: the log is full."
			return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "fills", nil, view)
		}
		if err != nil {
			return err
		}
		return desk.SeeOther(w, r, d.Href("fills", "took", strconv.Itoa(added)))
	}
	return s.ShowPage(w, r, http.StatusOK, d, "fills", nil, view)
}

// goodFills sorts the rows of a file; a loadout's name stands for the bike as it is
// planned there.
func goodFills(d *desk.Desk, rows []fillcsv.Row, view *fillsView) []logbook.Reading {
	var good []logbook.Reading
	there := map[string]logbook.Reading{}
	for _, r := range d.Plan.Readings {
		there[r.ID] = r
	}
	for _, row := range rows {
		shown := desk.CSVRow{Line: row.Line, Text: row.Text, Says: "good"}
		is, known := there[row.Reading.ID]
		switch {
		case row.Err != nil:
			shown.Bad, shown.Says = true, row.Err.Error()
		case known && !fillcsv.Same(is, row.Reading):
			shown.Bad, shown.Says = true, fmt.Sprintf("the log has another reading under this id, of %s: take the id out of the row to write this one down too", is.On)
		case known:
			shown.Says = "in the log already"
		default:
			name := row.Reading.Fill().As.Name
			row.Reading.Fill().As = d.Ridden("")
			for _, l := range d.Plan.Loadouts {
				if strings.EqualFold(name, l.Name) || strings.EqualFold(name, l.ID) {
					row.Reading.Fill().As = d.Ridden(l.ID)
				}
			}
			good = append(good, row.Reading)
			there[row.Reading.ID] = row.Reading
		}
		view.CSVRows = append(view.CSVRows, shown)
	}
	view.Good = len(good)
	return good
}
