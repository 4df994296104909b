package web

import (
	"errors"
	"net/http"
	"net/url"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// form is one that was sent to be saved.
type form struct {
	stage   string
	changed *plan.Plan
	summary []string
	errs    formErrors
	fields  func(d *desk) ([]fieldView, error) // as they stand in a plan
	again   func(typed url.Values, errs formErrors, state formState) (any, error)
}

// saveForm saves, or shows the form again with what was typed and why.
func (s *Server) saveForm(w http.ResponseWriter, r *http.Request, d *desk, f form) error {
	if r.PostFormValue("base") != d.Revision {
		return s.conflict(w, r, d, f)
	}
	if len(f.errs) > 0 {
		note := "Not saved. What is wrong stands beside its field; what you typed is still here."
		body, err := f.again(r.PostForm, f.errs, formState{Note: note, Error: f.errs["form"]})
		if err != nil {
			return err
		}
		return s.showStage(w, r, http.StatusUnprocessableEntity, d, f.stage, nil, body)
	}
	if len(f.summary) == 0 {
		return seeOther(w, r, d.href(f.stage))
	}
	err := s.store.Save(r.Context(), s.rider(r), d.PlanID, d.Revision, f.changed, strings.Join(f.summary, "; "))
	if errors.Is(err, store.ErrStale) { // changed since this request read it
		if d, err = s.open(r); err == nil {
			err = s.conflict(w, r, d, f)
		}
	} else if err == nil {
		err = seeOther(w, r, d.href(f.stage))
	}
	return err
}

// conflict shows a form that was opened on an older revision again: what was
// typed, on top of the plan as it is now, and both sides of what differs.
func (s *Server) conflict(w http.ResponseWriter, r *http.Request, d *desk, f form) error {
	base, err := s.store.PlanAt(r.Context(), s.rider(r), d.PlanID, r.PostFormValue("base"))
	if errors.Is(err, store.ErrNotFound) {
		return store.ErrStale // a page of no known revision cannot be put together
	}
	if err != nil {
		return err
	}
	was, err := f.fields(d.with(base))
	if err != nil {
		return err
	}
	now, err := f.fields(d)
	if err != nil {
		return err
	}
	typed, conflicts := merge(was, now, r.PostForm)
	note := "Not saved yet: the plan has changed since this page was opened. What you typed stands in the form, on top of the plan as it is now. Look at what differs, then save."
	body, err := f.again(typed, nil, formState{Note: note, Conflicts: conflicts})
	if err != nil {
		return err
	}
	return s.showStage(w, r, http.StatusConflict, d, f.stage, nil, body)
}

// triedForm puts a form as typed on the bench.
func (d *desk) triedForm(title, save, stage string, changed *plan.Plan, errs formErrors) (*benchView, error) {
	if len(errs) > 0 {
		return &benchView{Title: title, Problem: "Something typed cannot be used yet; what is wrong stands beside its field.", Leave: d.href(stage)}, nil
	}
	// A remedy would be tried on the plan as it is saved: first this form.
	bench, err := d.bench(eval.Alternative{Label: title, Plan: changed}, stage, nil)
	if err == nil {
		bench.SaveAs = save
	}
	return bench, err
}
