package power_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/power"
)

// rises makes sure that a curve never gives less at a higher engine speed.
func rises(t *testing.T, c power.Curve) {
	t.Helper()
	before := 0.0
	for rpm := 0.0; rpm < 9000; rpm += 100 {
		assert.GreaterOrEqual(t, c.W(rpm), before, "%+v at %g", c, rpm)
		before = c.W(rpm)
	}
}

// TestCurve bends over (HANDBOOK 12): 0.40 of the rating at idle, 0.70 at 45 % of the rated
// speed, all at it, no more above.
func TestCurve(t *testing.T) {
	c := power.CurveOf(300, 5000, 1400)
	assert.InDelta(t, 120, c.W(1400), 1e-9)
	assert.InDelta(t, 210, c.W(2250), 1e-9)
	assert.Greater(t, c.W(2250)-c.W(1400), c.W(5000)-c.W(4150), "it rises most at first")
	assert.InDelta(t, 300, c.W(5000), 1e-9)
	assert.InDelta(t, 300, c.W(9000), 1e-9)
	rises(t, c)
	assert.True(t, math.IsNaN(power.CurveOf(math.NaN(), 5000, 1400).W(3000)))
	for _, idle := range []float64{2000, 2500} { // rated below the idle that somebody typed
		rises(t, power.CurveOf(300, 2000, idle))
	}
}

// TestFoundW: a regulator that holds its voltage gives what is drawn and maybe more; what
// sinks below is all that there is; below a resting battery's voltage there is less.
func TestFoundW(t *testing.T) {
	nan := math.NaN()
	assert.Equal(t, 300.0, power.FoundW(300, 250, 14.1, power.Lead), "it holds, and says no more")
	assert.Equal(t, 340.0, power.FoundW(300, 340, 14.1, power.Lead), "it gives more than the sheet says")
	assert.InDelta(t, 260.0, power.FoundW(300, 250, 13.1, power.Lead), 1e-9, "hardly more than that")
	assert.InDelta(t, power.FoundW(340, 250, 13.49, power.Lead), power.FoundW(340, 250, 13.5, power.Lead), 2, "a tenth of a volt is no cliff")
	assert.InDelta(t, power.FoundW(200, 250, 12.81, power.Lead), power.FoundW(200, 250, 12.8, power.Lead), 3)
	assert.Equal(t, 250.0, power.FoundW(300, 250, 13.3, power.Lithium), "no more than that: lithium rests there")
	assert.Equal(t, 250.0, power.FoundW(300, 250, 12.3, power.Lead), "no more than that")
	assert.Equal(t, 200.0, power.FoundW(200, 250, 12.3, power.Lead), "the sheet says still less")
	assert.Equal(t, 300.0, power.FoundW(300, 250, nan, power.Lead))
	assert.Equal(t, 250.0, power.FoundW(nan, 250, 13.1, power.Lead), "read off the bike, without a sheet")
	assert.True(t, math.IsNaN(power.FoundW(nan, 250, 14, power.Lead)), "a bound is no number")
}

// TestFound: volts bend the curve, and whatever was read it still rises.
func TestFound(t *testing.T) {
	c, nan := power.CurveOf(300, 5000, 1400), math.NaN()
	weak := c.Found(nan, nan, 5000, 13.0, 240, power.Lead)
	assert.InDelta(t, 240, weak.W(5000), 1e-9)
	assert.InDelta(t, 0.40*240, weak.W(1400), 1e-9)
	lame := c.Found(12.4, 80, 5000, 14.2, 240, power.Lead)
	assert.InDelta(t, 300, lame.W(5000), 1e-9)
	assert.InDelta(t, 80, lame.W(1400), 1e-9)
	read := power.CurveOf(nan, 5000, 1400).Found(nan, nan, 2250, 13.1, 210, power.Lead)
	assert.InDelta(t, 300, read.RatedW, 1e-9)
	for _, idle := range []float64{nan, 12, 13, 14} {
		for _, all := range []float64{nan, 12, 13, 14} {
			rises(t, c.Found(idle, 160, 5000, all, 240, power.Lead))
			rises(t, c.Found(idle, 330, 5000, all, 240, power.Lead))
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
