package baseline

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Worn is a part that wears, by its measure, mm, and what it has run since it was
// new, km. What nobody knows is NaN.
type Worn struct {
	NewMM, NowMM, LimitMM float64
	RunKm                 float64
}

// LeftFormula is the formula of [Worn.LeftKm].
var LeftFormula = sheet.Formula{Text: "left = run × (now − limit) / (new − now)", Origin: sheet.Computed}

// LeftKm is how far it still goes to its limit when it wears on as it has worn
// until now. It is 0 at the limit and beyond, NaN when a number is missing, and
// infinite when nothing is worn yet.
func (w Worn) LeftKm() float64 {
	worn := w.NewMM - w.NowMM
	left := w.NowMM - w.LimitMM
	if w.LimitMM > w.NewMM { // it grows
		worn, left = -worn, -left
	}
	switch {
	case left <= 0:
		return 0
	case worn <= 0:
		return math.Inf(1)
	}
	return w.RunKm * left / worn
}

// Past reports whether a measure has reached its limit, for a part that wears so.
// What is not known has not.
func (w Worn) Past(how Wear) bool {
	switch how {
	case Shrinks:
		return w.NowMM <= w.LimitMM
	case Grows:
		return w.NowMM >= w.LimitMM
	}
	return false
}
