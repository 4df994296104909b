package terrain_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/terrain"
)

// TestMix is worked by hand from the handbook's starting values (from memory of
// the trade): 40 % motorway at 110 km/h and 60 % rough gravel at 35 km/h.
func TestMix(t *testing.T) {
	mix := terrain.MixOf(map[terrain.Kind]float64{terrain.Motorway: 0.4, terrain.RoughGravel: 0.6})
	assert.InDelta(t, 1, mix.Sum(), 1e-12)
	assert.InDelta(t, 0.4, mix.Road(), 1e-12)
	assert.InDelta(t, 0.6, mix.Loose(), 1e-12)
	assert.InDelta(t, 0.4*1.0+0.6*1.6, mix.Abrasion(), 1e-12)
	assert.InDelta(t, 400.0/110+600.0/35, mix.Hours(1000), 1e-9)
	assert.InDelta(t, 400.0/110, mix.RoadHours(1000), 1e-9)
	assert.Zero(t, mix.Of(terrain.Mud), "said, and none of it")
}

// TestNobodyHasSaid: a mix that nobody has named is no mix of nothing.
func TestNobodyHasSaid(t *testing.T) {
	var mix terrain.Mix
	assert.False(t, mix.Said())
	rock, _ := terrain.SurfaceOf("rock")
	for name, v := range map[string]float64{
		"sum": mix.Sum(), "road": mix.Road(), "loose": mix.Loose(), "abrasion": mix.Abrasion(),
		"hours": mix.Hours(100), "mud": mix.Of(terrain.Mud), "rock": rock.Share(mix),
	} {
		assert.True(t, math.IsNaN(v), "%s: %v", name, v)
	}
	assert.Equal(t, terrain.Only(terrain.Paved), mix.Or(terrain.Only(terrain.Paved)))
	said := terrain.Only(terrain.Mud)
	assert.Equal(t, said, said.Or(terrain.Only(terrain.Paved)))
}

func TestEveryKindHasGround(t *testing.T) {
	assert.Len(t, terrain.Grounds(), terrain.Count)
	for i, g := range terrain.Grounds() {
		found, ok := terrain.Of(g.Kind)
		assert.True(t, ok)
		assert.Equal(t, g, found)
		assert.Equal(t, i, terrain.Index(g.Kind))
		assert.Positive(t, g.SpeedKmh)
	}
	_, ok := terrain.Of("lava")
	assert.False(t, ok)
}
