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
	{ID: "overweight", Cause: cause.Overload, Stage: figure.Load, Figures: []figure.ID{figure.LoadedMass}, Judge: overweight},
	{ID: "axle-overload", Cause: cause.Overload, Stage: figure.Load, Figures: []figure.ID{figure.AxleFront, figure.AxleRear}, Judge: axleOverload},
	{ID: "rack-overload", Cause: cause.Luggage, Stage: figure.Load, Figures: []figure.ID{figure.RackLoad}, Judge: rackOverload},
	{ID: "bag-overload", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagOverload},
	{ID: "bag-overfull", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagOverfull},
	{ID: "bag-speed", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.DriveGroup | facts.BagsGroup, Judge: bagSpeed},
	{ID: "sides-uneven", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.BagsGroup, Figures: []figure.ID{figure.LeftRight}, Judge: sidesUneven},
	{ID: "front-light", Cause: cause.Luggage, Stage: figure.Load, Figures: []figure.ID{figure.FrontShare}, Judge: frontLight},
	{ID: "high-behind", Cause: cause.Luggage, Stage: figure.Load, Figures: []figure.ID{figure.RackLoad}, Judge: highBehind},
	{ID: "bag-not-there", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.BagsGroup, Judge: bagNotThere},
	{ID: "bags-by-the-pipe", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.Bike | facts.InCarrying | facts.InTags, Judge: bagsByThePipe},
	{ID: "hard-boxes-trap", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InBrief | facts.InCarrying, Judge: hardBoxesTrap},
	{ID: "rack-keeps-the-seat", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InCarrying, Judge: rackKeepsTheSeat},
	{ID: "rack-takes-the-pegs", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InLoadout | facts.InCarrying, Judge: rackTakesThePegs},
	{ID: "home-made-carrier", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InLines, Judge: homeMadeCarrier},
	{ID: "not-ridden-loaded", Cause: cause.Unproved, Stage: figure.Load, Reads: facts.InLines, Judge: notRiddenLoaded},
	{ID: "tail-lamp-hidden", Cause: cause.Luggage, Stage: figure.Load, Reads: facts.InCarrying, Judge: tailLampHidden},
	{ID: "weigh-first", Cause: cause.Overload, Stage: figure.Load, Figures: byMass, Judge: weighFirst},
	{ID: "usual-masses", Cause: cause.Overload, Stage: figure.Load, Reads: facts.MassesGroup, Figures: byMass, Judge: usualMasses},
	{ID: "load-takes", Cause: cause.Overload, Stage: figure.Load, Reads: facts.Bike | facts.MassesGroup | facts.LoadedGroup, Judge: loadTakes},
	{ID: "too-heavy-to-ship", Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief | facts.CarryingGroup, Judge: tooHeavyToShip},
	{ID: "ships-too-late", Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief, Judge: shipsTooLate},
	{ID: "nowhere-to-tie", Cause: cause.Shipping, Stage: figure.Load, Reads: facts.InBrief, Judge: nowhereToTie},
}
