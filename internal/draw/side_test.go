package draw_test

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/demo"
	"valiantmule/internal/draw"
)

func single() draw.Silhouette {
	return draw.Silhouette{
		WheelbaseMM: 1490, FrontTyreMM: 695, RearTyreMM: 649, FrontRimMM: 533, RearRimMM: 457, SeatMM: 885, ClearanceMM: 245, BarMM: 1150, PegMM: 360,
		RakeDegrees: 28, OffsetMM: 40, FrontTravelMM: 210, CentreXMM: 610, CentreHeightMM: 720,
	}
}

// TestSideIsTrueToItsMeasures: what a ruler would read off the drawing.
func TestSideIsTrueToItsMeasures(t *testing.T) {
	b := single()
	sheet := draw.SideSheet(b)
	view, ok := sheet.Side(b, draw.Current)
	require.True(t, ok)
	mm := float64(sheet.X(1000)-sheet.X(0)) / 1000
	assert.InDelta(t, 1490*mm, float64(view.Wheels[1].X-view.Wheels[0].X), 1e-6)
	for i, diameter := range []float64{649, 695} {
		assert.InDelta(t, float64(sheet.GroundY), float64(view.Wheels[i].Y+view.Wheels[i].R), 1e-6, "it stands on the ground")
		assert.InDelta(t, diameter/2*mm, float64(view.Wheels[i].R), 1e-6)
	}
	for _, m := range []struct {
		mark draw.Mark2D
		mm   float64
	}{{view.Seat, 885}, {view.Bottom, 245}, {view.Bar, 1150}, {view.Centre, 720}} {
		require.True(t, m.mark.Shown)
		assert.InDelta(t, m.mm*mm, float64(sheet.GroundY-m.mark.Y), 1e-6)
	}
	inside(t, sheet, view)
}

var numbers = regexp.MustCompile(`-?\d+(\.\d+)?`)

// inside checks that no part of a view leaves its sheet, with room for the words.
func inside(t *testing.T, sheet draw.Sheet, view draw.SideView) {
	t.Helper()
	for _, part := range view.Parts {
		values := numbers.FindAllString(part.Path, -1)
		for i, text := range values {
			v, err := strconv.ParseFloat(text, 64)
			require.NoError(t, err)
			limit := float64(sheet.Width)
			if i%2 == 1 {
				limit = float64(sheet.Height)
			}
			assert.True(t, v >= 0 && v <= limit, "%s at %s of %s", part.Name, text, part.Path)
		}
	}
}

// TestEveryBikeCanBeDrawn: each of the demo's bikes over each other, and one of
// which only the main measures are known.
func TestEveryBikeCanBeDrawn(t *testing.T) {
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	unknown := math.NaN()
	bare := draw.Silhouette{WheelbaseMM: 1400, FrontTyreMM: 600, RearTyreMM: 600, SeatMM: 780, ClearanceMM: unknown, BarMM: unknown, PegMM: unknown, RakeDegrees: unknown, OffsetMM: unknown, FrontTravelMM: unknown, CentreXMM: unknown, CentreHeightMM: unknown}
	for _, b := range bikes {
		s := single()
		s.WheelbaseMM, s.SeatMM, s.BarMM, s.ClearanceMM = b.Wheelbase.In("mm"), b.SeatHeight.In("mm"), b.BarHeight.In("mm"), b.Clearance.In("mm")
		sheet := draw.SideSheet(s, bare)
		for _, one := range []draw.Silhouette{s, bare} {
			view, ok := sheet.Side(one, draw.Tried)
			require.True(t, ok, b.ID)
			assert.NotRegexp(t, `NaN|Inf`, fmt.Sprint(view), b.ID)
			inside(t, sheet, view)
		}
	}
	_, ok := draw.SideSheet().Side(draw.Silhouette{WheelbaseMM: 1400, SeatMM: unknown}, draw.Current)
	assert.False(t, ok)
}

