package draw_test

import (
	"fmt"
	"math"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/demo"
	"valiantmule/internal/draw"
)

func TestNumbersArePlain(t *testing.T) {
	for v, want := range map[float64]string{1.234: "1.23", -0.001: "0", 1e9: "1000000000", 12: "12"} {
		assert.Equal(t, want, draw.N(v).String())
	}
	for _, v := range []float64{math.NaN(), math.Inf(1), math.Inf(-1)} {
		assert.Equal(t, "0", draw.N(v).String())
	}
}

func demoReport(t *testing.T, change func(p *plan.Plan)) (gearing.SprocketField, *eval.LoadoutReport) {
	t.Helper()
	p, err := demo.Plan()
	require.NoError(t, err)
	change(p)
	shelf, err := demo.Parts()
	require.NoError(t, err)
	report, err := eval.EvaluateLoadout(p, shelf, "travel", "2026-11-26")
	require.NoError(t, err)
	return gearing.Sprockets(report.Facts), report
}

// TestFieldPlacesByRatio: a mark further right is geared shorter, and it stands
// in the window exactly when the brief allows it.
func TestFieldPlacesByRatio(t *testing.T) {
	field, _ := demoReport(t, func(*plan.Plan) {})
	d := draw.SprocketField(field)
	require.Len(t, d.Marks, len(field.Pairs))
	require.True(t, d.Window.Shown)
	for _, a := range d.Marks {
		assert.True(t, a.X > d.Left && a.X < d.Right && a.Y > d.Top && a.Y < d.Lower)
		in := a.X >= d.Window.X && a.X <= d.Window.X+d.Window.Width
		assert.Equal(t, a.Figures.Allowed, in, "%v", a.Figures.Pair)
		for _, b := range d.Marks {
			if a.X > b.X {
				assert.Greater(t, a.Figures.CruiseRPM, b.Figures.CruiseRPM)
				assert.Less(t, a.Figures.PaceKmh, b.Figures.PaceKmh)
			}
		}
	}
}

// TestCaptionsStandClear of the marks, of one another and of the plot's sides, also
// where a limit is at its edge.
func TestCaptionsStandClear(t *testing.T) {
	for _, rpm := range []string{"4000", "4700", "5100", "5600", "9000"} {
		field, _ := demoReport(t, func(p *plan.Plan) { require.NoError(t, p.Brief.CruiseRPM.Enter(rpm, "rpm")) })
		d := draw.SprocketField(field)
		first := d.Rows[0].Y - 15
		for i, c := range d.Captions {
			assert.Less(t, float64(c.Y), float64(first), "%s at %s", c.Text, rpm)
			long := 5.5 * float64(len(c.Text))
			if c.Anchor == "start" {
				assert.LessOrEqual(t, float64(c.X)+long, float64(d.Right), c.Text)
			} else {
				assert.GreaterOrEqual(t, float64(c.X)-long, float64(d.Left), c.Text)
			}
			for _, other := range d.Captions[:i] {
				assert.GreaterOrEqual(t, float64(c.Y-other.Y), 12.0)
			}
		}
	}
}

// TestTicksReadWell: 28 fifths are 5.6 and not a hair more.
func TestTicksReadWell(t *testing.T) {
	for pace := 2.0; pace < 40; pace += 0.7 {
		field, _ := demoReport(t, func(*plan.Plan) {})
		field.PaceByRatio = pace * field.Pairs[0].Pair.Ratio()
		for _, tick := range draw.SprocketField(field).Pace {
			assert.LessOrEqual(t, len(tick.Text), 5, tick.Text)
		}
	}
}

// TestTicksStandApart: where grip ends what first gear climbs, all slopes beyond stand in one place.
func TestTicksStandApart(t *testing.T) {
	field, _ := demoReport(t, func(*plan.Plan) {})
	require.True(t, field.ClimbKnown)
	climb := draw.SprocketField(field).Climb
	require.NotEmpty(t, climb)
	for i := 1; i < len(climb); i++ {
		assert.GreaterOrEqual(t, float64(climb[i].At-climb[i-1].At), 25.0, "%s and %s", climb[i-1].Text, climb[i].Text)
	}
}

func TestFieldWithoutAWindow(t *testing.T) {
	field, _ := demoReport(t, func(p *plan.Plan) { require.NoError(t, p.Brief.CruiseRPM.Enter("4700", "rpm")) })
	d := draw.SprocketField(field)
	assert.False(t, d.Window.Shown)
	assert.True(t, d.Gap.Shown, "the two limits have crossed")
	assert.Positive(t, float64(d.Gap.Width))
}

