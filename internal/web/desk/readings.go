package desk

import (
	"crypto/rand"
	"errors"
	"math"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/store"
)

// ReadingHead is what the form of a reading asks whatever is read.
type ReadingHead struct {
	ID       string // made by its page: sent twice, it is kept once
	On, Note FieldView
	Error    string
}

// ReadingHeadOf is the head as it was sent, or a new one.
func ReadingHeadOf(form url.Values, errs FormErrors, note string) ReadingHead {
	h := ReadingHead{
		ID: form.Get("id"), Error: errs["form"],
		On:   FieldView{Key: "on", Label: "Date", Value: Typed(form, "on", Today()), Error: errs["on"], Today: !form.Has("on")},
		Note: FieldView{Key: "note", Label: "Note", Value: form.Get("note"), Error: errs["note"], Help: note},
	}
	if h.ID == "" {
		h.ID = rand.Text()
	}
	return h
}

// AddReading keeps what the form of a page read off the bike, once for its id. Fill enters
// what is read and what stood there then; the body is the page with what is wrong.
func AddReading(page string, kind logbook.Kind, fill func(d *Desk, form url.Values, into *logbook.Reading, errs FormErrors) error, body func(d *Desk, form url.Values, errs FormErrors) any) Handler {
	return func(s *House, w http.ResponseWriter, r *http.Request) error {
		d, err := s.Open(r)
		if err != nil {
			return err
		}
		if d.Plan.Bike == nil {
			return SeeOther(w, r, d.Href(page))
		}
		errs := FormErrors{}
		reading := d.ReadingOf(kind, r.PostForm, errs)
		if err := fill(d, r.PostForm, &reading, errs); err != nil {
			return err
		}
		if len(errs) == 0 {
			Believe(reading, r.PostForm, errs)
		}
		return s.Keep(w, r, d, page, reading, errs, func(errs FormErrors) any { return body(d, r.PostForm, errs) })
	}
}

// Then is a number that the plan had when something was read.
type Then struct {
	Into interface{ Enter(text, unit string) error }
	V    float64
	Unit string
}

// NoteThen enters numbers that are known, with so many digits behind the point.
func NoteThen(digits int, list ...Then) error {
	for _, n := range list {
		if math.IsNaN(n.V) {
			continue
		}
		if err := n.Into.Enter(strconv.FormatFloat(n.V, 'f', digits, 64), n.Unit); err != nil {
			return err
		}
	}
	return nil
}

// Drawn notes with volts what was drawn then, as the plan has it.
func (d *Desk) Drawn(v *logbook.Volts) error {
	c := &d.Report.Facts.Charging
	return NoteThen(1, Then{Into: &v.OwnW, V: c.OwnW, Unit: "W"}, Then{Into: &v.AllOnW, V: c.OwnW + c.FullW, Unit: "W"}, Then{Into: &v.RatedW, V: c.RatedW, Unit: "W"})
}

// ReadingOf begins a reading of the plan's bike from the id, day and note of its form.
func (d *Desk) ReadingOf(kind logbook.Kind, form url.Values, errs FormErrors) logbook.Reading {
	r := logbook.Reading{ID: form.Get("id"), Kind: kind, Bike: d.Plan.Bike.ID, Note: strings.TrimSpace(form.Get("note"))}
	if !entry.ValidID(r.ID) {
		r.ID = rand.Text()
	}
	var err error
	if r.On, err = d.Units.Date(form.Get("on")); err != nil {
		errs["on"] = err.Error()
	}
	return r
}

// Keep puts a reading into the log, with others that go with it or not at all; or it shows the page with what is wrong with it.
func (s *House) Keep(w http.ResponseWriter, r *http.Request, d *Desk, page string, reading logbook.Reading, errs FormErrors, body func(FormErrors) any, others ...logbook.Reading) error {
	if len(errs) == 0 {
		_, err := s.Store.AddReadings(r.Context(), s.Rider(r), d.ID, append(others, reading))
		switch {
		case errors.Is(err, store.ErrClash):
			errs = FormErrors{"form": err.Error()}
		case errors.Is(err, store.ErrFull):
			errs = FormErrors{"form": "The log is full: export the plan and start a new one."}
		case err != nil:
			return err
		}
	}
	if len(errs) > 0 {
		return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, page, nil, body(errs))
	}
	return SeeOther(w, r, d.Href(page, "kept", reading.ID))
}

// RevokeOn takes a reading of a page's, and what was read with it, out of the reckoning; both stay in the log.
func RevokeOn(page string) Handler {
	return func(s *House, w http.ResponseWriter, r *http.Request) error {
		d, err := s.Open(r)
		if err != nil {
			return err
		}
		of := r.PostFormValue("of")
		var list []logbook.Reading
		for _, x := range d.Plan.Readings {
			if (x.ID == of || x.ID == logbook.Beside(of)) && x.Kind != logbook.Revocation {
				list = append(list, logbook.Reading{ID: rand.Text(), Kind: logbook.Revocation, On: Today(), Of: x.ID})
			}
		}
		if len(list) == 0 {
			return store.ErrNotFound
		}
		if _, err := s.Store.AddReadings(r.Context(), s.Rider(r), d.ID, list); err != nil {
			return err
		}
		return SeeOther(w, r, d.Href(page))
	}
}

// Believe puts what is not believed of a reading to its field, or to the form where it
// has none.
func Believe(r logbook.Reading, form url.Values, errs FormErrors) {
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

// AsItCame is how a reading says that the bike was ridden without the plan's parts.
const AsItCame = "As it came, rider alone"

// RiddenAs are the ways in which the bike may have been ridden.
func (d *Desk) RiddenAs(selected string) []OptionView {
	as := []entry.Option{{Value: "", Name: AsItCame}}
	for _, l := range d.Plan.Loadouts {
		as = append(as, entry.Option{Value: l.ID, Name: "As planned, " + l.Name})
	}
	return OptionsOf(as, selected, "")
}

// Ridden is the bike as it was ridden: as planned in a loadout, or as it came.
func (d *Desk) Ridden(loadout string) logbook.Ridden {
	if loadout != "" {
		if report, err := eval.EvaluateLoadout(d.Plan, d.Shelf, loadout, d.AsOf); err == nil {
			return ranging.Ridden(report.Facts)
		}
	}
	return logbook.Ridden{Name: AsItCame}
}

// GroundFields ask for shares of ground that were ridden.
func GroundFields(form url.Values) []FieldView {
	var list []FieldView
	for _, g := range terrain.Grounds() {
		list = append(list, FieldView{Key: "on." + string(g.Kind), Label: g.Name, Unit: "%", Value: form.Get("on." + string(g.Kind))})
	}
	return list
}

// GroundOf reads them; none typed is none.
func (d *Desk) GroundOf(form url.Values, errs FormErrors) (list []terrain.Stretch) {
	for _, g := range terrain.Grounds() {
		s := terrain.Stretch{Ground: g.Kind}
		text := strings.TrimSpace(form.Get("on." + string(g.Kind)))
		if err := d.Units.Enter(&s.Share, text, "%"); err != nil {
			errs["form"] = g.Name + ": " + err.Error()
			continue
		}
		if s.Share.Known() && s.Share.Base() != 0 {
			list = append(list, s)
		}
	}
	return list
}
