package web

import (
	"net/http"

	"valiantmule/internal/core/study"
)

// needsView is what the brief asks of the bike.
type needsView struct {
	Has        bool
	Known      bool
	Needs      []needView
	Short, All int
}

type needView struct {
	ID, Name, Because, Bare, Fitted, Short string
	Href                                   string
	State                                  stateView
}

func (s *Server) needsPage(w http.ResponseWriter, r *http.Request) error {
	d, err := s.open(r)
	if err != nil {
		return err
	}
	v := needsView{Has: d.Plan.Bike != nil}
	if v.Has {
		var list []study.Need
		list, v.Known = d.report.Needs()
		for _, n := range list {
			u := d.units
			told := n.Tell()
			view := needView{ID: n.ID, Name: n.Name, Because: u.Text(told.Because), Bare: u.Text(told.Bare), Fitted: u.Text(told.Fitted), Short: u.Text(told.Short), Href: d.href(settles(n)), State: stateOf("ok")}
			if !n.Met {
				view.State = stateOf("over")
				v.Short++
			}
			v.Needs = append(v.Needs, view)
		}
		v.All = len(list)
	}
	return s.showPage(w, r, http.StatusOK, d, "needs", nil, v)
}
