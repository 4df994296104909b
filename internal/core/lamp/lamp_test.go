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

// TestPeak: a beam of half its intensity at 6° to each side has its peak at 0.70 of what its
// lumens would be over the cone of 12° alone (HANDBOOK 12), less what the lens takes; a whole
// cone's mean by the spherical cap flatters the reach by 1.2.
func TestPeak(t *testing.T) {
	mean := 1000 / (2 * math.Pi * (1 - math.Cos(6*math.Pi/180)))
	assert.InDelta(t, 0.8*0.70, lamp.PeakCd(1000, 12)/mean, 0.005)
	assert.InDelta(t, 1.2, math.Sqrt(mean/(lamp.PeakCd(1000, 12)/0.8)), 0.01)
	sum := 0.0 // the peak times the profile over the half sphere is what comes out of the lens
	for deg := 0.25; deg < 90; deg += 0.5 {
		b := lamp.Beam{Cd: lamp.PeakCd(1000, 40), AngleDeg: 40}
		sum += b.CdAt(deg) * 2 * math.Pi * math.Sin(deg*math.Pi/180) * 0.5 * math.Pi / 180
	}
	assert.InDelta(t, 800, sum, 1)
	assert.InDelta(t, math.Sqrt2, lamp.BeamM(20000, 3)/lamp.BeamM(10000, 3), 1e-12, "twice the candela is 1.41 times the distance")
}

// TestNightBraking: 68 m lit are 53 km/h on tarmac and firm gravel, 51 at a friction of 0.45, 42
// on mud (HANDBOOK 12); what the rider says of their brakes leads.
func TestNightBraking(t *testing.T) {
	none := math.NaN()
	for friction, kmh := range map[float64]float64{0.8: 53, 0.6: 53, 0.45: 51, 0.25: 42} {
		assert.InDelta(t, kmh, lamp.OutrunKmh(68, 2.5, lamp.Decel(friction, none)), 0.5, friction)
	}
	assert.InDelta(t, 0.9*0.8*9.80665, lamp.Decel(0.8, 0.9), 1e-9)
}

// TestCutoff by hand: a lamp 900 mm up, one in a hundred down, meets the ground at 90 m; tipped
// up by the load it reaches further, and at level it dazzles.
func TestCutoff(t *testing.T) {
	down := math.Atan(0.01) * 180 / math.Pi
	assert.InDelta(t, 90, lamp.CutoffM(900, down), 1e-9)
	assert.Greater(t, lamp.CutoffM(900, down-0.2), 90.0)
	assert.True(t, math.IsInf(lamp.CutoffM(900, 0), 1))
	assert.InDelta(t, 4.903, lamp.Decel(0.5, 1), 0.001)
}
