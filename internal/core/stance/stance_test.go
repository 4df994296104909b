package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/stance"
)

// TestSag is Hooke's law worked by hand: 150 kg are 1471 N; at R = 0.5 the spring
// of 100 N/mm carries 2942 N, is compressed by 29.42 mm, of which 10 are preload;
// the wheel has gone twice the rest, 38.84 mm.
func TestSag(t *testing.T) {
	assert.InDelta(t, 38.84, stance.SagMM(150, 100, 0.5, 10, 200), 0.005)
	assert.Zero(t, stance.SagMM(50, 100, 0.5, 40, 200), "topped out")
	assert.Equal(t, 60.0, stance.SagMM(500, 50, 0.5, 0, 60), "bottomed")
}

func TestSpringUndoesSag(t *testing.T) {
	for _, mass := range []float64{80, 120, 180} {
		for _, ratio := range []float64{0.33, 0.5, 1} {
			spring, err := stance.SpringNmm(mass, ratio, 8, 70)
			require.NoError(t, err)
			assert.InDelta(t, 70, stance.SagMM(mass, spring, ratio, 8, 300), 1e-9)
		}
	}
	_, err := stance.SpringNmm(100, 0.5, 0, 0)
	assert.ErrorIs(t, err, stance.ErrNoSpring)
}

// TestWheelRate measures a known spring twice and finds it again.
func TestWheelRate(t *testing.T) {
	light, heavy := stance.SagMM(110, 90, 0.45, 12, 300), stance.SagMM(160, 90, 0.45, 12, 300)
	rate, err := stance.WheelRateNmm(110, light, 160, heavy)
	require.NoError(t, err)
	assert.InDelta(t, 90*0.45*0.45, rate, 1e-9)
	assert.InDelta(t, 90, stance.SpringOfRate(rate, 0.45), 1e-9)
	for _, bad := range [][4]float64{{110, 40, 160, 40}, {160, 40, 110, 60}} {
		_, err := stance.WheelRateNmm(bad[0], bad[1], bad[2], bad[3])
		assert.ErrorIs(t, err, stance.ErrSameSag)
	}
}

// TestTrail is the right triangle at the front axle worked by hand: R 345 mm at
// 27° from the vertical, 35 mm offset: (345·0.45399 − 35)/0.89101 = 136.5 mm.
func TestTrail(t *testing.T) {
	assert.InDelta(t, 136.5, stance.TrailMM(27, 35, 690), 0.05)
	assert.InDelta(t, -35, stance.TrailMM(0, 35, 690), 1e-9, "upright, the offset leads")
}

func TestRaisingTheRear(t *testing.T) {
	steeper := stance.RakeDeg(27, 1450, 0, 30)
	assert.InDelta(t, 27-1.185, steeper, 0.001, "atan(30/1450)")
	assert.Less(t, stance.TrailMM(steeper, 35, 690), stance.TrailMM(27, 35, 690), "and the trail falls with it")
	assert.InDelta(t, 27, stance.RakeDeg(27, 1450, 25, 25), 1e-12, "both ends together change nothing")
}
