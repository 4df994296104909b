package parts

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/load"
)

// carriedOnly are slots whose things are put on by hand in no time.
var carriedOnly = map[Slot]bool{TyreKit: true, Navigator: true, SpareFront: true, SpareRear: true, StandPlateSlot: true}

// TestTable walks the table of kinds against the others.
func TestTable(t *testing.T) {
	moved := map[Figure]bool{}
	for _, kind := range table {
		assert.NotEmpty(t, kind.Name, kind.Slot)
		_, ok := load.SpotOf(kind.Place)
		assert.True(t, ok, "%s sits at %q", kind.Slot, kind.Place)
		assert.Equal(t, !carriedOnly[kind.Slot], kind.Hours > 0, "%s takes %g h to fit", kind.Slot, kind.Hours)
		for _, p := range kind.Asks {
			assert.NotEmpty(t, p.Label, "%s of %s", p.Key, kind.Slot)
			assert.LessOrEqual(t, p.Min, p.Max, "%s of %s", p.Key, kind.Slot)
			if p.Moves != "" {
				assert.GreaterOrEqual(t, p.Moves.Index(), 0, "%s of %s moves %q", p.Key, kind.Slot, p.Moves)
				moved[p.Moves] = true
			}
		}
	}
	for _, info := range figures {
		assert.True(t, moved[info.Figure], "no property of any kind moves %s", info.Figure)
	}
	for slot := range counts {
		assert.GreaterOrEqual(t, slot.Index(), 0, slot)
	}
	for slot, tyre := range tyreOf {
		assert.True(t, slot.Index() >= 0 && tyre.Has(TyreCode), slot)
	}
	for _, info := range tags {
		for _, slot := range info.By {
			assert.GreaterOrEqual(t, slot.Index(), 0, "%s is brought by %s", info.Tag, slot)
		}
	}
}
