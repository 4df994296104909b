// Package lamp is how far one sees and how far one needs to stop.
//
// Speeds are in km/h, distances in m, decelerations in m/s². The figures are
// arithmetic, not permission to ride that fast.
package lamp

import (
	"math"

	"valiantmule/internal/core/sheet"
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
