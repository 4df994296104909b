package stance_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
)

// fork is an end of a fork at 27° of rake.
func fork(nmm, preload float64) stance.End {
	return stance.End{Spring: stance.Spring{Nmm: nmm}, Ratio: 1, PreloadMM: preload, TravelMM: 220, Along: math.Cos(27 * math.Pi / 180)}
}

// TestForkSag worked by hand: 100 kg are 980.665 N, along a leg at 27° 873.8 N; springs of
// 10 N/mm together are pressed 87.38 mm, of which 20 are preload.
func TestForkSag(t *testing.T) {
	e := fork(10, 20)
	assert.InDelta(t, 67.38, e.SagMM(100), 0.005)
	assert.Equal(t, 0.0, e.SagMM(10), "topped out")
	assert.Equal(t, 220.0, e.SagMM(900), "bottomed")
}

// TestLeverOfAShock: a lever moves a force by its ratio and a way by its inverse (virtual
// work: J. L. Meriam, L. G. Kraige, Engineering Mechanics: Statics, chapter 7). A wheel
// that bears 1000 N over R = 0.5 puts 2000 N on a spring of 100 N/mm: 20 mm, of which 8 are
// preload; the wheel goes twice the other 12.
func TestLeverOfAShock(t *testing.T) {
	e := stance.End{Spring: stance.Spring{Nmm: 100}, Ratio: 0.5, PreloadMM: 8, TravelMM: 200, Along: 1}
	assert.InDelta(t, 24, e.SagMM(1000/9.80665), 1e-9)
	assert.InDelta(t, 1000, e.ForceN(24), 1e-9)
}

// TestTwoRates: springs in a row give way until the weaker is shut; by hand, 8 N/mm to 90 mm
// are 720 N, 200 N more on 12 N/mm are 16.67 mm.
func TestTwoRates(t *testing.T) {
	s := stance.Spring{Nmm: 8, SecondNmm: 12, KneeMM: 90}
	assert.InDelta(t, 106.667, s.CompressedMM(920), 0.001)
	assert.InDelta(t, 920, s.ForceN(s.CompressedMM(920)), 1e-9)
	assert.InDelta(t, 400, s.ForceN(50), 1e-9)
	e := fork(8, 20)
	e.Spring = s
	for _, kg := range []float64{60, 95, 110, 140} {
		assert.InDelta(t, kg*9.80665*e.Along, e.ForceN(e.SagMM(kg)), 1e-6, "%g kg stand still", kg)
	}
}

// TestAir: 138 kPa over two bores of 36 mm hold 280 N from the first millimetre on
// [computed]. Half the room doubles the absolute pressure, slowly (Boyle), and takes it to
// 2^1.4 = 2.639 times in a blow (adiabatic change of dry air; Y. Çengel, M. Boles,
// Thermodynamics, chapter 4).
func TestAir(t *testing.T) {
	a := stance.Air{BoreMM: 36, GapMM: 120, KPa: 138}
	assert.InDelta(t, 280, a.ForceN(220, 0, stance.Slow), 1.5)
	area := 2 * math.Pi / 4 * 36 * 36 * 1e-3
	assert.InDelta(t, area*(2*(101.325+138)-101.325), a.ForceN(220, 170, stance.Slow), 1e-6)
	assert.InDelta(t, area*(2.639*(101.325+138)-101.325), a.ForceN(220, 170, stance.Quick), 0.5)
	assert.Zero(t, stance.Air{KPa: 138}.ForceN(220, 0, stance.Slow), "nobody knows its bore")
	assert.InDelta(t, a.ForceN(220, 0, stance.Slow), stance.Air{BoreMM: 36, GapMM: math.NaN(), KPa: 138}.ForceN(220, 150, stance.Slow), 1e-9)
}

// TestAirAndSpring stand still where both together bear the weight, as halving the way
// finds too.
func TestAirAndSpring(t *testing.T) {
	for _, spring := range []stance.Spring{{Nmm: 7}, {Nmm: 6, SecondNmm: 10, KneeMM: 60}} {
		for _, kPa := range []float64{0, 60, 138} {
			e := fork(0, 12)
			e.Spring, e.Air = spring, stance.Air{BoreMM: 37, GapMM: 130, KPa: kPa}
			for _, kg := range []float64{70, 100, 130} {
				low, high := 0.0, e.TravelMM
				for range 60 {
					if mid := (low + high) / 2; e.ForceN(mid) < kg*9.80665*e.Along {
						low = mid
					} else {
						high = mid
					}
				}
				assert.InDelta(t, low, e.SagMM(kg), 1e-6, "%v, %g kPa, %g kg", spring, kPa, kg)
			}
			assert.Greater(t, e.BumpN(), e.ForceN(e.TravelMM), "a blow meets more")
		}
	}
	soft, small := fork(7, 12), fork(7, 12)
	soft.Air, small.Air = stance.Air{BoreMM: 37, GapMM: 180}, stance.Air{BoreMM: 37, GapMM: 90}
	assert.Greater(t, small.BumpN(), 1.2*soft.BumpN(), "the oil's level firms the end")
	assert.InDelta(t, small.SagMM(60), soft.SagMM(60), 5, "and hardly the beginning")
}

