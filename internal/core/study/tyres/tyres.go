// Package tyres is the study of tyres, of what is in them, and of the wheels under
// them: how they roll, what they carry, how long they last, what they are pumped
// up to.
package tyres

import (
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
			Name: "roll-outs", Needs: facts.Bike, Gives: facts.WheelsGroup, Run: rollOuts,
			Figures: []figure.ID{figure.FrontCircumference, figure.RearCircumference, figure.WheelMix},
		},
		{
			Name: "tyre load", Needs: facts.Bike | facts.AxlesGroup, Gives: facts.TyreLoadGroup, Run: tyreLoad,
			Figures: []figure.ID{figure.TyreLoad},
		},
		{
			Name: "tyre life", Needs: facts.Bike | facts.LoadedGroup, Run: lives,
			Figures: []figure.ID{figure.TyreLife, figure.RearLife, figure.FrontLife, figure.TyreCost},
		},
		{
			Name: "pressures", Needs: facts.Bike | facts.AxlesGroup | facts.MassesGroup, Gives: facts.PressuresGroup, Run: pressures,
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "tyres-for-the-ground", Name: "Tyres for the ground", Stage: figure.Tyres, Ask: tyresForTheGround},
		{ID: "mend-a-flat", Name: "Something to mend a flat", Stage: figure.Tyres, Ask: mendAFlat},
	},
}

var rules = []study.Rule{
	{ID: "tyre-overload", Stage: figure.Tyres, Judge: tyreOverload},
	{ID: "front-tyre-rim", Stage: figure.Tyres, Judge: of(rimMismatch, parts.FrontTyre)},
	{ID: "rear-tyre-rim", Stage: figure.Tyres, Judge: of(rimMismatch, parts.RearTyre)},
	{ID: "rear-tyre-clearance", Stage: figure.Tyres, Judge: rearClearance},
	{ID: "front-tyre-speed", Stage: figure.Tyres, Judge: of(speedSymbol, parts.FrontTyre)},
	{ID: "rear-tyre-speed", Stage: figure.Tyres, Judge: of(speedSymbol, parts.RearTyre)},
	{ID: "rear-tyre-in-front", Stage: figure.Tyres, Judge: rearInFront},
	{ID: "front-rim-width", Stage: figure.Tyres, Judge: of(rimWidth, parts.FrontTyre)},
	{ID: "rear-rim-width", Stage: figure.Tyres, Judge: of(rimWidth, parts.RearTyre)},
	{ID: "front-rear-mix", Stage: figure.Tyres, Judge: frontRearMix},
	{ID: "tyre-against-ground", Stage: figure.Tyres, Judge: of(againstGround, parts.RearTyre)},
	{ID: "front-tyre-against-ground", Stage: figure.Tyres, Judge: of(againstGround, parts.FrontTyre)},
	{ID: "front-wet-grip", Stage: figure.Tyres, Judge: of(wetGrip, parts.FrontTyre)},
	{ID: "rear-wet-grip", Stage: figure.Tyres, Judge: of(wetGrip, parts.RearTyre)},
	{ID: "ends-unlike", Stage: figure.Tyres, Judge: endsUnlike},
	{ID: "front-tyre-clearance", Stage: figure.Tyres, Judge: frontClearance},
	{ID: "holds-no-air", Stage: figure.Tyres, Judge: holdsNoAir},
	{ID: "taped-rim", Stage: figure.Tyres, Judge: tapedRim},
	{ID: "filling-size", Stage: figure.Tyres, Judge: fillingSize},
	{ID: "rim-lock-fit", Stage: figure.Tyres, Judge: rimLockFit},
	{ID: "foam-speed", Stage: figure.Tyres, Judge: foamSpeed},
	{ID: "ultra-tube-speed", Stage: figure.Tyres, Judge: ultraTubeSpeed},
	{ID: "wheel-balance", Stage: figure.Tyres, Judge: wheelBalance},
	{ID: "unsprung-mass", Stage: figure.Tyres, Judge: unsprungMass},
	{ID: "pressure-load", Stage: figure.Tyres, Judge: pressureLoad},
	{ID: "pressure-maker", Stage: figure.Tyres, Judge: pressureMaker},
	{ID: "pressure-pinch", Stage: figure.Tyres, Judge: pressurePinch},
	{ID: "pressure-soft", Stage: figure.Tyres, Judge: pressureSoft},
	{ID: "pressure-road", Stage: figure.Tyres, Judge: pressureRoad},
	{ID: "pressure-hard", Stage: figure.Tyres, Judge: pressureHard},
	{ID: "tyre-tools", Stage: figure.Tyres, Judge: tyreTools},
	{ID: "cast-on-rock", Stage: figure.Tyres, Judge: castOnRock},
	{ID: "other-wheels", Stage: figure.Tyres, Judge: otherWheels},
}

// of is a rule of one of the two tyres.
func of(judge func(*facts.All, parts.Slot) (study.Finding, bool), tyre parts.Slot) func(*facts.All) (study.Finding, bool) {
	return func(f *facts.All) (study.Finding, bool) { return judge(f, tyre) }
}
