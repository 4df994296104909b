package fit

import "math"

// Where pegs and grips are from the side, mm ahead of the rear axle, on most bikes with an
// upright rider [memory]: nobody's data sheet has them.

// HipXMM is where the hip of a rider is who sits as is usual on a wheelbase.
func HipXMM(wheelbaseMM float64) float64 { return 0.37*wheelbaseMM + 65 - Forward }

// GripXMM is where the grips are: behind the steering axis at the height of the bar.
func GripXMM(wheelbaseMM, frontRadiusMM, rakeDeg, offsetMM, barMM float64) float64 {
	sin, cos := math.Sincos(rakeDeg * math.Pi / 180)
	axis := wheelbaseMM - offsetMM*cos - (barMM-frontRadiusMM+offsetMM*sin)*sin/cos
	const behind = 70
	return axis - behind
}
