// Package loading is the study of what is carried and what carries it: what the
// loaded bike weighs, what stands under each wheel, how high its centre sits, how
// full the bags are.
package loading

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// Study of the load.
var Study = study.Study{
	Name: "loading",
	Steps: []study.Step{
		{
			Name: "weighings", Needs: facts.Bike, Gives: facts.WeighedGroup,
			Run:   func(r *study.Run) { r.Weighed = r.Plan.Correction() },
			Stays: func(was, now *plan.Plan) bool { return was.Bike == now.Bike && len(was.Readings) == len(now.Readings) },
		},
		{
			Name: "masses", Needs: facts.Bike, Gives: facts.MassesGroup, Run: masses,
			Figures: []figure.ID{figure.FrontUnsprung, figure.RearUnsprung},
		},
		{
			Name: "loaded mass", Needs: facts.Bike | facts.MassesGroup | facts.WeighedGroup, Gives: facts.LoadedGroup, Run: loadedMass,
			Figures: []figure.ID{figure.LoadedMass, figure.PayloadLeft},
		},
		{
			Name: "axles", Needs: facts.Bike | facts.MassesGroup | facts.WeighedGroup, Gives: facts.AxlesGroup, Run: axles,
			Figures: []figure.ID{figure.FrontLoad, figure.RearLoad, figure.AxleFront, figure.AxleRear},
		},
		{
			Name: "centre", Needs: facts.Bike | facts.MassesGroup | facts.WeighedGroup, Gives: facts.CentreGroup, Run: centre,
			Figures: []figure.ID{figure.CentreHeight},
		},
		{
			Name: "bags", Needs: facts.Bike, Gives: facts.BagsGroup, Run: bags,
			Figures: []figure.ID{figure.LeftRight, figure.RackLoad, figure.BagFullest},
		},
		{
			Name: "how it sits", Needs: facts.Bike | facts.MassesGroup | facts.WeighedGroup | facts.AxlesGroup, Gives: facts.CarryingGroup, Run: carrying,
			Figures: []figure.ID{figure.ShippingMass, figure.StandingShare, figure.FrontShare, figure.CentreShift},
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "overweight", Stage: figure.Load, Judge: overweight},
	{ID: "axle-overload", Stage: figure.Load, Judge: axleOverload},
	{ID: "rack-overload", Stage: figure.Load, Judge: rackOverload},
	{ID: "bag-overload", Stage: figure.Load, Judge: bagOverload},
	{ID: "bag-overfull", Stage: figure.Load, Judge: bagOverfull},
	{ID: "bag-speed", Stage: figure.Load, Judge: bagSpeed},
	{ID: "sides-uneven", Stage: figure.Load, Judge: sidesUneven},
	{ID: "front-light", Stage: figure.Load, Judge: frontLight},
	{ID: "high-behind", Stage: figure.Load, Judge: highBehind},
	{ID: "bag-not-there", Stage: figure.Load, Judge: bagNotThere},
	{ID: "bags-by-the-pipe", Stage: figure.Load, Judge: bagsByThePipe},
	{ID: "hard-boxes-trap", Stage: figure.Load, Judge: hardBoxesTrap},
	{ID: "rack-keeps-the-seat", Stage: figure.Load, Judge: rackKeepsTheSeat},
	{ID: "rack-takes-the-pegs", Stage: figure.Load, Judge: rackTakesThePegs},
	{ID: "home-made-carrier", Stage: figure.Load, Judge: homeMadeCarrier},
	{ID: "tail-lamp-hidden", Stage: figure.Load, Judge: tailLampHidden},
	{ID: "load-takes", Stage: figure.Load, Judge: loadTakes},
	{ID: "too-heavy-to-ship", Stage: figure.Load, Judge: tooHeavyToShip},
	{ID: "ships-too-late", Stage: figure.Load, Judge: shipsTooLate},
	{ID: "nowhere-to-tie", Stage: figure.Load, Judge: nowhereToTie},
}
