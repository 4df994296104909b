package draw_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/draw"
)

func bikeOutline() draw.Silhouette {
	return draw.Silhouette{WheelbaseMM: 1480, FrontTyreMM: 690, RearTyreMM: 650, FrontRimMM: 533, RearRimMM: 457, SeatMM: 880, CentreXMM: 600, CentreHeightMM: 740}
}

func balance(masses []draw.Mass, front, rear float64) draw.Balance {
	return draw.BalanceOf(bikeOutline(), masses, []draw.Spot{{Value: "place:tail", Name: "Behind", XMM: -180, ZMM: 960}}, 690, 560, math.NaN(), math.NaN(),
		draw.AxleEnd{Kg: rear, LimitKg: 225}, draw.AxleEnd{Kg: front, LimitKg: 150}, 0.47)
}

// TestDiscs: a disc's area is its mass; things at one spot do not hide one another;
// a side is a row of its own from above.
func TestDiscs(t *testing.T) {
	d := balance([]draw.Mass{{Kg: 4, XMM: -30, ZMM: 740, Side: -1, Load: 0}, {Kg: 1, XMM: -30, ZMM: 740, Side: 1, Load: 1}, {Kg: math.NaN(), XMM: 0, ZMM: 0, Load: 2}}, 130, 197)
	require.True(t, d.Shown)
	require.Len(t, d.Discs, 2, "what has no mass is not drawn")
	assert.InDelta(t, 2, float64(d.Discs[0].R/d.Discs[1].R), 1e-9)
	assert.NotEqual(t, d.Discs[0].X, d.Discs[1].X)
	require.Len(t, d.Above, 2)
	assert.Less(t, d.Above[0].Y, d.AboveY)
	assert.Greater(t, d.Above[1].Y, d.AboveY)
	assert.True(t, d.Ghost.Shown)
	assert.False(t, d.Was.Shown)
	assert.NotEmpty(t, d.Arrow)
	assert.Equal(t, d.Sheet.X(-180), d.Spots[0].X)
}

// TestBeamTips to the end that gains against the bike alone.
func TestBeamTips(t *testing.T) {
	behind, forward := balance(nil, 100, 230), balance(nil, 170, 150)
	assert.Greater(t, behind.Beam.Y1, behind.Beam.Y2, "the rear end goes down")
	assert.Less(t, forward.Beam.Y1, forward.Beam.Y2)
	assert.True(t, behind.Beam.Rear.Over)
	assert.False(t, forward.Beam.Rear.Over)
	assert.True(t, forward.Beam.Front.Over)
	assert.False(t, balance(nil, math.NaN(), 200).Shown)
	for _, d := range []draw.Balance{behind, forward} {
		for _, c := range []draw.Column{d.Beam.Rear, d.Beam.Front} {
			assert.Less(t, c.Y+c.Height, d.Height)
			assert.True(t, c.Limited)
		}
	}
}
