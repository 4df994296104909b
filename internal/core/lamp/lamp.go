// Package lamp is how far one sees and how far one needs to stop.
//
// Speeds are in km/h, distances in m, decelerations in m/s². The figures are
// arithmetic, not permission to ride that fast.
package lamp

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// What is taken where nobody has said.
const (
	Lux          = 3.0  // on the ground, to see what lies there: 1 optimistic, 5 cautious [memory]
	ReactionS    = 2.5  // that roads are designed for [pub: AASHTO Green Book]
	AimDownDeg   = 0.57 // of a dipped beam: one in a hundred [practice]
	HeightOfSeat = 1.05 // of the seat's height, that a headlamp sits above ground [memory]
)

// StopFormula is the formula of [Reaction] and [Braking].
var StopFormula = sheet.Formula{Text: "total = v × t + v² / (2 × a), v in m/s", Origin: sheet.Published, Source: "AASHTO Green Book, stopping sight distance"}

// Reaction is the distance ridden before the brakes bite, m: v·t.
func Reaction(speedKmh, reactionS float64) float64 { return speedKmh / 3.6 * reactionS }

// Braking is the distance from there to standing, m: v²/2a.
func Braking(speedKmh, decelMS2 float64) float64 {
	v := speedKmh / 3.6
	return v * v / (2 * decelMS2)
}

// BeamFormula is the formula of [BeamM].
var BeamFormula = sheet.Formula{Text: "range = √(intensity / illuminance)", Origin: sheet.Published, Source: "inverse-square law of illuminance, CIE S 017"}

// BeamM is how far an intensity in candela gives an illuminance in lux: √(I/E).
// A dipped beam ends at its cut-off before that.
func BeamM(candela, lux float64) float64 { return math.Sqrt(candela / lux) }

// OutrunFormula is the formula of [OutrunKmh].
var OutrunFormula = sheet.Formula{Text: "v = −a × t + √((a × t)² + 2 × a × range)", Origin: sheet.Computed}

// OutrunKmh is the speed at which stopping just fits into a sight distance: the
// stopping distance solved for v.
func OutrunKmh(sightM, reactionS, decelMS2 float64) float64 {
	at := decelMS2 * reactionS
	return 3.6 * (math.Sqrt(at*at+2*decelMS2*sightM) - at)
}

// ConeFormula is the formula of [ConeCd].
var ConeFormula = sheet.Formula{Text: "I = Φ / Ω, Ω = 2·π·(1 − cos(half the beam's angle))", Origin: sheet.Published, Source: "definition of the candela; solid angle of a cone"}

// ConeCd is the mean intensity of a beam, candela, whose lumens fill a cone of a full angle.
// Without the angle lumens say nothing of a distance.
func ConeCd(lumens, beamDeg float64) float64 {
	return lumens / (2 * math.Pi * (1 - math.Cos(beamDeg*math.Pi/360)))
}

// GripFormula is the formula of [Decel].
var GripFormula = sheet.Formula{Text: "a = friction × g", Origin: sheet.Memory}

// Decel is how hard one brakes on a ground, m/s².
func Decel(friction float64) float64 { return friction * unit.StandardGravity }

// CutoffFormula is the formula of [CutoffM].
var CutoffFormula = sheet.Formula{Text: "reach = height / tan(aim below level − how far the load tips the beam up)", Origin: sheet.Computed}

// CutoffM is where a dipped beam meets the ground, m, from a lamp so many mm above it that
// points so far below level; +Inf for one at or above level, which dazzles.
func CutoffM(heightMM, downDeg float64) float64 {
	if downDeg <= 0 {
		return math.Inf(1)
	}
	return heightMM / 1000 / math.Tan(downDeg*math.Pi/180)
}
