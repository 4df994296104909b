package drive_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/drive"
)

func ExampleExactLinks() {
	pair := drive.Pair{Front: 13, Rear: 48}
	exact := drive.ExactLinks(pair, 15.875, 590)
	centre, err := drive.CentreMM(pair, 15.875, float64(drive.EvenLinks(exact)))
	fmt.Printf("%.2f pitches, %d links, axle at %.1f mm, %v\n", exact, drive.EvenLinks(exact), centre, err)
	// Output: 105.67 pitches, 106 links, axle at 592.7 mm, <nil>
}

// twoCircles is the length of a chain in pitches laid round two pitch circles:
// two straight runs and two wraps, the wraps counted in teeth. It is plain
// geometry and shares nothing with the series formula of ISO 606.
func twoCircles(p drive.Pair, pitch, centre float64) float64 {
	radius := func(teeth int) float64 { return pitch / (2 * math.Sin(math.Pi/float64(teeth))) }
	beta := math.Asin((radius(p.Rear) - radius(p.Front)) / centre)
	return 2*centre*math.Cos(beta)/pitch +
		float64(p.Front)*(math.Pi-2*beta)/(2*math.Pi) + float64(p.Rear)*(math.Pi+2*beta)/(2*math.Pi)
}

func TestChainAgainstTwoCircles(t *testing.T) {
	for _, pitch := range []float64{12.7, 15.875} {
		for front := 11; front <= 18; front++ {
			for rear := 34; rear <= 56; rear++ {
				p := drive.Pair{Front: front, Rear: rear}
				for centre := 520.0; centre <= 760; centre += 40 {
					// A chain lies round a polygon, a hair inside its pitch circle's
					// wrap: up to 0.06 of a pitch at these sizes.
					require.InDelta(t, twoCircles(p, pitch, centre), drive.ExactLinks(p, pitch, centre), 0.06, "%d/%d, p %g, a %g", front, rear, pitch, centre)
				}
			}
		}
	}
}

func TestCentreUndoesLinks(t *testing.T) {
	for rear := 36; rear <= 54; rear++ {
		p := drive.Pair{Front: 14, Rear: rear}
		centre, err := drive.CentreMM(p, 15.875, drive.ExactLinks(p, 15.875, 612.3))
		require.NoError(t, err)
		assert.InDelta(t, 612.3, centre, 1e-9, "14/%d", rear)
	}
	_, err := drive.CentreMM(drive.Pair{Front: 15, Rear: 45}, 15.875, 30)
	assert.Error(t, err, "thirty links do not go round sixty teeth")
}

// TestToothMovesAxle: on the same chain one more rear tooth moves the axle about
// 4 to 4.5 mm forward, one front tooth fewer about 3.6 mm back, two links 16 mm
// (computed in the handbook).
func TestToothMovesAxle(t *testing.T) {
	at := func(front, rear int, links float64) float64 {
		centre, err := drive.CentreMM(drive.Pair{Front: front, Rear: rear}, 15.875, links)
		require.NoError(t, err)
		return centre
	}
	stock := at(15, 43, 110)
	assert.InDelta(t, -4.25, at(15, 44, 110)-stock, 0.25)
	assert.InDelta(t, 3.6, at(14, 43, 110)-stock, 0.15)
	assert.InDelta(t, 16, at(15, 43, 112)-stock, 0.2)
}

func TestLinksInReach(t *testing.T) {
	pair := drive.Pair{Front: 15, Rear: 43}
	centre, err := drive.CentreMM(pair, 15.875, 110)
	require.NoError(t, err)
	nudged := centre + 0.2 // asks for 110.02: want 110, not 112
	links, shift, ok := drive.LinksInReach(pair, 15.875, nudged, drive.Adjuster{ForwardMM: 10, BackMM: 10})
	require.True(t, ok)
	assert.Equal(t, 110, links)
	assert.InDelta(t, -0.2, shift, 0.01)
	assert.Equal(t, 112, drive.EvenLinks(drive.ExactLinks(pair, 15.875, nudged)), "the contract's number is the even one above")

	_, _, ok = drive.LinksInReach(pair, 15.875, centre+8, drive.Adjuster{ForwardMM: 2, BackMM: 2})
	assert.False(t, ok, "half a link from either even number, slots too short for both")
}

// TestRoadSpeed is worked by hand: 2.095 × 0.891 × 43/15 = 5.3512 crankshaft
// turns a wheel turn; 4500 rpm / 5.3512 × 60 × 2.041 m = 102.98 km/h.
func TestRoadSpeed(t *testing.T) {
	overall := drive.Overall(2.095, 0.891, drive.Pair{Front: 15, Rear: 43}.Ratio())
	assert.InDelta(t, 5.3511, overall, 1e-3)
	assert.InDelta(t, 102.98, drive.SpeedKmh(4500, overall, 2041), 0.01)
	assert.InDelta(t, 4500, drive.RPM(drive.SpeedKmh(4500, overall, 2041), overall, 2041), 1e-9)
}

func TestChangeCountsTheTyre(t *testing.T) {
	stock := drive.Pair{Front: 15, Rear: 43}
	assert.InDelta(t, 0, drive.ChangePercent(stock.Ratio(), stock.Ratio(), 2000, 2000), 1e-12)
	assert.InDelta(t, -100*(1-2000.0/2100), drive.ChangePercent(stock.Ratio(), stock.Ratio(), 2100, 2000), 1e-9, "a taller tyre alone gears up")
	teeth := drive.RearTeethFor(0, 15, stock, 2100, 2000)
	assert.InDelta(t, 45.15, teeth, 1e-9, "5 % taller wants 5 % more teeth")
	assert.InDelta(t, 0, drive.ChangePercent(teeth/15, stock.Ratio(), 2100, 2000), 1e-9)
}

// TestFrontToothInRearTeeth: 2.7 to 4 on real bikes.
func TestFrontToothInRearTeeth(t *testing.T) {
	for _, p := range []drive.Pair{{Front: 13, Rear: 48}, {Front: 15, Rear: 43}, {Front: 16, Rear: 42}, {Front: 14, Rear: 50}} {
		n := drive.RearForFront(p)
		assert.True(t, n > 2.7 && n < 4.01, "%v: %g", p, n)
		fewer, more := drive.Pair{Front: p.Front - 1, Rear: p.Rear}.Ratio(), (float64(p.Rear)+n)/float64(p.Front)
		assert.InEpsilon(t, fewer, more, 1e-12)
	}
}

// TestSpeedometer: UN Regulation 39, 5.3: never below the truth, at most a tenth
// and 4 km/h above it.
func TestSpeedometer(t *testing.T) {
	assert.InDelta(t, 114, drive.SpeedometerHighest(100), 1e-9)
	assert.Less(t, drive.SpeedometerFactor(drive.FrontWheel, 1.05, 1, 1), 1.0, "a taller wheel turns less often")
	assert.InDelta(t, 1, drive.SpeedometerFactor(drive.FrontWheel, 1, 1.05, 1.1), 1e-12, "the front wheel does not see the rear")
	assert.InDelta(t, 1.1/1.05, drive.SpeedometerFactor(drive.Gearbox, 1, 1.05, 1.1), 1e-12, "the output shaft sees sprockets and tyre")
}
