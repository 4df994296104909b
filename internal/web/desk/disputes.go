package desk

import (
	"math"
	"net/http"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"
)

// Repair is what a repair is expected to cost, in words.
func (d *Desk) Repair(amount float64) string {
	if math.IsNaN(amount) {
		return words.Unknown
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
	Slot         parts.Slot
	Likes        func(p *parts.Part) bool
	// Nearest, where it is set, orders those that it likes: the least comes first.
	Nearest func(f *facts.All, p *parts.Part) float64
	With    *Side // what it takes beside that, nil for nothing
}

// Provides likes the parts that offer a tag.
func Provides(tag string) func(*parts.Part) bool {
	return func(p *parts.Part) bool {
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
		return s.PartsPage(w, r, page, func(d *Desk, _ Laid) (any, error) {
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
	var sides [][]plan.Choice
	var alternatives []eval.Alternative
	for _, side := range q.Sides {
		choices, current, ok := d.takes(side, built)
		if !ok {
			continue // nothing on the shelf goes on this bike
		}
		shown := sideView{School: side.School, Says: d.Units.Prose(side.Says), Current: current, Part: "As it is"}
		if own := d.Plan.Chosen(side.Slot, d.Loadout); choices[0].Part == nil && own != nil {
			shown.Part = "Without " + own.Name
		} else if choices[0].Part != nil {
			shown.Part = Title(choices)
		}
		choices = d.Plan.Scoped(choices, d.Loadout)
		sides, v.Sides = append(sides, choices), append(v.Sides, shown)
		alternatives = append(alternatives, eval.Alternative{Label: side.School, Plan: d.Plan.With(choices...)})
	}
	differences, err := d.On.Preview(alternatives...)
	if err != nil {
		return v, err
	}
	for i, diff := range differences {
		v.Sides[i].Href = d.Href(page, tries(sides[i]...)...)
		v.Sides[i].Figures = d.sideFigures(q, sides[i][0].Part, diff.After)
	}
	return v, nil
}

// takes is what a side does to the bike: the first of its parts, and what goes with it;
// whether the plan does so already; ok is false where nothing on the shelf fits.
func (d *Desk) takes(s Side, built *plan.Built) (choices []plan.Choice, current, ok bool) {
	current = true
	for at := &s; at != nil; at = at.With {
		c, own := plan.Choice{Slot: at.Slot}, d.Plan.Chosen(at.Slot, d.Loadout)
		if at.Likes != nil {
			if c.Part = d.pick(*at, built, own); c.Part == nil {
				return nil, false, false
			}
		}
		choices = append(choices, c)
		current = current && (c.Part == nil) == (own == nil) && (own == nil || own.ID == c.Part.ID)
	}
	return choices, current, true
}

// pick is the part that a side takes: the plan's own where it is one that it likes, or else
// the first, or the nearest; nil where none goes on the bike.
func (d *Desk) pick(s Side, built *plan.Built, own *parts.Part) (best *parts.Part) {
	for _, p := range d.Shelf {
		switch {
		case p.Slot != s.Slot || !d.Shelf.CouldFit(built, p) || !s.Likes(p):
		case own != nil && own.ID == p.ID:
			return p
		case best == nil || s.Nearest != nil && s.Nearest(d.Report.Facts, p) < s.Nearest(d.Report.Facts, best):
			best = p
		}
	}
	return best
}

func (d *Desk) sideFigures(q Dispute, part *parts.Part, after *eval.LoadoutReport) []LineupRow {
	price, mass := "–", "–"
	if part != nil && part.Price.Known() {
		price = d.Price(part.Price)
	}
	if part != nil && part.Mass.Known() {
		mass = d.Units.Plain(part.Mass.In("kg"), "kg")
	}
	rows := []LineupRow{{"Price", []string{price}}, {"Mass", []string{mass}}}
	if part != nil {
		if amount, ok := part.AYear(); ok {
			rows = append(rows, LineupRow{"A year of it", []string{d.Price(amount)}})
		}
	}
	for _, r := range after.Facts.Risks {
		if r.Place.Place == q.Place {
			rows = append(rows, LineupRow{"Breaks", []string{Chance(r.Left.Broken)}}, LineupRow{"Strands", []string{Chance(r.Left.Stranded)}},
				LineupRow{"Repair to expect", []string{d.Repair(r.Left.Repair)}}, LineupRow{"Days to expect", []string{words.Number(r.Left.Days, 2) + " d"}})
		}
	}
	for _, id := range q.Figures {
		if f, ok := after.Figure(id); ok {
			rows = append(rows, LineupRow{f.Name, []string{d.Units.Told(f)}})
		}
	}
	return rows
}