// TestMorePreloadNeverMoreSag, and more mass never less.
func TestMorePreloadNeverMoreSag(t *testing.T) {
	for _, air := range []stance.Air{{}, {BoreMM: 40, GapMM: 140, KPa: 40}} {
		for _, spring := range []stance.Spring{{Nmm: 9}, {Nmm: 7, SecondNmm: 13, KneeMM: 70}} {
			for preload := 0.0; preload < 60; preload += 5 {
				for kg := 30.0; kg < 180; kg += 10 {
					e := fork(9, preload)
					e.Spring, e.Air = spring, air
					more := e.With(preload + 5)
					assert.LessOrEqual(t, more.SagMM(kg), e.SagMM(kg)+1e-9)
					assert.GreaterOrEqual(t, e.SagMM(kg+10), e.SagMM(kg)-1e-9)
				}
			}
		}
	}
}

// TestPreloadAndRateUndoSag: what is worked out gives the sag that was wanted.
func TestPreloadAndRateUndoSag(t *testing.T) {
	e := stance.End{Spring: stance.Spring{Nmm: 60}, Ratio: 0.42, PreloadMM: 10, TravelMM: 215, Along: 1}
	set := e.With(e.PreloadFor(150, 66))
	assert.InDelta(t, 66, set.SagMM(150), 1e-9)
	e.Spring.Nmm = e.RateFor(150, 66, e.PreloadMM)
	assert.InDelta(t, 66, e.SagMM(150), 1e-9)
	assert.Less(t, e.PreloadFor(40, 66), 0.0, "too stiff even without preload")
}

// TestCorrected: what is known least gives way, ties to preload, then ratio, then spring;
// what would have to be unbelievable does not.
func TestCorrected(t *testing.T) {
	e := stance.End{Spring: stance.Spring{Nmm: 60}, Ratio: 0.42, PreloadMM: 12, TravelMM: 215, Along: 1}
	at := e.SagMM(130)
	for _, c := range []struct {
		name string
		by   stance.Known
		sag  float64
		want stance.Quantity
	}{
		{"a tie", stance.Known{Preload: sheet.Demo, Ratio: sheet.Demo, Rate: sheet.Demo}, at - 8, stance.Preload},
		{"preload measured", stance.Known{Preload: sheet.Measured, Ratio: sheet.Maker, Rate: sheet.Maker}, at - 8, stance.Ratio},
		{"only the spring from memory", stance.Known{Preload: sheet.Measured, Ratio: sheet.Maker, Rate: sheet.Memory}, at - 8, stance.Rate},
		{"no preload is that small", stance.Known{Preload: sheet.Memory, Ratio: sheet.Maker, Rate: sheet.Practice}, at + 40, stance.Rate},
	} {
		corrected, made, ok := e.Corrected(130, c.sag, c.by)
		require.True(t, ok, c.name)
		assert.Equal(t, c.want, made.Of, c.name)
		assert.InDelta(t, c.sag, corrected.SagMM(130), 1e-6, c.name)
		assert.NotEqual(t, made.Was, made.Now, c.name)
	}
	_, _, ok := stance.End{Spring: stance.Spring{Nmm: 120}, Ratio: 0.4, PreloadMM: 19, TravelMM: 235, Along: 1}.Corrected(126, 234, stance.Known{})
	assert.False(t, ok, "nothing can be blamed")
	f := fork(10, 18)
	_, made, ok := f.Corrected(100, 50, stance.Known{Preload: sheet.Maker, Ratio: sheet.Memory, Rate: sheet.Maker})
	require.True(t, ok)
	assert.Equal(t, stance.Preload, made.Of, "a fork has no lever")
}

// TestUnsprung grows with the class of the bike, and is not known without its mass.
func TestUnsprung(t *testing.T) {
	lightFront, lightRear := stance.UnsprungKg(128)
	front, rear := stance.UnsprungKg(250)
	assert.Greater(t, front, lightFront)
	assert.Greater(t, rear, lightRear)
	front, _ = stance.UnsprungKg(math.NaN())
	assert.True(t, math.IsNaN(front))
}