// TestChainTouchesBothSprockets: the straight runs are tangents of the two pitch
// circles, and the axle's marks lie in the slot as far as they are away.
func TestChainTouchesBothSprockets(t *testing.T) {
	pair, slot := drive.Pair{Front: 15, Rear: 46}, drive.Adjuster{ForwardMM: 18, BackMM: 14}
	d := draw.Chain(pair, 15.875, 640, slot, []draw.AxlePlace{{ShiftMM: 0, Text: "110 links"}, {ShiftMM: 10, Text: "112 links"}, {ShiftMM: -60, Text: "108 links"}, {ShiftMM: math.NaN()}})
	require.True(t, d.Shown)
	for _, run := range d.Runs {
		var x1, y1, x2, y2 float64
		_, err := fmt.Sscanf(strings.NewReplacer("M", "", "L", "").Replace(run), "%g %g %g %g", &x1, &y1, &x2, &y2)
		require.NoError(t, err)
		for _, c := range d.Sprockets {
			away := math.Abs((x2-x1)*(y1-float64(c.Y))-(x1-float64(c.X))*(y2-y1)) / math.Hypot(x2-x1, y2-y1)
			assert.InDelta(t, float64(c.R), away, 0.05)
		}
	}
	require.Len(t, d.Marks, 3, "what is not known has no mark")
	mm := float64(d.ZoomW) / 32
	assert.InDelta(t, 10*mm, float64(d.Marks[0].X-d.Marks[1].X), 1e-6, "back is left")
	assert.Equal(t, []bool{false, false, true}, []bool{d.Marks[0].Out, d.Marks[1].Out, d.Marks[2].Out})
	unmeasured := draw.Chain(pair, 15.875, 640, drive.Adjuster{ForwardMM: math.NaN(), BackMM: math.NaN()}, nil)
	assert.True(t, unmeasured.Shown && !unmeasured.Zoomed, "without its slot there is still a chain")
	assert.False(t, draw.Chain(drive.Pair{}, 15.875, 640, slot, nil).Shown)
}

// TestThrustDiagram: higher gears are further right and lower; the brief's slope
// is marked; what lies beyond the plot is not drawn.
func TestThrustDiagram(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	r, err := eval.EvaluateLoadout(p, nil, "travel", "2026-11-26")
	require.NoError(t, err)
	chart, ok := gearing.Thrust(r.Facts, p.Brief.SteepGround())
	require.True(t, ok)
	d := draw.ThrustDiagram(chart, chart.Gears, func(kmh float64) float64 { return kmh }, "km/h")
	require.Len(t, d.Gears, 10, "five ghosts under five gears")
	for i := 6; i < 10; i++ {
		assert.Greater(t, float64(d.Gears[i].X), float64(d.Gears[i-1].X))
		assert.Greater(t, float64(d.Gears[i].Y), float64(d.Gears[i-1].Y))
	}
	wished := 0
	for _, s := range d.Slopes {
		if s.Style == draw.Standard {
			wished++
			assert.Contains(t, s.Text, "30 %")
		}
		for i, text := range numbers.FindAllString(s.Path, -1) {
			if v, _ := strconv.ParseFloat(text, 64); i%2 == 1 {
				assert.True(t, v >= float64(d.Top)-1 && v <= float64(d.Lower)+1)
			}
		}
	}
	assert.Equal(t, 1, wished)
	for i, a := range d.Slopes {
		for _, b := range d.Slopes[:i] {
			assert.True(t, a.Text == "" || b.Text == "" || math.Abs(float64(a.Y-b.Y)) >= 12, "%q stands on %q", a.Text, b.Text)
		}
		assert.True(t, a.Text == "" || a.X > d.LevelX, "left of it the limits are written, and not %q", a.Text)
	}
	assert.True(t, d.Traction.Shown && d.Cruise.Shown)
	assert.NotRegexp(t, `NaN|Inf`, fmt.Sprint(d))
}

// TestStaircase adds up, and says where the budget is passed.
func TestStaircase(t *testing.T) {
	plain := func(minor float64) string { return fmt.Sprintf("%.0f", minor/100) }
	d := draw.Staircase([]draw.StairStep{{Cost: 20000, Kind: "needed"}, {Cost: 10000, Kind: "wanted"}, {Cost: 10000, Kind: "open"}}, 25000, plain)
	require.Len(t, d.Steps, 3)
	assert.InDelta(t, float64(d.Lower), float64(d.Steps[0].Y+d.Steps[0].Height), 1e-9, "the first stands on the floor")
	for i, s := range d.Steps[1:] {
		assert.InDelta(t, float64(d.Steps[i].Y), float64(s.Y+s.Height), 1e-9, "each stands on the one before")
	}
	assert.InDelta(t, 2, float64(d.Steps[0].Height/d.Steps[1].Height), 1e-9)
	assert.Equal(t, []bool{false, true, true}, []bool{d.Steps[0].Over, d.Steps[1].Over, d.Steps[2].Over})
	assert.True(t, d.Budget.Shown)
	assert.False(t, draw.Staircase(nil, 25000, plain).Shown)
	assert.False(t, draw.Staircase([]draw.StairStep{{Cost: 100}}, math.NaN(), plain).Budget.Shown)
}

