package tyre

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// loadExponent says how a tyre's load falls with its pressure. Texts give 0.65
// to 0.8; the higher one asks for more pressure and so is the cautious one
// [memory].
const loadExponent = 0.8

// LoadFloorFormula is the formula of [LoadFloorKPa].
var LoadFloorFormula = sheet.Formula{Text: "p = p_ref × (load / rated load)^(1 / 0.8)", Origin: sheet.Memory}

// LoadFloorKPa is the pressure at which a tyre still carries a load, when it
// carries its rated load at refKPa.
func LoadFloorKPa(refKPa, loadKg, ratedKg float64) float64 {
	return refKPa * math.Pow(loadKg/ratedKg, 1/loadExponent)
}

// SlowShare is the share of [LoadFloorKPa] that does where a tyre is ridden at SlowKmh
// and less, since it carries about 30 % more there: 1.3^(−1/0.8) [UN R75's table of
// loads by speed, from memory].
const (
	SlowShare = 0.72
	SlowKmh   = 50.0
)

// SlowLoadFormula says what SlowShare does.
var SlowLoadFormula = sheet.Formula{Text: "0.72 × p, ridden at 50 km/h and less", Origin: sheet.Memory, Source: "UN R75, loads by speed"}

// CarriesKg is the load that a tyre carries at atKPa, when it carries its rated
// load at refKPa: [LoadFloorKPa] turned round. More air than that carries no
// more.
func CarriesKg(refKPa, atKPa, ratedKg float64) float64 {
	return ratedKg * math.Pow(min(atKPa/refKPa, 1), loadExponent)
}

// Shape is a tyre as the ground meets it, mm.
type Shape struct {
	DiameterMM, WidthMM float64
	HeightMM            float64 // of the section
}

// Rock is the radius of the stone that a card's pinch floor is made for, mm: a
// fist with its knuckles up [memory].
const Rock = 60.0

// CarcassKPa is what an average carcass carries, as pressure in it would [memory]. A
// stiff one carries more.
const CarcassKPa = 35.0

// SinkMM is how deep a stone of radius r reaches into a tyre that stands on it
// with loadKg: the contact is an ellipse of area 2πs√(R₁R₂) that air and carcass carry,
// 1/R₁ = 2/D + 1/r, 1/R₂ = 2/w + 1/r. An infinite radius is flat ground.
func (t Shape) SinkMM(loadKg, kPa, rockMM float64) float64 {
	return loadKg * unit.StandardGravity / ((kPa + CarcassKPa) / 1000 * t.spread(rockMM))
}

// spread is the contact area per depth, mm.
func (t Shape) spread(rockMM float64) float64 {
	along, across := 1/(2/t.DiameterMM+1/rockMM), 1/(2/t.WidthMM+1/rockMM)
	return 2 * math.Pi * math.Sqrt(along*across)
}

// Patch is the length and width of the contact on flat ground, mm.
func (t Shape) Patch(loadKg, kPa float64) (length, width float64) {
	sink := t.SinkMM(loadKg, kPa, math.Inf(1))
	return 2 * math.Sqrt(t.DiameterMM*sink), min(2*math.Sqrt(t.WidthMM*sink), t.WidthMM)
}

// stackMM is tread, carcass and rim flange: what is left of the section's height
// when the tyre is pressed flat on its rim [memory].
const stackMM = 25.0

// RoomMM is how deep a stone may reach before tread meets rim.
func (t Shape) RoomMM() float64 { return t.HeightMM - stackMM }

// PinchFormula is the formula of [Shape.PinchFloorKPa].
var PinchFormula = sheet.Formula{
	Text:   "p = (hit × F / (2π√(R₁R₂) × room to the rim) − 35 kPa of the carcass) × share of the filling",
	Origin: sheet.Memory,
}

// PinchFloorKPa is the pressure below which a stone reaches the rim when the
// wheel hits it with hit times its standing load.
func (t Shape) PinchFloorKPa(loadKg, hit, rockMM float64, f Filling) float64 {
	if t.RoomMM() <= 0 {
		return math.NaN()
	}
	carried := 1000 * hit * loadKg * unit.StandardGravity / (t.spread(rockMM) * t.RoomMM())
	return max(0, carried-CarcassKPa) * PinchShare(f)
}

// HitFactor is how many times its standing load a wheel brings onto a stone, by
// the ground's puncture hazard of 0 to 5, at its typical speed [memory].
func HitFactor(hazard float64) float64 { return 1 + 0.2*hazard }

// SoftKPa is the pressure below which a tyre turns on its rim or leaves it: a
// tube's valve is torn out without a rim lock, a tubeless bead lets go
// [practice].
const (
	SoftKPa         = 120.0
	SoftTubelessKPa = 130.0
)
