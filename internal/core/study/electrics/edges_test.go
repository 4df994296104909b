package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/studytest"
)

// drawing is a part of the rider's own that draws so much; "" is not known.
func drawing(t *testing.T, slot parts.Slot, watts string) plan.Choice {
	t.Helper()
	p := &parts.Part{ID: "own-" + string(slot), Slot: slot, Name: "Own " + string(slot)}
	parts.FedBy.Put(p, parts.FeedIgnition)
	studytest.Say(t, p, "draw", watts)
	return plan.Choice{Slot: slot, Part: p}
}

// read is a bike whose volts were read.
func read(t *testing.T, b *studytest.Garage, riding, all string, parts ...string) *plan.Plan {
	t.Helper()
	v := logbook.Volts{}
	studytest.Enter(t, &v.Riding, riding, "V")
	studytest.Enter(t, &v.AllOn, all, "V")
	p := b.With("holt-650", parts...)
	p.Readings = []logbook.Reading{{ID: "A", Kind: logbook.VoltsRead, Bike: p.Bike.ID, On: studytest.Today, Read: &v}}
	return p
}

func said(b *studytest.Garage, p *plan.Plan, id string) (study.Finding, bool) {
	f, ok := b.Findings(p)[id]
	return f, ok
}

// TestBoxBuried by where it sits and what lies on it.
func TestBoxBuried(t *testing.T) {
	b := studytest.New(t)
	for _, c := range []struct {
		at     plan.BoxPlace
		parts  []string
		buried bool
	}{
		{"", nil, false}, {plan.BoxUnderTank, nil, true}, {plan.BoxUnderSeat, nil, false}, {plan.BoxUnderSeat, []string{"roll-40"}, true}, {plan.BoxUnderSeat, []string{"rear-rack-h"}, true},
		{plan.BoxInTail, nil, false}, {plan.BoxInTail, []string{"rear-rack-h"}, true}, {plan.BoxAtSide, []string{"roll-40", "rear-rack-h"}, false}, {plan.BoxAtLamp, []string{"roll-40"}, false},
	} {
		p := b.With("holt-650", append(c.parts, "box-6")...)
		p.BoxSits = c.at
		_, ok := said(b, p, "box-buried")
		assert.Equal(t, c.buried, ok, "%s with %v", c.at, c.parts)
	}
	bare := b.With("holt-650")
	bare.BoxSits = plan.BoxUnderTank
	_, ok := said(b, bare, "box-buried")
	assert.False(t, ok, "without a box nothing is")
}

// TestBoxFull: just full is a note, what found no channel is more; a spare one is silence.
func TestBoxFull(t *testing.T) {
	b := studytest.New(t)
	_, ok := said(b, b.With("holt-650", "vest-75", "grips-heated", "box-3"), "box-full")
	assert.False(t, ok)
	just, ok := said(b, b.With("holt-650", "vest-75", "grips-heated", "camera-bar", "box-3"), "box-full")
	require.True(t, ok)
	assert.True(t, just.Small)
	left, ok := said(b, b.With("holt-650", "vest-75", "grips-heated", "camera-bar", "aux-spot", "box-3"), "box-full")
	require.True(t, ok)
	assert.False(t, left.Small)
	thirsty, ok := said(b, b.With("holt-650", "aux-halogen", "box-4"), "box-full")
	require.True(t, ok, "8 A on no channel of 7.5 A, though three are free")
	assert.False(t, thirsty.Small)
}

