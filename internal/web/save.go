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

// stageForm is a stage whose page is a form: it is shown, tried on the bench as
// it is typed, and saved.
type stageForm struct {
	stage string
	title string // of what is typed, on the bench
	save  string // what the button that keeps it says
	read  func(d *desk, typed url.Values) (changed *plan.Plan, summary []string, errs formErrors)
	view  func(r *http.Request, d *desk, typed url.Values, errs formErrors) (formBody, error)
}

// formBody is the body of a stage's page with its form.
type formBody interface {
	fields() []fieldView // as a browser would send them
	with(state formState) formBody
}

// page shows the form as the plan has it.
func (f stageForm) page(s *Server) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error {
		d, err := s.open(r)
		if err != nil {
			return err
		}
		bench, _, err := d.tried(r, f.stage)
		if err != nil {
			return err
		}
		body, err := f.view(r, d, nil, nil)
		if err != nil {
			return err
		}
		return s.showPage(w, r, http.StatusOK, d, f.stage, bench, body)
	})
}

// try holds the form as typed against the one that is saved.
func (f stageForm) try(s *Server) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error {
		d, err := s.open(r)
		if err != nil {
			return err
		}
		changed, _, errs := f.read(d, r.PostForm)
		bench, err := f.bench(d, changed, errs)
		if err != nil {
			return err
		}
		body, err := f.view(r, d, r.PostForm, errs)
		if err != nil {
			return err
		}
		return s.showPage(w, r, http.StatusOK, d, f.stage, bench, body)
	})
}

// bench lays the form as typed on the bench. A remedy would be tried on the plan
// as it is saved, so there are none: first this form.
func (f stageForm) bench(d *desk, changed *plan.Plan, errs formErrors) (*benchView, error) {
	if len(errs) > 0 {
		return &benchView{Title: f.title, Problem: "Something typed cannot be used yet; what is wrong stands beside its field.", Leave: d.href(f.stage)}, nil
	}
	bench, err := d.bench(eval.Alternative{Label: f.title, Plan: changed}, f.stage, nil)
	if err == nil {
		bench.SaveAs = f.save
	}
	return bench, err
}

// keep saves the form, or shows it again with what was typed and why.
func (f stageForm) keep(s *Server) http.HandlerFunc {
	return s.handle(func(w http.ResponseWriter, r *http.Request) error {
		d, err := s.open(r)
		if err != nil {
			return err
		}
		if r.PostFormValue("base") != d.Revision {
			return f.conflict(s, w, r, d)
		}
		changed, summary, errs := f.read(d, r.PostForm)
		if len(errs) > 0 {
			note := "Not saved. What is wrong stands beside its field; what you typed is still here."
			return f.again(s, w, r, d, http.StatusUnprocessableEntity, r.PostForm, errs, formState{Note: note, Error: errs["form"]})
		}
		if len(summary) > 0 {
			err = s.store.Save(r.Context(), s.rider(r), d.PlanID, d.Revision, changed, strings.Join(summary, "; "))
		}
		if errors.Is(err, store.ErrStale) { // changed since this request read it
			if d, err = s.open(r); err == nil {
				return f.conflict(s, w, r, d)
			}
		}
		if err != nil {
			return err
		}
		return seeOther(w, r, d.href(f.stage))
	})
}

// conflict shows a form that was opened on an older revision again: what was
// typed, on top of the plan as it is now, and both sides of what differs.
func (f stageForm) conflict(s *Server, w http.ResponseWriter, r *http.Request, d *desk) error {
	base, err := s.store.PlanAt(r.Context(), s.rider(r), d.PlanID, r.PostFormValue("base"))
	if errors.Is(err, store.ErrNotFound) {
		return store.ErrStale // a page of no known revision cannot be put together
	}
	if err != nil {
		return err
	}
	was, err := f.view(r, d.with(base), nil, nil)
	if err != nil {
		return err
	}
	now, err := f.view(r, d, nil, nil)
	if err != nil {
		return err
	}
	typed, conflicts := merge(was.fields(), now.fields(), r.PostForm)
	note := "Not saved yet: the plan has changed since this page was opened. What you typed stands in the form, on top of the plan as it is now. Look at what differs, then save."
	return f.again(s, w, r, d, http.StatusConflict, typed, nil, formState{Note: note, Conflicts: conflicts})
}

func (f stageForm) again(s *Server, w http.ResponseWriter, r *http.Request, d *desk, status int, typed url.Values, errs formErrors, state formState) error {
	body, err := f.view(r, d, typed, errs)
	if err != nil {
		return err
	}
	return s.showPage(w, r, status, d, f.stage, nil, body.with(state))
}
