package desk

import (
	"crypto/rand"
	"errors"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// ReadingOf begins a reading of the plan's bike from the id, day and note of its form.
func (d *Desk) ReadingOf(kind plan.ReadingKind, form url.Values, errs FormErrors) plan.Reading {
	r := plan.Reading{ID: form.Get("id"), Kind: kind, Bike: d.Plan.Bike.ID, Note: strings.TrimSpace(form.Get("note"))}
	if !plan.ValidID(r.ID) {
		r.ID = rand.Text()
	}
	var err error
	if r.On, err = d.Units.Date(form.Get("on")); err != nil {
		errs["on"] = err.Error()
	}
	return r
}

// Keep puts a reading into the log, or shows the page with what is wrong with it.
func (s *House) Keep(w http.ResponseWriter, r *http.Request, d *Desk, page string, reading plan.Reading, errs FormErrors, body func(FormErrors) any) error {
	if len(errs) == 0 {
		_, err := s.Store.AddReadings(r.Context(), s.Rider(r), d.PlanID, []plan.Reading{reading})
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

// RevokeOn takes a reading of a page's out of the reckoning; it stays in the log.
func RevokeOn(page string) Handler {
	return func(s *House, w http.ResponseWriter, r *http.Request) error {
		d, err := s.Open(r)
		if err != nil {
			return err
		}
		of := r.PostFormValue("of")
		if !slices.ContainsFunc(d.Plan.Readings, func(x plan.Reading) bool { return x.ID == of && x.Kind != plan.Revocation }) {
			return store.ErrNotFound
		}
		reading := plan.Reading{ID: rand.Text(), Kind: plan.Revocation, On: Today(), Of: of}
		if _, err := s.Store.AddReadings(r.Context(), s.Rider(r), d.PlanID, []plan.Reading{reading}); err != nil {
			return err
		}
		return SeeOther(w, r, d.Href(page))
	}
}

// Believe puts what is not believed of a reading to its field, or to the form where it
// has none.
func Believe(r plan.Reading, form url.Values, errs FormErrors) {
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
