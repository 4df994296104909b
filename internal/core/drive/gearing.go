// Package drive is everything between crankshaft and ground: gearing, chain,
// road speed.
//
// Teeth are whole numbers; ratios are plain; lengths are mm; engine speed is in
// rpm and road speed in km/h. The tyre enters as its rolling circumference. The
// package knows nothing of parts or plans.
package drive

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Pair is a front (engine) and a rear (wheel) sprocket.
type Pair struct{ Front, Rear int }

// Ratio of the final drive, rear over front; NaN while a count is missing.
func (p Pair) Ratio() float64 {
	if p.Front == 0 || p.Rear == 0 {
		return math.NaN()
	}
	return float64(p.Rear) / float64(p.Front)
}

// OverallFormula is the formula of [Overall].
var OverallFormula = sheet.Formula{Text: "overall = primary × gear × rear / front", Origin: sheet.Computed}

// Overall ratio, crankshaft turns per wheel turn = primary × gear × final.
func Overall(primary, gear, final float64) float64 { return primary * gear * final }

// SpeedFormula is the formula of [SpeedKmh].
var SpeedFormula = sheet.Formula{Text: "v = n × 60 × C / (1 000 × overall)", Origin: sheet.Computed}

// SpeedKmh = rpm × 60 × C / (1000 × overall), C in m: the road speed with the
// clutch home and no slip.
func SpeedKmh(rpm, overall, circumferenceMM float64) float64 {
	return rpm * 60 * circumferenceMM / 1000 / (1000 * overall)
}

// RPMFormula is the formula of [RPM].
var RPMFormula = sheet.Formula{Text: "n = v × 1 000 × overall / (60 × C)", Origin: sheet.Computed}

// RPM is SpeedKmh turned round.
func RPM(speedKmh, overall, circumferenceMM float64) float64 {
	return speedKmh * 1000 * overall / (60 * circumferenceMM / 1000)
}

// ChangeFormula is the formula of [ChangePercent].
var ChangeFormula = sheet.Formula{Text: "change = ((r/f) / (r₀/f₀) × C₀/C − 1) × 100", Origin: sheet.Computed}

// ChangePercent is how much shorter (+) or taller (−) the gearing is than
// standard, the tyre included: more rpm at the same speed, or fewer.
func ChangePercent(final, stockFinal, circumferenceMM, stockCircumferenceMM float64) float64 {
	return (final/stockFinal*stockCircumferenceMM/circumferenceMM - 1) * 100
}

// RearForFront is how many rear teeth more do what one front tooth fewer does:
// r/(f−1). On real bikes 2.7 to 4.
func RearForFront(p Pair) float64 { return float64(p.Rear) / float64(p.Front-1) }

// RearTeethFor is the number of rear teeth, not rounded, that brings the gearing
// to changePercent against standard with the given front sprocket and tyre.
func RearTeethFor(changePercent float64, front int, stock Pair, circumferenceMM, stockCircumferenceMM float64) float64 {
	return (1 + changePercent/100) * stock.Ratio() * float64(front) * circumferenceMM / stockCircumferenceMM
}
