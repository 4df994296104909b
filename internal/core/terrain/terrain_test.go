package terrain_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/terrain"
)

// TestMix is worked by hand from the handbook's starting values (from memory of
// the trade): 40 % motorway at 110 km/h and 60 % rough gravel at 35 km/h.
func TestMix(t *testing.T) {
	mix := terrain.Mix{terrain.Motorway: 0.4, terrain.RoughGravel: 0.6}
	assert.InDelta(t, 1, mix.Sum(), 1e-12)
	assert.InDelta(t, 0.4, mix.Road(), 1e-12)
	assert.InDelta(t, 0.4*1.0+0.6*1.6, mix.Abrasion(), 1e-12)
	assert.InDelta(t, 400.0/110+600.0/35, mix.Hours(1000), 1e-9)
}

func TestEveryKindHasGround(t *testing.T) {
	assert.Len(t, terrain.Grounds(), 8)
	for _, g := range terrain.Grounds() {
		found, ok := terrain.Of(g.Kind)
		assert.True(t, ok)
		assert.Equal(t, g, found)
		assert.Positive(t, g.SpeedKmh)
	}
	_, ok := terrain.Of("lava")
	assert.False(t, ok)
}