// TestNothingSpoilsADrawing: with numbers missing the drawings still hold
// nothing that SVG cannot read.
func TestNothingSpoilsADrawing(t *testing.T) {
	bad := regexp.MustCompile(`NaN|Inf|e[+-]\d`)
	for name, change := range map[string]func(p *plan.Plan){
		"whole":     func(*plan.Plan) {},
		"no cruise": func(p *plan.Plan) { require.NoError(t, p.Brief.Cruise.Enter("", "")) },
		"no pace":   func(p *plan.Plan) { require.NoError(t, p.Brief.WalkingPace.Enter("", "")) },
		"no gears":  func(p *plan.Plan) { require.NoError(t, p.Bike.Gearbox.Enter("", "")) },
		"no tyre":   func(p *plan.Plan) { p.Lines = nil; p.Bike.ClearStandard(parts.RearTyre) },
		"no brief":  func(p *plan.Plan) { p.Brief = plan.Brief{} },
	} {
		field, report := demoReport(t, change)
		d := draw.SprocketField(field)
		for _, m := range d.Marks {
			assert.False(t, math.IsNaN(float64(m.X)) || math.IsNaN(float64(m.Y)), "%s: %v", name, m.Figures.Pair)
		}
		for _, tick := range append(d.Pace, d.RPM...) {
			assert.True(t, tick.At >= d.Left && tick.At <= d.Right, "%s: tick %s", name, tick.Text)
		}
		if fan := gearing.Fan(report.Facts); fan != nil {
			d := draw.SpeedFan(fan, fan[:1], draw.FanLimits{Cruise: math.NaN(), Pace: math.NaN(), Unit: "km/h", CruiseRPM: math.NaN(), ComfortRPM: math.NaN()})
			assert.Len(t, d.Rays, len(fan)+1, name)
			assert.NotRegexp(t, bad, fmt.Sprint(d.Rays, d.Speeds, d.Engine, d.Meet), name)
		}
	}
	assert.False(t, draw.TyreLineup(nil).Shown)
	nowhere := draw.Clearance{WidthMM: math.NaN(), DiameterMM: math.NaN()}
	line := draw.TyreLineup([]draw.Contender{{Tyre: draw.Tyre{Style: draw.Current, WidthMM: 140, DiameterMM: 681, RimMM: 457}, Room: nowhere}})
	require.Len(t, line.Columns, 1)
	assert.NotRegexp(t, bad, line.Columns[0].Cuts[0].Path)
	assert.False(t, line.Columns[0].Room.Shown)
	shape := tyre.Shape{DiameterMM: 681, WidthMM: 140, HeightMM: 112}
	plain := func(mm float64) string { return fmt.Sprintf("%.0f mm", mm) }
	assert.False(t, draw.TyreContact(shape, 2, tyre.Tube, []draw.ContactState{{KPa: math.NaN(), LoadKg: 190}}, plain).Shown)
	assert.NotRegexp(t, bad, fmt.Sprint(draw.TyreContact(shape, 2, tyre.Tube, []draw.ContactState{{KPa: 150, LoadKg: 190}}, plain)))
}

// TestTyresStandOnTheGround in true proportion.
func TestTyresStandOnTheGround(t *testing.T) {
	d := draw.TyreLineup([]draw.Contender{
		{Tyre: draw.Tyre{WidthMM: 141, DiameterMM: 683, RimMM: 457}, Standard: draw.Tyre{WidthMM: 120, DiameterMM: 649, RimMM: 457}, Room: draw.Clearance{WidthMM: 148, DiameterMM: 700}},
		{Tyre: draw.Tyre{WidthMM: 120, DiameterMM: 649, RimMM: 457}},
	})
	for _, col := range d.Columns {
		for _, c := range col.Sides {
			assert.InDelta(t, float64(d.SideGround), float64(c.Y+c.R), 1e-9)
		}
	}
	assert.InEpsilon(t, 649.0/683, float64(d.Columns[0].Sides[0].R/d.Columns[0].Sides[1].R), 1e-9)
	assert.InDelta(t, float64(d.Columns[0].Sides[0].R), float64(d.Columns[1].Sides[0].R), 1e-9, "one scale for all columns")
}

// TestContactPinches when the stone reaches the rim, and not before.
func TestContactPinches(t *testing.T) {
	shape := tyre.Shape{DiameterMM: 681, WidthMM: 140, HeightMM: 112}
	plain := func(mm float64) string { return fmt.Sprintf("%.0f mm", mm) }
	floor := shape.PinchFloorKPa(190, 2, tyre.Rock, tyre.Tube)
	above := draw.TyreContact(shape, 2, tyre.Tube, []draw.ContactState{{KPa: floor + 1, LoadKg: 190}}, plain)
	below := draw.TyreContact(shape, 2, tyre.Tube, []draw.ContactState{{KPa: floor - 1, LoadKg: 190}}, plain)
	assert.False(t, above.Pinched)
	assert.True(t, above.Left.Shown)
	assert.True(t, below.Pinched)
	assert.False(t, below.Left.Shown)
	heavy := draw.TyreContact(shape, 2, tyre.HeavyTube, []draw.ContactState{{KPa: floor - 1, LoadKg: 190}}, plain)
	assert.True(t, heavy.Flat && !heavy.Pinched, "a heavy tube takes more")
	soft := draw.TyreContact(shape, 2, tyre.Tube, []draw.ContactState{{KPa: 250, LoadKg: 190}, {KPa: 120, LoadKg: 190}}, plain)
	assert.Less(t, float64(soft.Patches[0].RX), float64(soft.Patches[1].RX), "a softer tyre stands on more ground")
}
