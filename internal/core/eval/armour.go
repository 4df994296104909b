package eval

import (
	"math"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/sheet"
)

// risks works out what may break over the trip.
func (r *run) risks() {
	trip := r.plan.Brief.Exposed()
	if !(trip.DistanceKm > 0) || trip.Mix == nil {
		return
	}
	r.facts.Risks = guard.Assess(trip, r.plan.Risk.Rates(), r.built.Bike.Vulnerable, r.built.Covers())
}

// armour is what is to be feared of broken parts, and how much of it the guards
// take away.
func (r *run) armour() []Figure {
	bare, left := guard.Total(r.facts.Risks)
	figure := func(id, name, unit string, value, unguarded float64) Figure {
		c := r.figure(id, name, unit)
		if r.facts.Risks == nil {
			c.lacks("trip distance and ground (Brief)")
		}
		c.is(value)
		if c.working != nil {
			c.explainRisks(computed(name, value, unit), computed("without a guard", unguarded, unit))
		}
		return c.plain()
	}
	worth := float64(r.built.Bike.Price.Minor())
	repair := r.figure("armour-repair", "Repairs to expect", r.plan.Currency)
	if home, _, ok := r.plan.Home(r.built.Bike.Price); ok && home.Known() {
		worth = float64(home.Minor())
	} else {
		repair.lacks("what the bike is worth (Bike)")
	}
	if r.facts.Risks == nil {
		repair.lacks("trip distance and ground (Brief)")
	}
	amount := math.Round(left.Worth * worth)
	repair.is(amount)
	if repair.working != nil {
		repair.explainRisks(computed("repairs", amount, r.plan.Currency), computed("share of the bike's worth", 100*left.Worth, "%"), computed("worth", worth, r.plan.Currency))
	}
	return []Figure{
		figure("armour-stranded", "Stranded by a broken part", "%", 100*left.Stranded, 100*bare.Stranded),
		figure("armour-days", "Days lost to repairs", "d", left.Days, bare.Days),
		repair.plain(),
		r.cover(bare, left),
	}
}

// cover is how much of being stranded the guards take away.
func (r *run) cover(bare, left guard.Outcome) Figure {
	c := r.figure("armour-cover", "Of it guarded", "%")
	if r.facts.Risks == nil {
		c.lacks("trip distance and ground (Brief)")
	}
	share := 100 * guard.Coverage(bare.Stranded, left.Stranded)
	c.is(share)
	if c.working != nil {
		c.working.Step(guard.CoverageFormula, computed("guarded", share, "%"), computed("residual, stranded", 100*left.Stranded, "%"), computed("unprotected, stranded", 100*bare.Stranded, "%"))
	}
	return c.plain()
}

// explainRisks writes the risk of each place down.
func (c *calc) explainRisks(out sheet.Value, more ...sheet.Value) {
	events := guard.Events(c.run.plan.Brief.Exposed(), c.run.plan.Risk.Rates())
	for i, h := range guard.Hazards() {
		c.working.Step(guard.EventsFormula, computed(h.Name+", times", events[i], ""))
	}
	in := more
	for _, r := range c.run.facts.Risks {
		in = append(in, computed(r.Place.Name+", stranded", 100*r.Left.Stranded, "%"))
	}
	c.working.Step(guard.LossFormula, out, in...)
	c.working.Note("Every rate is a guess from memory; change the ones that you know better under Armour, Rates.")
}
