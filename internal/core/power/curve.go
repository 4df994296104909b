package power

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Curve is what an alternator gives by engine speed: so much at idle, rising evenly to its
// rating at the rated speed, and no more above. A higher engine speed never gives less.
type Curve struct{ IdleW, RatedW, IdleRPM, RatedRPM float64 }

// SupplyFormula is the formula of [Curve.W].
var SupplyFormula = sheet.Formula{Text: "supply = rating × (0.35 at idle, rising evenly to 1 at the rated speed)", Origin: sheet.Memory}

// CurveOf a rating of which no more is known.
func CurveOf(ratedW, ratedRPM, idleRPM float64) Curve {
	return Curve{IdleW: IdleShare * ratedW, RatedW: ratedW, IdleRPM: idleRPM, RatedRPM: ratedRPM}
}

// W is what it gives at an engine speed; below idle it falls to nothing.
func (c Curve) W(rpm float64) float64 {
	if rpm <= c.IdleRPM {
		return c.IdleW * math.Max(0, rpm/c.IdleRPM)
	}
	if rpm >= c.RatedRPM { // also of a bike that is said to idle above its rated speed
		return c.RatedW
	}
	return c.IdleW + (c.RatedW-c.IdleW)*(rpm-c.IdleRPM)/(c.RatedRPM-c.IdleRPM)
}

// Voltages across the battery, engine running [practice].
const (
	ChargingV = 13.5 // from here the regulator has more than it needs: all that is drawn is given
	RestingV  = 12.8 // below it the battery gives, too
	BoilsV    = 14.8 // above it the regulator does not regulate
	WeakV     = 13.0 // with everything on at a riding speed, below which something goes off
)

// FoundFormula is the formula of [FoundW].
var FoundFormula = sheet.Formula{Text: "from 13.5 V the supply is at least what is drawn; below 12.8 V at most; between them it is just that", Origin: sheet.Practice}

// FoundW is what an alternator gives at one engine speed, W, by the voltage that stood there
// while so much was drawn, against what a model says. The regulator holds its voltage as
// long as there is more than is drawn; what sinks below it is all there is. A voltage that
// nobody read leaves the model.
func FoundW(modelW, drawnW, volts float64) float64 {
	switch {
	case math.IsNaN(volts) || math.IsNaN(drawnW):
		return modelW
	case math.IsNaN(modelW) && (volts >= ChargingV || volts < RestingV): // a bound of nothing
		return modelW
	case volts >= ChargingV:
		return math.Max(modelW, drawnW)
	case volts < RestingV:
		return math.Min(modelW, drawnW)
	}
	return drawnW
}

// Found is the curve by the voltage at idle with so much drawn, and the one that stood at a
// riding speed with so much drawn there: a curve of the usual shape through what was found
// at that speed, with an idle of its own. A rating that nobody knew is read off the bike.
func (c Curve) Found(idleV, idleDrawnW, rpm, volts, drawnW float64) Curve {
	if found := FoundW(c.W(rpm), drawnW, volts); found > 0 {
		c = CurveOf(found/CurveOf(1, c.RatedRPM, c.IdleRPM).W(rpm), c.RatedRPM, c.IdleRPM)
	}
	c.IdleW = FoundW(c.IdleW, idleDrawnW, idleV)
	c.RatedW = math.Max(c.RatedW, c.IdleW)
	return c
}
