package fit

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Shares of the stature, after Drillis and Contini (1966): hip to shoulder 0.288, upper
// arm 0.186, forearm 0.146; from the wrist to what a hand closes round 0.05 [memory].
const (
	torsoShare = 0.288
	upperShare = 0.186
	lowerShare = 0.146 + 0.05
	headShare  = 0.13 // shoulder to the middle of the head [memory]
	legShare   = 0.47 // inside leg [memory]
	elbowDeg   = 120  // a bent arm that still gives [memory]
	bentDeg    = 90   // an arm as it is bent at most for long [memory]
	standLeg   = 0.95 // of a leg that stands on the pegs with soft knees [memory]
)

// Body is a rider in segments, mm.
type Body struct {
	Thigh, Shank float64
	Torso        float64 // hip to shoulder
	Arm          float64 // shoulder to grip, elbow bent
	Bent         float64 // shoulder to grip, elbow bent as far as one rides for long
	Head         float64 // shoulder to the middle of the head
}

// BodyOf is a body by its stature and inside leg. Where nobody knows the stature it is the
// one that usually goes with such a leg.
func BodyOf(statureMM, inseamMM float64) Body {
	if math.IsNaN(statureMM) {
		statureMM = inseamMM / legShare
	}
	b := Body{Torso: torsoShare * statureMM, Head: headShare * statureMM}
	b.Thigh, b.Shank = Leg(inseamMM)
	upper, lower := upperShare*statureMM, lowerShare*statureMM
	reach := func(elbow float64) float64 {
		return math.Sqrt(upper*upper + lower*lower - 2*upper*lower*math.Cos(elbow*math.Pi/180))
	}
	b.Arm, b.Bent = reach(elbowDeg), reach(bentDeg)
	return b
}

// Place is a point of the side view, mm ahead of the rear axle and above ground.
type Place struct{ X, Z float64 }

// StandingHip is where the hip of a rider is who stands on the pegs: above them and half a
// boot behind [memory].
func (b Body) StandingHip(peg Place) Place {
	return Place{peg.X - 60, peg.Z + standLeg*(b.Thigh+b.Shank)}
}

// BackFormula is the formula of [Body.BackDeg].
var BackFormula = sheet.Formula{
	Text:   "back = 90° − atan(up / ahead) − acos((t² + d² − a²) / (2·t·d)), d from hip to grip, t and a torso and bent arm",
	Origin: sheet.Published, Source: "law of cosines; segments after Drillis and Contini (1966)",
}

// BackDeg is how far the back leans forward from upright, degrees, with the hands on the
// grips and the elbows bent; below zero it leans back.
func (b Body) BackDeg(hip, grip Place) float64 {
	d := math.Hypot(grip.X-hip.X, grip.Z-hip.Z)
	cos := (b.Torso*b.Torso + d*d - b.Arm*b.Arm) / (2 * b.Torso * d)
	opened := math.Acos(math.Max(-1, math.Min(1, cos)))
	return 90 - (math.Atan2(grip.Z-hip.Z, grip.X-hip.X)+opened)*180/math.Pi
}

// RiseToUprightMM is by how much the grips may rise until the back is upright with the elbows
// well bent, mm: the shoulder is then right above the hip, and such an arm away from the grip.
// 0 where it is upright already, +Inf where the grips are too far ahead for it, NaN where nobody
// knows. From there on it leans back.
func (b Body) RiseToUprightMM(hip, grip Place) float64 {
	ahead := grip.X - hip.X
	if ahead > b.Bent {
		return math.Inf(1)
	}
	return math.Max(0, hip.Z+b.Torso-math.Sqrt(b.Bent*b.Bent-ahead*ahead)-grip.Z)
}

// Shoulder is where a back that leans so far ends.
func (b Body) Shoulder(hip Place, backDeg float64) Place {
	sin, cos := math.Sincos(backDeg * math.Pi / 180)
	return Place{hip.X + b.Torso*sin, hip.Z + b.Torso*cos}
}

// Backs that riders hold for hours lean forward by no more than this, degrees [memory].
const (
	BackSeatedMost   = 25.0
	BackStandingMost = 40.0
)
