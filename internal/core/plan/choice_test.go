package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// TestASecondPartForASlot: what was paid for stays at home with its money, what only its rider
// has the sheet of is undecided, and nothing else changes; the other way round too.
func TestASecondPartForASlot(t *testing.T) {
	first, second := &parts.Part{ID: "own-first", Slot: parts.Seat, Name: "First"}, &parts.Part{ID: "own-second", Slot: parts.Seat, Name: "Second"}
	for _, c := range []struct {
		was   plan.Decision
		first plan.First
		then  plan.Decision
		lines int
	}{
		{plan.OnTheBike, "", plan.ComesOff, 2},
		{plan.Ordered, "", plan.AtHome, 2},
		{"", "", plan.Undecided, 2},
		{"", plan.StaysHome, plan.AtHome, 2},
		{plan.Owned, plan.GoesOut, "", 1},
	} {
		p := plan.New("P", "EUR")
		p.Bike = bike(t)
		p = p.With(plan.Choice{Slot: parts.Seat, Part: first, Decision: c.was})
		p.Lines[0].Why = "as noted"
		choice := plan.Choice{Slot: parts.Seat, Part: second, First: c.first}
		assert.Equal(t, first, p.Displaced(choice)[0].Part)
		now := p.With(choice)
		require.Empty(t, now.Validate())
		require.Len(t, now.Lines, c.lines, "%+v", c)
		assert.Equal(t, second, now.Chosen(parts.Seat, "travel"))
		if c.lines == 2 {
			assert.Equal(t, c.then, now.Lines[0].Decision)
			assert.Equal(t, "as noted", now.Lines[0].Why)
			assert.Equal(t, c.then != plan.Undecided, now.Lines[0].Costs())
		}
		back := now.With(plan.Choice{Slot: parts.Seat, Part: first, Decision: plan.OnTheBike})
		assert.Empty(t, back.Validate())
		assert.Equal(t, first, back.Chosen(parts.Seat, "travel"))
		assert.NotNil(t, back.Owned())
		only := p.With(plan.Choice{Slot: parts.Seat, Part: second, Loadout: "trail-day"})
		assert.Empty(t, p.Displaced(plan.Choice{Slot: parts.Seat, Part: second, Loadout: "trail-day"}))
		assert.Equal(t, first, only.Chosen(parts.Seat, "travel"))
	}
	p := plan.New("P", "EUR")
	p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Part: first}, {Kind: plan.PartLine, Need: plan.Needed, Part: second}}
	problems := p.Validate()
	require.Len(t, problems, 1)
	assert.Contains(t, problems[0].Error(), "First and Second")
}
