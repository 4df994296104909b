package electrics_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
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
			if kind, _ := parts.KindOf(part.Slot); kind.InPlace { // it takes the standard one's off
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

// TestUnknownDraw counts as is usual for such a thing, 40 W ± 30, and says whose it is where
// that can turn the gauge.
func TestUnknownDraw(t *testing.T) {
	b := studytest.New(t)
	own := &parts.Part{ID: "own-lamps", Slot: parts.AuxLamps, Name: "Lamps off a tractor"}
	p := b.With("holt-650")
	studytest.Enter(t, &p.Brief.Night, "100", "%")
	at := func(rated string) study.Figure {
		studytest.Enter(t, &p.Bike.Alternator, rated, "W")
		gauge, ok := b.Report(p.With(plan.Choice{Slot: parts.AuxLamps, Part: own})).Figure(figure.ChargeMargin)
		require.True(t, ok)
		require.True(t, gauge.Known)
		return gauge
	}
	much := at("600")
	assert.InDelta(t, studytest.Value(t, p, figure.ChargeMargin)-40, much.Value, 1e-9)
	assert.InDelta(t, 60, much.High-much.Low, 1e-9)
	assert.Empty(t, much.Missing)
	thin := at(fmt.Sprint(600 * (1 - much.Value/(much.Value+40+150))))
	assert.Equal(t, verdict.Watch, thin.State)
	assert.Contains(t, thin.Missing, "what Lamps off a tractor draws")
}
