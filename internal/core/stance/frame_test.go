package stance_test

import (
	"math"
	"math/cmplx"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/stance"
)

var frame = stance.Frame{WheelbaseMM: 1480, RakeDeg: 27, OffsetMM: 36, FrontRadiusMM: 345, RearRadiusMM: 325}

// TestBenchmarkTrail: the benchmark of J. P. Meijaard, J. M. Papadopoulos, A. Ruina and A. L.
// Schwab, Proc. R. Soc. A 463 (2007), table 1 [from memory]: steer axis tilt π/10, front
// wheel radius 0.35 m, trail 0.08 m. Its fork offset follows as 32.07 mm.
func TestBenchmarkTrail(t *testing.T) {
	assert.InDelta(t, 80, stance.TrailMM(18, 32.07, 700), 0.01)
}

// TestStandAsDrawn holds the pose against an independent construction: the frame as points
// of the complex plane, turned in small steps about the rear axle until the front wheel
// touches the ground, and trail read off where the steering axis meets it.
func TestStandAsDrawn(t *testing.T) {
	for _, c := range []stance.Change{
		{FrontRadiusMM: 345, RearRadiusMM: 325},
		{FrontRadiusMM: 345, RearRadiusMM: 340},
		{FrontRadiusMM: 330, RearRadiusMM: 325, FrontUpMM: 40, RearUpMM: 70},
		{FrontRadiusMM: 352, RearRadiusMM: 318, FrontUpMM: -15, RearUpMM: 25},
		{FrontRadiusMM: 345, RearRadiusMM: 325, FrontUpMM: 200, RearUpMM: 10},
	} {
		pose := frame.Stand(c)
		rad := frame.RakeDeg * math.Pi / 180
		up := cmplx.Rect(1, math.Pi/2+rad) // along the leg, backwards as it rises
		rear := complex(0, frame.RearRadiusMM+c.RearUpMM)
		front := complex(frame.WheelbaseMM, frame.FrontRadiusMM) + complex(c.FrontUpMM, 0)*up
		low, high := -0.5, 0.5
		place := func(p complex128, turn float64) complex128 {
			return (p-rear)*cmplx.Rect(1, turn) + complex(0, c.RearRadiusMM)
		}
		for range 60 {
			if mid := (low + high) / 2; imag(place(front, mid)) < c.FrontRadiusMM {
				low = mid
			} else {
				high = mid
			}
		}
		assert.InDelta(t, low*180/math.Pi, pose.PitchDeg, 1e-9)
		assert.InDelta(t, real(place(front, low)), pose.WheelbaseMM, 1e-6)
		for _, p := range []complex128{720 + 250i, 560 + 885i, 1200 + 1100i} {
			x, z := pose.At(real(p), imag(p))
			assert.InDelta(t, real(place(p, low)), x, 1e-6)
			assert.InDelta(t, imag(place(p, low)), z, 1e-6)
			assert.InDelta(t, imag(place(p, low)-p), pose.RiseMM(real(p), imag(p)), 1e-6)
		}
		// The steering axis passes behind the axle by the offset; follow it to the ground.
		direction := up * cmplx.Rect(1, low)
		foot := place(front, low) + complex(frame.OffsetMM, 0)*direction*1i
		ground := foot - complex(imag(foot)/imag(direction), 0)*direction
		assert.InDelta(t, real(ground-place(front, low)), pose.TrailMM, 1e-6)
	}
}

// TestEqualRise of both ends leaves the rake: of tyres exactly, of legs within what the
// front axle moves along its leg.
func TestEqualRise(t *testing.T) {
	tyres := frame.Stand(stance.Change{FrontRadiusMM: 360, RearRadiusMM: 340})
	assert.InDelta(t, 27, tyres.RakeDeg, 1e-9)
	_, z := tyres.At(700, 250)
	assert.InDelta(t, 265, z, 1e-9)
	legs := frame.Stand(stance.Change{FrontRadiusMM: 345, RearRadiusMM: 325, FrontUpMM: -20 / math.Cos(27*math.Pi/180), RearUpMM: -20})
	assert.InDelta(t, 27, legs.RakeDeg, 0.01)
}

// TestRaisedRear steers quicker, and the plain formula agrees for what is small.
func TestRaisedRear(t *testing.T) {
	raised := frame.Stand(stance.Change{FrontRadiusMM: 345, RearRadiusMM: 325, RearUpMM: -20})
	assert.InDelta(t, stance.RakeDeg(27, 1480, 0, 20), raised.RakeDeg, 0.01)
	assert.Less(t, raised.TrailMM, frame.Stand(stance.Change{FrontRadiusMM: 345, RearRadiusMM: 325}).TrailMM)
}

// TestStandFoot: a foot of 38 × 38 mm under 250 N is 173 kPa [computed]; a plate carried
// for it takes most of that away.
func TestStandFoot(t *testing.T) {
	assert.InDelta(t, 173, stance.FootKPa(250, stance.StandFootMM2), 0.2)
	assert.Less(t, stance.FootKPa(250, 9500), 75.0)
	assert.InDelta(t, stance.StandLeanDeg, stance.LeanDeg(stance.StandLeanDeg, 12, 12), 1e-9, "lengthened by the rise it leans as before")
	assert.Greater(t, stance.LeanDeg(9, 20, 0), 9.0, "a taller bike leans further")
	// By hand: 200 kg with their centre at 555 mm lean by 9°: 1961.3 N × 500 mm × 0.15643 / 315 mm.
	assert.InDelta(t, 487.0, stance.StandForceN(200, 555, 9), 0.1)
	bears := math.Inf(1)
	for i, bed := range stance.Beds() {
		assert.True(t, i == 0 || bed.BearsKPa < bears, bed.ID)
		bears = bed.BearsKPa
	}
}
