package power

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Curve is what an alternator gives by engine speed: so much at idle, most of its rating
// already at not half of the rated speed, all at that speed, and no more above: it bends over.
// A higher engine speed never gives less.
type Curve struct{ IdleW, RatedW, IdleRPM, RatedRPM float64 }

// Where the curve bends: at a share of the rated speed it gives a share of its rating, 0.6 to
// 0.85 of it [memory].
const (
	bendSpeed = 0.45
	bendShare = 0.70
)

// SupplyFormula is the formula of [Curve.W].
var SupplyFormula = sheet.Formula{Text: "supply = rating × (0.40 at idle, 0.70 at 45 % of the rated speed, 1 at it and above, straight between)", Origin: sheet.Memory}

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
	bend, bent := bendSpeed*c.RatedRPM, math.Max(c.IdleW, bendShare*c.RatedW)
	if bend <= c.IdleRPM { // of one that idles above the bend
		bend, bent = c.IdleRPM, c.IdleW
	}
	between := func(x0, w0, x1, w1 float64) float64 { return w0 + (w1-w0)*(rpm-x0)/(x1-x0) }
	if rpm < bend {
		return between(c.IdleRPM, c.IdleW, bend, bent)
	}
	return between(bend, bent, c.RatedRPM, c.RatedW)
}

// BoilsV is the voltage above which a regulator does not regulate [practice].
const BoilsV = 14.8

// Chemistry is what voltages across a battery mean, engine running, and what of it may go.
type Chemistry struct {
	RestingV  float64 // below it the battery gives, too
	WeakV     float64 // below it with everything on at a riding speed something goes off
	ChargingV float64 // from here the regulator has more than it needs: all that is drawn is given
	Usable    float64 // share of its real capacity that may go before it cranks no more [memory]
}

// Lead and Lithium: a lithium (LiFePO₄) battery rests at 13.2 to 13.4 V, and 13.0 to 13.5 V,
// thin for lead, are not charging there [practice; lithium's upper end memory].
var (
	Lead    = Chemistry{12.8, 13.0, 13.5, 0.5}
	Lithium = Chemistry{13.3, 13.5, 13.9, 0.8}
)

// FoundFormula is the formula of [FoundW].
var FoundFormula = sheet.Formula{Text: "the supply is what is drawn; the more the volts rise from 13.0 to 13.5 V the more of the sheet's beyond it is believed, the more they fall from 13.0 to 12.8 V the less; lithium half a volt higher", Origin: sheet.Practice}

// FoundW is what an alternator gives at one engine speed, W, by the voltage that stood there
// while so much was drawn, against what a model says. The regulator holds its voltage as
// long as there is more than is drawn; what sinks below it is all there is; a tenth of a volt
// is no cliff. A voltage that nobody read leaves the model.
func FoundW(modelW, drawnW, volts float64, by Chemistry) float64 {
	switch {
	case math.IsNaN(volts) || math.IsNaN(drawnW):
		return modelW
	case math.IsNaN(modelW) && (volts >= by.ChargingV || volts < by.RestingV): // a bound of nothing
		return modelW
	case math.IsNaN(modelW):
		return drawnW
	case volts >= by.WeakV:
		share := math.Min(1, (volts-by.WeakV)/(by.ChargingV-by.WeakV))
		return drawnW + share*(math.Max(modelW, drawnW)-drawnW)
	}
	share := math.Min(1, (by.WeakV-volts)/(by.WeakV-by.RestingV))
	return drawnW + share*(math.Min(modelW, drawnW)-drawnW)
}

// Found is the curve by the voltage at idle with so much drawn, and the one that stood at a
// riding speed with so much drawn there: a curve of the usual shape through what was found
// at that speed, with an idle of its own. A rating that nobody knew is read off the bike.
func (c Curve) Found(idleV, idleDrawnW, rpm, volts, drawnW float64, by Chemistry) Curve {
	if found := FoundW(c.W(rpm), drawnW, volts, by); found > 0 {
		c = CurveOf(found/CurveOf(1, c.RatedRPM, c.IdleRPM).W(rpm), c.RatedRPM, c.IdleRPM)
	}
	c.IdleW = FoundW(c.IdleW, idleDrawnW, idleV, by)
	c.RatedW = math.Max(c.RatedW, c.IdleW)
	return c
}
