package air_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/air"
)

// TestDensity against the table of ISO 2533:1975 by geopotential altitude, kg/m³;
// the geometric altitude of a map differs by less than 0.2 % of density here.
func TestDensity(t *testing.T) {
	for altitude, density := range map[float64]float64{0: 1.2250, 1000: 1.1116, 2000: 1.0065, 3000: 0.9091, 5000: 0.7361, 9000: 0.4663} {
		assert.InDelta(t, density, air.Density(altitude), 1e-4, "%g m", altitude)
	}
}

func TestPower(t *testing.T) {
	assert.InDelta(t, 100, air.PowerPercent(air.Density(0)), 1e-9)
	assert.InDelta(t, 74.2, air.PowerPercent(air.Density(3000)), 0.05)
}
