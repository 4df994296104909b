package stance_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/stance"
)

// TestClicks [practice]: rough ground softer, smooth and fast firmer; more preload or spring
// more rebound, which is fewer clicks; nothing below fully in; nothing from nothing.
func TestClicks(t *testing.T) {
	compression := func(surface string) float64 { return stance.Clicks(stance.Compression, 12, surface, 8, 0.2) }
	assert.Greater(t, compression("rock"), compression("gravel"))
	assert.Less(t, compression("road"), compression("gravel"))
	assert.Equal(t, 12.0, stance.Clicks(stance.Rebound, 12, "rock", 0, 0))
	assert.Equal(t, 10.0, stance.Clicks(stance.Rebound, 12, "rock", 8, 0))
	assert.Equal(t, 8.0, stance.Clicks(stance.Rebound, 12, "rock", 8, 0.2))
	assert.Equal(t, 0.0, stance.Clicks(stance.Rebound, 1, "rock", 20, 0.5))
	assert.Equal(t, 12.0, stance.Clicks(stance.Rebound, 12, "rock", math.NaN(), math.NaN()))
	assert.True(t, math.IsNaN(stance.Clicks(stance.Compression, math.NaN(), "rock", 0, 0)))
}
