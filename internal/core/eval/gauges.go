package eval

import (
	"fmt"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/verdict"
)

// GaugeIDs are the gauges of the verdict strip, in its order.
var GaugeIDs = []string{
	"cost", "loaded-mass", "axle-front", "axle-rear", "tyre-load", "tyre-life", "cruise-rpm", "crawl-speed",
	"range", "charge-margin", "sag-front", "sag-rear", "seat-reach", "clearance", "night-speed", "ready-date", "needs",
}

// pendingGauges are gauges whose subject the plan does not hold yet, with what
// they would need.
var pendingGauges = map[string]Figure{
	"axle-front":    {Name: "Front axle", Unit: "kg", Missing: []string{"axle limits from the plate", "where each load really sits"}},
	"axle-rear":     {Name: "Rear axle", Unit: "kg", Missing: []string{"axle limits from the plate", "where each load really sits"}},
	"range":         {Name: "Range", Unit: "km", Missing: []string{"consumption", "usable fuel", "longest gap between pumps"}},
	"charge-margin": {Name: "Charging", Unit: "W", Missing: []string{"alternator output", "the bike's own draw", "accessories"}},
	"sag-front":     {Name: "Front sag", Unit: "%", Missing: []string{"fork travel", "spring rate, or two sag readings"}},
	"sag-rear":      {Name: "Rear sag", Unit: "%", Missing: []string{"wheel travel", "spring rate, or two sag readings"}},
	"seat-reach":    {Name: "Seat reach", Unit: "mm", Missing: []string{"inseam and sole", "seat width", "sag"}},
	"clearance":     {Name: "Clearance", Unit: "mm", Missing: []string{"clearance under the engine", "sag"}},
	"night-speed":   {Name: "Night speed", Unit: "km/h", Missing: []string{"headlamp candela", "grip of the ground at night"}},
	"ready-date":    {Name: "Ready", Unit: "date", Missing: []string{"lead times", "hours to fit each part"}},
	"needs":         {Name: "Needs", Unit: "", Missing: []string{"what the brief asks of the bike beyond tyres and gearing"}},
}

func (r *run) pending(id string) Figure {
	f := pendingGauges[id]
	f.ID, f.State = id, verdict.Unknown
	return f
}

// withoutBike is the strip before there is a bike: the money counts already.
func (r *run) withoutBike() []Figure {
	gauges := make([]Figure, 0, len(GaugeIDs))
	for _, id := range GaugeIDs {
		switch f, pending := pendingGauges[id]; {
		case id == "cost":
			gauges = append(gauges, r.cost())
		case pending:
			f.ID, f.State = id, verdict.Unknown
			gauges = append(gauges, f)
		default:
			name := gaugeNames[id]
			gauges = append(gauges, Figure{ID: id, Name: name[0], Unit: name[1], State: verdict.Unknown, Missing: []string{"a bike (Bike)"}})
		}
	}
	return gauges
}

// gaugeNames are name and unit of the gauges that a bike brings to life.
var gaugeNames = map[string][2]string{
	"loaded-mass": {"Loaded mass", "kg"},
	"tyre-load":   {"Tyre load", "%"},
	"tyre-life":   {"Tyre life", "km"},
	"cruise-rpm":  {"At the cruise", "rpm"},
	"crawl-speed": {"Walking pace", "km/h"},
}

func (r *run) gauge(id string) *calc { return r.figure(id, gaugeNames[id][0], gaugeNames[id][1]) }

var costFormula = sheet.Formula{Text: "cost = Σ lines", Origin: sheet.Computed}

// cost adds up every line, in minor units of the plan's currency, against the
// brief's budget.
func (r *run) cost() Figure {
	c := r.figure("cost", "Cost", r.plan.Currency)
	c.sum(func(plan.Line) bool { return true })
	c.working.Note("Contingency stands apart: a tenth is wise. Freight, tax and workshop count when they are lines of the plan.")
	limit := missingValue
	if budget := r.plan.Brief.Budget; budget.Known() && budget.Code() == r.plan.Currency {
		limit.Number = float64(budget.Minor())
	} else {
		c.lacks("budget (Brief)")
	}
	return c.atMost(limit, 0.95, verdict.Over)
}

// costOf adds up the lines of one need.
func (r *run) costOf(need plan.Need) Figure {
	name := map[plan.Need]string{plan.Needed: "Of it needed", plan.Wanted: "Of it wanted"}[need]
	c := r.figure("cost-"+string(need), name, r.plan.Currency)
	c.sum(func(l plan.Line) bool { return l.Need == need })
	return c.plain()
}

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

var contingencyFormula = sheet.Formula{Text: "contingency = cost / 10", Origin: sheet.Practice}

// sum adds up the lines that count.
func (c *calc) sum(counts func(plan.Line) bool) {
	currency := c.run.plan.Currency
	var in []sheet.Value
	total := money.New(0, currency)
	for _, l := range c.run.plan.Lines {
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

func priceOrigin(l plan.Line) sheet.Origin {
	if l.Part != nil {
		return l.Part.Origin
	}
	return sheet.Rider
}
