package fit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fit"
)

// TestReach against half of makers' inner-leg curves [memory]: for a seat of usual width,
// 290 to 300 mm, the curve is twice its height and 95 to 100 mm. A rider whose inside leg
// and sole come to half of the curve stands flat.
func TestReach(t *testing.T) {
	for seat, width := range map[float64]float64{800: 290, 850: 295, 900: 300} {
		curve := 2*seat + 2*97.5
		assert.InDelta(t, 0, fit.ReachMM(seat, width, curve/2-30, 30), 8, "seat %.0f", seat)
	}
	assert.InDelta(t, 10, fit.ReachMM(850, 300, 850, 30)-fit.ReachMM(840, 300, 850, 30), 1e-9)
}

// TestFeet: a trade's words for how far the heels are up [practice].
func TestFeet(t *testing.T) {
	for mm, want := range map[float64]string{-40: "flat feet", 15: "flat feet", 16: "the balls of both feet", 60: "the balls of both feet", 61: "the ball of one foot", 100: "the ball of one foot", 101: "tiptoe of one foot", 140: "tiptoe of one foot", 141: "no foot"} {
		assert.Equal(t, want, fit.FeetAt(mm), mm)
	}
}
