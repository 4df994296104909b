// Package journey is the study of the trip as it is ridden: how far it has come, what its days
// teach of wear, oil, chain and falls, and what will be used up before home.
package journey

import (
	"math"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/journey"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
)

// Study of the journey.
var Study = study.Study{
	Name: "journey",
	Steps: []study.Step{
		{Name: "ridden", Needs: facts.Bike | facts.InLog | facts.InBrief, Gives: facts.JourneyGroup, Run: ridden, OfPlan: true},
		{
			Name: "on the way", Needs: facts.Bike | facts.InLog | facts.InBrief | facts.JourneyGroup, Run: onTheWay,
			Figures: []figure.ID{figure.Ridden, figure.FallsTimes, figure.OilUse, figure.ChainLeft},
		},
	},
	Rules: []study.Rule{
		{ID: "tyre-ends-on-the-way", Class: cause.Ends, Cause: cause.Worn, Stage: figure.Log, Reads: facts.InBrief | facts.InParts | facts.JourneyGroup, Figures: []figure.ID{figure.RearLife, figure.FrontLife}, Judge: tyreEnds},
		{ID: "chain-ends-on-the-way", Class: cause.Ends, Cause: cause.Worn, Stage: figure.Log, Reads: facts.InBrief | facts.JourneyGroup, Figures: []figure.ID{figure.ChainLeft}, Judge: chainEnds},
		{ID: "oil-on-the-way", Class: cause.Ends, Cause: cause.Worn, Stage: figure.Log, Free: true, Reads: facts.InBrief | facts.JourneyGroup, Figures: []figure.ID{figure.OilUse}, Judge: oilOnTheWay},
	},
}

// Spreads of one reading [memory].
const (
	oilSpreadL  = 0.05 // at a dipstick or a glass
	chainMM     = 0.7  // at the marks of the swingarm
	chainLastMM = 17.0 // that the axle moves back until a usual chain is 2 % long [memory]
)

// What is usual before anybody has looked [memory; a chain between dirty and cleaned on the road: the handbook].
var (
	usualOil   = journey.Rate{PerKm: 0.2 / 1000, Spread: 0.15 / 1000}
	usualChain = journey.Rate{PerKm: chainLastMM / 9000, Spread: chainLastMM / 15000}
)

var (
	riddenFormula = sheet.Formula{Text: "ridden = Σ of the days; what the bike's own meter shows / what it shows over the true distance", Origin: sheet.Computed}
	oilFormula    = sheet.Formula{Text: "seen = oil put in / distance", Origin: sheet.Measured}
	chainFormula  = sheet.Formula{Text: "seen = the axle's way back / distance; a chain is done at 2 %, about 17 mm of it", Origin: sheet.Memory}
)

// ridden gathers what the bike's days say.
func ridden(r *study.Run) {
	j := &r.Journey
	*j = facts.Journey{Oil: unknown, Chain: unknown, Often: journey.AsThought}
	km, oil, oilKm, oils, chainKm, chains := 0.0, 0.0, 0.0, 0, 0.0, 0
	lastOil, lastChain := 0.0, 0.0
	falls := expecting{plan: r.Plan}
	for _, reading := range r.Plan.ReadingsOf(logbook.DayRidden) {
		d := reading.Day()
		ours := d.Trip == r.Plan.Trip
		today := d.Ridden()
		km += today
		if ours {
			j.Days = append(j.Days, reading)
			j.Km += today
		}
		for _, end := range []struct {
			treads *facts.Treads
			mm     float64
		}{{&j.Front, d.TreadFront.In("mm")}, {&j.Rear, d.TreadRear.In("mm")}} {
			if !math.IsNaN(end.mm) {
				end.treads.All = append(end.treads.All, journey.Point{Km: km, Reading: end.mm})
				if ours {
					end.treads.Our++
				} else {
					end.treads.Our = 0
				}
			}
		}
		if l := d.Oil.In("L"); !math.IsNaN(l) {
			oil, oilKm, lastOil, oils = oil+l, oilKm+km-lastOil, km, oils+1
		}
		if mm := d.Chain.In("mm"); !math.IsNaN(mm) {
			j.ChainMM, chainKm, lastChain, chains = j.ChainMM+mm, chainKm+km-lastChain, km, chains+1
		}
		if slow, fast, said := d.Falls(); said {
			if expected := today * falls.perKm(d); expected > 0 {
				j.Expected, j.Falls = j.Expected+expected, j.Falls+slow+fast
			}
		}
	}
	if oilKm > 0 {
		j.Oil = journey.Rate{PerKm: oil / oilKm, Spread: oilSpreadL * math.Sqrt(float64(oils)) / oilKm}
	}
	if chainKm > 0 {
		j.Chain = journey.Rate{PerKm: j.ChainMM / chainKm, Spread: chainMM * math.Sqrt(float64(chains)) / chainKm}
	}
	j.Often = j.Often.Given(j.Falls, j.Expected)
}