// TestChannelsToTheirLimit: just the limit is not past it, on the last channel too; a channel
// that the box does not have is the next free one.
func TestChannelsToTheirLimit(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "box-4").With(drawing(t, parts.Camera, "101.25")) // 7.5 A at 13.5 V
	for channel, on := range map[plan.Channel]int{"": 1, "4": 4, "5": 1, plan.OwnFuse: 0} {
		p.Wired = []plan.Wired{{Slot: parts.Camera, Channel: channel}}
		c := b.Facts(p).Wiring.Circuits
		require.Len(t, c, 1)
		assert.Equal(t, on, c[0].Channel, "%q", channel)
		_, over := said(b, p, "channel-over")
		assert.False(t, over)
	}
	unknown := &parts.Part{ID: "own-box", Slot: parts.PowerBox, Name: "A box without a sheet"}
	assert.Nil(t, b.Facts(p.With(plan.Choice{Slot: parts.PowerBox, Part: unknown})).Wiring.Box, "nobody knows what hangs on it")
}

// TestNoCircuit for what draws nothing; what nobody knows draws as such things do.
func TestNoCircuit(t *testing.T) {
	b := studytest.New(t)
	for watts, n := range map[string]int{"": 1, "0": 0, "5": 1} {
		assert.Len(t, b.Facts(b.With("holt-650").With(drawing(t, parts.Camera, watts))).Wiring.Circuits, n, "%q W", watts)
	}
}

// TestVoltsAtTheirEdges: what is said from 13, 13.5 and 14.8 V, and of which reading.
func TestVoltsAtTheirEdges(t *testing.T) {
	b := studytest.New(t)
	for _, c := range []struct{ riding, all, low, high string }{
		{"13.5", "13", "", ""}, {"13.5", "12.99", "everything on", ""}, {"13.49", "13", "nothing on", ""}, {"", "12.99", "everything on", ""}, {"13.49", "", "nothing on", ""},
		{"14.8", "14.8", "", ""}, {"14.81", "14.8", "", "14.8 V were read"}, {"", "15.3", "", "15.3 V were read"},
	} {
		found := b.Findings(read(t, b, c.riding, c.all))
		for id, words := range map[string]string{"volts-low": c.low, "regulator-high": c.high} {
			f, ok := found[id]
			assert.Equal(t, words != "", ok, "%s at %s and %s", id, c.riding, c.all)
			if ok {
				assert.Contains(t, f.Tell().What.String(), words)
			}
		}
	}
}

// TestWhoseFault: a shortage leaves out what draws most, the drain names what drains, the cold
// makes more of lithium.
func TestWhoseFault(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "aux-halogen", "camera-bar", "grips-heated", "socket-usb-live")
	studytest.Enter(t, &p.Brief.Night, "100", "%")
	short, ok := said(b, p, "charge-short")
	require.True(t, ok)
	ways := short.Remedies()
	require.Len(t, ways, 1)
	assert.Equal(t, parts.AuxLamps, ways[0].Choices[0].Slot)
	assert.Contains(t, short.Tell().What.String(), "over the hours of riding")
	drain, ok := said(b, p, "parked-drain")
	require.True(t, ok)
	assert.Contains(t, drain.Tell().What.String(), "Twin socket")
	assert.NotContains(t, drain.Tell().What.String(), "Camera")
	for weather, small := range map[plan.Weather]bool{plan.Cold: false, plan.Wet: true, plan.Warm: true} {
		p := b.With("holt-650", "battery-lithium")
		p.Brief.Weather = weather
		lithium, ok := said(b, p, "lithium-cold")
		require.True(t, ok)
		assert.Equal(t, small, lithium.Small, weather)
	}
}

