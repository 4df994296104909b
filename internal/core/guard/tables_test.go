package guard

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestTables: what breaks a place is a hazard that there is, each place and hazard
// stands once, and each rate has a key of its own.
func TestTables(t *testing.T) {
	seen := map[string]bool{}
	for _, p := range places {
		assert.False(t, seen[string(p.Place)], p.Place)
		seen[string(p.Place)] = true
		for _, b := range p.Breaks {
			_, ok := HazardOf(b.Hazard)
			assert.True(t, ok, "%s: %s", p.Place, b.Hazard)
		}
	}
	assert.Len(t, index, len(hazards))
	assert.Len(t, byKey, len(Keys()))
}
