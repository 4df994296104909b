package fuel

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/terrain"
)

// TestWorkedExamples are the two of the handbook of the trade, for a 400 single of
// 240 kg with a drag area of 0.6 m² and petrol of 0.745 kg/L. Its numbers are
// computed from defaults that are from memory, so the band counts.
func TestWorkedExamples(t *testing.T) {
	m := Machine{DisplacementL: 0.4, MassKg: 240, DragAreaM2: 0.6, TyreRoad: roadTyreRoad, Single: true}
	road, _ := terrain.Of(terrain.Paved)
	road.Brakings = 0
	fast := 100 * m.at(road, 90, 5500).Litres(air.Density(0), 0)
	assert.InDelta(t, 3.9, fast, 0.1)
	assert.True(t, fast > 3.3 && fast < 4.5)

	gravel, _ := terrain.Of(terrain.RoughGravel)
	slow := m.at(gravel, 35, 3700)
	assert.InDelta(t, 80, slow.Pace, 8, "braking on a twisty track, kJ/km")
	assert.InDelta(t, 0.20, slow.Overrun(air.Density(0)), 0.03)
	assert.InDelta(t, 4.1, 100*slow.Litres(air.Density(0), 0), 0.1)

	// A slow track must not come out cheaper than the road.
	assert.Greater(t, slow.Litres(air.Density(0), 0), fast/100)
}

// TestHandbookRanges: the numbers that the model starts from lie in the ranges of
// textbooks (from memory of them: rolling resistance 0.01–0.02 on tarmac, 0.2–0.3
// in sand; EN 228 gives the density).
func TestHandbookRanges(t *testing.T) {
	assert.True(t, Density >= 0.720 && Density <= 0.775)
	for kind, band := range map[terrain.Kind][2]float64{terrain.Motorway: {0.01, 0.02}, terrain.Paved: {0.01, 0.02}, terrain.Sand: {0.1, 0.3}} {
		g, _ := terrain.Of(kind)
		assert.True(t, g.Rolling >= band[0] && g.Rolling <= band[1], kind)
	}
	for _, g := range terrain.Grounds() {
		low, high := 0.015, 0.3
		switch g.Kind {
		case terrain.Motorway, terrain.Paved:
			high = 0.025
		case terrain.Mud, terrain.Sand:
			low = 0.15
		}
		assert.True(t, g.Slip >= low && g.Slip <= high, g.Kind)
	}
}

// TestWhatMovesIt: each thing that ought to drink more does, on every ground.
func TestWhatMovesIt(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for range 300 {
		m := Machine{
			DisplacementL: 0.2 + random.Float64(), CircumferenceMM: 1900 + 200*random.Float64(), CleanRPM: 1500 + 800*random.Float64(),
			MassKg: 180 + 200*random.Float64(), DragAreaM2: 0.4 + 0.4*random.Float64(), TyreRoad: random.Float64(),
		}
		for overall := 22 + 6*random.Float64(); len(m.Overalls) < 5; overall /= 1.32 {
			m.Overalls = append(m.Overalls, overall)
		}
		for _, g := range terrain.Grounds() {
			is := func(m Machine, kmh, density, climb float64) float64 { return m.On(g, kmh).Litres(density, climb) }
			base := is(m, g.SpeedKmh, 1.1, 5)
			heavier, wider, shorter, blocky, bigger := m, m, m, m, m
			shorter.Overalls = nil
			heavier.MassKg += 20
			wider.DragAreaM2 += 0.1
			bigger.DisplacementL += 0.1
			blocky.TyreRoad = 0
			assert.Greater(t, is(heavier, g.SpeedKmh, 1.1, 5), base, "mass")
			assert.Greater(t, is(wider, g.SpeedKmh, 1.1, 5), base, "screen and luggage")
			assert.Greater(t, is(bigger, g.SpeedKmh, 1.1, 5), base, "engine friction")
			assert.GreaterOrEqual(t, is(blocky, g.SpeedKmh, 1.1, 5), base, "blocks")
			assert.Less(t, is(m, g.SpeedKmh, 0.9, 5), base, "thin air drags less")
			assert.Greater(t, is(m, g.SpeedKmh, 1.1, 15), base, "climb")
			for _, o := range m.Overalls {
				shorter.Overalls = append(shorter.Overalls, 1.1*o)
			}
			assert.GreaterOrEqual(t, is(shorter, g.SpeedKmh, 1.1, 5), base, "gearing")
		}
		// In one gear a faster cruise drinks more than a middling one.
		motorway, _ := terrain.Of(terrain.Motorway)
		assert.Greater(t, m.On(motorway, 120).Litres(1.2, 0), m.On(motorway, 90).Litres(1.2, 0), "cruise")
	}
}

