package tyre_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/tyre"
)

// TestRimFits holds the shares against measuring rims of the ETRTO Standards
// Manual, motorcycle section, from memory: the rim that a size is measured on is
// one that its kind of tyre usually has.
func TestRimFits(t *testing.T) {
	for _, c := range []struct {
		code string
		rim  float64
		kind tyre.Kind
	}{
		{"90/90-21", 2.15, tyre.RoadBiased}, {"110/80-19", 2.50, tyre.RoadBiased}, {"120/70R17", 3.50, tyre.Road}, {"150/70R17", 4.00, tyre.RoadBiased},
		{"160/60R17", 4.50, tyre.Road}, {"180/55R17", 5.50, tyre.Road}, {"130/80-17", 3.00, tyre.AllRound}, {"140/80-18", 3.50, tyre.AllRound},
		{"80/100-21", 1.60, tyre.Knobbly}, {"110/100-18", 2.15, tyre.Knobbly}, {"120/90-18", 2.15, tyre.DirtBiased}, {"140/80-18", 2.50, tyre.DirtBiased},
		// In use [common practice, no source].
		{"150/70R17", 4.25, tyre.DirtBiased}, {"110/80-18", 3.00, tyre.DirtBiased}, {"120/80-18", 2.15, tyre.RoadBiased}, {"140/80-17", 4.25, tyre.DirtBiased},
	} {
		s, err := tyre.Parse(c.code)
		require.NoError(t, err)
		low, high := tyre.RimShareRange(c.kind)
		share := tyre.RimShare(s, tyre.Rim{DiameterIn: s.RimIn, WidthIn: c.rim})
		assert.True(t, share >= low && share <= high, "%s on %.2f in: %.2f of its width, usual %.2f to %.2f", c.code, c.rim, share, low, high)
	}
	wide, err := tyre.Parse("180/55R17")
	require.NoError(t, err)
	low, _ := tyre.RimShareRange(tyre.Road)
	assert.Less(t, tyre.RimShare(wide, tyre.Rim{DiameterIn: 17, WidthIn: 3}), low, "a wide road tyre on a trail rim")
}

var rearTyre = tyre.Shape{DiameterMM: 681, WidthMM: 140, HeightMM: 112}

// TestAirAndCarcassCarry: whatever the load, what they carry times the patch is the load
// (statics).
func TestAirAndCarcassCarry(t *testing.T) {
	for kg := 60.0; kg <= 220; kg += 20 {
		length, width := rearTyre.Patch(kg, 220)
		area := math.Pi / 4 * length * width / 1e6
		if width < rearTyre.WidthMM {
			assert.InEpsilon(t, kg*9.80665, area*(220_000+1000*tyre.CarcassKPa), 1e-9, "%.0f kg", kg)
		}
	}
	length, width := rearTyre.Patch(190, 150)
	assert.True(t, length > 100 && length < 250 && width > 60 && width <= 140, "the size of a hand: %.0f × %.0f mm", length, width)
}

func TestPinchFloor(t *testing.T) {
	floor := rearTyre.PinchFloorKPa(190, 2, tyre.Rock, tyre.Tube)
	assert.InEpsilon(t, rearTyre.RoomMM(), rearTyre.SinkMM(2*190, floor, tyre.Rock), 1e-9, "there the stone just reaches the rim")
	assert.True(t, floor > 100 && floor < 300, "%.0f kPa is a pressure that riders use", floor)
	for name, more := range map[string]float64{
		"load": rearTyre.PinchFloorKPa(200, 2, tyre.Rock, tyre.Tube), "a harder hit": rearTyre.PinchFloorKPa(190, 2.2, tyre.Rock, tyre.Tube),
		"a sharper stone": rearTyre.PinchFloorKPa(190, 2, tyre.Rock/2, tyre.Tube),
	} {
		assert.Greater(t, more, floor, "%s asks for more air", name)
	}
	before := math.Inf(1)
	for _, f := range []tyre.Filling{tyre.Tube, tyre.HeavyTube, tyre.UltraTube, tyre.Foam} {
		kPa := rearTyre.PinchFloorKPa(190, 2, tyre.Rock, f)
		assert.Less(t, kPa, before, "%s lets it go lower", f)
		before = kPa
	}
	assert.Zero(t, before, "foam holds without air")
	assert.True(t, math.IsNaN(tyre.Shape{DiameterMM: 500, WidthMM: 100, HeightMM: 20}.PinchFloorKPa(190, 2, tyre.Rock, tyre.Tube)), "no room, no floor")
}

// TestLoadFloor: at the reference pressure a tyre carries its rated load; half
// the load asks for 0.42 of the pressure, 2^(−1/0.8).
func TestLoadFloor(t *testing.T) {
	assert.InDelta(t, 250, tyre.LoadFloorKPa(250, 300, 300), 1e-9)
	assert.InDelta(t, 250*0.4204, tyre.LoadFloorKPa(250, 150, 300), 0.05)
	assert.InDelta(t, 150, tyre.CarriesKg(250, tyre.LoadFloorKPa(250, 150, 300), 300), 1e-9, "and back")
	assert.InDelta(t, 300, tyre.CarriesKg(250, 280, 300), 1e-9, "more air carries no more")
}
