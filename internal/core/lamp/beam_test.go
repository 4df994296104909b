package lamp_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/lamp"
)

// TestProfile: half of the intensity at half the beam's angle, by the definition of the beam
// angle (IEC 60050-845), and less further out.
func TestProfile(t *testing.T) {
	for _, angle := range []float64{8, 12, 40, 90, 160} {
		b := lamp.Beam{Cd: 10000, AngleDeg: angle}
		assert.InEpsilon(t, 10000, b.CdAt(0), 1e-9)
		assert.InEpsilon(t, 5000, b.CdAt(angle/2), 1e-9, "%g°", angle)
		assert.InEpsilon(t, 5000, b.CdAt(-angle/2), 1e-9)
		before := math.Inf(1)
		for deg := 0.0; deg <= 90; deg += 5 {
			assert.LessOrEqual(t, b.CdAt(deg), before)
			before = b.CdAt(deg)
		}
		assert.Zero(t, b.CdAt(120), "none behind")
	}
	pair := lamp.Beam{Cd: 8000, AngleDeg: 30, OutDeg: 15}
	assert.InDelta(t, 4000, pair.CdAt(0), 1e-6, "both at half of theirs")
	assert.InDelta(t, pair.CdAt(20), pair.CdAt(-20), 1e-9, "one to each side")
	narrow := lamp.Beam{Cd: 8000, AngleDeg: math.NaN()}
	assert.Less(t, narrow.CdAt(30), 100.0, "what nobody knows lights no bend")
}

// TestBend by hand: a lamp that gives the same to all sides, 30 m far, in a bend of 30 m
// radius: the chord is 2 · 30 · sin β = 30 at β = 30°, so 2 · 30 · π/6 = 31.4 m lie in it. One
// of a few degrees lights hardly more than its half angle.
func TestBend(t *testing.T) {
	round := lamp.Beam{Cd: 2700, AngleDeg: 170}
	for _, deg := range []float64{0, 15, 30} {
		assert.InEpsilon(t, 30, lamp.ReachM([]lamp.Beam{round}, deg, 3), 0.05)
	}
	assert.InEpsilon(t, 31.4, lamp.BendM([]lamp.Beam{round}, 30, 0, 3), 0.05)
	spot := lamp.Beam{Cd: 40000, AngleDeg: 10}
	assert.Less(t, lamp.BendM([]lamp.Beam{spot}, 30, 0, 3), 25.0)
	assert.Greater(t, lamp.BendM([]lamp.Beam{spot}, 30, 0, 3), 2*30*5*math.Pi/180)
	turning := spot
	turning.Turns = true
	steer := lamp.SteerDeg(1500, 30)
	assert.InDelta(t, 2.862, steer, 0.001)
	assert.Greater(t, lamp.BendM([]lamp.Beam{turning}, 30, steer, 3), lamp.BendM([]lamp.Beam{spot}, 30, steer, 3))
	assert.Greater(t, lamp.BendM([]lamp.Beam{spot, round}, 30, 0, 3), lamp.BendM([]lamp.Beam{spot}, 30, 0, 3), "a flood beside it")
}
