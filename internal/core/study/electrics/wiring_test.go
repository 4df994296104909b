package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestVoltsLead over the sheet: a bike that sinks to 13.0 V with everything on gives just what
// was drawn then, whatever is written of it; another alternator ends that.
func TestVoltsLead(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "vest-75")
	bare := b.Facts(p).Charging
	v := logbook.Volts{}
	studytest.Enter(t, &v.AllOn, "13.0", "V")
	studytest.Enter(t, &v.OwnW, "150", "W")
	studytest.Enter(t, &v.AllOnW, "225", "W")
	studytest.Enter(t, &v.RatedW, "290", "W")
	p.Readings = []logbook.Reading{{ID: "VOLTSAAAAAAAAAAAAAAAAAAAAA", Kind: logbook.VoltsRead, Bike: "holt-650", On: studytest.Today, Read: &v}}
	read := b.Facts(p).Charging
	assert.Equal(t, p.Readings[0].ID, read.Read)
	assert.InDelta(t, 225, read.Curve.W(5000), 1e-9)
	assert.Less(t, read.Mean.MarginW, bare.Mean.MarginW)
	other := b.Facts(p.With(b.Part("stator-rewound"))).Charging
	assert.Empty(t, other.Read, "that was read off another alternator")
	assert.Equal(t, other.Sheet, other.Curve)
	p.Readings = append(p.Readings, logbook.Reading{ID: "REVOKEAAAAAAAAAAAAAAAAAAAA", Kind: logbook.Revocation, On: studytest.Today, Of: p.Readings[0].ID})
	assert.Equal(t, bare.Mean, b.Facts(p).Charging.Mean)
}

// TestChannels: what the rider put on one stays there, the others take the next free ones that
// carry them, and what none carries keeps a fuse of its own.
func TestChannels(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "vest-75", "grips-heated", "aux-halogen", "camera-bar", "box-4")
	p.Wired = []plan.Wired{{Slot: parts.Grips, Channel: "3"}, {Slot: parts.Camera, Channel: plan.OwnFuse}}
	w := b.Facts(p).Wiring
	require.NotNil(t, w.Box)
	on := map[parts.Slot]int{}
	for _, c := range w.Circuits {
		on[c.Draw.Slot] = c.Channel
	}
	assert.Equal(t, map[parts.Slot]int{parts.Grips: 3, parts.VestLead: 1, parts.AuxLamps: 0, parts.Camera: 0}, on)
	assert.Equal(t, []string{"Two old lamps, 55 W bulbs"}, w.Left, "8.1 A on a channel for 7.5 A")
	assert.Equal(t, 2, w.Spare)
	assert.InDelta(t, (75.0+42)/13.5, w.BoxAmps, 1e-9)
}

// TestFlashOfAMix: diodes behind leave enough for the relay, all around do not, and a relay for
// larger bulbs doubles with the bike's own.
func TestFlashOfAMix(t *testing.T) {
	b := studytest.New(t)
	pace := func(parts ...string) float64 { return b.Facts(b.With("holt-650", parts...)).Wiring.Flash.PerMin }
	assert.Equal(t, 90.0, pace())
	assert.Equal(t, 90.0, pace("indicators-led-rear"))
	assert.Equal(t, 180.0, pace("indicators-led"))
	assert.Equal(t, 90.0, pace("indicators-led", "flasher-clock"))
	assert.Equal(t, 90.0, pace("indicators-led-flasher"))
	assert.Equal(t, 180.0, pace("flasher-42"))
	for part, state := range map[string]verdict.State{"indicators-led": verdict.Watch, "indicators-led-rear": verdict.OK} {
		rate, ok := b.Report(b.With("holt-650", part)).Figure(figure.FlashRate)
		require.True(t, ok)
		assert.Equal(t, state, rate.State, part)
	}
}

// TestSocketIsWiredForWhatItFeeds, also while it is empty.
func TestSocketIsWiredForWhatItFeeds(t *testing.T) {
	b := studytest.New(t)
	w := b.Facts(b.With("holt-650", "socket-usb")).Wiring
	require.Len(t, w.Circuits, 1)
	assert.InDelta(t, 24/13.5, w.Circuits[0].Amps, 1e-9)
	assert.InDelta(t, 2, w.Circuits[0].LengthM, 1e-9, "along the frame to the bars")
}

// TestToBuy: wire there and back by its size, fuses one by one; what is laid is not bought again.
func TestToBuy(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "grips-heated", "vest-75", "camera-bar")
	p.Wired = []plan.Wired{{Slot: parts.Camera}}
	studytest.Enter(t, &p.Wired[0].Area, "1", "mm²")
	w := b.Facts(p).Wiring
	reels, fuses := w.ToBuy()
	assert.Equal(t, []float64{1, 4, 7.5}, fuses)
	require.Len(t, reels, 1)
	assert.Equal(t, 0.75, reels[0].AreaMM2)
	assert.InDelta(t, 2*(2+1), reels[0].LengthM, 1e-9, "two metres to the grips, one to the vest")
	boxed := b.Facts(p.With(b.Part("box-6"))).Wiring
	_, fuses = boxed.ToBuy()
	assert.Empty(t, fuses, "the box limits them")
}
