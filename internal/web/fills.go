package web

import (
	"crypto/rand"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/draw"
	"valiantmule/internal/format/fillcsv"
	"valiantmule/internal/store"
)

// fillsView is the log of fills and what it teaches.
type fillsView struct {
	Has     bool
	Says    string
	Drawing draw.Learnt
	Uses    string // the unit of the drawing
	Fills   []fillRow
	Revoked []fillRow
	Form    fillForm
	Before  []estimateRow
	Formula string
	Add     string
	Revoke  string
	Took    string // what an import did
	csvView
}

// fillRow is one fill of the table.
type fillRow struct {
	ID, On, Litres, Distance, By, Ground, As, Note string
	Full                                           bool
	Uses, Expected                                 string // of the interval that it ends
	State                                          stateView
	Flag                                           string // why it is looked at
}

// fillForm is a fill to be written down.
type fillForm struct {
	ID      string
	Fields  []fieldView
	Sources []optionView
	As      []optionView
	Partial bool
	Missed  bool
	Grounds []fieldView
	Error   string
}

// estimateRow is what the model makes of something before and after the fills.
type estimateRow struct{ Name, Before, After string }

// csvView is a list as a file: where it is had, and one that was looked through.
type csvView struct {
	File, Import  string
	CSV, CSVError string // as it was sent, and why none of it was taken
	CSVRows       []csvRow
	Good          int
}

// csvRow is a row of a file that was looked at.
type csvRow struct {
	Line       int
	Text, Says string
	Bad        bool
}

func (s *Server) fillsPage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	view := d.fills(nil, nil)
	if n := r.URL.Query().Get("took"); n != "" && len(n) < 6 {
		view.Took = n + " fills were taken into the log."
	}
	return s.showPage(w, r, http.StatusOK, d, "fills", nil, view)
}

// asItCame is how a fill says that the bike was ridden without the plan's parts.
const asItCame = "As it came, rider alone"

// fills is the page, with what was typed for another fill.
func (d *desk) fills(form url.Values, errs formErrors) fillsView {
	v := fillsView{
		Has: d.Plan.Bike != nil, Uses: d.units.Of("L/100 km"), Formula: fuel.LearnFormula.Text,
		Add: d.href("fills"), Revoke: d.href("fills/revoke"), csvView: csvView{File: d.href("fills.csv"), Import: d.href("fills/import")},
	}
	if !v.Has {
		return v
	}
	v.Form = d.fillForm(form, errs)
	v.table(d, d.report.Facts.Learning)
	v.estimates(d, d.report.Facts.Learning)
	return v
}

func (d *desk) fillForm(form url.Values, errs formErrors) fillForm {
	f := fillForm{ID: rand.Text(), Partial: form.Has("partial"), Missed: form.Has("missed"), Error: errs["form"]}
	if form.Get("id") != "" {
		f.ID = form.Get("id")
	}
	field := func(key, label, metric, help string) {
		f.Fields = append(f.Fields, fieldView{Key: key, Label: label, Unit: d.units.Of(metric), Help: help, Value: form.Get(key), Error: errs[key]})
	}
	field("on", "Date", "", "")
	field("litres", "Filled", "L", "")
	field("odometer", "Odometer", "km", "What it shows.")
	field("trip", "Or since the last fill", "km", "One of the two is enough.")
	field("cruise", "Held on the road", "km/h", "")
	field("note", "Note", "", "")
	if form == nil {
		f.Fields[0].Value, f.Fields[4].Value = today(), d.Plan.Brief.Cruise.String()
	}
	f.Sources = optionsOf(plan.DistancesBy(), typed(form, "by", string(plan.ByOdometer)), "")
	as := []plan.Option{{Value: "", Name: asItCame}}
	for _, l := range d.Plan.Loadouts {
		as = append(as, plan.Option{Value: l.ID, Name: "As planned, " + l.Name})
	}
	f.As = optionsOf(as, form.Get("as"), "")
	for _, g := range terrain.Grounds() {
		f.Grounds = append(f.Grounds, fieldView{Key: "on." + string(g.Kind), Label: g.Name, Unit: "%", Value: form.Get("on." + string(g.Kind))})
	}
	return f
}

