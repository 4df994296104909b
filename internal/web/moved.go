package web

import (
	"crypto/rand"
	"net/http"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// movedView is what has changed on the bike since the plan took it over.
type movedView struct {
	Parts []string // that are elsewhere than the plan has them
	Rows  []movedRow
	Reads []string
}

// movedRow is one thing; where the plan's copy was changed too the rider says which it is.
type movedRow struct {
	Key, Label, InPlan, OnBike string
	Clash                      bool
}

func (s *Server) movedPage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	v := movedView{Parts: d.PartedWords()}
	if d.News.Any() {
		for _, n := range plan.NewsTold(d.News.Differ) {
			mine, theirs := d.Sides(n)
			v.Rows = append(v.Rows, movedRow{n.Key, n.Label, mine, theirs, n.Clash})
		}
		for _, read := range d.News.Readings {
			v.Reads = append(v.Reads, desk.ReadWords(read))
		}
	}
	return s.Render(w, r, http.StatusOK, "moved", desk.Frame{Title: "The bike has moved on · " + d.Plan.Name, Plan: d.View("moved", nil), Body: v})
}

// takeOver brings a plan up to date with its bike.
func (s *Server) takeOver(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	save := r.PostFormValue("save")
	if !entry.ValidID(save) {
		save = rand.Text()
	}
	err = s.Store.TakeOver(r.Context(), s.Rider(r), d.ID, r.PostFormValue("base"), save, func(n plan.News) bool {
		return r.PostFormValue("keep."+n.Key) == "plan" || r.PostFormValue("keep."+n.With()) == "plan"
	})
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href(s.PageOf(r.PostFormValue("stage"))))
}

// apart gives a plan a bike of its own: it was never the machine that the others ride.
func (s *Server) apart(w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Bike == nil {
		return store.ErrNotFound
	}
	if err := s.Store.Apart(r.Context(), s.Rider(r), d.ID, r.PostFormValue("base")); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("bike"))
}
