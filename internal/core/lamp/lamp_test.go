package lamp_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/lamp"
)

// TestStopping against the computed column of the AASHTO Green Book's table of
// stopping sight distance on level roads (t 2.5 s, a 3.4 m/s²). The book rounds
// its constants, so within 1.5 %.
func TestStopping(t *testing.T) {
	for kmh, m := range map[float64]float64{50: 63.5, 80: 129.0, 100: 184.2} {
		assert.InEpsilon(t, m, lamp.Reaction(kmh, 2.5)+lamp.Braking(kmh, 3.4), 0.015, "%g km/h", kmh)
	}
}

// TestBeam: one lux at a metre from one candela, by the definition of the units;
// ten times as far takes a hundred times as much.
func TestBeam(t *testing.T) {
	assert.InDelta(t, 1, lamp.BeamM(1, 1), 1e-12)
	assert.InDelta(t, 100, lamp.BeamM(30000, 3), 1e-9)
}

// TestOutrun: at the speed that it names, stopping takes just the beam.
func TestOutrun(t *testing.T) {
	for _, sight := range []float64{20, 60, 150} {
		for _, a := range []float64{2.5, 4, 7} {
			v := lamp.OutrunKmh(sight, 1.5, a)
			assert.InDelta(t, sight, lamp.Reaction(v, 1.5)+lamp.Braking(v, a), 1e-9)
		}
	}
}

// TestCone: a sphere is 4π sr, so 1000 lm all round are 79.6 cd; a cone of 60° is 0.8418 sr by
// the formula of the spherical cap: 1188 cd.
func TestCone(t *testing.T) {
	assert.InDelta(t, 79.58, lamp.ConeCd(1000, 360), 0.01)
	assert.InDelta(t, 1188, lamp.ConeCd(1000, 60), 1)
	assert.InDelta(t, math.Sqrt2, lamp.BeamM(20000, 3)/lamp.BeamM(10000, 3), 1e-12, "twice the candela is 1.41 times the distance")
}

// TestCutoff by hand: a lamp 900 mm up, one in a hundred down, meets the ground at 90 m; tipped
// up by the load it reaches further, and at level it dazzles.
func TestCutoff(t *testing.T) {
	down := math.Atan(0.01) * 180 / math.Pi
	assert.InDelta(t, 90, lamp.CutoffM(900, down), 1e-9)
	assert.Greater(t, lamp.CutoffM(900, down-0.2), 90.0)
	assert.True(t, math.IsInf(lamp.CutoffM(900, 0), 1))
	assert.InDelta(t, 4.903, lamp.Decel(0.5), 0.001)
}
