// Package spend is the study of the money and of the rider's own hours.
package spend

import (
	"fmt"
	"math"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Study of the spending.
var Study = study.Study{
	Name: "spend",
	Steps: []study.Step{
		{Name: "ledger", Needs: facts.InBrief | facts.InLines | facts.InLooked, Gives: facts.LedgerGroup, Run: ledger, OfPlan: true},
		{
			Name: "cost", Needs: facts.InBrief | facts.InLines | facts.LedgerGroup, Run: costs,
			Figures: append([]figure.ID{figure.Cost, figure.Contingency, figure.OwnHours}, totalIDs()...),
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "for-the-workshop", Class: cause.Rest, Cause: cause.Workshop, Stage: figure.Spend, Reads: facts.InBrief | facts.InLines, Judge: forTheWorkshop},
}

// ledger finds what costs money beside the plan's own lines.
func ledger(r *study.Run) {
	due := r.Plan.Due()
	r.Ledger = facts.Ledger{Due: due, Beside: r.Plan.Beside(due)}
}

// totals are the sums beside the cost.
var totals = []struct {
	id     figure.ID
	counts func(*plan.Line) bool
}{
	{figure.CostNeeded, func(l *plan.Line) bool { return in(l) && l.Need == plan.Needed }},
	{figure.CostWanted, func(l *plan.Line) bool { return in(l) && l.Need == plan.Wanted }},
	{figure.CostBaseline, func(l *plan.Line) bool { return in(l) && l.Kind == plan.Baseline }},
	{figure.CostSpent, func(l *plan.Line) bool {
		return l.Paid() && l.Kind != plan.GivenBack
	}},
	{figure.CostBack, func(l *plan.Line) bool { return l.Kind == plan.GivenBack }},
	{figure.CostOpen, func(l *plan.Line) bool { return l.Standing() == plan.Open }},
	{figure.CostLater, func(l *plan.Line) bool { return l.Standing() == plan.Later && !l.Costs() }},
}

func totalIDs() []figure.ID {
	ids := make([]figure.ID, len(totals))
	for i, t := range totals {
		ids[i] = t.id
	}
	return ids
}

func in(l *plan.Line) bool { return l.Costs() }

// costs adds everything up.
func costs(r *study.Run) {
	all := cost(r)
	var spent, back *study.Figure
	for _, t := range totals {
		c := r.Figure(t.id)
		if t.id == figure.CostOpen {
			open(c)
		} else {
			sum(c, t.counts)
		}
		c.Plain()
		switch t.id {
		case figure.CostSpent:
			spent = c.Figure
		case figure.CostBack:
			back = c.Figure
		}
	}
	contingency(r, all, spent, back)
	ownHours(r)
}

// spending is all that costs money, line by line.
func spending(f *facts.All) func(yield func(*plan.Line) bool) {
	return func(yield func(*plan.Line) bool) {
		for _, lines := range [...][]plan.Line{f.Plan.Lines, f.Ledger.Beside} {
			for i := range lines {
				if !yield(&lines[i]) {
					return
				}
			}
		}
	}
}

var (
	costFormula        = sheet.Formula{Text: "cost = Σ lines that are in", Origin: sheet.Computed}
	workFormula        = sheet.Formula{Text: "hours = Σ hours of the lines that are in", Origin: sheet.Computed}
	contingencyFormula = sheet.Formula{Text: "contingency = (cost − spent − came back) / 10", Origin: sheet.Practice}
)

// cost adds up every line that is in, in minor units of the plan's currency,
// against the brief's budget.
func cost(r *study.Run) *study.Figure {
	c := r.Figure(figure.Cost)
	sum(c, in)
	c.Sheet.Note("Contingency stands apart: a tenth of what is still to be spent is wise. Freight, tax and workshop count when they are lines of the plan. Lines that are undecided, for later or rejected do not count.")
	limit := math.NaN()
	switch budget := r.Plan.Brief.Budget; {
	case budget.Known() && budget.Code() == r.Plan.Currency:
		limit = float64(budget.Minor())
	case r.Plan.Brief.Unlimited:
		c.Judged(false, len(c.Missing) > 0)
		return c.Figure
	default:
		c.LacksAt("budget (Brief)", "brief/budget")
	}
	c.AtMost(sheet.Value{Number: limit}, 0.95, verdict.Over)
	if len(c.Missing) > 0 && c.State == verdict.OK {
		c.State = verdict.Watch
	}
	return c.Figure
}

// ownHours is what the lines take of the rider's time: as noted, or what such parts
// usually take.
func ownHours(r *study.Run) {
	c := r.Figure(figure.OwnHours)
	var in []sheet.Value
	total := 0.0
	for l := range spending(r.All) {
		hours := r.Plan.OwnHours(l)
		if l.Standing() != plan.In || hours == 0 {
			continue
		}
		total += hours
		if c.Sheet != nil {
			v := sheet.Value{Name: l.Title(), Number: hours, Unit: "h", Origin: sheet.Practice}
			if l.Hours.Known() {
				v.Origin = sheet.Rider
			}
			in = append(in, v)
		}
	}
	c.Is(total)
	if c.Sheet != nil {
		c.Sheet.Step(workFormula, study.Computed("hours", total, "h"), in...)
	}
	c.Plain()
}

// contingency is a tenth of what is still to be spent, apart from it: what is paid holds
// no more surprises.
func contingency(r *study.Run, cost, spent, back *study.Figure) {
	c := r.Figure(figure.Contingency)
	if !cost.Known {
		c.Lacks("the cost")
	}
	left := (cost.Value - spent.Value - back.Value) / 10
	c.Is(left)
	if c.Sheet != nil {
		c.Sheet.Step(contingencyFormula, study.Computed("contingency", left, r.Plan.Currency), study.Computed("cost", cost.Value, r.Plan.Currency), study.Computed("spent", spent.Value, r.Plan.Currency), study.Computed("came back", back.Value, r.Plan.Currency))
	}
	c.Plain()
}

// sum adds up the lines that count. One whose price nobody knows counts nothing: the sum is
// the least that it comes to, and says what it lacks.
func sum(c study.Calc, counts func(*plan.Line) bool) {
	p := c.Run.Plan
	var lacks []study.Lack
	short := func(l *plan.Line, what string) {
		lacks = append(lacks, study.Lack{What: what, At: study.PartAt(l.Part, "price")})
	}
	var in []sheet.Value
	total := money.New(0, p.Currency)
	for l := range spending(c.Run.All) {
		if !counts(l) {
			continue
		}
		amount := p.CostOf(l)
		if !amount.Known() {
			short(l, "price of "+l.Title())
			continue
		}
		home, rate, ok := p.Home(amount)
		if !ok {
			short(l, "rate from "+amount.Code()+" to "+p.Currency+" (Spend)")
			continue
		}
		sum, err := total.Plus(home)
		if err != nil {
			short(l, "price of "+l.Title()+" in "+p.Currency)
			continue
		}
		total = sum
		if c.Sheet != nil {
			v := sheet.Value{Name: l.Title() + ", " + string(l.Need), Number: float64(home.Minor()), Unit: p.Currency, Origin: priceOrigin(l)}
			if rate != nil {
				v.Note = fmt.Sprintf("%s at %s on %s", amount, rate.Rate, rate.On)
			}
			in = append(in, v)
		}
	}
	c.Is(float64(total.Minor()))
	c.Unsure(lacks...)
	if c.Sheet != nil {
		c.Sheet.Step(costFormula, study.Computed("cost", float64(total.Minor()), p.Currency), in...)
	}
}

// open adds up what is undecided. Lines for one place are alternatives: it comes to the least or to the
// most of them, and to nothing once the place is filled.
func open(c study.Calc) {
	p := c.Run.Plan
	counted, least := map[*plan.Line]bool{}, money.New(0, p.Currency)
	for _, among := range p.Alternatives() {
		var low money.Amount
		var dearest *plan.Line
		most := int64(-1)
		for _, l := range among {
			home, _, ok := p.Home(p.CostOf(l))
			if !ok || !home.Known() {
				counted[l] = true // it says what it lacks
				continue
			}
			if home.Minor() > most {
				dearest, most = l, home.Minor()
			}
			if !low.Known() || home.Minor() < low.Minor() {
				low = home
			}
		}
		if dearest == nil {
			continue
		}
		counted[dearest] = true
		if sum, err := least.Plus(low); err == nil {
			least = sum
		}
	}
	sum(c, func(l *plan.Line) bool { return counted[l] })
	if c.Known && float64(least.Minor()) < c.Value {
		c.Band(float64(least.Minor()), c.Value)
	}
	if c.Sheet != nil && c.Banded {
		c.Sheet.Note("Of several for one place the dearest counts, and " + least.Display() + " is the least that it comes to. What is undecided for a place that is filled counts nothing.")
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
