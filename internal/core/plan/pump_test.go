package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
)

// eastward is a way along the equator, of so many nodes 11.1 km apart.
func eastward(from, to int) *plan.Route {
	var points []track.Point
	for i := from; i <= to; i++ {
		points = append(points, track.Point{Point: geo.Point{Lon: float64(i) / 10}})
	}
	return &plan.Route{Nodes: track.Measure(points).Reduce(plan.UsualNodes)}
}

// TestPumps stand in the order of the way with their detour, each once; a part has those
// that it passes.
func TestPumps(t *testing.T) {
	whole := eastward(0, 10)
	at := func(lat, lon float64) geo.Point { return geo.Point{Lat: lat, Lon: lon} }
	require.True(t, whole.AddPump(at(0, 0.8), plan.Stop{Name: "Far end"}, 25))
	require.True(t, whole.AddPump(at(0.09, 0.3), plan.Stop{Name: "Up the hill"}, 25))
	assert.True(t, whole.AddPump(at(0.001, 0.8), plan.Stop{Name: "The same"}, 25))
	assert.False(t, whole.AddPump(at(0.5, 0.3), plan.Stop{Name: "Another valley"}, 25))
	require.Len(t, whole.Stops, 2)
	assert.Equal(t, "Up the hill", whole.Stops[0].Name)
	assert.InDelta(t, 10, whole.Stops[0].Detour.In("km"), 0.1)
	assert.False(t, whole.Stops[1].Detour.Known())
	assert.NotEqual(t, whole.Stops[0].ID, whole.Stops[1].ID)

	part := eastward(5, 10)
	part.KeepPumps(whole)
	require.Len(t, part.Stops, 1)
	assert.Equal(t, "Far end", part.Stops[0].Name)
	assert.InDelta(t, 33.4, part.Stops[0].At.In("km"), 0.2)
}