// table lists the log, the newest first, with what each full tank came to.
func (v *fillsView) table(d *desk, learning facts.Learning) {
	ends := map[string]int{}
	for i, in := range learning.Intervals {
		ends[in.Last().ID] = i
	}
	live := d.Plan.ReadingsOf(plan.FillReading)
	for _, r := range slices.Backward(live) {
		row := d.fillRow(r)
		if i, ok := ends[r.ID]; ok {
			in, verdict := learning.Intervals[i], learning.Taught.Each[i]
			row.Uses = d.units.Quantity(in.Litres/in.Km*100, "L/100 km")
			row.Expected = d.units.Quantity(verdict.Expected/in.Km*100, "L/100 km")
			row.State = stateOf("ok")
			if verdict.Flagged() {
				row.State = stateOf("watch")
				row.Flag = fmt.Sprintf("Lies %.1f spreads off the others and counts for %.0f %%: a misread meter, a fill that is missing, another bike's can?", verdict.Off, 100*verdict.Weight)
			}
		}
		v.Fills = append(v.Fills, row)
	}
	alive := map[string]bool{}
	for _, r := range live {
		alive[r.ID] = true
	}
	for _, r := range d.Plan.Readings {
		if r.Kind == plan.FillReading && r.Bike == d.Plan.Bike.ID && !alive[r.ID] {
			v.Revoked = append(v.Revoked, d.fillRow(r))
		}
	}
}

func (d *desk) fillRow(r plan.Reading) fillRow {
	row := fillRow{ID: r.ID, On: r.On, Litres: d.units.Quantity(r.Fill.Litres.In("L"), "L"), Full: !r.Fill.Partial, As: r.Fill.As.Name, Note: r.Note}
	switch {
	case r.Fill.Trip.Known():
		row.Distance = "+" + d.units.Quantity(r.Fill.Trip.In("km"), "km")
	default:
		row.Distance = "at " + d.units.Quantity(r.Fill.Odometer.In("km"), "km")
	}
	row.By = plan.NameOf(plan.DistancesBy(), string(r.Fill.By))
	if row.Ground = grounds(plan.MixOf(r.Fill.Ground)); row.Ground == "" {
		row.Ground = "paved road"
	}
	return row
}

