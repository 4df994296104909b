// Package air is the standard atmosphere, for what altitude does to an engine
// and to drag.
package air

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// The standard atmosphere's troposphere [pub: ISO 2533:1975, table of constants].
const (
	SeaLevel            = 1.225     // its density there, kg/m³
	seaLevelTemperature = 288.15    // K
	lapse               = 0.0065    // K/m
	gasConstant         = 287.05287 // J/(kg·K)
)

// DensityFormula is the formula of [Density].
var DensityFormula = sheet.Formula{
	Text:   "ρ = 1.225 × (1 − 0.0065 h / 288.15)^4.2559",
	Origin: sheet.Published, Source: "ISO 2533:1975",
}

// Density of the standard atmosphere in kg/m³ at an altitude in metres, up to
// 11 000 m.
func Density(altitudeM float64) float64 {
	const power = unit.StandardGravity/(gasConstant*lapse) - 1
	// A power by its logarithm: a route asks for hundreds, and math.Pow takes twice as long.
	return SeaLevel * math.Exp(power*math.Log1p(-lapse*altitudeM/seaLevelTemperature))
}

// PowerFormula is the formula of [PowerPercent].
var PowerFormula = sheet.Formula{Text: "power = 100 × ρ / ρ₀", Origin: sheet.Practice}

// PowerPercent is what is left of an unboosted engine's power: it falls about
// with density. A carburettor that is not re-jetted may lose more.
func PowerPercent(density float64) float64 { return 100 * density / SeaLevel }
