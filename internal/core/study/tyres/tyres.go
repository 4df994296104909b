// Package tyres is the study of tyres, of what is in them, and of the wheels under
// them: how they roll, what they carry, how long they last, what they are pumped
// up to.
package tyres

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study"
)

// Study of tyres.
var Study = study.Study{
	Name: "tyres",
	Steps: []study.Step{
		{
			Name: "roll-outs", Needs: facts.Bike | facts.InWheels, Gives: facts.WheelsGroup, Run: rollOuts,
			Figures: []figure.ID{figure.FrontCircumference, figure.RearCircumference, figure.WheelMix},
		},
		{
			Name: "tyre load", Needs: facts.Bike | facts.InWheels | facts.MassesGroup | facts.AxlesGroup, Gives: facts.TyreLoadGroup, Run: tyreLoad,
			Figures: []figure.ID{figure.TyreLoad},
		},
		{
			Name: "tyre life", Needs: facts.Bike | facts.InBrief | facts.InLines | facts.InLooked | facts.InTime | facts.InWheels | facts.LoadedGroup | facts.JourneyGroup, Gives: facts.LivesGroup, Run: lives,
			Figures: []figure.ID{figure.TyreLife, figure.RearLife, figure.FrontLife, figure.TyreCost},
		},
		{
			Name: "pressures", Needs: facts.Bike | facts.InBrief | facts.InLoadout | facts.InWheels | facts.MassesGroup | facts.AxlesGroup, Gives: facts.PressuresGroup, Run: pressures,
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "tyres-for-the-ground", Name: "Tyres for the ground", Stage: figure.Tyres, Reads: facts.Bike | facts.InBrief | facts.InWheels, Ask: tyresForTheGround},
		{ID: "mend-a-flat", Name: "Something to mend a flat", Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels, Ask: mendAFlat},
	},
}

var rules = []study.Rule{
	{ID: "tyre-overload", Class: cause.Fails, Cause: cause.Overload, Stage: figure.Tyres, Reads: facts.TyreLoadGroup, Figures: []figure.ID{figure.TyreLoad}, Judge: tyreOverload},
	{ID: "front-tyre-rim", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: of(rimMismatch, parts.FrontTyre)},
	{ID: "rear-tyre-rim", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: of(rimMismatch, parts.RearTyre)},
	{ID: "rear-tyre-clearance", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.WheelsGroup | facts.ChainGroup, Judge: rearClearance},
	{ID: "front-tyre-speed", Class: cause.Control, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.DriveGroup, Figures: []figure.ID{figure.TopSpeed}, Judge: of(speedSymbol, parts.FrontTyre)},
	{ID: "rear-tyre-speed", Class: cause.Control, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.DriveGroup, Figures: []figure.ID{figure.TopSpeed}, Judge: of(speedSymbol, parts.RearTyre)},
	{ID: "rear-tyre-in-front", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.InWheels, Judge: rearInFront},
	{ID: "front-rim-width", Class: cause.Control, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: of(rimWidth, parts.FrontTyre)},
	{ID: "rear-rim-width", Class: cause.Control, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: of(rimWidth, parts.RearTyre)},
	{ID: "front-rear-mix", Class: cause.Control, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.WheelsGroup, Judge: frontRearMix},
	{ID: "tyre-against-ground", Class: cause.Control, Cause: cause.Grip, Need: "tyres-for-the-ground", Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels, Judge: of(againstGround, parts.RearTyre)},
	{ID: "front-tyre-against-ground", Class: cause.Control, Cause: cause.Grip, Need: "tyres-for-the-ground", Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels, Judge: of(againstGround, parts.FrontTyre)},
	{ID: "front-wet-grip", Class: cause.Control, Cause: cause.Grip, Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels, Judge: of(wetGrip, parts.FrontTyre)},
	{ID: "rear-wet-grip", Class: cause.Control, Cause: cause.Grip, Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels, Judge: of(wetGrip, parts.RearTyre)},
	{ID: "ends-unlike", Class: cause.Control, Cause: cause.Grip, Stage: figure.Tyres, Reads: facts.InWheels, Judge: endsUnlike},
	{ID: "front-tyre-clearance", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.WheelsGroup, Judge: frontClearance},
	{ID: "holds-no-air", Class: cause.Ends, Cause: cause.Flats, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: holdsNoAir},
	{ID: "taped-rim", Class: cause.Ends, Cause: cause.Flats, Stage: figure.Tyres, Reads: facts.InWheels, Judge: tapedRim},
	{ID: "filling-size", Class: cause.Ends, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: fillingSize},
	{ID: "rim-lock-fit", Class: cause.Ends, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: rimLockFit},
	{ID: "foam-speed", Class: cause.Ends, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.InBrief | facts.InWheels | facts.DriveGroup, Judge: foamSpeed},
	{ID: "ultra-tube-speed", Class: cause.Ends, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.InWheels | facts.DriveGroup, Judge: ultraTubeSpeed},
	{ID: "wheel-balance", Class: cause.Control, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.InTags, Judge: wheelBalance},
	{ID: "unsprung-mass", Class: cause.Control, Cause: cause.Inside, Stage: figure.Tyres, Reads: facts.MassesGroup, Judge: unsprungMass},
	{ID: "pressure-load", Class: cause.Fails, Cause: cause.Pressuring, Free: true, Pulls: cause.More(cause.Pressure), Stage: figure.Tyres, Reads: facts.PressuresGroup, Judge: pressureLoad},
	{ID: "pressure-maker", Class: cause.Fails, Cause: cause.Pressuring, Free: true, Pulls: cause.More(cause.Pressure), Stage: figure.Tyres, Reads: facts.PressuresGroup, Judge: pressureMaker},
	{ID: "pressure-pinch", Class: cause.Ends, Cause: cause.Flats, Free: true, Pulls: cause.More(cause.Pressure), Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.PressuresGroup, Judge: pressurePinch},
	{ID: "pressure-soft", Class: cause.Ends, Cause: cause.Pressuring, Free: true, Pulls: cause.More(cause.Pressure), Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels | facts.PressuresGroup, Judge: pressureSoft},
	{ID: "pressure-road", Class: cause.Control, Cause: cause.Pressuring, Free: true, Pulls: cause.More(cause.Pressure), Stage: figure.Tyres, Reads: facts.PressuresGroup, Judge: pressureRoad},
	{ID: "pressure-hard", Class: cause.Control, Cause: cause.Pressuring, Free: true, Pulls: cause.Less(cause.Pressure), Stage: figure.Tyres, Reads: facts.InBrief | facts.PressuresGroup, Judge: pressureHard},
	{ID: "tyre-tools", Class: cause.Ends, Cause: cause.Flats, Need: "mend-a-flat", Stage: figure.Tyres, Reads: facts.Bike | facts.InBrief | facts.InWheels | facts.InTags, Judge: tyreTools},
	{ID: "cast-on-rock", Class: cause.Ends, Cause: cause.Breakage, Stage: figure.Tyres, Reads: facts.Bike | facts.InBrief | facts.InWheels, Judge: castOnRock},
	{ID: "other-wheels", Class: cause.Fails, Cause: cause.TyreFit, Stage: figure.Tyres, Reads: facts.Bike | facts.InWheels, Judge: otherWheels},
}

// of is a rule of one of the two tyres.
func of(judge func(*facts.All, parts.Slot) (study.Finding, bool), tyre parts.Slot) func(*facts.All) (study.Finding, bool) {
	return func(f *facts.All) (study.Finding, bool) { return judge(f, tyre) }
}
