package terrain_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/terrain"
)

// TestRoughly: three sliders make a mix that is believed, and say what they say.
func TestRoughly(t *testing.T) {
	for road := range 11 {
		for gravel := range 11 {
			for rough := range 11 {
				list := terrain.Roughly(float64(road), float64(gravel), float64(rough))
				v := new(entry.Problems)
				terrain.Validate(v, "terrain", list)
				assert.Empty(t, v.List, "%d %d %d", road, gravel, rough)
				mix := terrain.MixOfStretches(list)
				total := float64(road + gravel + rough)
				if total == 0 {
					assert.Empty(t, list)
					continue
				}
				assert.InDelta(t, float64(road)/total, mix.Road(), 0.02)
			}
		}
	}
}
