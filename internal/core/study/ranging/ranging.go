// Package ranging is the study of fuel: what the bike burns on each ground, what its
// fills teach, how far the fuel goes from pump to pump.
package ranging

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Study of the range.
var Study = study.Study{
	Name: "ranging",
	Steps: []study.Step{
		{
			Name: "way", Gives: facts.WayGroup,
			Run: func(r *study.Run) { r.Way = wayOf(r.Plan) },
			Stays: func(was, now *plan.Plan) bool {
				return was.Route == now.Route && (now.Route != nil || was.Brief.Gap == now.Brief.Gap)
			},
		},
		{
			Name: "fills", Needs: facts.Bike, Gives: facts.LearningGroup,
			Run: func(r *study.Run) { r.Learning = learn(r.Plan, r.Standard) },
			Stays: func(was, now *plan.Plan) bool {
				return was.Bike == now.Bike && len(was.Readings) == len(now.Readings) && was.Brief.Rider == now.Brief.Rider
			},
		},
		{
			Name: "drag", Needs: facts.Bike | facts.MassesGroup, Gives: facts.DragGroup, Run: dragArea,
			Figures: []figure.ID{figure.DragArea},
		},
		{
			Name: "machine", Needs: facts.Bike | facts.WheelsGroup | facts.LoadedGroup | facts.DragGroup, Gives: facts.MachineGroup,
			Run: func(r *study.Run) { r.Machine = machine(r.All) },
		},
		{
			Name: "range", Needs: facts.Bike | facts.WayGroup | facts.LearningGroup | facts.MachineGroup, Gives: facts.RangeGroup, Run: ranging,
			Figures: []figure.ID{
				figure.UsableFuel, figure.Distance, figure.Consumption, figure.LegMargin, figure.DryChance, figure.LegsShort, figure.FuelFactor,
			},
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "fuel", Name: "Fuel to the next pump", Stage: figure.Range, Ask: fuelToThePump},
	},
}

var rules = []study.Rule{
	{ID: "range-short", Stage: figure.Range, Judge: rangeShort},
	{ID: "unsure-pump", Stage: figure.Range, Judge: unsurePump},
	{ID: "smallest-of-group", Stage: figure.Range, Judge: smallestOfGroup},
	{ID: "consumption-off", Stage: figure.Range, Judge: consumptionOff},
	{ID: "can-not-approved", Stage: figure.Range, Judge: canNotApproved},
	{ID: "tank-plumbing", Stage: figure.Range, Judge: tankPlumbing},
	{ID: "tank-at-the-knees", Stage: figure.Range, Judge: tankAtTheKnees},
	{ID: "tank-in-front", Stage: figure.Range, Judge: tankInFront},
	{ID: "fuel-behind", Stage: figure.Range, Judge: fuelBehind},
	{ID: "fuel-by-the-exhaust", Stage: figure.Range, Judge: fuelByTheExhaust},
}
