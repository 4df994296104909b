package brief

import (
	"net/http"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/web/desk"
)

// mattersView is where a plan stands: what matters most, and what to measure first.
type mattersView struct {
	Has     bool
	Bike    string
	First   []desk.PointView // the three that lead
	Next    *desk.LinkView   // what comes next in the work, where nothing leads
	Theirs  *desk.PointView  // the first of what bothers most, where it is none of them
	More    int              // points beyond them
	Needs   int              // that are not met
	Guesses guessesView      // of which three are shown
	Three   []guessView
	Bothers *desk.LinkView // the stage of what bothers most
	Said    string         // that, in words
}

func mattersPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, _, err := d.Tried(r, "matters")
	if err != nil {
		return err
	}
	d.Told = true
	v := mattersView{Has: d.Plan.Bike != nil, Guesses: guessesOf(d, nil, nil)}
	if v.Has {
		v.Bike = d.Plan.Bike.Name
		cards := study.Cards(d.Report.Findings)
		v.First, v.Next = d.Leads("matters")
		v.More = len(cards) - len(v.First)
		to := d.OnTop("matters", desk.Laid{})
		for i, c := range cards {
			if i >= len(v.First) && c.Lead.Stage == figure.Stage(d.Plan.Brief.Bothers) {
				theirs := d.Point(c, i+1, "matters", to)
				v.Theirs = &theirs
				break
			}
		}
		short, _ := d.Report.Figure(figure.Needs)
		v.Needs = int(short.Or(0))
		v.Three = v.Guesses.First[:min(3, len(v.Guesses.First))]
		if b := d.Plan.Brief.Bothers; b != "" {
			v.Bothers = &desk.LinkView{Name: d.StageName(figure.Stage(b)), Href: d.Href(string(b))}
			v.Said = entry.NameOf(plan.Bothers(), string(b))
		}
	}
	return s.ShowPage(w, r, http.StatusOK, d, "matters", bench, v)
}
