// Package fit is where the rider touches the bike: how a knee bends between seat
// and peg, how high grips should stand for a rider on the pegs, and what bars may
// rise before a cable is tight.
//
// Lengths are in mm, angles in degrees. The package knows nothing of plans.
package fit

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Shares of the inside leg. Body segments over body height after R. Drillis and
// R. Contini, Body Segment Parameters (1966): thigh 0.245, shank 0.246; crotch
// height 0.47 of it [memory].
const (
	thighShare = 0.245 / 0.47
	shankShare = 0.246 / 0.47
)

// Forward is how far in front of the hip a rider's foot rests on an upright bike, mm
// [memory]; sporty ones have it below the hip.
const Forward = 180.0

// Leg is a rider's thigh and shank, mm.
func Leg(inseamMM float64) (thigh, shank float64) {
	return thighShare * inseamMM, shankShare * inseamMM
}

// KneeFormula is the formula of [KneeDegrees].
var KneeFormula = sheet.Formula{
	Text:   "cos knee = (t² + s² − d²) / (2·t·s), t and s the thigh and shank of the leg, d hip to foot",
	Origin: sheet.Published, Source: "law of cosines; segments after Drillis and Contini (1966)",
}

// KneeDegrees is the angle of a knee on a seat so far above the pegs and so far behind them,
// rider seated.
func KneeDegrees(inseamMM, seatOverPegMM, pegAheadMM float64) float64 {
	t, s := Leg(inseamMM)
	d := math.Min(math.Hypot(seatOverPegMM, pegAheadMM), t+s)
	return math.Acos(math.Max(-1, (t*t+s*s-d*d)/(2*t*s))) * 180 / math.Pi
}

// KneeLeast is the angle, degrees, below which riders ask for more room for the knee
// [memory].
const KneeLeast = 68.0

// StandFormula is the formula of [GripOverPegMM].
var StandFormula = sheet.Formula{Text: "grips above the pegs = 400 mm + 0.5 × the inside leg, ± 40 mm by taste", Origin: sheet.Memory, Source: "a segment model: feet under the mass, trunk 35° forward, elbows at 140 to 155°"}

// GripOverPegMM is how high above the pegs the grips should stand for a rider who
// stands with a straight back, feet under the mass.
func GripOverPegMM(inseamMM float64) float64 { return 400 + 0.5*inseamMM }

// StandMostMM is as much as bars are raised to stand, mm: above it they are too high to sit
// behind. LowerMostMM is what lower pegs then still do; beyond both it does not fit [practice].
const (
	StandMostMM = 50.0
	LowerMostMM = 25.0
)

// StandTaste is how far off that riders still like it, mm [memory].
const StandTaste = 40.0

// CableShortMM is by how much cables and hoses are too short at full lock when the
// bars rise; 0 when they are long enough.
func CableShortMM(riseMM, slackMM float64) float64 { return math.Max(0, riseMM-slackMM) }

// UsualSlackMM is what standard cables allow on most bikes: risers of 20 to 30 mm
// go on without new ones [practice].
const UsualSlackMM = 25.0

// StandShare of the time on loose ground is ridden on the pegs [memory].
const StandShare = 0.5