func TestGears(t *testing.T) {
	m := Machine{Overalls: []float64{22, 16, 12, 9, 7}, CircumferenceMM: 2000, CleanRPM: 2000}
	road, _ := terrain.Of(terrain.Motorway)
	rpm, gear := m.RPM(road, 100)
	assert.Equal(t, 5, gear)
	assert.InDelta(t, 100/3.6/2*7*60, rpm, 1e-6)
	crawl, _ := terrain.Of(terrain.SingleTrack)
	rpm, gear = m.RPM(crawl, 5)
	assert.Equal(t, 1, gear)
	assert.InDelta(t, 2000, rpm, 1e-9, "the clutch slips")
	rpm, gear = m.RPM(crawl, 30)
	assert.InDelta(t, 1.12*1.5*2000, rpm, 1e-9, "between gears")
	assert.Equal(t, 3, gear)
}

// TestMoreSlowingsNeverTakeLess, whatever the machine: what momentum pays on the overrun it
// was given before.
func TestMoreSlowingsNeverTakeLess(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	for range 500 {
		m := Machine{DisplacementL: 0.2 + random.Float64(), MassKg: 150 + 250*random.Float64(), DragAreaM2: 0.3 + 0.6*random.Float64(), TyreRoad: random.Float64(), Carburettor: random.IntN(2) == 0}
		g := terrain.Grounds()[random.IntN(terrain.Count)]
		kmh, rpm, last := 10+100*random.Float64(), 1500+5000*random.Float64(), 0.0
		for g.Brakings = 0; g.Brakings < 60; g.Brakings += 0.5 {
			litres := m.at(g, kmh, rpm).Litres(1.2, 0)
			assert.GreaterOrEqual(t, litres, last-1e-12, "%v at %.0f km/h", g.Kind, kmh)
			last = litres
		}
	}
}

// TestCarburettorsGoOnFeeding on the overrun, so they save less.
func TestCarburettorsGoOnFeeding(t *testing.T) {
	g, _ := terrain.Of(terrain.RoughGravel)
	m := Machine{DisplacementL: 0.65, MassKg: 280, DragAreaM2: 0.6, TyreRoad: 0.5}
	injected := m.at(g, 35, 3000)
	m.Carburettor = true
	fed := m.at(g, 35, 3000)
	assert.InDelta(t, injected.Overrun(1.2)/2, fed.Overrun(1.2), 1e-12)
	assert.Greater(t, fed.Litres(1.2, 0), injected.Litres(1.2, 0))
}

// TestWind: drag goes by the square of the air's speed: into 40 km/h at 105 the air takes
// (145/105)² = 1.907 times as much, and a third of the range is gone.
func TestWind(t *testing.T) {
	g, _ := terrain.Of(terrain.Motorway)
	m := Machine{DisplacementL: 0.65, MassKg: 280, DragAreaM2: 0.6, TyreRoad: 0.5}
	still := m.at(g, 105, 4800)
	assert.InDelta(t, 145.0*145/105/105, still.Into(40).Wind, 1e-12)
	assert.InDelta(t, 2.0/3, still.Litres(1.225, 0)/still.Into(40).Litres(1.225, 0), 0.05)
	assert.Equal(t, still, still.Into(0))
}

// TestHeight: at 3000 m a bike takes 13 % less on the road and 6 % less on rough ground (HANDBOOK
// 7 [computed]); a carburettor that was not re-jetted burns by the square root of the air more.
func TestHeight(t *testing.T) {
	m := Machine{DisplacementL: 0.65, MassKg: 300, DragAreaM2: 0.62, TyreRoad: 0.75, Single: true}
	high, sea := air.Density(3000), air.Density(0)
	less := func(kind terrain.Kind, kmh, rpm float64) float64 {
		g, _ := terrain.Of(kind)
		w := m.at(g, kmh, rpm)
		return w.Litres(high, 0)/w.Litres(sea, 0) - 1
	}
	assert.InDelta(t, -0.13, less(terrain.Paved, 90, 4000), 0.02)
	assert.InDelta(t, -0.06, less(terrain.RoughGravel, 35, 3100), 0.02)
	injected := less(terrain.Paved, 90, 4000)
	m.Carburettor = true
	g, _ := terrain.Of(terrain.Paved)
	g.Brakings = 0 // what is saved on the overrun differs
	w := m.at(g, 90, 4000)
	assert.True(t, w.Rich)
	lean := w
	lean.Rich = false
	assert.InDelta(t, math.Sqrt(sea/high), w.Litres(high, 0)/lean.Litres(high, 0), 1e-12)
	assert.Greater(t, less(terrain.Paved, 90, 4000), injected)
	m.Lean = true
	assert.False(t, m.at(g, 90, 4000).Rich)
}

// TestFrictionByDisplacement: 250 kPa to 300 cc, 230 at 400 to 450, 200 above (HANDBOOK 7
// [memory]), and no step between.
func TestFrictionByDisplacement(t *testing.T) {
	for cc, want := range map[float64]float64{125: 250, 300: 250, 400: 230, 450: 230, 600: 200, 1200: 200} {
		assert.InDelta(t, want, FrictionKPa(cc/1000), 1e-9, "%.0f cc", cc)
	}
	for cc := 100.0; cc < 1300; cc++ {
		step := FrictionKPa(cc/1000) - FrictionKPa((cc+1)/1000)
		assert.True(t, step >= 0 && step < 0.5, "%.0f cc", cc)
	}
}