var unknown = journey.Rate{PerKm: math.NaN(), Spread: math.NaN()}

// expecting is how many falls are expected by the kilometre.
type expecting struct {
	plan    *plan.Plan
	usual   float64 // on the brief's ground
	thought float64 // times as many as by the rates, as the rider counts on them
	known   bool
}

// perKm is how many, on the ground of a day.
func (e *expecting) perKm(d *logbook.Day) float64 {
	if !e.known {
		e.known, e.thought = true, 1
		e.usual = e.on(e.plan.Brief.Mix())
		if said, km := e.plan.Brief.Falls.In(""), e.plan.Brief.Distance.In("km"); said > 0 && km > 0 && e.usual > 0 {
			e.thought = said / (e.usual * km)
		}
	}
	if len(d.Ground) == 0 {
		return e.usual * e.thought
	}
	return e.on(e.plan.Mixed(d)) * e.thought
}

func (e *expecting) on(mix terrain.Mix) float64 {
	const km = 1000
	return guard.Falls(guard.Trip{DistanceKm: km, Mix: mix, Skill: e.plan.Brief.Skill, Falls: math.NaN(), RoomMM: math.NaN()}, e.plan.Risk.Rates()) / km
}

// onTheWay are the figures of the log.
func onTheWay(r *study.Run) {
	j := &r.Journey
	c := r.Figure(figure.Ridden)
	c.Is(j.Km)
	if c.Sheet != nil {
		in := make([]sheet.Value, 0, len(j.Days))
		for _, d := range j.Days {
			in = append(in, sheet.Value{Name: d.On, Number: d.Day().Km(), Unit: "km", Origin: sheet.Measured, Note: string(d.Day().By)})
		}
		c.Sheet.Step(riddenFormula, study.Computed("ridden", j.Km, "km"), in...)
	}
	c.Plain()
	often(r)
	oil(r)
	chain(r)
}

// usualBefore marks a figure that nobody has looked for yet.
func usualBefore(c study.Calc, seen bool) {
	if !seen {
		c.Usual = 1
	}
}

// often is how many falls there were against what was thought.
func often(r *study.Run) {
	c, j := r.Figure(figure.FallsTimes), &r.Journey
	usualBefore(c, j.Expected > 0)
	c.Is(j.Often.Mean())
	c.Band(max(0, j.Often.Mean()-j.Often.Deviation()), j.Often.Mean()+j.Often.Deviation())
	if c.Sheet != nil {
		c.Sheet.Step(journey.OftenFormula, study.Computed("as often as thought", j.Often.Mean(), ""),
			sheet.Value{Name: "happened", Number: j.Falls, Origin: sheet.Measured}, study.Computed("expected of those days", j.Expected, ""))
		c.Sheet.Note("What breaks over the trip (Armour) counts falls so many times.")
	}
	c.Plain()
}

// oil is what the engine takes.
func oil(r *study.Run) {
	c, j := r.Figure(figure.OilUse), &r.Journey
	both := usualOil.With(j.Oil)
	low, mid, high := both.Band(fuel.BandSigma)
	usualBefore(c, j.Oil.Spread > 0)
	c.Is(1000 * mid)
	c.Band(1000*low, 1000*high)
	if c.Sheet != nil {
		c.Sheet.Step(oilFormula, study.Computed("seen, by 1000 km", 1000*j.Oil.PerKm, "L"))
		c.Sheet.Step(journey.BothFormula, study.Computed("by 1000 km", 1000*mid, "L"), sheet.Value{Name: "usual, by 1000 km", Number: 1000 * usualOil.PerKm, Unit: "L", Origin: sheet.Memory},
			study.Computed("seen, by 1000 km", 1000*j.Oil.PerKm, "L"))
	}
	c.Plain()
}

// chain is how far the chain still runs, from the last look on.
func chain(r *study.Run) {
	c, j := r.Figure(figure.ChainLeft), &r.Journey
	both := usualChain.With(j.Chain)
	low, mid, high := both.Band(fuel.BandSigma)
	usualBefore(c, j.Chain.Spread > 0)
	if r.Built.Bike.Shaft() {
		c.Lacks("a chain: it has a shaft")
	}
	left := max(0, chainLastMM-j.ChainMM)
	c.Is(left / mid)
	c.Band(left/high, left/low)
	if c.Sheet != nil {
		c.Sheet.Step(chainFormula, study.Computed("seen, by 1000 km", 1000*j.Chain.PerKm, "mm"))
		c.Sheet.Step(journey.BothFormula, study.Computed("by 1000 km", 1000*mid, "mm"), sheet.Value{Name: "usual, by 1000 km", Number: 1000 * usualChain.PerKm, Unit: "mm", Origin: sheet.Memory})
		c.Sheet.Step(journey.LeftFormula, study.Computed("left", left/mid, "km"), study.Computed("way of the axle that is left", left, "mm"))
		c.Sheet.Note("Taken from a new chain on; an older one has less.")
	}
	c.Plain()
}
