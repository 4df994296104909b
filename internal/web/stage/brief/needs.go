package brief

import (
	"net/http"

	"valiantmule/internal/core/study"
	"valiantmule/internal/web/desk"
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
	State                                  desk.StateView
	Told                                   []desk.FindingView // what a rule says of it
	Measure                                []string           // what decides whether it is met
}

func needsPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	v := needsView{Has: d.Plan.Bike != nil}
	if v.Has {
		var list []study.Need
		list, v.Known = d.Report.Needs()
		for _, n := range list {
			u := d.Units
			told := n.Tell()
			view := needView{ID: n.ID, Name: n.Name, Because: u.Text(told.Because), Bare: u.Text(told.Bare), Fitted: u.Text(told.Fitted), Short: u.Text(told.Short), Href: d.Href(d.Settles(n)), State: desk.StateOf("ok")}
			if !n.Met {
				view.State = desk.StateOf("over")
				v.Short++
				for _, g := range d.Report.Unsure(n.ID) {
					view.Measure = append(view.Measure, g.Name)
				}
				view.Told = d.FindingsFor(n.ID, "needs")
				d.Shown = append(d.Shown, n.ID)
			}
			v.Needs = append(v.Needs, view)
		}
		v.All = len(list)
	}
	return s.ShowPage(w, r, http.StatusOK, d, "needs", nil, v)
}
