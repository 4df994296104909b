package electrics_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
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

// TestMeanOverTheRidingHours: the gauge is the mean by the hours on each ground, between trail
// and cruise, with idle beside it; a trip without a trail has no trail in it.
func TestMeanOverTheRidingHours(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "grips-heated")
	c := b.Facts(p).Charging
	low, high := min(c.Trail.MarginW, c.Cruise.MarginW), max(c.Trail.MarginW, c.Cruise.MarginW)
	assert.GreaterOrEqual(t, c.Mean.MarginW, low)
	assert.LessOrEqual(t, c.Mean.MarginW, high)
	assert.InDelta(t, c.Mean.MarginW, studytest.Value(t, p, figure.ChargeMargin), 1e-9)
	assert.Less(t, c.Idle.SupplyW, c.Trail.SupplyW)
	require.Len(t, c.Draws, 1)
	assert.InDelta(t, 42*0.6*0.5, c.Draws[0].MeanW, 1e-9, "step three of five, half of a cold trip")
	assert.InDelta(t, 42*0.6, c.Hour.DrawnW, 1e-9, "all the time while it is cold")

	studytest.Paved(t)(p)
	c = b.Facts(p).Charging
	assert.True(t, math.IsNaN(c.Trail.RPM))
	assert.InDelta(t, c.Cruise.MarginW, c.Mean.MarginW, 1e-9)
}

// TestWorstHour keeps the gauge on watch where the battery could not make up for it: much to
// spare on average, and a vest and grips at walking pace for an hour.
func TestWorstHour(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "grips-heated", "vest-75")
	p.Brief.Weather = plan.Wet // a seventh of the time
	studytest.Ground(t, p, map[terrain.Kind]string{terrain.Paved: "95", terrain.SingleTrack: "5"})
	studytest.Enter(t, &p.Bike.Battery, "8", "Ah")
	for alternator, want := range map[string]verdict.State{"230": verdict.Watch, "420": verdict.OK} {
		studytest.Enter(t, &p.Bike.Alternator, alternator, "W")
		r := b.Report(p)
		gauge, _ := r.Figure(figure.ChargeMargin)
		assert.Equal(t, want, gauge.State, alternator)
		hour := r.Facts.Charging.Hour
		assert.Equal(t, want == verdict.Watch, hour.MarginW < 0 && hour.Minutes <= 60, "%s: %+v", alternator, hour)
		if want == verdict.Watch {
			assert.Positive(t, gauge.Value)
			assert.Contains(t, b.Findings(p)["charge-thin"].Tell().What, "to a fifth off the battery")
		}
	}
}

// TestStockFeedsItself: no bike as it came lacks current while it rides, whatever its one number
// says, until somebody has read its volts.
func TestStockFeedsItself(t *testing.T) {
	b := studytest.New(t)
	for bike := range b.Bikes {
		p := b.Standard(bike)
		studytest.Enter(t, &p.Bike.Alternator, "120", "W")
		studytest.Enter(t, &p.Bike.OwnDraw, "150", "W")
		assert.GreaterOrEqual(t, b.Facts(p).Charging.Mean.MarginW, 0.0, bike)
	}
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
