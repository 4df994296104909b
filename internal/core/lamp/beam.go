package lamp

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Beam is a lamp, or a pair that points apart, as seen from above.
type Beam struct {
	Cd       float64 // of both together, in the middle of each
	AngleDeg float64 // full angle, over which it gives at least half of that; NaN for [UsualBeamDeg]
	OutDeg   float64 // that each of a pair points to its own side
	Turns    bool    // with the bars
	Looks    bool    // where its rider looks
}

// UsualBeamDeg is taken where nobody has said how wide a lamp shines: narrow, so that what
// is not known lights no bend [memory].
const UsualBeamDeg = 12.0

// ProfileFormula is the formula of [Beam.CdAt].
var ProfileFormula = sheet.Formula{Text: "I(θ) = I × cosᵐ θ, with m so that half is left at half the beam's angle", Origin: sheet.Published, Source: "beam angle by half intensity: IEC 60050-845; cosine-power model of a lamp"}

// CdAt is the intensity at an angle to the right of straight ahead, candela.
func (b Beam) CdAt(deg float64) float64 { return b.profile()(deg) }

// profile is CdAt for many angles: the exponent is worked out once.
func (b Beam) profile() func(deg float64) float64 {
	angle := b.AngleDeg
	if math.IsNaN(angle) {
		angle = UsualBeamDeg
	}
	m := cosinePower(angle)
	share := func(deg float64) float64 {
		if math.Abs(deg) >= 90 {
			return 0
		}
		return math.Pow(math.Cos(rad(deg)), m)
	}
	if b.OutDeg == 0 {
		return func(deg float64) float64 { return b.Cd * share(deg) }
	}
	return func(deg float64) float64 { return b.Cd / 2 * (share(deg-b.OutDeg) + share(deg+b.OutDeg)) }
}

// ReachM is how far lamps together light at an angle, m.
func ReachM(lamps []Beam, deg, lux float64) float64 {
	cd := 0.0
	for _, b := range lamps {
		cd += b.CdAt(deg)
	}
	return BeamM(cd, lux)
}

// BendFormula is the formula of [BendM].
var BendFormula = sheet.Formula{Text: "lit along the bend = 2 × R × β: a point so far along stands β to the side at 2 × R × sin β, and is lit while the lamps reach that far there", Origin: sheet.Computed}

// SteerDeg is how far the bars turn through a bend, degrees: arctan of wheelbase over radius,
// without slip or lean.
func SteerDeg(wheelbaseMM, radiusM float64) float64 {
	return math.Atan(wheelbaseMM/1000/radiusM) * 180 / math.Pi
}

// BendKmh is what a bend of a radius in m is ridden at, with so much of g sideways: √(share·g·R).
func BendKmh(radiusM, lateral float64) float64 {
	return 3.6 * math.Sqrt(lateral*unit.StandardGravity*radiusM)
}

// BendM is how much of a bend lies in the light, m along the road, from its radius in m;
// steerDeg is how far what turns with the bars points into it.
func BendM(lamps []Beam, radiusM, steerDeg, lux float64) float64 {
	profiles := make([]func(deg float64) float64, len(lamps))
	for i, b := range lamps {
		profiles[i] = b.profile()
	}
	lit := func(deg float64) bool {
		cd := 0.0
		for i, b := range lamps {
			at := deg
			switch {
			case b.Looks:
				at = 0
			case b.Turns:
				at -= steerDeg
			}
			cd += profiles[i](at)
		}
		chord := 2 * radiusM * math.Sin(rad(deg))
		return cd >= lux*chord*chord
	}
	const stride, halvings = 3.0, 10 // a lamp narrower than that is none
	low, high := 0.0, stride
	for high < 90 && lit(high) { // the first gap in the light ends it
		low, high = high, high+stride
	}
	for range halvings {
		if middle := (low + high) / 2; lit(middle) {
			low = middle
		} else {
			high = middle
		}
	}
	return 2 * radiusM * rad(low)
}

func rad(deg float64) float64 { return deg * math.Pi / 180 }
