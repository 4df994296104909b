package desk

import (
	"errors"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

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
