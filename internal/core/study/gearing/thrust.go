package gearing

import (
	"math"
	"slices"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/terrain"
)

// ThrustChart is what each gear pulls against the ground, over road speed.
type ThrustChart struct {
	Ground   terrain.Ground
	MassKg   float64
	AirLeft  float64 // of the engine, 0–1
	Gears    []GearThrust
	Slopes   []SlopeLine // resistance, over road speed
	Traction Limit
	Wheelie  Limit
	CruiseAt float64 // km/h, NaN when the brief has none
}

// GearThrust is one gear's curve.
type GearThrust struct {
	Gear    int
	Points  []ThrustPoint
	Slope   float64 // the steepest that it holds, by pull
	AtKmh   float64 // there
	Kept    bool    // it holds the cruise into the headwind
	InReach bool    // the cruise lies in its range
}

// ThrustPoint is a thrust at a road speed.
type ThrustPoint struct{ Kmh, Newton float64 }

// SlopeLine is the resistance on one slope.
type SlopeLine struct {
	Slope  float64
	Wished bool // it is the brief's
	Points []ThrustPoint
}

// Limit is a slope that grip or the front wheel's weight sets, with the thrust
// that it takes.
type Limit struct{ Slope, Newton float64 }

// chartPoints is in how many steps a curve is drawn.
const chartPoints = 24

// puller is the numbers of engine, gearbox and road that pulling rests on.
type puller struct {
	engine               drive.Engine
	left                 float64    // of the engine in the air up there, 0–1
	road, fast           drive.Road // on the ground looked at; on tarmac into the headwind
	primary, final, roll float64
	ratios               []float64
}

// pullOf takes the numbers; ok is false when one is missing.
func pullOf(f *facts.All, ground terrain.Ground) (p puller, ok bool) {
	if f.Built == nil {
		return p, false
	}
	b, brief := f.Built.Bike, &f.Plan.Brief
	p.engine = drive.Engine{
		TorqueNm: b.Torque.In("Nm"), TorqueRPM: b.TorqueRPM.In("rpm"), PowerKW: b.Power.In("kW"), PowerRPM: b.PowerRPM.In("rpm"),
		CleanRPM: b.CleanRPM.In("rpm"), MaxRPM: b.MaxRPM.In("rpm"),
	}
	p.primary, p.final, p.roll, p.ratios = b.Primary.In(""), f.Built.FinalRatio(), f.Wheels.CircumferenceMM.Rear, b.Gearbox.Ratios()
	density := air.SeaLevel
	if brief.Altitude.Known() {
		density = air.Density(brief.Altitude.In("m"))
	}
	p.left = air.PowerPercent(density) / 100
	p.road = drive.Road{MassKg: f.Loaded.Kg, Rolling: ground.Rolling, DragAreaM2: f.DragAreaM2, Density: density}
	paved, _ := terrain.Of(terrain.Paved)
	p.fast = p.road
	p.fast.Rolling = paved.Rolling
	if brief.Headwind.Known() {
		p.fast.HeadwindKmh = brief.Headwind.In("km/h")
	}
	e := p.engine
	sum := e.Torque(e.CleanRPM) + e.Torque(e.MaxRPM) + p.primary + p.final + p.roll + p.road.MassKg + p.road.DragAreaM2
	return p, !math.IsNaN(sum) && len(p.ratios) > 0
}

// at is the road speed and the thrust at an engine speed, in a gear and on a
// final ratio.
func (p puller) at(rpm, gear, final float64) ThrustPoint {
	overall := drive.Overall(p.primary, gear, final)
	return ThrustPoint{drive.SpeedKmh(rpm, overall, p.roll), drive.Thrust(p.engine.Torque(rpm)*p.left, overall, drive.Efficiency, p.roll)}
}

// holds reports whether a gear on a final ratio holds a speed into the headwind;
// within is false when the engine does not turn so in that gear.
func (p puller) holds(kmh, gear, final float64) (holds, within bool) {
	rpm := drive.RPM(kmh, drive.Overall(p.primary, gear, final), p.roll)
	within = rpm >= p.engine.CleanRPM && rpm <= p.engine.MaxRPM
	return within && p.at(rpm, gear, final).Newton >= p.fast.Resistance(kmh, 0), within
}

// Thrust works out the chart on a kind of ground; ok is false when a number is
// missing.
func Thrust(f *facts.All, ground terrain.Ground) (chart ThrustChart, ok bool) {
	p, ok := pullOf(f, ground)
	if !ok {
		return chart, false
	}
	chart = ThrustChart{Ground: ground, MassKg: f.Loaded.Kg, AirLeft: p.left, CruiseAt: f.Drive.CruiseKmh}
	fastest := 0.0
	for i, ratio := range p.ratios {
		g := GearThrust{Gear: i + 1, Slope: math.Inf(-1)}
		for k := range chartPoints + 1 {
			point := p.at(p.engine.CleanRPM+(p.engine.MaxRPM-p.engine.CleanRPM)*float64(k)/chartPoints, ratio, p.final)
			g.Points = append(g.Points, point)
			// What the air takes at that speed does not climb.
			climbing := point.Newton - p.road.Resistance(point.Kmh, 0) + p.road.Resistance(0, 0)
			if slope := drive.SteepestByPull(climbing, p.road.MassKg, p.road.Rolling); slope > g.Slope {
				g.Slope, g.AtKmh = slope, point.Kmh
			}
			fastest = max(fastest, point.Kmh)
		}
		g.Kept, g.InReach = p.holds(chart.CruiseAt, ratio, p.final)
		chart.Gears = append(chart.Gears, g)
	}
	slopes := []float64{0, 0.1, 0.2, 0.3, 0.4, 0.5}
	wish := f.Plan.Brief.Climb.Base()
	if wish > 0 && !slices.Contains(slopes, wish) {
		slopes = append(slopes, wish)
	}
	for _, slope := range slopes {
		line := SlopeLine{Slope: slope, Wished: slope == wish}
		for k := range chartPoints + 1 {
			v := fastest * float64(k) / chartPoints
			line.Points = append(line.Points, ThrustPoint{v, p.road.Resistance(v, slope)})
		}
		chart.Slopes = append(chart.Slopes, line)
	}
	limit := func(slope float64) Limit { return Limit{slope, p.road.Resistance(0, slope)} }
	chart.Traction, chart.Wheelie = limit(f.Balance.SteepestByTraction(friction(f, ground), ground.Rolling)), limit(f.Balance.SteepestByWheelie())
	return chart, true
}
