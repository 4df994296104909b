package cause

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestOrder: each cause has one place, and what nobody has tried loaded comes first (HANDBOOK 15
// and 16 [practice]): what fails or strands before what steers, looks last.
func TestOrder(t *testing.T) {
	seen := map[ID]bool{}
	for at, id := range order {
		assert.False(t, seen[id], id)
		seen[id] = true
		assert.Equal(t, at, id.Rank())
	}
	assert.Equal(t, -1, ID("luck").Rank())
	first := []ID{Unproved, Found, Breakage, Pump, Posture, Grip, Springs, Workshop}
	assert.IsIncreasing(t, []int{first[0].Rank(), first[1].Rank(), first[2].Rank(), first[3].Rank(), first[4].Rank(), first[5].Rank(), first[6].Rank(), first[7].Rank()})
}
