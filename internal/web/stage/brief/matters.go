package brief

import (
	"net/http"
	"slices"

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
	Cards   []desk.CardView // the worst
	More    int             // open points beyond them
	Needs   int             // that are not met
	Guesses guessesView     // of which three are shown
	Three   []guessView
	Bothers *desk.LinkView // the stage of what bothers most
	Said    string         // that, in words
}

// mattersMost is how many points are shown at first.
const mattersMost = 5

func mattersPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	bench, _, err := d.Tried(r, "matters")
	if err != nil {
		return err
	}
	v := mattersView{Has: d.Plan.Bike != nil, Guesses: guessesOf(d, nil, nil)}
	if v.Has {
		v.Bike = d.Plan.Bike.Name
		cards := mattering(d.Report.Findings, figure.Stage(d.Plan.Brief.Bothers))
		v.More = max(0, len(cards)-mattersMost)
		v.Cards = d.Cards(cards[:min(len(cards), mattersMost)], "matters")
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

// mattering are the cards of findings, the worst first; of those as bad, what bothers the rider
// comes before the others.
func mattering(findings []study.Finding, bothers figure.Stage) []study.Card {
	cards := study.Cards(findings)
	slices.SortStableFunc(cards, func(a, b study.Card) int {
		if by := b.Lead.State.Rank() - a.Lead.State.Rank(); by != 0 || (a.Lead.Stage == bothers) == (b.Lead.Stage == bothers) {
			return by
		}
		if a.Lead.Stage == bothers {
			return -1
		}
		return 1
	})
	return cards
}
