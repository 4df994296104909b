// Package gearing is the study of sprockets and chain, and of what the engine pulls
// through them: walking pace, cruise, climbs, the chain in its slots, the
// speedometer.
package gearing

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the gearing.
var Study = study.Study{
	Name: "gearing",
	Steps: []study.Step{
		{
			Name: "gearing", Needs: facts.Bike | facts.InBrief | facts.InFigures | facts.WheelsGroup, Gives: facts.DriveGroup, Run: ratios,
			Figures: []figure.ID{figure.GearChange, figure.CruiseRPM, figure.CrawlSpeed},
		},
		{
			Name: "chain", Needs: facts.Bike | facts.InFigures | facts.DriveGroup, Gives: facts.ChainGroup, Run: chain,
			Figures: []figure.ID{figure.ChainLinks, figure.AxleShift},
		},
		{
			Name: "speedometer", Needs: facts.Bike | facts.InTags | facts.WheelsGroup | facts.DriveGroup, Gives: facts.SpeedoGroup, Run: display,
			Figures: []figure.ID{figure.Speedometer},
		},
		{
			Name: "pull", Needs: facts.Bike | facts.InBrief | facts.InFigures | facts.WheelsGroup | facts.LoadedGroup | facts.DragGroup, Gives: facts.CruiseGroup, Run: pull,
			Figures: []figure.ID{figure.CrawlPull, figure.TopSpeed, figure.HoldGear},
		},
		{
			Name: "climb", Needs: facts.Bike | facts.InBrief | facts.InWheels | facts.InFigures | facts.WheelsGroup | facts.LoadedGroup | facts.AxlesGroup | facts.CentreGroup,
			Gives: facts.ClimbGroup | facts.BalanceGroup, Run: climb,
			Figures: []figure.ID{figure.Climb},
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "tyre-moves-gearing", Class: cause.Control, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.WheelsGroup | facts.DriveGroup, Judge: tyreMovesGearing},
	{ID: "chain-length", Class: cause.Fails, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.ChainGroup, Judge: chainLength},
	{ID: "axle-position", Class: cause.Rest, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.ChainGroup, Judge: axlePosition},
	{ID: "chain-slider", Class: cause.Rest, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.Bike | facts.InTags | facts.DriveGroup, Judge: chainSlider},
	{ID: "small-front-sprocket", Class: cause.Rest, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.DriveGroup, Judge: smallFrontSprocket},
	{ID: "worn-together", Class: cause.Rest, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.Bike | facts.InLooked | facts.InWheels, Judge: wornTogether},
	{ID: "swap-slack", Class: cause.Control, Cause: cause.Gearing, Free: true, Stage: figure.Gearing, Reads: facts.Bike | facts.InLines | facts.InLoadout | facts.InLooked | facts.InFigures | facts.DriveGroup | facts.ChainGroup, Judge: swapSlack},
	{ID: "cruise-not-held", Class: cause.Rest, Cause: cause.Character, Stage: figure.Gearing, Reads: facts.CruiseGroup, Judge: cruiseNotHeld},
	{ID: "climb-short", Class: cause.Control, Cause: cause.Gearing, Stage: figure.Gearing, Reads: facts.ClimbGroup, Judge: climbShort("pull", "the front wheel")},
	{ID: "climb-spins", Class: cause.Control, Cause: cause.Grip, Stage: figure.Gearing, Reads: facts.ClimbGroup, Judge: climbShort("grip")},
	{ID: "carburettor-altitude", Class: cause.Rest, Cause: cause.Altitude, Stage: figure.Gearing, Reads: facts.Bike | facts.InBrief, Judge: carburettorAltitude},
	{ID: "speedometer", Class: cause.Rest, Cause: cause.Speedo, Stage: figure.Gearing, Reads: facts.Bike | facts.InTags | facts.SpeedoGroup, Judge: speedometer},
}
