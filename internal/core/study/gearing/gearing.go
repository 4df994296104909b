// Package gearing is the study of sprockets and chain, and of what the engine pulls
// through them: walking pace, cruise, climbs, the chain in its slots, the
// speedometer.
package gearing

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the gearing.
var Study = study.Study{
	Name: "gearing",
	Steps: []study.Step{
		{
			Name: "gearing", Needs: facts.Bike | facts.WheelsGroup, Gives: facts.DriveGroup, Run: ratios,
			Figures: []figure.ID{figure.GearChange, figure.CruiseRPM, figure.CrawlSpeed},
		},
		{
			Name: "chain", Needs: facts.Bike | facts.DriveGroup, Gives: facts.ChainGroup, Run: chain,
			Figures: []figure.ID{figure.ChainLinks, figure.AxleShift},
		},
		{
			Name: "speedometer", Needs: facts.Bike | facts.WheelsGroup | facts.DriveGroup, Gives: facts.SpeedoGroup, Run: display,
			Figures: []figure.ID{figure.Speedometer},
		},
		{
			Name: "pull", Needs: facts.Bike | facts.WheelsGroup | facts.LoadedGroup | facts.DragGroup, Gives: facts.CruiseGroup, Run: pull,
			Figures: []figure.ID{figure.CrawlPull, figure.TopSpeed, figure.HoldGear},
		},
		{
			Name: "climb", Needs: facts.Bike | facts.WheelsGroup | facts.LoadedGroup | facts.AxlesGroup | facts.CentreGroup,
			Gives: facts.ClimbGroup | facts.BalanceGroup, Run: climb,
			Figures: []figure.ID{figure.Climb},
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "tyre-moves-gearing", Stage: figure.Gearing, Judge: tyreMovesGearing},
	{ID: "chain-length", Stage: figure.Gearing, Judge: chainLength},
	{ID: "axle-position", Stage: figure.Gearing, Judge: axlePosition},
	{ID: "chain-slider", Stage: figure.Gearing, Judge: chainSlider},
	{ID: "small-front-sprocket", Stage: figure.Gearing, Judge: smallFrontSprocket},
	{ID: "worn-together", Stage: figure.Gearing, Judge: wornTogether},
	{ID: "swap-slack", Stage: figure.Gearing, Judge: swapSlack},
	{ID: "cruise-not-held", Stage: figure.Gearing, Judge: cruiseNotHeld},
	{ID: "climb-short", Stage: figure.Gearing, Judge: climbShort},
	{ID: "carburettor-altitude", Stage: figure.Gearing, Judge: carburettorAltitude},
	{ID: "speedometer", Stage: figure.Gearing, Judge: speedometer},
}