// TestArmourViews: both views stand on one ground, to one scale; a mark is as
// large as what is to be feared, and filled as far as guards leave it.
func TestArmourViews(t *testing.T) {
	b := single()
	b.BarWidthMM, b.FrontTyreWidthMM = 800, 92
	var places []draw.Vulnerable
	for i, p := range guard.Places() {
		places = append(places, draw.Vulnerable{Place: p.Place, Hazard: guard.Hazards()[i%len(guard.Hazards())].Hazard, Bare: 0.01 * float64(i), Left: 0.005 * float64(i), Number: i + 1})
	}
	d := draw.ArmourViews(b, places)
	require.True(t, d.Shown)
	assert.NotRegexp(t, `NaN|Inf`, fmt.Sprint(d))
	seen := map[guard.Place]int{}
	for _, m := range d.Marks {
		seen[m.Place]++
		assert.True(t, m.X >= 0 && m.X <= d.Width && m.Y >= 0 && m.Y <= d.GroundY, "%s stands on the paper", m.Place)
		assert.NotEmpty(t, m.Outer)
		assert.Regexp(t, `^M.*Z$`, m.Outer, "%s is closed", m.Place)
	}
	for _, p := range guard.Places() {
		assert.Positive(t, seen[p.Place], "%s is seen from somewhere", p.Place)
	}
	one := func(bare, left float64) draw.RiskMark {
		return draw.ArmourViews(b, []draw.Vulnerable{{Place: guard.RearBrake, Hazard: guard.SlowFall, Bare: bare, Left: left}}).Marks[0]
	}
	assert.Empty(t, one(0.1, 0).Inner, "nothing left, nothing filled")
	assert.Equal(t, one(0.1, 0.1).Inner, one(0.1, 0.1).Outer, "bare, all of it")
	assert.Greater(t, float64(one(0.2, 0).TextX), float64(one(0.1, 0).TextX), "more to be feared is larger")
	assert.False(t, draw.ArmourViews(draw.Silhouette{}, places).Shown)

	sheet := draw.SideSheet(b)
	front, ok := sheet.Front(b, 900, draw.Current)
	require.True(t, ok)
	for _, part := range front.Parts {
		for i, text := range numbers.FindAllString(part.Path, -1) {
			v, err := strconv.ParseFloat(text, 64)
			require.NoError(t, err)
			if i%2 == 1 {
				assert.True(t, v >= 0 && v <= float64(sheet.GroundY)+0.01, "%s at height %s", part.Name, text)
			} else {
				assert.True(t, v >= 900-float64(front.Width)/2 && v <= 900+float64(front.Width)/2, "%s at %s across", part.Name, text)
			}
		}
	}
}

// TestWearBars: as long as what is left, the trip marked, what goes beyond twice
// the trip cut off.
func TestWearBars(t *testing.T) {
	words := func(km float64) string { return fmt.Sprintf("%.0f km", km) }
	d := draw.WearBars([]draw.Bar{{Name: "Pads", Value: 2000, Short: true}, {Name: "Chain", Value: 4000}, {Name: "Disc", Value: 90_000}}, 4000, words)
	require.Len(t, d.Rows, 3)
	assert.InDelta(t, float64(d.Rows[1].Width), 2*float64(d.Rows[0].Width), 1e-9)
	assert.InDelta(t, float64(d.Mark.X), float64(d.Left+d.Rows[1].Width), 1e-9, "what just lasts ends at the trip")
	assert.Equal(t, []bool{false, false, true}, []bool{d.Rows[0].Beyond, d.Rows[1].Beyond, d.Rows[2].Beyond})
	assert.False(t, draw.WearBars(nil, 4000, words).Shown)
	assert.False(t, draw.WearBars([]draw.Bar{{Name: "Pads", Value: 2000}}, math.NaN(), words).Mark.Shown, "no trip, no line")
}

// TestRiderOn: thigh and shank keep their lengths, the foot is on the peg.
func TestRiderOn(t *testing.T) {
	b := single()
	d := draw.RiderOn(b, draw.Posture{InseamMM: 850, SeatMM: 885, PegMM: 355, BarMM: 1150, Style: draw.Current}, draw.Posture{InseamMM: math.NaN(), Style: draw.Tried})
	require.Len(t, d.Legs, 1, "a posture with a number missing is left out")
	sheet := draw.SideSheet(b)
	mm := float64(sheet.X(1000)-sheet.X(0)) / 1000
	var p []float64
	for _, text := range numbers.FindAllString(d.Legs[0].Path, -1) {
		v, err := strconv.ParseFloat(text, 64)
		require.NoError(t, err)
		p = append(p, v)
	}
	thigh, shank := fit.Leg(850)
	assert.InDelta(t, thigh, math.Hypot(p[2]-p[0], p[3]-p[1])/mm, 0.5)
	assert.InDelta(t, shank, math.Hypot(p[4]-p[2], p[5]-p[3])/mm, 0.5)
	assert.InDelta(t, float64(sheet.Y(355)), p[5], 0.01)
	assert.Greater(t, p[2], (p[0]+p[4])/2, "a knee bends forward")
	assert.False(t, draw.RiderOn(draw.Silhouette{}).Shown)
}
