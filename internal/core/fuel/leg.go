package fuel

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Tank is all the fuel on board that can be burnt, in litres.
type Tank struct {
	UsableL float64 // with every carrier full
	SpreadL float64 // of it, one standard deviation: a tank that swells, a pickup that starves on a slope
	Reserve float64 // share of it that is not planned with
}

// What is not known of a tank, as shares of what it holds [practice].
const (
	SteelSpread   = 0.01
	PlasticSpread = 0.03 // big plastic tanks swell over the years
)

// Leg is the way from one pump to the next against what is on board. Litres are
// with their spread; the chance is that of a single ride.
type Leg struct {
	Km       float64
	NeedL    float64
	SpreadL  float64 // of the need, one standard deviation
	HaveL    float64
	ReserveL float64
	MarginL  float64 // have less reserve less need, in the middle of the band
	LowL     float64 // the margin at the thirsty end of the band
	Dry      float64 // chance of running dry before the pump, reserve and all
}

// BandSigma is how many standard deviations a band reaches: nine rides in ten lie
// above its low end.
const BandSigma = 1.2816

// The formulas of [Cover].
var (
	MarginFormula = sheet.Formula{Text: "margin = usable × (1 − reserve) − need", Origin: sheet.Computed}
	DryFormula    = sheet.Formula{Text: "chance of running dry = Φ((need − usable) / √(σ_need² + σ_tank²))", Origin: sheet.Computed}
)

// Cover holds a need against what is on board.
func (t Tank) Cover(km, needL, spreadL float64) Leg {
	spread := math.Hypot(spreadL, t.SpreadL)
	l := Leg{Km: km, NeedL: needL, SpreadL: spread, HaveL: t.UsableL, ReserveL: t.UsableL * t.Reserve}
	l.MarginL = l.HaveL - l.ReserveL - needL
	l.LowL = l.MarginL - BandSigma*spread
	l.Dry = above(l.HaveL - needL)
	if spread > 0 {
		l.Dry = above((l.HaveL - needL) / spread)
	}
	return l
}

// above is the chance that a standard normal number lies above z.
func above(z float64) float64 { return math.Erfc(z/math.Sqrt2) / 2 }

// RangeKm is how far the fuel before the reserve goes on ground like the leg's, at
// the middle of the band and at its two ends.
func (l Leg) RangeKm() (low, mid, high float64) {
	usable := l.HaveL - l.ReserveL
	at := func(need float64) float64 { return usable / need * l.Km }
	return at(l.NeedL + BandSigma*l.SpreadL), at(l.NeedL), at(max(0.3*l.NeedL, l.NeedL-BandSigma*l.SpreadL))
}

// ArriveL is what is left in the tank at the end, at the thirsty end of the band,
// in the middle and at the thrifty end; not below empty.
func (l Leg) ArriveL() (low, mid, high float64) {
	left := func(need float64) float64 { return max(0, l.HaveL-need) }
	return left(l.NeedL + BandSigma*l.SpreadL), left(l.NeedL), left(l.NeedL - BandSigma*l.SpreadL)
}

// Per100Km is the leg's consumption, L/100 km.
func (l Leg) Per100Km() float64 { return l.NeedL / l.Km * 100 }
