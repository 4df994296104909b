package lamp_test

import (
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
