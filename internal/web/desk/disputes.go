package desk

import (
	"math"
	"net/http"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"
)

// Repair is what a repair is expected to cost, in words.
func (d *Desk) Repair(amount float64) string {
	if math.IsNaN(amount) {
		return "?"
	}
	return d.Units.Quantity(amount*money.Minors(d.Plan.Currency), d.Plan.Currency)
}

// disputesView is where riders disagree, each side with this plan's figures.
type disputesView struct {
	Has      bool
	Disputes []disputeView
}

type disputeView struct {
	Name, About string
	Sides       []sideView
}

type sideView struct {
	School, Says string
	Part         string
	Figures      []LineupRow
	Href         string
	Current      bool
}

// Dispute is a question that riders answer both ways, about a place that breaks or
// by figures of the bike.
type Dispute struct {
	Name, About string
	Place       guard.Place
	Figures     []figure.ID
	Sides       []Side
}

// Side is one answer; among the parts for its slot it takes the first that it
// likes. One that likes none leaves the slot as it came.
type Side struct {
	School, Says string
	Slot         plan.Slot
	Likes        func(p *plan.Part) bool
}

// Provides likes the parts that offer a tag.
func Provides(tag string) func(*plan.Part) bool {
	return func(p *plan.Part) bool {
		for _, t := range p.Provides {
			if t == tag {
				return true
			}
		}
		return false
	}
}

// DisputesPage is the both-sides page of a stage.
func DisputesPage(page string, list []Dispute) Handler {
	return func(s *House, w http.ResponseWriter, r *http.Request) error {
		return s.PartsPage(w, r, page, func(d *Desk, _ []plan.Choice) (any, error) {
			view := disputesView{Has: d.Plan.Bike != nil}
			if !view.Has {
				return view, nil
			}
			for _, q := range list {
				shown, err := d.dispute(page, q)
				if err != nil {
					return nil, err
				}
				view.Disputes = append(view.Disputes, shown)
			}
			return view, nil
		})
	}
}

// dispute holds each side of one against the plan.
func (d *Desk) dispute(page string, q Dispute) (disputeView, error) {
	v := disputeView{Name: q.Name, About: q.About}
	built := d.Plan.Build(d.Loadout)
	var choices []plan.Choice
	for _, side := range q.Sides {
		c, own := plan.Choice{Slot: side.Slot}, d.Plan.Chosen(side.Slot, d.Loadout)
		if side.Likes != nil {
			for _, p := range d.Shelf {
				if p.Slot == side.Slot && d.Shelf.CouldFit(built, p) && side.Likes(p) && (c.Part == nil || (own != nil && own.ID == p.ID)) {
					c.Part = p
				}
			}
			if c.Part == nil {
				continue // nothing on the shelf goes on this bike
			}
		}
		shown := sideView{School: side.School, Says: side.Says}
		switch {
		case c.Part != nil:
			shown.Part, shown.Current = c.Part.Name, own != nil && own.ID == c.Part.ID
		case own != nil:
			shown.Part = "Without " + own.Name
		default:
			shown.Part, shown.Current = "As it is", true
		}
		choices = append(choices, c)
		v.Sides = append(v.Sides, shown)
	}
	choices = d.Plan.Scoped(choices, d.Loadout)
	alternatives := make([]eval.Alternative, len(choices))
	for i, c := range choices {
		alternatives[i] = eval.Alternative{Label: v.Sides[i].School, Plan: d.Plan.With(c)}
	}
	differences, err := d.On.Preview(alternatives...)
	if err != nil {
		return v, err
	}
	for i, diff := range differences {
		v.Sides[i].Href = d.Href(page, Tries(choices[i:i+1])...)
		v.Sides[i].Figures = d.sideFigures(q, choices[i].Part, diff.After)
	}
	return v, nil
}

func (d *Desk) sideFigures(q Dispute, part *plan.Part, after *eval.LoadoutReport) []LineupRow {
	price, mass := "–", "–"
	if part != nil && part.Price.Known() {
		price = d.Price(part.Price)
	}
	if part != nil && part.Mass.Known() {
		mass = d.Units.Plain(part.Mass.In("kg"), "kg")
	}
	rows := []LineupRow{{"Price", []string{price}}, {"Mass", []string{mass}}}
	for _, r := range after.Facts.Risks {
		if r.Place.Place == q.Place {
			rows = append(rows, LineupRow{"Breaks", []string{Chance(r.Left.Broken)}}, LineupRow{"Strands", []string{Chance(r.Left.Stranded)}},
				LineupRow{"Repair to expect", []string{d.Repair(r.Left.Repair)}}, LineupRow{"Days to expect", []string{words.Number(r.Left.Days, 2) + " d"}})
		}
	}
	for _, id := range q.Figures {
		if f, ok := after.Figure(id); ok {
			rows = append(rows, LineupRow{f.Name, []string{d.Units.Value(f)}})
		}
	}
	return rows
}
