package power_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/power"
)

// TestGauges against the table of ASTM B258, nominal areas of solid wire in mm².
func TestGauges(t *testing.T) {
	for n, mm2 := range map[int]float64{20: 0.519, 18: 0.823, 16: 1.31, 14: 2.08, 12: 3.31, 10: 5.26, 8: 8.37} {
		assert.InEpsilon(t, mm2, power.AWGAreaMM2(n), 0.005, "AWG %d", n)
	}
	for mm2, n := range map[float64]int{0.5: 20, 0.75: 18, 1: 16, 1.5: 14, 2.5: 12, 4: 10, 6: 8} {
		assert.Equal(t, n, power.AWGFor(mm2), "%g mm²", mm2)
	}
	assert.Equal(t, 2, power.AWGFor(power.AWGAreaMM2(2)))
	assert.Zero(t, power.AWGFor(60), "none that is sold by a number")
}

// TestResistivity: IEC 60028 gives the annealed copper standard 1/58 Ω·mm²/m at 20 °C, so a
// kilometre of 1 mm² there alone is 17.24 Ω.
func TestResistivity(t *testing.T) {
	assert.InDelta(t, 1000.0/58, power.DropV(1, 500, 1), 0.005)
}

// TestFuseSizes: ISO 8820-3 lists the blade fuses of type C up to 40 A; what is asked for is
// always one of them, at least a quarter above the current.
func TestFuseSizes(t *testing.T) {
	listed := []float64{1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40}
	for amps := 0.2; amps <= 32; amps += 0.2 {
		fuse, err := power.FuseA(amps)
		require.NoError(t, err)
		assert.Contains(t, listed, fuse)
		assert.GreaterOrEqual(t, fuse, 1.25*amps-1e-9)
	}
}

// TestCircuit by hand: 75 W at 13.5 V are 5.56 A, so a 7.5 A fuse; 2 m of 0.75 mm² would lose
// 2 · 2 · 5.56 · 0.01724 / 0.75 = 0.511 V, 3.8 %; of 1 mm² 0.383 V.
func TestCircuit(t *testing.T) {
	none := math.NaN()
	c, err := power.CircuitFor(75, 2, none)
	require.NoError(t, err)
	assert.InDelta(t, 5.556, c.Amps, 1e-3)
	assert.Equal(t, 7.5, c.FuseA)
	assert.Equal(t, 1.0, c.Wire.AreaMM2)
	assert.InDelta(t, 0.383, c.DropV, 1e-3)
	assert.LessOrEqual(t, c.DropPercent(), power.DropMost)
	assert.False(t, c.Relay)
	assert.Equal(t, "sealed, 1.5 mm pins", c.Plug)
	at, err := power.CircuitFor(7.5*power.SystemV, 0.5, none)
	require.NoError(t, err)
	assert.True(t, at.Relay, "from 7.5 A")
	assert.Equal(t, "sealed, 2.8 mm blades", at.Plug)
	thick, err := power.CircuitFor(150, 2, none)
	require.NoError(t, err)
	assert.True(t, thick.Relay, "eleven amperes are not for a switch on the bars")
	laid, err := power.CircuitFor(75, 2, 20)
	require.NoError(t, err)
	assert.Equal(t, 7.5, laid.FuseA)
	assert.Equal(t, 2.5, laid.Wire.AreaMM2, "the fuse that is in it wants a wire that outlives it")
	_, err = power.CircuitFor(75, 2, 60)
	assert.ErrorIs(t, err, power.ErrNoWire)
	_, err = power.CircuitFor(600, 2, none)
	assert.ErrorIs(t, err, power.ErrNoFuse)
	_, err = power.CircuitFor(200, 40, none)
	assert.ErrorIs(t, err, power.ErrNoWire)
	assert.Equal(t, 15.0, power.CarriesA(1.5))
	assert.Equal(t, 15.0, power.CarriesA(2))
	assert.Equal(t, 5.0, power.CarriesA(0.5))
	assert.Zero(t, power.CarriesA(0.3))
}

// TestFlashes against UN Regulations 53 and 6: 90 ± 30 flashes a minute. Bulbs of 10 W on the
// relay that was made for two of them keep it; four watts of diodes on it do not.
func TestFlashes(t *testing.T) {
	right := func(perMin float64) bool { return perMin >= 60 && perMin <= 120 }
	assert.True(t, right(power.FlashesPerMin(power.LoadSensing, 20, 20)))
	assert.Equal(t, 180.0, power.FlashesPerMin(power.LoadSensing, 20, 4), "about double")
	assert.True(t, right(power.FlashesPerMin(power.LoadSensing, 20, 10)), "just half is not below it")
	assert.True(t, right(power.FlashesPerMin(power.LoadSensing, 20, 12)), "diodes behind, bulbs in front: more than half")
	assert.True(t, right(power.FlashesPerMin(power.Independent, 20, 4)))
	assert.False(t, power.FlashesPerMin("", 20, 4) > 0, "nobody knows")
	assert.Equal(t, [2]float64{60, 120}, [2]float64{power.FlashLeast, power.FlashMost})
}
