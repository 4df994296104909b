package eval

import (
	"slices"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Readiness is what a bike costs until it is ready for a trip: what is wrong with it, and what the
// trip's brief asks that it has not.
type Readiness struct {
	Report *LoadoutReport // of the trip on the bike with the parts that are on it
	Due    []plan.Line    // what the inspection says is to be put right
	Lacks  []Lack
	Serves []Serving // of the parts that a previous owner put on

	DueCost, LackCost money.Amount // in the trip's currency, of what has a price
	Unpriced          int          // things without one
}

// Lack is something that the brief asks and the bike has not, with the cheapest way out on the
// shelf; By is "" where there is none.
type Lack struct {
	What    study.Text
	By      string
	Cost    money.Amount // in the trip's currency, missing where no price is known
	Measure []string     // guesses that decide whether it is so
}

// Serving is what a part is good for that came with the bike.
type Serving struct {
	Name  string
	Needs []string // that would not be met without it
}

// mostLacks bounds how many ways out are laid one on top of the other.
const mostLacks = 24

// ReadyFor holds a machine against the brief of a trip: with the lines that are given as the
// parts on it, and nothing of what the trip's own bike has. Each lack is answered by the cheapest
// part of the shelf on top of the ones before, in the order in which points are decided, so that
// one part that answers two counts once. It is a first sum, not the best set.
func ReadyFor(trip *plan.Plan, m plan.Machine, on []plan.Line, shelf plan.Shelf, loadout, asOf string) (*Readiness, error) {
	p := trip.BareOn(m)
	p.Lines = on
	bench, err := NewBench(p, shelf, loadout, asOf)
	if err != nil {
		return nil, err
	}
	r := &Readiness{Report: bench.Report(), DueCost: money.New(0, p.Currency), LackCost: money.New(0, p.Currency)}
	r.Due = p.ToPutRight()
	for _, l := range r.Due {
		r.add(p, &r.DueCost, l.Amount)
	}
	if err := r.lack(bench, p); err != nil {
		return nil, err
	}
	return r, r.serve(bench, p)
}

// add puts an amount on a sum, or counts it as one without a price.
func (r *Readiness) add(p *plan.Plan, to *money.Amount, a money.Amount) (home money.Amount) {
	home, _, ok := p.Home(a)
	if !a.Known() || !ok {
		r.Unpriced++
		return money.Amount{}
	}
	if sum, err := to.Plus(home); err == nil {
		*to = sum
	}
	return home
}

func (r *Readiness) lack(bench *Bench, p *plan.Plan) error {
	report, asked := r.Report, map[string]bool{}
	for range mostLacks {
		var lack *Lack
		var choices []plan.Choice
		for _, f := range lacking(report) {
			if lack == nil && !asked[f.ID] && f.Offer != nil {
				asked[f.ID] = true
				lack = &Lack{What: f.Tell().What}
				lack.By, choices = cheapest(p, f.Remedies())
				if f.Need != "" {
					asked[f.Need] = true
					lack.Measure = measured(report, f.Need)
				}
			}
		}
		if lack == nil {
			break
		}
		if lack.By != "" {
			cost := money.New(0, p.Currency)
			whole := true
			for _, c := range choices {
				whole = r.add(p, &cost, c.Part.Price).Known() && whole
			}
			if whole {
				lack.Cost = cost
			}
			if sum, err := r.LackCost.Plus(cost); err == nil {
				r.LackCost = sum
			}
			p = p.With(choices...)
			var err error
			if report, err = bench.Evaluate(p); err != nil {
				return err
			}
		}
		r.Lacks = append(r.Lacks, *lack)
	}
	// What nothing was found for is lacking all the same.
	needs, _ := report.Needs()
	for _, n := range needs {
		if !n.Met && !asked[n.ID] {
			r.Lacks = append(r.Lacks, Lack{What: n.Tell().Short, Measure: measured(report, n.ID)})
		}
	}
	return nil
}

// lacking are the findings that say what a bike lacks: the points to decide, in their order, and
// then what else speaks for a need.
func lacking(report *LoadoutReport) (list []study.Finding) {
	for _, card := range study.Cards(report.Findings) {
		list = append(list, card.All()...)
	}
	short := unmet(report)
	for _, f := range report.Findings {
		if _, is := short[f.Need]; is {
			list = append(list, f)
		}
	}
	return list
}

// measured are the guesses that decide whether a need is met.
func measured(report *LoadoutReport, need string) (names []string) {
	for _, g := range report.Unsure(need) {
		names = append(names, g.Name)
	}
	return names
}

// cheapest of remedies that are parts; by is "" where none is.
func cheapest(p *plan.Plan, list []study.Remedy) (by string, choices []plan.Choice) {
	var best int64
	for _, remedy := range list {
		var sum int64
		known := true
		if slices.ContainsFunc(remedy.Choices, func(c plan.Choice) bool { return c.Part == nil }) {
			continue
		}
		for _, c := range remedy.Choices {
			home, _, ok := p.Home(c.Part.Price)
			known = known && ok && c.Part.Price.Known()
			sum += home.Minor()
		}
		if by == "" || known && (best < 0 || sum < best) {
			by, choices = remedy.Label, remedy.Choices
			if best = sum; !known {
				best = -1
			}
		}
	}
	return by, choices
}

// serve asks of each part that a previous owner put on what would be short without it.
func (r *Readiness) serve(bench *Bench, p *plan.Plan) error {
	met := unmet(r.Report)
	for i, c := range p.Baseline.Changes {
		if c.Part == nil || c.Fate == baseline.Undo {
			continue
		}
		without := *p
		without.Baseline.Changes = slices.Delete(slices.Clone(p.Baseline.Changes), i, i+1)
		report, err := bench.Evaluate(&without)
		if err != nil {
			return err
		}
		s := Serving{Name: c.Name}
		for id, name := range unmet(report) {
			if _, short := met[id]; !short {
				s.Needs = append(s.Needs, name)
			}
		}
		slices.Sort(s.Needs)
		r.Serves = append(r.Serves, s)
	}
	return nil
}

// unmet are the needs of a report that are not met, their names by their ids.
func unmet(report *LoadoutReport) map[string]string {
	list, _ := report.Needs()
	names := map[string]string{}
	for _, n := range list {
		if !n.Met {
			names[n.ID] = n.Name
		}
	}
	return names
}

// Met counts the needs that the brief has and those that are met.
func (r *Readiness) Met() (met, all int) {
	list, _ := r.Report.Needs()
	return len(list) - len(unmet(r.Report)), len(list)
}

// Cost is what it takes beyond the bike itself.
func (r *Readiness) Cost() money.Amount {
	sum, err := r.DueCost.Plus(r.LackCost)
	if err != nil {
		return money.Amount{}
	}
	return sum
}

// Ready is what the bike comes to, ready for the trip, in the trip's currency; missing where its
// price is.
func (r *Readiness) Ready(price money.Amount) money.Amount {
	home, _, ok := r.Report.Plan.Home(price)
	if !price.Known() || !ok {
		return money.Amount{}
	}
	sum, err := home.Plus(r.Cost())
	if err != nil {
		return money.Amount{}
	}
	return sum
}

// MostToOffer is what a bike is worth once it is ready, less all that it takes: below zero where that
// is more. It is missing where the worth is.
func (r *Readiness) MostToOffer(worth money.Amount) money.Amount {
	home, _, ok := r.Report.Plan.Home(worth)
	if !worth.Known() || !ok {
		return money.Amount{}
	}
	return money.New(home.Minor()-r.Cost().Minor(), home.Code())
}