// TestWhatALampSitsOn: its own mount, or the bike's where its sheet does not say; a lamp of which
// nothing is known is not one of bare lumens.
func TestWhatALampSitsOn(t *testing.T) {
	b := studytest.New(t)
	turns := func(mount parts.LampMount, parts ...string) bool {
		p := b.With("holt-650", parts...)
		bike := *p.Bike
		bike.HeadlampMount, p.Bike = mount, &bike
		return b.Facts(p).Light.Beams[0].Turns
	}
	assert.False(t, turns(""))
	assert.True(t, turns(parts.OnBars))
	assert.True(t, turns(parts.OnBars, "headlamp-led"), "an insert stays where the lamp was")
	assert.False(t, turns(parts.OnFrame, "headlamp-led"))
	assert.True(t, turns(parts.OnFrame, "headlamp-lens"), "its bracket is on the bars")
	own := func(said ...string) []string {
		part := studytest.Say(t, &parts.Part{ID: "own-lamps", Slot: parts.AuxLamps, Name: "Own"}, said...)
		return b.Facts(b.With("holt-650").With(plan.Choice{Slot: parts.AuxLamps, Part: part})).Light.Unsaid
	}
	assert.Empty(t, own())
	assert.Empty(t, own("beam", "30"))
	assert.Equal(t, []string{"Own"}, own("lumens", "3000"))
	assert.Empty(t, own("lumens", "3000", "beam", "30"))
}

// TestNightWithoutGround: a brief that names none is judged on paved roads.
func TestNightWithoutGround(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Brief.Terrain = nil
	l := b.Facts(p).Light
	assert.Equal(t, terrain.Paved, l.Ground.Kind)
	assert.False(t, l.Half)
}

// TestUnknownIsNotAsBefore: indicators and a relay of the rider's own of which nothing is known
// are not as good as what they replace; what surely draws draws as such things do, and a bulb
// is about as bright as the one that it replaces: both with a band.
func TestUnknownIsNotAsBefore(t *testing.T) {
	b := studytest.New(t)
	bare := b.Report(b.With("holt-650"))
	with := func(slot parts.Slot, id figure.ID) study.Figure {
		own := &parts.Part{ID: "own", Slot: slot, Name: "Own"}
		f, ok := b.Report(b.With("holt-650").With(plan.Choice{Slot: slot, Part: own})).Figure(id)
		require.True(t, ok)
		return f
	}
	for slot, lacks := range map[parts.Slot]string{parts.Indicators: "what one indicator draws", parts.Flashing: "kind of the flasher relay"} {
		f := with(slot, figure.FlashRate)
		assert.False(t, f.Known, slot)
		assert.Contains(t, f.Missing, lacks)
	}
	for slot, id := range map[parts.Slot]figure.ID{parts.Headlamp: figure.NightSpeed, parts.VestLead: figure.ChargeMargin, parts.AuxLamps: figure.ChargeMargin, parts.Camera: figure.ChargeMargin} {
		f := with(slot, id)
		was, _ := bare.Figure(id)
		require.True(t, f.Known, slot)
		assert.Positive(t, f.Usual, slot)
		assert.Less(t, f.Low, was.Value, slot)
		assert.Less(t, f.Low, f.High, slot)
	}
	warm := &parts.Part{ID: "own", Slot: parts.Grips, Name: "Own", Provides: []string{"warm-hands"}}
	f, _ := b.Report(b.With("holt-650").With(plan.Choice{Slot: parts.Grips, Part: warm})).Figure(figure.ChargeMargin)
	assert.EqualValues(t, 1, f.Usual)
	rubber := with(parts.Grips, figure.ChargeMargin)
	assert.Zero(t, rubber.Usual, "rubber ones draw nothing")
}

// TestASwapTakesOff what it replaces: an insert of 22 W for a bulb of 55 gives 33 W back, one
// for diodes takes 2; it hangs on the bike's own wire.
func TestASwapTakesOff(t *testing.T) {
	b := studytest.New(t)
	insert := drawing(t, parts.Headlamp, "22")
	for own, back := range map[string]float64{"160": 33, "110": -2} { // injected: HANDBOOK 12
		p := b.Standard("holt-650")
		studytest.Enter(t, &p.Bike.OwnDraw, own, "W")
		after := b.Facts(p.With(insert))
		assert.InDelta(t, back, after.Charging.Trail.MarginW-b.Facts(p).Charging.Trail.MarginW, 1e-9, own)
		assert.Empty(t, after.Wiring.Circuits)
	}
	p := b.Standard("holt-650")
	standard := parts.Part{ID: "standard-headlamp", Slot: parts.Headlamp, Name: "Bulb"}
	studytest.Say(t, &standard, "draw", "35")
	p.Bike.SetStandard(standard)
	assert.InDelta(t, 13, b.Facts(p.With(insert)).Charging.Trail.MarginW-b.Facts(b.Standard("holt-650")).Charging.Trail.MarginW, 1e-9, "typed leads, and is in the bike's own draw")
}

