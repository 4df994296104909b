package web

import (
	"net/http"

	"github.com/go-chi/chi/v5"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// workingView is how a figure came about.
type workingView struct {
	Figure  desk.GaugeView
	Loadout string
	Steps   []desk.StepView
	Notes   []string
}

// working shows the formula, the numbers put in and where each came from. With
// something on the bench it is the working of that.
func (s *Server) working(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	id := figure.ID(chi.URLParam(r, "figure"))
	if _, ok := d.Report.Figure(id); !ok {
		return store.ErrNotFound
	}
	laid, err := d.Laid(r)
	if err != nil {
		return err
	}
	_, working, err := eval.Explain(laid.Plan, d.Loadout, id, d.AsOf)
	if err != nil {
		return err
	}
	of := d.Report
	if laid.Any() {
		if of, err = d.Evaluate(laid.Plan); err != nil {
			return err
		}
	}
	shown, _ := of.Figure(id) // with the bands of what is guessed, which no step knows of
	loadout, _ := d.Plan.Loadout(d.Loadout)
	view := workingView{Figure: d.Linked(d.Report, desk.GaugeOf(d.Units, shown, "")), Loadout: loadout.Name, Notes: working.Notes}
	view.Steps = desk.StepsOf(d.Units, working)
	return s.Render(w, r, http.StatusOK, "working", desk.Frame{Title: shown.Name + ": the working", Plan: d.View(s.PageOf(r.FormValue("stage")), nil), Body: view})
}
