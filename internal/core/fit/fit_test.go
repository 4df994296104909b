package fit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fit"
)

// TestKneeByHand: a leg of 850 mm has a thigh of 443 and a shank of 445. A seat
// 530 mm above the pegs, the foot 180 ahead: hip to foot 559.7; cos = (443.1² +
// 444.9² − 559.7²) / (2 · 443.1 · 444.9) = 0.2053, 78.2°.
func TestKneeByHand(t *testing.T) {
	assert.InDelta(t, 78.2, fit.KneeDegrees(850, 530, fit.Forward), 0.1)
	assert.InDelta(t, 180, fit.KneeDegrees(700, 2000, fit.Forward), 1e-3, "a leg cannot be longer than it is")
	before := 0.0
	for seat := 380.0; seat < 800; seat += 20 {
		knee := fit.KneeDegrees(850, seat, fit.Forward)
		assert.Greater(t, knee, before, "a taller seat opens the knee")
		assert.Less(t, fit.KneeDegrees(900, seat, fit.Forward), knee, "a longer leg bends more")
		before = knee
	}
}

func TestCables(t *testing.T) {
	assert.InDelta(t, 15, fit.CableShortMM(40, 25), 1e-9)
	assert.Zero(t, fit.CableShortMM(20, 25))
	assert.Zero(t, fit.CableShortMM(-20, 0), "lower bars ask for nothing")
}
