package drive_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/drive"
)

// Units of the American texts, exact by definition.
const (
	inch       = 0.0254
	foot       = 12 * inch
	poundForce = 0.45359237 * 9.80665
	mph        = 1.609344
	horsepower = 550 * foot * poundForce
)

// TestThrustAgainstATextbook: T. D. Gillespie, Fundamentals of Vehicle Dynamics
// (SAE, 1992), ch. 2, example 1, its numbers from memory: 201 ft·lb through first
// gear 4.28 and final drive 2.92 on wheels of 12.59 in give 2290 lb; 1.00 in fifth
// gives 537 lb.
func TestThrustAgainstATextbook(t *testing.T) {
	around := 2 * math.Pi * 12.59 * inch * 1000
	torque := 201 * foot * poundForce
	assert.InDelta(t, 2290, drive.Thrust(torque, 4.28*2.92, 0.966*0.99, around)/poundForce, 3)
	assert.InDelta(t, 537, drive.Thrust(torque, 1.00*2.92, 0.97*0.99, around)/poundForce, 2)
}

// TestRoadLoadAgainstATextbook: the same, ch. 4, the road load of a truck, from
// memory: 72 500 lb at 67 mph, drag coefficient 0.65 on 108 ft² in air of 0.0021
// slug/ft³: 712 lb of drag, with rolling of 0.00685 of the weight 1209 lb, 216 hp.
func TestRoadLoadAgainstATextbook(t *testing.T) {
	slug := poundForce / foot // kg·m/s² per ft/s²
	truck := drive.Road{MassKg: 72_500 * 0.45359237, Rolling: 0.00685, DragAreaM2: 0.65 * 108 * foot * foot, Density: 0.0021 * slug / (foot * foot * foot)}
	force := truck.Resistance(67*mph, 0)
	assert.InDelta(t, 1209, force/poundForce, 3)
	assert.InDelta(t, 216, force*67*mph/3.6/horsepower, 1)
	assert.InDelta(t, 67*mph, truck.TopSpeed(force*67*mph/3.6), 1e-6, "so much power holds just that speed")
}

// TestTopSpeedIsWherePowerEnds for any bike that there could be.
func TestTopSpeedIsWherePowerEnds(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 5))
	for range 500 {
		road := drive.Road{MassKg: 150 + 400*random.Float64(), Rolling: 0.01 + 0.3*random.Float64(), DragAreaM2: 0.3 + 0.8*random.Float64(), Density: 0.8 + 0.5*random.Float64()}
		watts := 4000 + 90_000*random.Float64()
		top := road.TopSpeed(watts)
		require.InEpsilon(t, watts, road.Resistance(top, 0)*top/3.6, 1e-6, "%+v", road)
		heavier := road
		heavier.MassKg += 20
		require.Less(t, heavier.TopSpeed(watts), top, "more mass is never faster")
	}
}

func TestHeadwindAndSlope(t *testing.T) {
	road := drive.Road{MassKg: 300, Rolling: 0.02, DragAreaM2: 0.7, Density: 1.2}
	still := road.Resistance(90, 0)
	assert.InDelta(t, 300*9.80665*0.02+0.5*1.2*0.7*25*25, still, 1e-9)
	road.HeadwindKmh = 30
	assert.InDelta(t, 300*9.80665*0.02+0.5*1.2*0.7*(120/3.6)*(120/3.6), road.Resistance(90, 0), 1e-9)
	road.HeadwindKmh = -120
	assert.Less(t, road.Resistance(90, 0), 300*9.80665*0.02, "a tail wind faster than the bike pushes")
	road.HeadwindKmh = 0
	assert.InDelta(t, 300*9.80665*math.Sin(math.Atan(0.3)), road.Resistance(0, 0.3)-300*9.80665*0.02*math.Cos(math.Atan(0.3)), 1e-9)
}

