package fit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fit"
)

// TestTouchDeg as high as far out is half a right angle; lower or further out is sooner.
func TestTouchDeg(t *testing.T) {
	assert.InDelta(t, 45, fit.TouchDeg(280, 280), 1e-9)
	assert.Less(t, fit.TouchDeg(260, 280), 45.0)
	assert.Less(t, fit.TouchDeg(280, 300), 45.0)
}

// TestRiseToUpright: with the grips raised by so much the back is upright, elbows well bent.
func TestRiseToUpright(t *testing.T) {
	b := fit.BodyOf(1780, 820)
	hip, grip := fit.Place{X: 500, Z: 850}, fit.Place{X: 900, Z: 1000}
	rise := b.RiseToUprightMM(hip, grip)
	bent := b
	bent.Arm = b.Bent
	assert.Positive(t, rise)
	assert.InDelta(t, 0, bent.BackDeg(hip, fit.Place{X: grip.X, Z: grip.Z + rise}), 1e-6)
	assert.Zero(t, b.RiseToUprightMM(hip, fit.Place{X: 900, Z: 1300}))
	assert.True(t, math.IsInf(b.RiseToUprightMM(hip, fit.Place{X: 1200, Z: 1000}), 1))
}
