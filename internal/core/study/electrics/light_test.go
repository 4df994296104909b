package electrics_test

import (
	"fmt"
	"math"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
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
	bike.SeatHeight, bike.LampHeight, p.Bike = unit.Length{}, unit.Length{}, &bike
	blind, _ := b.Report(p).Figure(figure.DippedReach)
	assert.False(t, blind.Known)
	studytest.Enter(t, &bike.LampHeight, "950", "mm")
	measured, _ := b.Report(p).Figure(figure.DippedReach)
	assert.True(t, measured.Known, measured.Missing)
}

// TestMoreSagBehindNeverShortens the dipped beam: the more is strapped on behind, the further
// it shines, until it dazzles; and a dazzling one never makes the night faster.
func TestMoreSagBehindNeverShortens(t *testing.T) {
	b := studytest.New(t)
	reach, night := 0.0, 0.0
	for _, kg := range []string{"0", "8", "16", "24", "32"} {
		p := b.Standard("holt-650")
		studytest.Packed(studytest.Thing(t, kg, "40", "", "", load.Tail))(p)
		f := b.Facts(p).Light
		require.False(t, math.IsNaN(f.DippedM))
		assert.GreaterOrEqual(t, f.DippedM, reach, "%s kg", kg)
		if reach > 0 {
			assert.Equal(t, night, f.Kmh, "%s kg", kg)
		}
		reach, night = f.DippedM, f.Kmh
	}
}

// TestStanceHeld: with the preload that each load wants both stand in their springs alike, and
// then twice the bags move neither the lamp nor its cut-off.
func TestStanceHeld(t *testing.T) {
	b := studytest.New(t)
	held := func(kg string) facts.Light {
		p := b.Standard("holt-650")
		studytest.Packed(studytest.Thing(t, kg, "40", "", "", load.Tail))(p)
		springs := b.Facts(p).Springs
		set := &p.Loadouts[len(p.Loadouts)-1].Setting
		studytest.Enter(t, &set.FrontPreload, strconv.FormatFloat(springs.Front.WantPreloadMM, 'f', 6, 64), "mm")
		studytest.Enter(t, &set.RearPreload, strconv.FormatFloat(springs.Rear.WantPreloadMM, 'f', 6, 64), "mm")
		return b.Facts(p).Light
	}
	one, two := held("8"), held("16")
	assert.InDelta(t, one.DownDeg, two.DownDeg, 0.01)
	assert.Equal(t, one.HeightMM, two.HeightMM)
}

// TestRidersOwnEyes: less light wanted reaches further, a quicker rider is faster by night.
func TestRidersOwnEyes(t *testing.T) {
	b := studytest.New(t)
	usual := b.Facts(b.Standard("holt-650")).Light
	p := b.Standard("holt-650")
	studytest.Enter(t, &p.Brief.SeesBy, "1", "lx")
	assert.InDelta(t, math.Sqrt(3)*usual.LitM, b.Facts(p).Light.LitM, 1e-9)
	p = b.Standard("holt-650")
	studytest.Enter(t, &p.Brief.Reacts, "1", "s")
	assert.Greater(t, b.Facts(p).Light.Kmh, usual.Kmh)
	assert.Equal(t, usual.LitM, b.Facts(p).Light.LitM)
}

// TestBends: far lamps light no more of one, wide ones do, and on what turns with the bars
// a little more; a helmet lamp looks round it.
func TestBends(t *testing.T) {
	b := studytest.New(t)
	lit := func(parts ...string) float64 { return b.Facts(b.With("holt-650", parts...)).Light.BendM }
	bare := lit()
	assert.Less(t, lit("aux-spot"), 1.4*bare)
	assert.Greater(t, lit("wide-60"), 1.8*bare)
	assert.Greater(t, lit("helmet-10"), 1.5*bare)
	assert.Equal(t, bare, lit("wide-cheap"), "bare lumens light nothing")
}

// TestLitAllDayIsSeen: a second lamp in front that somebody has said is on all day is seen by day.
func TestLitAllDayIsSeen(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650").With(plan.Choice{Slot: parts.AuxLamps, Part: &parts.Part{ID: "own-lamps", Slot: parts.AuxLamps, Name: "Two lamps"}})
	studytest.Ground(t, p, map[terrain.Kind]string{terrain.Paved: "100"})
	met := func() bool {
		needs, _ := b.Report(p).Needs()
		for _, n := range needs {
			if n.ID == "seen-by-day" {
				return n.Met
			}
		}
		t.Fatal("the need is not asked")
		return false
	}
	assert.False(t, met())
	p.Wired = []plan.Wired{{Slot: parts.AuxLamps, Use: parts.InUse}}
	assert.True(t, met())
	p.Wired[0].Use = parts.AtNight
	assert.False(t, met())
}

// TestDazzlesBeforeLevel: less than half in a hundred below level is spoken of, and how far down
// it still points.
func TestDazzlesBeforeLevel(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650")
	tilt := b.Facts(p).Light.TiltDeg
	for down, speaks := range map[float64]bool{0.40: false, 0.20: true, -0.10: true} {
		studytest.Enter(t, &p.Bike.LampAim, fmt.Sprintf("%.3f", max(0, tilt+down)), "°")
		f, said := b.Findings(p)["dazzles"]
		assert.Equal(t, speaks, said, down)
		if down == 0.20 && said {
			assert.Contains(t, f.Tell().What, "only 0.2° down")
		}
	}
}
