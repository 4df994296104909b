// Package loading is the study of what is carried and what carries it: what the
// loaded bike weighs, what stands under each wheel, how high its centre sits, how
// full the bags are.
package loading

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the load.
var Study = study.Study{
	Name: "loading",
	Steps: []study.Step{
		{
			Name: "weighings", Needs: facts.Bike | facts.InLog, Gives: facts.WeighedGroup,
			Run:    func(r *study.Run) { r.Weighed = r.Plan.Correction() },
			OfPlan: true,
		},
		{
			Name: "masses", Needs: facts.Bike | facts.InBrief | facts.InLines | facts.InLoadout | facts.InParts, Gives: facts.MassesGroup, Run: masses,
			Figures: []figure.ID{figure.FrontUnsprung, figure.RearUnsprung},
		},
		{
			Name: "loaded mass", Needs: facts.Bike | facts.WeighedGroup | facts.MassesGroup, Gives: facts.LoadedGroup, Run: loadedMass,
			Figures: []figure.ID{figure.LoadedMass, figure.PayloadLeft},
		},
		{
			Name: "axles", Needs: facts.Bike | facts.WeighedGroup | facts.MassesGroup, Gives: facts.AxlesGroup, Run: axles,
			Figures: []figure.ID{figure.FrontLoad, figure.RearLoad, figure.AxleFront, figure.AxleRear},
		},
		{
			Name: "centre", Needs: facts.Bike | facts.WeighedGroup | facts.MassesGroup, Gives: facts.CentreGroup, Run: centre,
			Figures: []figure.ID{figure.CentreHeight},
		},
		{
			Name: "bags", Needs: facts.Bike | facts.InLoadout | facts.InCarrying, Gives: facts.BagsGroup, Run: bags,
			Figures: []figure.ID{figure.LeftRight, figure.RackLoad, figure.BagFullest},
		},
		{
			Name: "how it sits", Needs: facts.Bike | facts.InBrief | facts.InLoadout | facts.WeighedGroup | facts.MassesGroup | facts.AxlesGroup, Gives: facts.CarryingGroup, Run: carrying,
			Figures: []figure.ID{figure.ShippingMass, figure.StandingShare, figure.FrontShare, figure.CentreShift},
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "overweight", Class: cause.Fails, Cause: cause.Overload, Stage: figure.Load, Figures: []figure.ID{figure.LoadedMass}, Judge: overweight},
	{ID: "axle-overload", Class: cause.Fails, Cause: cause.Overload, Stage: figure.Load, Figures: []figure.ID{figure.AxleFront, figure.AxleRear}, Judge: axleOverload},
	{ID: "rack-overload", Class: cause.Ends, Cause: cause.Luggage, Free: true, Stage: figure.Load, Figures: []figure.ID{figure.RackLoad}, Judge: rackOverload},
	{ID: "bag-overload", Class: cause.Ends, Cause: cause.Luggage, Free: true, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagOverload},
	{ID: "bag-overfull", Class: cause.Rest, Cause: cause.Luggage, Free: true, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagOverfull},
	{ID: "bag-speed", Class: cause.Control, Cause: cause.Luggage, Free: true, Stage: figure.Load, Reads: facts.DriveGroup | facts.BagsGroup, Judge: bagSpeed},
	{ID: "sides-uneven", Class: cause.Control, Cause: cause.Luggage, Free: true, Stage: figure.Load, Reads: facts.BagsGroup, Figures: []figure.ID{figure.LeftRight}, Judge: sidesUneven},
	{ID: "front-light", Class: cause.Control, Cause: cause.Luggage, Free: true, Stage: figure.Load, Figures: []figure.ID{figure.FrontShare}, Judge: frontLight},
	{ID: "high-behind", Class: cause.Control, Cause: cause.Luggage, Free: true, Stage: figure.Load, Figures: []figure.ID{figure.RackLoad}, Judge: highBehind},
	{ID: "bag-not-there", Class: cause.Rest, Cause: cause.Luggage, Free: true, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagNotThere},
	{ID: "bags-by-the-pipe", Class: cause.Undone, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.Bike | facts.InCarrying | facts.InTags, Judge: bagsByThePipe},
	{ID: "hard-boxes-trap", Class: cause.StopsRider, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InBrief | facts.InCarrying, Judge: hardBoxesTrap},
	{ID: "rack-keeps-the-seat", Class: cause.Rest, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InCarrying, Judge: rackKeepsTheSeat},
	{ID: "rack-takes-the-pegs", Class: cause.Fails, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InLoadout | facts.InCarrying, Judge: rackTakesThePegs},
	{ID: "home-made-carrier", Class: cause.Rest, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InLines, Judge: homeMadeCarrier},
	{ID: "not-ridden-loaded", Class: cause.Ends, Cause: cause.Unproved, Free: true, Stage: figure.Load, Reads: facts.InLines | facts.InLog, Judge: notRiddenLoaded},
	{ID: "tail-lamp-hidden", Class: cause.Fails, Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InCarrying, Judge: tailLampHidden},
	{ID: "weigh-first", Class: cause.Control, Cause: cause.Overload, Free: true, Stage: figure.Load, Figures: byMass, Judge: weighFirst},
	{ID: "usual-masses", Class: cause.Rest, Cause: cause.Overload, Free: true, Stage: figure.Load, Reads: facts.MassesGroup, Figures: byMass, Judge: usualMasses},
	{ID: "load-takes", Class: cause.Control, Cause: cause.Overload, Stage: figure.Load, Reads: facts.Bike | facts.MassesGroup | facts.LoadedGroup, Judge: loadTakes},
	{ID: "too-heavy-to-ship", Class: cause.Fails, Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief | facts.CarryingGroup, Judge: tooHeavyToShip},
	{ID: "ships-too-late", Class: cause.Fails, Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief, Judge: shipsTooLate},
	{ID: "nowhere-to-tie", Class: cause.Undone, Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief, Judge: nowhereToTie},
}
