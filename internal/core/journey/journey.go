// Package journey is what a ride teaches of the model that it was planned by: how fast something
// is used up, and how often something happens.
//
// What is known before and what was seen are put together by their precision; both are in the
// same unit, by the kilometre. Plain numbers in, plain numbers out.
package journey

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// The formulas.
var (
	SlopeFormula = sheet.Formula{Text: "used per km = Σ (km − mean km)·(reading − mean reading) / Σ (km − mean km)²; its spread = spread of one reading / √Σ (km − mean km)²", Origin: sheet.Published, Source: "least squares, Draper and Smith, Applied Regression Analysis, ch. 1"}
	BothFormula  = sheet.Formula{Text: "per km = (before/spread² + seen/spread²) / (1/spread² + 1/spread²)", Origin: sheet.Published, Source: "normal prior, normal data: Gelman and others, Bayesian Data Analysis, 2.5"}
	LeftFormula  = sheet.Formula{Text: "left = (depth − least depth) / per km", Origin: sheet.Computed}
	OftenFormula = sheet.Formula{Text: "times as often as thought = (2 + happened) / (2 + expected)", Origin: sheet.Published, Source: "gamma prior, Poisson counts: Gelman and others, Bayesian Data Analysis, 2.6; prior Gamma(2, 2) [memory]"}
)

// Gamma is a belief in how often something happens: mean Shape/Rate.
type Gamma struct{ Shape, Rate float64 }

// AsThought is the belief before anything was seen: as often as thought, give or take 0.7 of it.
var AsThought = Gamma{2, 2}

// Given is the belief once so many events were seen where so many units of exposure passed.
func (g Gamma) Given(events, exposure float64) Gamma {
	return Gamma{g.Shape + events, g.Rate + exposure}
}

// Mean of the belief.
func (g Gamma) Mean() float64 { return g.Shape / g.Rate }

// Deviation of the belief.
func (g Gamma) Deviation() float64 { return math.Sqrt(g.Shape) / g.Rate }

// Beside tells the belief against once as often as thought: −1 where it lies below by more than a deviation, 1 above, else 0.
func (g Gamma) Beside() int {
	switch {
	case g.Mean()+g.Deviation() < 1:
		return -1
	case g.Mean()-g.Deviation() > 1:
		return 1
	}
	return 0
}

// Rate is how much is used up by the kilometre, with one standard deviation; NaN where nobody
// knows.
type Rate struct{ PerKm, Spread float64 }

// With is what two sources say together, each by its precision; one that says nothing is left out.
func (r Rate) With(o Rate) Rate {
	switch {
	case !(r.Spread > 0):
		return o
	case !(o.Spread > 0):
		return r
	}
	a, b := 1/(r.Spread*r.Spread), 1/(o.Spread*o.Spread)
	return Rate{(a*r.PerKm + b*o.PerKm) / (a + b), math.Sqrt(1 / (a + b))}
}

// Band is a rate's middle and one to either side of it by so many deviations, never below a
// fifth of the middle: nothing lasts for ever.
func (r Rate) Band(deviations float64) (low, mid, high float64) {
	return max(r.PerKm/5, r.PerKm-deviations*r.Spread), r.PerKm, r.PerKm + deviations*r.Spread
}

// Point is a reading at a distance.
type Point struct{ Km, Reading float64 }

// Slope is how much readings change by the kilometre, by least squares, where one reading has a
// spread; ok is false for fewer than two different distances.
func Slope(points []Point, spread float64) (Rate, bool) {
	n, km, reading := float64(len(points)), 0.0, 0.0
	for _, p := range points {
		km, reading = km+p.Km/n, reading+p.Reading/n
	}
	xx, xy := 0.0, 0.0
	for _, p := range points {
		xx += (p.Km - km) * (p.Km - km)
		xy += (p.Km - km) * (p.Reading - reading)
	}
	if !(xx > 0) {
		return Rate{math.NaN(), math.NaN()}, false
	}
	return Rate{xy / xx, spread / math.Sqrt(xx)}, true
}

// Since are the readings from the last one on that stands higher than the one before by more than
// a jump: what wears down was renewed there.
func Since(points []Point, jump float64) []Point {
	from := 0
	for i := 1; i < len(points); i++ {
		if points[i].Reading > points[i-1].Reading+jump {
			from = i
		}
	}
	return points[from:]
}
