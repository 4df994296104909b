package fit

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// How far the end of a peg usually is from the middle of the bike, give or take, and how far
// the pegs sink in a bend, mm [memory].
const (
	UsualPegOutMM  = 275.0
	UsualPegHalfMM = 25.0
	UsualSinkMM    = 60.0
)

// TouchFormula is the formula of [TouchDeg].
var TouchFormula = sheet.Formula{Text: "lean = atan(height of the peg's end / its distance from the middle)", Origin: sheet.Computed}

// TouchDeg is the lean, degrees from upright, at which something touches the ground that is so
// high above it and so far out, mm. The tyres' width is left out: it lets a bike lean a
// little further.
func TouchDeg(heightMM, outMM float64) float64 { return math.Atan2(heightMM, outMM) * 180 / math.Pi }
