package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/load"
)

// carriedOnly are slots whose things are put on by hand in no time.
var carriedOnly = map[Slot]bool{TyreKit: true, Navigator: true, SpareFront: true, SpareRear: true, StandPlateSlot: true}

// TestTables walks every table of slots and figures against every other.
func TestTables(t *testing.T) {
	seen := map[Slot]bool{}
	for _, info := range slots {
		assert.False(t, seen[info.Slot], "%s stands twice", info.Slot)
		seen[info.Slot] = true
		assert.NotEmpty(t, info.Name, info.Slot)
		_, ok := load.SpotOf(info.Place)
		assert.True(t, ok, "%s sits at %q", info.Slot, info.Place)
		assert.Equal(t, !carriedOnly[info.Slot], info.Hours > 0, "%s takes %g h to fit", info.Slot, info.Hours)
	}
	for name, list := range map[string][]Slot{"bags": BagSlots(), "racks": RackSlots(), "fuel": FuelSlots()} {
		for _, s := range list {
			assert.True(t, seen[s], "%s: %s is no slot", name, s)
		}
	}
	for s, is := range countOf {
		assert.True(t, seen[s], s)
		assert.Contains(t, figures, is.figure, s)
	}
	for check, s := range slotOf {
		_, ok := baseline.CheckOf(check)
		assert.True(t, ok, "%s is no check", check)
		assert.True(t, seen[s], "%s: %s is no slot", check, s)
	}
	for i, f := range figures {
		assert.NotContains(t, figures[i+1:], f, "stands twice")
	}
	for _, f := range lengths {
		assert.Contains(t, figures, f)
	}
}

// TestUnknownSlot: a part of a slot that nobody knows is left out of the bike, and no
// hour is made up for it.
func TestUnknownSlot(t *testing.T) {
	p := New("P", "EUR")
	p.Bike = &Bike{Standard: []Part{{ID: "a", Slot: "sidecar"}}}
	p.Lines = []Line{{Kind: PartLine, Need: Needed, Part: &Part{ID: "b", Slot: "sidecar"}}}
	assert.Empty(t, p.Build("travel").Fitted)
	assert.Zero(t, p.OwnHours(&p.Lines[0]))
}

// TestScopedLeavesItsArgument as it was.
func TestScopedLeavesItsArgument(t *testing.T) {
	p := New("P", "EUR")
	p.Lines = []Line{{Kind: PartLine, Need: Needed, Loadout: "travel", Part: &Part{ID: "b", Slot: Chain}}}
	choices := []Choice{{Slot: RearSprocket}, {Slot: Chain}}
	scoped := p.Scoped(choices, "travel")
	assert.Equal(t, "travel", scoped[1].Loadout)
	assert.Empty(t, scoped[0].Loadout)
	assert.Empty(t, choices[1].Loadout)
}
