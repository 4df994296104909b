package draw_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/draw"
)

// TestSupplyChart: draws stand on one another without gaps, a column is short where they rise
// over what is given, and what is unknown is not drawn.
func TestSupplyChart(t *testing.T) {
	watts := func(v float64) string { return fmt.Sprintf("%.0f W", v) }
	at := []draw.SupplyAt{{Name: "idle", SupplyW: 100}, {Name: "trail", SupplyW: 220}, {Name: "cruise", SupplyW: 290}}
	d := draw.SupplyChart(at, []draw.DrawnBy{{Name: "bike", W: 150, Own: true}, {Name: "grips", W: 20}, {Name: "nothing"}}, watts)
	require.True(t, d.Shown)
	require.Len(t, d.Speeds, 3)
	for i, c := range d.Speeds {
		require.Len(t, c.Draws, 2, "what draws nothing is no block")
		assert.InDelta(t, float64(d.Lower), float64(c.Draws[0].Y+c.Draws[0].H), 1e-9)
		assert.InDelta(t, float64(c.Draws[0].Y), float64(c.Draws[1].Y+c.Draws[1].H), 1e-9)
		assert.Equal(t, i == 0, c.Short, c.Name)
		assert.Equal(t, c.Short, c.Draws[1].Y < c.SupplyY)
		assert.LessOrEqual(t, float64(c.X+c.Width), float64(d.Width))
	}
	assert.False(t, draw.SupplyChart(at, []draw.DrawnBy{{W: math.NaN()}}, watts).Shown)
	assert.False(t, draw.SupplyChart(nil, nil, watts).Shown)
}