// TestClimbByHand, the equilibrium of a bike on a slope as in V. Cossalter,
// Motorcycle Dynamics, ch. 3, worked for a wheelbase of 1500 mm, its centre 800 mm
// behind the front axle and 750 mm up. Along the slope: m·g·sin θ = μ·N; about the
// front contact: N·1500 = m·g·(800·cos θ + 750·sin θ). With μ = 0.6: tan θ =
// 0.6·800 / (1500 − 0.6·750) = 480 / 1050.
func TestClimbByHand(t *testing.T) {
	b := drive.Balance{BehindFrontMM: 800, AheadRearMM: 700, HeightMM: 750}
	slope := b.SteepestByTraction(0.6, 0)
	assert.InDelta(t, 480.0/1050, slope, 1e-12)
	angle := math.Atan(slope)
	rear := (800*math.Cos(angle) + 750*math.Sin(angle)) / 1500
	assert.InDelta(t, math.Sin(angle), 0.6*rear, 1e-12, "and the balance closes")
	// With a front wheel that rolls hard: m·g·sin θ + Crr·Nf = μ·Nr.
	slope = b.SteepestByTraction(0.4, 0.15)
	assert.InDelta(t, (0.4*800-0.15*700)/(1500-0.55*750), slope, 1e-12)
	angle = math.Atan(slope)
	rear = (800*math.Cos(angle) + 750*math.Sin(angle)) / 1500
	assert.InDelta(t, math.Sin(angle)+0.15*(math.Cos(angle)-rear), 0.4*rear, 1e-12)
	assert.Equal(t, 1.0, drive.LooseGrip(0.1))
	assert.InDelta(t, 0.82, drive.LooseGrip(0.75), 1e-12)
	assert.InDelta(t, 700.0/750, b.SteepestByWheelie(), 1e-12, "the centre stands over the rear contact")
	assert.True(t, math.IsInf(b.SteepestByTraction(2, 0), 1), "with such grip it never slips")

	slope = drive.SteepestByPull(1200, 300, 0.05)
	angle = math.Atan(slope)
	assert.InDelta(t, 1200, 300*9.80665*(math.Sin(angle)+0.05*math.Cos(angle)), 1e-9)
	assert.True(t, math.IsInf(drive.SteepestByPull(4000, 300, 0.05), 1), "more than its weight")
	for mass := 200.0; mass < 500; mass += 10 {
		assert.Less(t, drive.SteepestByPull(1200, mass+10, 0.05), drive.SteepestByPull(1200, mass, 0.05), "more mass never climbs steeper")
	}
}

// TestTorqueMeetsTheDataSheet, and has one top.
func TestTorqueMeetsTheDataSheet(t *testing.T) {
	e := drive.Engine{TorqueNm: 54, TorqueRPM: 4500, PowerKW: 31, PowerRPM: 6200, CleanRPM: 2200, MaxRPM: 7000}
	assert.InDelta(t, 54, e.Torque(4500), 1e-9)
	assert.InDelta(t, 31, e.Torque(6200)*2*math.Pi*6200/60/1000, 1e-9, "power is torque by speed")
	assert.InDelta(t, 0.75*54, e.Torque(2200), 1e-9)
	assert.Zero(t, e.Torque(7001), "the limiter")
	for rpm := 1500.0; rpm < 7000; rpm += 100 {
		if rpm < 4500 {
			require.Less(t, e.Torque(rpm), e.Torque(rpm+100))
		} else {
			require.GreaterOrEqual(t, e.Torque(rpm), e.Torque(rpm+100))
		}
	}
	e.PowerKW = math.NaN()
	assert.True(t, math.IsNaN(e.Torque(6000)), "a missing point is no torque")
}

// TestSlack: the lower run as two straight halves pulled up and down. A span of
// 600 mm longer by 2 mm: each half is 301, its middle √(301² − 300²) = 24.5 mm off
// the line, twice that from top to bottom.
func TestSlack(t *testing.T) {
	level := drive.Pair{Front: 30, Rear: 30} // the run is as long as the centres
	assert.InDelta(t, 2*math.Sqrt(301*301-300*300), drive.SlackMM(level, 15.875, 600, 1), 1e-9)
	assert.Zero(t, drive.SlackMM(level, 15.875, 600, 0), "tight")
	assert.Zero(t, drive.SlackMM(level, 15.875, 600, -3), "too tight to go on at all")
	assert.Greater(t, drive.SlackMM(level, 15.875, 600, 4), drive.SlackMM(level, 15.875, 600, 3))
}

// TestRuns: both even counts, one below and one above the exact one, a chain
// pitch of axle travel apart.
func TestRuns(t *testing.T) {
	for front := 12; front <= 17; front++ {
		for rear := 38; rear <= 52; rear++ {
			p := drive.Pair{Front: front, Rear: rear}
			runs := drive.Runs(p, 15.875, 640, drive.Adjuster{ForwardMM: 8, BackMM: 8})
			require.Len(t, runs, 2)
			exact := twoCircles(p, 15.875, 640)
			require.LessOrEqual(t, float64(runs[0].Links), exact+0.06)
			require.GreaterOrEqual(t, float64(runs[1].Links), exact-0.06)
			require.InDelta(t, 16, runs[1].ShiftMM-runs[0].ShiftMM, 0.25)
			for _, r := range runs {
				require.Zero(t, r.Links%2, "a chain closes on an even count")
				require.InDelta(t, float64(r.Links), twoCircles(p, 15.875, r.CentreMM), 0.06, "%v %d", p, r.Links)
				require.Equal(t, math.Abs(r.ShiftMM) <= 8, r.Reaches)
			}
		}
	}
}
