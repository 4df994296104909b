package fit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fit"
)

// TestSegments of a rider of 1.80 m after R. Drillis and R. Contini, Body Segment Parameters
// (1966): hip to shoulder 0.288 of the stature, 518 mm; upper arm 335 and forearm 263 mm,
// with the hand to the grip 353 mm, at 120° of elbow 596 mm from shoulder to grip.
func TestSegments(t *testing.T) {
	b := fit.BodyOf(1800, 850)
	assert.InDelta(t, 518, b.Torso, 1)
	assert.InDelta(t, 596, b.Arm, 1)
	assert.InDelta(t, fit.BodyOf(850/0.47, 850).Torso, fit.BodyOf(math.NaN(), 850).Torso, 1e-9, "a stature that goes with the leg")
}

// TestBack: the shoulder lies as far from hip and grip as the segments are long; lower and
// further grips bend the back more, and a taller rider more than a small one.
func TestBack(t *testing.T) {
	b := fit.BodyOf(1800, 850)
	hip, grip := fit.Place{X: 440, Z: 885}, fit.Place{X: 960, Z: 1150}
	back := b.BackDeg(hip, grip)
	shoulder := b.Shoulder(hip, back)
	assert.InDelta(t, b.Torso, math.Hypot(shoulder.X-hip.X, shoulder.Z-hip.Z), 1e-6)
	assert.InDelta(t, b.Arm, math.Hypot(shoulder.X-grip.X, shoulder.Z-grip.Z), 1e-6)
	for _, worse := range []fit.Place{{X: 960, Z: 1050}, {X: 1040, Z: 1150}} {
		assert.Greater(t, b.BackDeg(hip, worse), back)
	}
	peg := fit.Place{X: 620, Z: 355}
	tall := fit.BodyOf(1980, 950)
	assert.Greater(t, tall.BackDeg(tall.StandingHip(peg), grip), b.BackDeg(b.StandingHip(peg), grip), "the same grips are low for a taller rider")
}
