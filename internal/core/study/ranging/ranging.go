// Package ranging is the study of fuel: what the bike burns on each ground, what its
// fills teach, how far the fuel goes from pump to pump.
package ranging

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the range.
var Study = study.Study{
	Name: "ranging",
	Steps: []study.Step{
		{
			Name: "way", Needs: facts.InBrief | facts.InWay, Gives: facts.WayGroup,
			Run:    func(r *study.Run) { r.Way = wayOf(r.Plan) },
			OfPlan: true,
		},
		{
			Name: "fills", Needs: facts.Bike | facts.InBrief | facts.InLog, Gives: facts.LearningGroup,
			Run:    func(r *study.Run) { r.Learning = learn(r.Plan, r.Standard) },
			OfPlan: true,
		},
		{
			Name: "drag", Needs: facts.Bike | facts.InFigures | facts.MassesGroup, Gives: facts.DragGroup, Run: dragArea,
			Figures: []figure.ID{figure.DragArea},
		},
		{
			Name: "machine", Needs: facts.Bike | facts.InWheels | facts.InCarrying | facts.InFigures | facts.WheelsGroup | facts.LoadedGroup | facts.DragGroup, Gives: facts.MachineGroup,
			Run: func(r *study.Run) { r.Machine = machine(r.All) },
		},
		{
			Name: "range", Needs: facts.Bike | facts.InBrief | facts.InWay | facts.InCarrying | facts.InFigures | facts.WayGroup | facts.LearningGroup | facts.MachineGroup, Gives: facts.RangeGroup, Run: ranging,
			Figures: []figure.ID{
				figure.UsableFuel, figure.Distance, figure.Consumption, figure.LegMargin, figure.DryChance, figure.LegsShort, figure.FuelFactor,
			},
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "fuel", Name: "Fuel to the next pump", Stage: figure.Range, Reads: facts.Bike | facts.InCarrying | facts.RangeGroup, Ask: fuelToThePump},
	},
}

var rules = []study.Rule{
	{ID: "range-short", Class: cause.NextPump, Cause: cause.Pump, Need: "fuel", Stage: figure.Range, Reads: facts.RangeGroup, Figures: []figure.ID{figure.Distance}, Judge: rangeShort},
	{ID: "unsure-pump", Class: cause.NextPump, Cause: cause.Pump, Stage: figure.Range, Reads: facts.RangeGroup, Judge: unsurePump},
	{ID: "smallest-of-group", Class: cause.NextPump, Cause: cause.Pump, Stage: figure.Range, Reads: facts.RangeGroup, Judge: smallestOfGroup},
	{ID: "consumption-off", Class: cause.NextPump, Cause: cause.Pump, Free: true, Stage: figure.Range, Reads: facts.LearningGroup, Judge: consumptionOff},
	{ID: "can-not-approved", Class: cause.Fails, Cause: cause.Tank, Stage: figure.Range, Reads: facts.InCarrying, Judge: canNotApproved},
	{ID: "tank-plumbing", Class: cause.Ends, Cause: cause.Tank, Stage: figure.Range, Reads: facts.InCarrying, Judge: tankPlumbing},
	{ID: "tank-at-the-knees", Class: cause.StopsRider, Cause: cause.Tank, Stage: figure.Range, Reads: facts.InCarrying, Judge: tankAtTheKnees},
	{ID: "tank-in-front", Class: cause.Control, Cause: cause.Tank, Stage: figure.Range, Reads: facts.Bike | facts.InCarrying, Judge: tankInFront},
	{ID: "fuel-behind", Class: cause.Control, Cause: cause.Tank, Stage: figure.Range, Reads: facts.InCarrying, Judge: fuelBehind},
	{ID: "fuel-by-the-exhaust", Class: cause.Fails, Cause: cause.Tank, Stage: figure.Range, Reads: facts.Bike | facts.InCarrying | facts.InTags, Judge: fuelByTheExhaust},
}
