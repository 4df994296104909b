package fit

import "valiantmule/internal/core/sheet"

// ReachFormula is the formula of [ReachMM].
var ReachFormula = sheet.Formula{
	Text: "reach = seat with the rider on + 0.33 × its width − inside leg − sole", Origin: sheet.Memory,
	Source: "half of makers' inner-leg curves, which are twice the seat's height and 95 to 100 mm for a seat of 290 to 300 mm: the legs spread",
}

// ReachMM is how far the heel of a rider who sits upright ends above the ground, mm; below
// zero the knees are bent. The seat's height is with the rider on, its width where the
// legs go down. The slant of a straight leg over half the width alone adds 7 to 17 mm and
// calls tall seats fit.
func ReachMM(seatMM, widthMM, inseamMM, soleMM float64) float64 {
	return seatMM + 0.33*widthMM - inseamMM - soleMM
}

// Feet is how a rider stands at a stop.
type Feet struct {
	UpToMM float64 // heels above the ground
	Words  string
}

var stands = [...]Feet{{15, "flat feet"}, {60, "the balls of both feet"}, {100, "the ball of one foot"}, {140, "tiptoe of one foot"}}

// FeetAt is how a rider stands whose heels end so far above the ground [practice].
func FeetAt(reachMM float64) string {
	for _, s := range stands {
		if reachMM <= s.UpToMM {
			return s.Words
		}
	}
	return "no foot"
}
