package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// TrailFormula is the formula of [TrailMM].
var TrailFormula = sheet.Formula{Text: "trail = (R × sin ε − offset) / cos ε, R half the front diameter", Origin: sheet.Computed}

// TrailMM is how far the contact point trails the steering axis, measured on the
// ground: t = (R·sin ε − o)/cos ε, ε from the vertical.
func TrailMM(rakeDeg, offsetMM, frontDiameterMM float64) float64 {
	sin, cos := math.Sincos(rakeDeg * math.Pi / 180)
	return (frontDiameterMM/2*sin - offsetMM) / cos
}

// RakeFormula is the formula of [RakeDeg].
var RakeFormula = sheet.Formula{Text: "rake = rake₀ − atan((raise_rear − raise_front) / wheelbase)", Origin: sheet.Computed}

// RakeDeg after raising the axles' ends of the frame: raising the rear against
// the front makes the steering head steeper.
func RakeDeg(rakeDeg, wheelbaseMM, raiseFrontMM, raiseRearMM float64) float64 {
	return rakeDeg - math.Atan((raiseRearMM-raiseFrontMM)/wheelbaseMM)*180/math.Pi
}
