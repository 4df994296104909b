package power_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/power"
)

// TestSupply: a third at idle, all at the rated speed, no more above, and never less at a
// higher engine speed.
func TestSupply(t *testing.T) {
	at := func(rpm float64) float64 { return power.SupplyW(300, 5000, 1400, rpm) }
	assert.InDelta(t, 105, at(1400), 1e-9)
	assert.InDelta(t, 202.5, at(3200), 1e-9, "half of the way is half of the rise")
	assert.InDelta(t, 300, at(5000), 1e-9)
	assert.InDelta(t, 300, at(9000), 1e-9)
	before := 0.0
	for rpm := 0.0; rpm < 9000; rpm += 100 {
		assert.GreaterOrEqual(t, at(rpm), before)
		before = at(rpm)
	}
	assert.True(t, math.IsNaN(power.SupplyW(math.NaN(), 5000, 1400, 3000)))
	for _, idle := range []float64{2000, 2500} {
		before := 0.0
		for rpm := 0.0; rpm < 4000; rpm += 100 {
			supply := power.SupplyW(300, 2000, idle, rpm)
			assert.GreaterOrEqual(t, supply, before, "rated at 2000, idling at %g, turning %g", idle, rpm)
			before = supply
		}
	}
}

// TestDown by hand: a fifth of 8 Ah at 12.5 V is 20 Wh; 40 W are lacking: half an hour.
func TestDown(t *testing.T) {
	assert.InDelta(t, 30, power.DownMinutes(8, 40), 1e-9)
	assert.True(t, math.IsInf(power.DownMinutes(8, 0), 1))
	assert.InDelta(t, 100, power.CrankA(400), 1e-9)
	assert.Equal(t, power.CrankA(700), power.CrankA(1200), "a large engine has more cylinders, not heavier ones to turn")
}
