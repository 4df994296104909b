package desk

import (
	"context"
	"net/http"
)

// Undo takes back the last change of a plan.
func (s *House) Undo(w http.ResponseWriter, r *http.Request) error {
	return s.step(w, r, s.Store.Undo)
}

// Redo brings back what was taken back.
func (s *House) Redo(w http.ResponseWriter, r *http.Request) error {
	return s.step(w, r, s.Store.Redo)
}

type stepper func(ctx context.Context, rider, planID, base string) error

// step moves the plan's head along its revisions.
func (s *House) step(w http.ResponseWriter, r *http.Request, move stepper) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if err := move(r.Context(), s.Rider(r), d.ID, r.PostFormValue("base")); err != nil {
		return err
	}
	return SeeOther(w, r, d.Href(s.PageOf(r.PostFormValue("stage"))))
}
