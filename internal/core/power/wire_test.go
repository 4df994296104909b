package power_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/power"
)

// TestDrop: IEC 60028 gives annealed copper 1/58 Ω·mm²/m; 10 A through 2 × 3 m of
// 1.5 mm² lose 10 · 6 · 0.017241 / 1.5 = 0.690 V.
func TestDrop(t *testing.T) { assert.InDelta(t, 0.6897, power.DropV(10, 3, 1.5), 1e-4) }

func TestFuse(t *testing.T) {
	for amps, fuse := range map[float64]float64{0.5: 1, 4: 5, 6: 7.5, 8: 10, 10: 15, 32: 40} {
		got, err := power.FuseA(amps)
		require.NoError(t, err)
		assert.Equal(t, fuse, got, "%g A", amps)
	}
	_, err := power.FuseA(33)
	assert.ErrorIs(t, err, power.ErrNoFuse)
}

func TestWireMeetsBoth(t *testing.T) {
	short, err := power.WireFor(8, 0.5, 13.5, 3, 10)
	require.NoError(t, err)
	assert.Equal(t, 1.0, short.AreaMM2, "the fuse decides")
	long, err := power.WireFor(8, 3, 13.5, 3, 10)
	require.NoError(t, err)
	assert.Equal(t, 2.5, long.AreaMM2, "the drop decides: 1.5 mm² would lose 4.1 %")
	_, err = power.WireFor(20, 30, 12, 1, 25)
	assert.ErrorIs(t, err, power.ErrNoWire)
}

func TestDrain(t *testing.T) {
	assert.InDelta(t, 12.5, power.DrainDays(12, 20, 50), 1e-9)
}
