package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/studytest"
)

// TestMoreDrawNeverMoreMargin, and what is unplugged gives it back.
func TestMoreDrawNeverMoreMargin(t *testing.T) {
	b := studytest.New(t)
	for bike := range b.Bikes {
		p := b.With(bike)
		studytest.Enter(t, &p.Brief.Night, "40", "%")
		p.Brief.Weather = plan.Cold
		bare := studytest.Value(t, p, figure.ChargeMargin)
		for _, part := range b.Shelf {
			if part.Electric() == nil || !b.Standard(bike).BuildStandard().Goes(part) {
				continue
			}
			with := studytest.Value(t, p.With(plan.Choice{Slot: part.Slot, Part: part}), figure.ChargeMargin)
			assert.LessOrEqual(t, with, bare+1e-9, "%s: %s", bike, part.ID)
		}
	}
}

// TestWorstOfTrailAndCruise: the gauge is the lesser of both, with idle beside it.
func TestWorstOfTrailAndCruise(t *testing.T) {
	b := studytest.New(t)
	c := b.Facts(b.With("holt-650", "grips-heated")).Charging
	assert.Equal(t, min(c.Trail.MarginW, c.Cruise.MarginW), c.Worst().MarginW)
	assert.Less(t, c.Idle.SupplyW, c.Trail.SupplyW)
	require.Len(t, c.Draws, 1)
	assert.InDelta(t, 42*0.6*0.5, c.Draws[0].MeanW, 1e-9, "step three of five, half of a cold trip")
}

// TestUnknownDraw leaves the margin unknown and says whose it is.
func TestUnknownDraw(t *testing.T) {
	b := studytest.New(t)
	own := &parts.Part{ID: "own-lamps", Slot: parts.AuxLamps, Name: "Lamps off a tractor"}
	gauge, ok := b.Report(b.With("holt-650").With(plan.Choice{Slot: parts.AuxLamps, Part: own})).Figure(figure.ChargeMargin)
	require.True(t, ok)
	assert.False(t, gauge.Known)
	assert.Contains(t, gauge.Missing, "what Lamps off a tractor draws")
}
