package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Point is a sag that was measured, mm, under so much sprung mass on that wheel, kg.
type Point struct{ Kg, MM float64 }

// Line is the straight line through measured sags.
type Line struct {
	WheelNmm   float64 // rate at the wheel
	AtRestMM   float64 // where it meets no load: below zero by what preload holds back
	ResidualMM float64 // how far readings lie off it, root mean square; NaN for two
	Points     int
}

// LineFormula is the formula of [LineOf].
var LineFormula = sheet.Formula{
	Text: "s = a + W / k by least squares; k is the rate at the wheel, what is left over is stiction and a rising link", Origin: sheet.Published,
	Source: "ordinary least squares",
}

// LineOf lays a line through points; along is the share of the weight that acts along the
// travel, cos ε for a fork. Two loads at least, and more load more sag, or [ErrSameSag].
func LineOf(points []Point, along float64) (Line, error) {
	n := float64(len(points))
	var sumW, sumS float64
	for _, p := range points {
		sumW, sumS = sumW+p.Kg*unit.StandardGravity*along, sumS+p.MM
	}
	meanW, meanS := sumW/n, sumS/n
	var ww, ws float64
	for _, p := range points {
		w := p.Kg*unit.StandardGravity*along - meanW
		ww, ws = ww+w*w, ws+w*(p.MM-meanS)
	}
	slope := ws / ww
	const apartN = 30 // loads closer than that tell stiction, not rate
	if len(points) < 2 || !(math.Sqrt(ww/n) > apartN/2) || !(slope > 0) {
		return Line{}, ErrSameSag
	}
	l := Line{WheelNmm: 1 / slope, AtRestMM: meanS - slope*meanW, ResidualMM: math.NaN(), Points: len(points)}
	if len(points) > 2 {
		sum := 0.0
		for _, p := range points {
			off := p.MM - l.MM(p.Kg, along)
			sum += off * off
		}
		l.ResidualMM = math.Sqrt(sum / (n - 2))
	}
	return l, nil
}

// MM is the sag on the line under a mass.
func (l Line) MM(kg, along float64) float64 {
	return l.AtRestMM + kg*unit.StandardGravity*along/l.WheelNmm
}
