// Package draw works out the geometry of the drawings: where lines, marks and
// words go in the view box of an SVG. Templates write the elements.
//
// Every coordinate is an [N], which never prints NaN or an exponent.
package draw

import (
	"math"
	"strconv"
)

// N is a coordinate in view-box units.
type N float64

// String writes the number with at most two decimals; what is not a number is 0.
func (n N) String() string {
	v := float64(n)
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return "0"
	}
	v = math.Round(v*100) / 100
	if v == 0 {
		v = 0 // not −0
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// Style tells lines of one drawing apart.
type Style string

// The styles.
const (
	Standard Style = "standard"
	Current  Style = "current"
	Tried    Style = "tried"
	Ghost    Style = "ghost"
)

// Tick is a mark on a scale.
type Tick struct {
	At   N
	Text string
}

// scale maps values to view-box units, linearly.
type scale struct{ from, to, at, end float64 }

func (s scale) of(v float64) N { return N(s.at + (v-s.from)/(s.to-s.from)*(s.end-s.at)) }

// steps are values between from and to at a distance that reads well, about n
// of them: 1, 2, 2.5 or 5 times a power of ten.
func steps(from, to float64, n int) []float64 {
	if !(to > from) || math.IsInf(to-from, 0) {
		return nil
	}
	raw := (to - from) / float64(n)
	power := math.Pow(10, math.Floor(math.Log10(raw)))
	step := 10 * power
	for _, f := range []float64{1, 2, 2.5, 5} {
		if f*power >= raw {
			step = f * power
			break
		}
	}
	var list []float64
	// A fraction of ten is divided by, not multiplied with: 28 × 0.2 is 5.6000000000000005.
	whole, parts := step, 1.0
	if power < 1 {
		parts = math.Round(1 / power)
		whole = step * parts
	}
	for i := math.Ceil(from/step - 1e-9); i*step <= to+step*1e-9; i++ {
		list = append(list, i*whole/parts+0) // + 0 makes −0 a 0
	}
	return list
}
