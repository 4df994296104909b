package eval

import (
	"fmt"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/verdict"
)

var costFormula = sheet.Formula{Text: "cost = Σ lines that are in", Origin: sheet.Computed}

func in(l *plan.Line) bool { return l.Standing() == plan.In }

// spending is all that costs money, line by line.
func (r *run) spending(yield func(*plan.Line) bool) {
	for _, lines := range [...][]plan.Line{r.plan.Lines, r.beside} {
		for i := range lines {
			if !yield(&lines[i]) {
				return
			}
		}
	}
}

// cost adds up every line that is in, in minor units of the plan's currency,
// against the brief's budget.
func (r *run) cost() Figure {
	c := r.figure("cost", "Cost", r.plan.Currency)
	c.sum(in)
	c.working.Note("Contingency stands apart: a tenth is wise. Freight, tax and workshop count when they are lines of the plan. Lines that are undecided, for later or rejected do not count.")
	limit := missingValue
	if budget := r.plan.Brief.Budget; budget.Known() && budget.Code() == r.plan.Currency {
		limit.Number = float64(budget.Minor())
	} else {
		c.lacks("budget (Brief)")
	}
	return c.atMost(limit, 0.95, verdict.Over)
}

// totals are the sums beside the cost.
var totals = []struct {
	id, name string
	counts   func(*plan.Line) bool
}{
	{"cost-needed", "Of it needed", func(l *plan.Line) bool { return in(l) && l.Need == plan.Needed }},
	{"cost-wanted", "Of it wanted", func(l *plan.Line) bool { return in(l) && l.Need == plan.Wanted }},
	{"cost-baseline", "Of it put right first", func(l *plan.Line) bool { return in(l) && l.Kind == plan.Baseline }},
	{"cost-spent", "Of it ordered or paid", func(l *plan.Line) bool {
		return l.Decision == plan.Ordered || l.Decision == plan.Owned || l.Decision == plan.OnTheBike
	}},
	{"cost-open", "Undecided, beside it", func(l *plan.Line) bool { return l.Standing() == plan.Open }},
	{"cost-later", "For later, beside it", func(l *plan.Line) bool { return l.Standing() == plan.Later }},
}

// money is the totals, and what is wise to keep back.
func (r *run) money(cost Figure) []Figure {
	figures := make([]Figure, 0, len(totals)+2)
	for _, t := range totals {
		c := r.figure(t.id, t.name, r.plan.Currency)
		c.sum(t.counts)
		figures = append(figures, c.plain())
	}
	return append(figures, r.contingency(cost), r.ownHours())
}

var workFormula = sheet.Formula{Text: "hours = Σ hours of the lines that are in", Origin: sheet.Computed}

// ownHours is what the lines take of the rider's time: as noted, or what such parts
// usually take.
func (r *run) ownHours() Figure {
	c := r.figure("own-hours", "Hours of your own", "h")
	var in []sheet.Value
	total := 0.0
	for l := range r.spending {
		hours := r.plan.OwnHours(l)
		if l.Standing() != plan.In || hours == 0 {
			continue
		}
		total += hours
		if c.working != nil {
			v := sheet.Value{Name: l.Title(), Number: hours, Unit: "h", Origin: sheet.Practice}
			if l.Hours.Known() {
				v.Origin = sheet.Rider
			}
			in = append(in, v)
		}
	}
	c.is(total)
	if c.working != nil {
		c.working.Step(workFormula, computed("hours", total, "h"), in...)
	}
	return c.plain()
}

var contingencyFormula = sheet.Formula{Text: "contingency = cost / 10", Origin: sheet.Practice}

// contingency is a tenth of what is needed and wanted, apart from it.
func (r *run) contingency(cost Figure) Figure {
	c := r.figure("contingency", "Wise to keep back", r.plan.Currency)
	if !cost.Known {
		c.lacks("the cost")
	}
	amount := cost.Value / 10
	c.is(amount)
	if c.working != nil {
		c.working.Step(contingencyFormula, computed("contingency", amount, r.plan.Currency), computed("cost", cost.Value, r.plan.Currency))
	}
	return c.plain()
}

// sum adds up the lines that count.
func (c *calc) sum(counts func(*plan.Line) bool) {
	currency := c.run.plan.Currency
	var in []sheet.Value
	total := money.New(0, currency)
	for l := range c.run.spending {
		if !counts(l) {
			continue
		}
		amount := l.Cost()
		if !amount.Known() {
			c.lacks("price of " + l.Title())
			continue
		}
		home, rate, ok := c.run.plan.Home(amount)
		if !ok {
			c.lacks("rate from " + amount.Code() + " to " + currency + " (Spend)")
			continue
		}
		sum, err := total.Plus(home)
		if err != nil {
			c.lacks("price of " + l.Title() + " in " + currency)
			continue
		}
		total = sum
		if c.working != nil {
			v := sheet.Value{Name: l.Title() + ", " + string(l.Need), Number: float64(home.Minor()), Unit: currency, Origin: priceOrigin(l)}
			if rate != nil {
				v.Note = fmt.Sprintf("%s at %s on %s", amount, rate.Rate, rate.On)
			}
			in = append(in, v)
		}
	}
	c.is(float64(total.Minor()))
	if c.working != nil {
		c.working.Step(costFormula, computed("cost", float64(total.Minor()), currency), in...)
	}
}

// priceOrigin is where a line's price comes from: the part's data, unless the
// rider entered one.
func priceOrigin(l *plan.Line) sheet.Origin {
	if l.Part != nil && !l.Amount.Known() {
		return l.Part.Origin
	}
	return sheet.Rider
}