// TestWhatCameWithIt is within the bike's own draw where it hangs on its lamps' wires, and beside
// it where it does not: a factory's warm grips draw when it is cold, and warm.
func TestWhatCameWithIt(t *testing.T) {
	b := studytest.New(t)
	came := func(slot parts.Slot, draw string) *plan.Plan {
		p := b.Standard("holt-650")
		p.Brief.Weather = plan.Cold
		part := parts.Part{ID: parts.StandardPrefix + string(slot), Slot: slot, Name: "Standard"}
		studytest.Say(t, &part, "draw", draw)
		p.Bike.SetStandard(part)
		return p
	}
	bare := b.Facts(b.Standard("holt-650")).Charging
	assert.InDelta(t, bare.Trail.MarginW, b.Facts(came(parts.Headlamp, "35")).Charging.Trail.MarginW, 1e-9)
	grips := came(parts.Grips, "40")
	assert.InDelta(t, bare.Trail.MarginW-20, b.Facts(grips).Charging.Trail.MarginW, 1e-9, "half of a cold trip")
	assert.True(t, grips.BuildStandard().Provides("warm-hands"))
	assert.False(t, came(parts.Grips, "0").BuildStandard().Provides("warm-hands"))

	lamp := drawing(t, parts.BrakeLamp, "4")
	p := b.Standard("holt-650")
	studytest.Enter(t, &p.Bike.OwnDraw, "180", "W")
	assert.InDelta(t, (21-4)*0.1, b.Facts(p.With(lamp)).Charging.Trail.MarginW-b.Facts(p).Charging.Trail.MarginW, 1e-9, "a bulb of 21 W comes off, a tenth of the time")
}

// TestUsedAsSuchThingsAre: nobody says of an own inflator that it runs all day, or of a horn.
func TestUsedAsSuchThingsAre(t *testing.T) {
	b := studytest.New(t)
	bare := b.Facts(b.Standard("holt-650")).Charging.Trail.MarginW
	for slot, most := range map[parts.Slot]float64{parts.Inflator: 0, parts.Horn: 1, parts.AuxLamps: 0} {
		c := drawing(t, slot, "100")
		c.Part.ID = parts.OwnPrefix + "thing"
		assert.InDelta(t, bare, b.Facts(b.Standard("holt-650").With(c)).Charging.Trail.MarginW, most, slot)
	}
}

// TestAsItsSheetSays: what a rider lays to a slot does not freeze when its part is used; another
// part in it is used as its own sheet says, and what they have said of it holds for both.
func TestAsItsSheetSays(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "aux-spot")
	w := plan.Wired{Slot: parts.AuxLamps}
	studytest.Enter(t, &w.Length, "1.5", "m")
	p.Wired = []plan.Wired{w}
	draw := func(p *plan.Plan) (parts.Feed, parts.Use) {
		d := b.Facts(p).Charging.Draws[0]
		return d.Feed, d.Use
	}
	feed, use := draw(p)
	assert.Equal(t, parts.FeedEngine, feed)
	assert.Equal(t, parts.AtNight, use)
	feed, _ = draw(p.With(b.Part("aux-halogen")))
	assert.Equal(t, parts.FeedIgnition, feed)
	p.Wired[0].Feed = parts.FeedAlways
	feed, _ = draw(p.With(b.Part("aux-halogen")))
	assert.Equal(t, parts.FeedAlways, feed)
}
