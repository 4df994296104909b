package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/parts"
)

// TestChecksOfSlots: each check that looks at a part knows its place.
func TestChecksOfSlots(t *testing.T) {
	for check, s := range slotOf {
		_, ok := baseline.CheckOf(check)
		assert.True(t, ok, "%s is no check", check)
		assert.GreaterOrEqual(t, s.Index(), 0, "%s: %s is no slot", check, s)
	}
}

// TestUnknownSlot: a part of a slot that nobody knows is left out of the bike, and no
// hour is made up for it.
func TestUnknownSlot(t *testing.T) {
	p := New("P", "EUR")
	p.Bike = &Bike{Standard: []parts.Part{{ID: "a", Slot: "sidecar"}}}
	p.Lines = []Line{{Kind: PartLine, Need: Needed, Part: &parts.Part{ID: "b", Slot: "sidecar"}}}
	assert.Empty(t, p.Build("travel").Fitted)
	assert.Zero(t, p.OwnHours(&p.Lines[0]))
}

// TestScopedLeavesItsArgument as it was.
func TestScopedLeavesItsArgument(t *testing.T) {
	p := New("P", "EUR")
	p.Lines = []Line{{Kind: PartLine, Need: Needed, Loadout: "travel", Part: &parts.Part{ID: "b", Slot: parts.Chain}}}
	choices := []Choice{{Slot: parts.RearSprocket}, {Slot: parts.Chain}}
	scoped := p.Scoped(choices, "travel")
	assert.Equal(t, "travel", scoped[1].Loadout)
	assert.Empty(t, scoped[0].Loadout)
	assert.Empty(t, choices[1].Loadout)
}
