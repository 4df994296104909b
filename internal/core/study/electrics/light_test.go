package electrics_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/studytest"
)

// TestLamps: twice the candela reaches √2 as far (inverse-square law), and lumens alone, or
// lamps to be seen by, reach no further than the headlamp.
func TestLamps(t *testing.T) {
	b := studytest.New(t)
	one, two := b.Standard("holt-650"), b.Standard("holt-650")
	studytest.Enter(t, &one.Bike.Headlamp, "12000", "cd")
	studytest.Enter(t, &two.Bike.Headlamp, "24000", "cd")
	bare := studytest.Value(t, one, figure.LitDistance)
	assert.InDelta(t, math.Sqrt2*bare, studytest.Value(t, two, figure.LitDistance), 1e-9)
	for lamp, further := range map[string]bool{"aux-spot": true, "aux-lumens": false, "aux-seen": false} {
		lit := studytest.Value(t, one.With(b.Part(lamp)), figure.LitDistance)
		assert.Equal(t, further, lit > bare, lamp)
		assert.GreaterOrEqual(t, lit, bare, lamp)
	}
}

// TestNightSpeed: known without any plan to ride by night, whose cruise is only its limit.
func TestNightSpeed(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Brief.NightCruise = unit.Speed{}
	free, _ := b.Report(p).Figure(figure.NightSpeed)
	assert.True(t, free.Known)
	assert.False(t, free.Limited)
	assert.Equal(t, []string{"cruise in the dark (Brief)"}, free.Missing)
	studytest.Enter(t, &p.Brief.NightCruise, "20", "km/h")
	bound, _ := b.Report(p).Figure(figure.NightSpeed)
	assert.Equal(t, free.Value, bound.Value)
	assert.True(t, bound.Limited)
}

// TestDipped: a lamp whose height is known asks for no seat; bags behind tip the beam up and
// never shorten it.
func TestDipped(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	studytest.Packed()(p)
	studytest.Enter(t, &p.Bike.LampAim, "2", "°")
	bare, _ := b.Report(p).Figure(figure.DippedReach)
	require.True(t, bare.Known, bare.Missing)
	packed := *p
	studytest.Packed(studytest.Thing(t, "25", "40", "", "", load.Tail))(&packed)
	loaded := b.Report(&packed)
	assert.Greater(t, loaded.Facts.Light.TiltDeg, b.Report(p).Facts.Light.TiltDeg)
	assert.Greater(t, loaded.Facts.Light.DippedM, bare.Value)

	bike := *p.Bike
	bike.SeatHeight, p.Bike = unit.Length{}, &bike
	blind, _ := b.Report(p).Figure(figure.DippedReach)
	assert.False(t, blind.Known)
	studytest.Enter(t, &bike.LampHeight, "950", "mm")
	measured, _ := b.Report(p).Figure(figure.DippedReach)
	assert.True(t, measured.Known, measured.Missing)
}