// estimates draws how the estimate settled and compares it with the first guess.
func (v *fillsView) estimates(d *desk, learning facts.Learning) {
	own := func(per100 float64) float64 { u, _ := d.units.Convert(per100, "L/100 km"); return u }
	var stands []draw.Estimate
	for _, m := range learning.Stands() {
		litres, spread := ranging.OnTheRoad(d.report.Facts, m)
		high, low := own(litres+fuel.BandSigma*spread), own(max(0.2*litres, litres-fuel.BandSigma*spread))
		if high < low { // miles per gallon grow the other way
			low, high = high, low
		}
		stands = append(stands, draw.Estimate{Mid: own(litres), Half: (high - low) / 2})
	}
	one, _ := ranging.OnTheRoad(d.report.Facts, fuel.Anchored(1, true))
	var said []draw.Said
	for i, t := range learning.Tankfuls {
		last := learning.Intervals[i].Last()
		value := own(one * t.Litres / t.By.Total())
		day := last.On
		if t, err := time.Parse(time.DateOnly, day); err == nil {
			day = t.Format("2 Jan")
		}
		said = append(said, draw.Said{Value: value, Flagged: learning.Taught.Each[i].Flagged(), Day: day, Title: fmt.Sprintf("%s: %s as on the road", last.On, d.units.Quantity(one*t.Litres/t.By.Total(), "L/100 km"))})
	}
	if one == one && len(said) > 0 {
		v.Drawing = draw.Estimates(stands, said, own(d.Plan.Bike.Economy.In("L/100 km")))
	}
	before := *d.Plan
	before.Readings = nil
	if was, err := d.on.Evaluate(&before); err == nil {
		for _, id := range []figure.ID{"range", "consumption", "dry-chance"} {
			a, _ := was.Figure(id)
			b, _ := d.report.Figure(id)
			row := estimateRow{Name: a.Name, Before: d.units.Value(a), After: d.units.Value(b)}
			if a.Banded && b.Banded {
				row.Before, row.After = gaugeOf(d.units, a, "").Band, gaugeOf(d.units, b, "").Band
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
		v.Says = fmt.Sprintf("%d tanks from full to full lead now; this bike burns %.2f times what its data say on the road, %.2f off it, and rides differ by %.0f %%.", n, learning.Taught.Road, learning.Taught.Loose, 100*learning.Taught.Ride)
	}
}

// addFill keeps one fill, once for the id that its form was given.
func (s *Server) addFill(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	reading, errs := d.readFill(r.PostForm)
	return s.keep(w, r, d, "fills", reading, errs, func(errs formErrors) any { return d.fills(r.PostForm, errs) })
}

// keep puts a reading into the log, or shows the page with what is wrong with it.
func (s *Server) keep(w http.ResponseWriter, r *http.Request, d *desk, page string, reading plan.Reading, errs formErrors, body func(formErrors) any) error {
	if len(errs) == 0 {
		_, err := s.store.AddReadings(r.Context(), s.rider(r), d.PlanID, []plan.Reading{reading})
		switch {
		case errors.Is(err, store.ErrFull):
			errs = formErrors{"form": "The log is full: export the plan and start a new one."}
		case err != nil:
			return err
		}
	}
	if len(errs) > 0 {
		return s.showPage(w, r, http.StatusUnprocessableEntity, d, page, nil, body(errs))
	}
	return seeOther(w, r, d.href(page))
}

// readFill reads a fill from its form, with the bike as it was ridden.
func (d *desk) readFill(form url.Values) (plan.Reading, formErrors) {
	errs := formErrors{}
	f := &plan.Fill{By: plan.DistanceBy(form.Get("by")), Partial: form.Has("partial"), Missed: form.Has("missed")}
	r := plan.Reading{ID: form.Get("id"), Kind: plan.FillReading, On: strings.TrimSpace(form.Get("on")), Bike: d.Plan.Bike.ID, Note: strings.TrimSpace(form.Get("note")), Fill: f}
	if !store.ValidID(r.ID) {
		r.ID = rand.Text()
	}
	f.As = d.ridden(form.Get("as"))
	for _, q := range []struct {
		key, metric string
		entry       plan.Entry
	}{{"litres", "L", &f.Litres}, {"odometer", "km", &f.Odometer}, {"trip", "km", &f.Trip}, {"cruise", "km/h", &f.As.Cruise}} {
		if err := q.entry.Enter(strings.TrimSpace(form.Get(q.key)), d.units.Of(q.metric)); err != nil {
			errs[q.key] = err.Error()
		}
	}
	f.Ground = d.readShares(form, errs)
	believe(r, form, errs)
	return r, errs
}

// believe puts what is not believed of a reading to its field, or to the form where it
// has none.
func believe(r plan.Reading, form url.Values, errs formErrors) {
	for _, problem := range r.Validate() {
		key := problem.Path[strings.LastIndex(problem.Path, ".")+1:]
		if !form.Has(key) {
			key = "form"
		}
		if errs[key] == "" {
			errs[key] = problem.What
		}
	}
}

// readShares of ground since the last fill; none typed is the brief's mix.
func (d *desk) readShares(form url.Values, errs formErrors) []plan.Stretch {
	var list []plan.Stretch
	for _, g := range terrain.Grounds() {
		s := plan.Stretch{Ground: g.Kind}
		text := strings.TrimSpace(form.Get("on." + string(g.Kind)))
		if err := s.Share.Enter(text, "%"); err != nil {
			errs["form"] = g.Name + ": " + err.Error()
			continue
		}
		if s.Share.Known() && s.Share.Base() != 0 {
			list = append(list, s)
		}
	}
	if len(list) == 0 {
		return d.Plan.Brief.Terrain
	}
	return list
}

// ridden is the bike as it was ridden: as planned in a loadout, or as it came.
func (d *desk) ridden(loadout string) plan.Ridden {
	if loadout != "" {
		if report, err := eval.EvaluateLoadout(d.Plan, d.shelf, loadout, d.asOf); err == nil {
			return ranging.Ridden(report.Facts)
		}
	}
	return plan.Ridden{Name: asItCame}
}

// revoke takes a reading out of the reckoning; it stays in the log.
func (s *Server) revoke(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	of := r.PostFormValue("of")
	if !slices.ContainsFunc(d.Plan.Readings, func(x plan.Reading) bool { return x.ID == of && x.Kind != plan.Revocation }) {
		return store.ErrNotFound
	}
	reading := plan.Reading{ID: rand.Text(), Kind: plan.Revocation, On: today(), Of: of}
	if _, err := s.store.AddReadings(r.Context(), s.rider(r), d.PlanID, []plan.Reading{reading}); err != nil {
		return err
	}
	back := "fills"
	if r.PostFormValue("stage") == "weigh" {
		back = "weigh"
	}
	return seeOther(w, r, d.href(back))
}

func (s *Server) fillsFile(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	attach(w, "text/csv; charset=utf-8", fileName(d.Plan.Name, ".fills.csv"))
	return fillcsv.Write(w, d.Plan.ReadingsOf(plan.FillReading))
}

// importFills looks a file of fills through. Nothing is kept until the rider takes
// the good rows.
func (s *Server) importFills(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	view := d.fills(nil, nil)
	if view.CSV, err = sentFile(r); err != nil {
		return err
	}
	rows, err := fillcsv.Read([]byte(view.CSV), d.Plan.Bike.ID)
	if err != nil {
		view.CSVError = "Nothing was taken: " + err.Error() + "."
		return s.showPage(w, r, http.StatusUnprocessableEntity, d, "fills", nil, view)
	}
	good := d.goodFills(rows, &view)
	if r.FormValue("take") != "" && len(good) > 0 {
		added, err := s.store.AddReadings(r.Context(), s.rider(r), d.PlanID, good)
		if errors.Is(err, store.ErrFull) {
			view.CSVError = "Nothing was taken: the log is full."
			return s.showPage(w, r, http.StatusUnprocessableEntity, d, "fills", nil, view)
		}
		if err != nil {
			return err
		}
		return seeOther(w, r, d.href("fills", "took", strconv.Itoa(added)))
	}
	return s.showPage(w, r, http.StatusOK, d, "fills", nil, view)
}

// goodFills sorts the rows of a file; a loadout's name stands for the bike as it is
// planned there.
func (d *desk) goodFills(rows []fillcsv.Row, view *fillsView) []plan.Reading {
	var good []plan.Reading
	for _, row := range rows {
		shown := csvRow{Line: row.Line, Text: row.Text, Says: "good"}
		known := slices.ContainsFunc(d.Plan.Readings, func(x plan.Reading) bool { return x.ID == row.Reading.ID })
		switch {
		case row.Err != nil:
			shown.Bad, shown.Says = true, row.Err.Error()
		case known:
			shown.Says = "in the log already"
		default:
			name := row.Reading.Fill.As.Name
			row.Reading.Fill.As = d.ridden("")
			for _, l := range d.Plan.Loadouts {
				if strings.EqualFold(name, l.Name) || strings.EqualFold(name, l.ID) {
					row.Reading.Fill.As = d.ridden(l.ID)
				}
			}
			good = append(good, row.Reading)
		}
		view.CSVRows = append(view.CSVRows, shown)
	}
	view.Good = len(good)
	return good
}
