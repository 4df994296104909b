// Package load is what the bike weighs and where: totals, and axle loads by
// moments.
//
// Masses are in kg, places in mm forward of the rear axle; a place behind the
// axle is negative and lifts the front. The package knows nothing of plans.
package load

import "valiantmule/internal/core/sheet"

// An Item is a mass at a place; a removed part has a negative mass.
type Item struct {
	MassKg float64
	XMM    float64
	ZMM    float64 // above ground; only [Height] looks at it
}

// Axles are the loads under the wheels, kg.
type Axles struct{ FrontKg, RearKg float64 }

// TotalKg is the mass on both wheels.
func (a Axles) TotalKg() float64 { return a.FrontKg + a.RearKg }

// AxleFormula is the formula of [Add].
var AxleFormula = sheet.Formula{
	Text:   "front = front₀ + Σ m·x / wheelbase, rear = total − front",
	Origin: sheet.Computed,
}

// Add puts items on a bike that stands on kerb: moments about the rear axle.
func Add(kerb Axles, wheelbaseMM float64, items []Item) Axles {
	total, moment := kerb.TotalKg(), kerb.FrontKg*wheelbaseMM
	for _, it := range items {
		total += it.MassKg
		moment += it.MassKg * it.XMM
	}
	front := moment / wheelbaseMM
	return Axles{FrontKg: front, RearKg: total - front}
}

// CentreXMM is where the common centre stands, mm forward of the rear axle.
func CentreXMM(a Axles, wheelbaseMM float64) float64 { return wheelbaseMM * a.FrontKg / a.TotalKg() }

// HeightFormula is the formula of [Height].
var HeightFormula = sheet.Formula{Text: "h = (kerb × h₀ + Σ m·z) / total", Origin: sheet.Computed}

// Height of the common centre above ground, mm: a bike of kerbKg whose own
// centre is at kerbHeightMM, with items on it.
func Height(kerbKg, kerbHeightMM float64, items []Item) float64 {
	total, moment := kerbKg, kerbKg*kerbHeightMM
	for _, it := range items {
		total += it.MassKg
		moment += it.MassKg * it.ZMM
	}
	return moment / total
}

// Wheels is a weighing, kg: under each wheel, and on each side with the bike across.
type Wheels struct{ FrontKg, RearKg, LeftKg, RightKg float64 }
