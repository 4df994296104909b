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
	AimDownDeg   = 0.72 // of a dipped beam: 1.25 in a hundred, 1.0 to 1.5 are usual; by law mostly 0.5 to 2.5 [memory]
	AimLeastDeg  = 0.29 // half in a hundred: nearer to level it dazzles whoever comes [memory]
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

// PeakFormula is the formula of [PeakCd].
var PeakFormula = sheet.Formula{Text: "I = 0.8 × (m + 1) × Φ / 2π, m = ln 0.5 / ln cos(half the beam's angle)", Origin: sheet.Published, Source: "cosine-power model of a lamp, beam angle by half intensity: IEC 60050-845; a fifth is lost in the lens [memory]"}

// lensShare of the light comes through a lens: 15 to 30 % are lost [memory].
const lensShare = 0.8

// PeakCd is the intensity in the middle of a beam, candela, from its lumens and the full angle
// over which it gives at least half of that. Without the angle lumens say nothing of a distance.
func PeakCd(lumens, beamDeg float64) float64 {
	return lensShare * (cosinePower(beamDeg) + 1) * lumens / (2 * math.Pi)
}

// cosinePower is the exponent of a beam that has half of its intensity left at half its angle.
func cosinePower(beamDeg float64) float64 {
	return math.Ln2 / -math.Log(math.Cos(rad(math.Min(beamDeg/2, 85)))) // wider ones all but the same ahead
}

// GripFormula is the formula of [Decel].
var GripFormula = sheet.Formula{Text: "a = the least of 3.4 m/s² and 0.7 × friction × g, or what the rider says of the friction", Origin: sheet.Memory, Source: "3.4 m/s²: AASHTO Green Book"}

// How hard one brakes by night for what comes into the light: the standard's figure, and of
// the grip no more than a share [memory].
const (
	designDecel = 3.4
	nightShare  = 0.7
)

// Decel is how hard one brakes by night on a ground, m/s²: by a share of its grip that the
// rider says, or where they say none, NaN or 0, by a cautious one.
func Decel(friction, share float64) float64 {
	if !(share > 0) {
		return math.Min(designDecel, nightShare*friction*unit.StandardGravity)
	}
	return share * friction * unit.StandardGravity
}

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
