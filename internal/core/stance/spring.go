// Package stance is how a bike stands: springs, sag, height, steering, the side stand.
//
// Masses are in kg, lengths in mm, spring rates in N/mm, angles in degrees. The
// motion ratio R is shock travel over wheel travel, the mean over the sag range:
// a linkage is not constant. Front travel and front sag are along the leg; their height
// is less by the cosine of the rake. The package knows nothing of plans.
package stance

import (
	"errors"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// SagFormula is the formula of [SagMM].
var SagFormula = sheet.Formula{Text: "s = (W / (k × R) − p) / R, held to 0…travel; W = m × g", Origin: sheet.Computed}

// SagMM is how far the wheel has travelled under the sprung mass that stands on
// it: s = (W/(k·R) − p)/R, p the spring's compression at full extension, held to
// 0 … travel.
func SagMM(massKg, springNmm, motionRatio, preloadMM, travelMM float64) float64 {
	sag := (massKg*unit.StandardGravity/(springNmm*motionRatio) - preloadMM) / motionRatio
	return min(max(sag, 0), travelMM)
}

// SpringFormula is the formula of [SpringNmm].
var SpringFormula = sheet.Formula{Text: "k = W / (R × (s × R + p))", Origin: sheet.Computed}

// ErrNoSpring says that no positive spring does it.
var ErrNoSpring = errors.New("sag and preload together are zero: no spring holds that")

// SpringNmm is the rate that gives a sag: [SagMM] solved for k.
func SpringNmm(massKg, motionRatio, preloadMM, sagMM float64) (float64, error) {
	compressed := sagMM*motionRatio + preloadMM
	if compressed <= 0 {
		return 0, ErrNoSpring
	}
	return massKg * unit.StandardGravity / (motionRatio * compressed), nil
}

// WheelRateFormula is the formula of [WheelRateNmm].
var WheelRateFormula = sheet.Formula{Text: "wheel rate = (W₂ − W₁) / (s₂ − s₁)", Origin: sheet.Computed}

// ErrSameSag says that two readings tell nothing of a rate.
var ErrSameSag = errors.New("more mass must give more sag: check both readings")

// WheelRateNmm is the rate at the wheel from two measurements with different
// masses on it.
func WheelRateNmm(mass1Kg, sag1MM, mass2Kg, sag2MM float64) (float64, error) {
	rate := (mass2Kg - mass1Kg) * unit.StandardGravity / (sag2MM - sag1MM)
	if sag1MM == sag2MM || !(rate > 0) {
		return 0, ErrSameSag
	}
	return rate, nil
}

// SpringOfRateFormula is the formula of [SpringOfRate].
var SpringOfRateFormula = sheet.Formula{Text: "k = wheel rate / R²", Origin: sheet.Computed}

// SpringOfRate is the spring behind a wheel rate: wheel rate = k·R².
func SpringOfRate(wheelRateNmm, motionRatio float64) float64 {
	return wheelRateNmm / (motionRatio * motionRatio)
}
