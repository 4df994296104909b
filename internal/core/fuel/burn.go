package fuel

import (
	"math"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
)

// What petrol and engines are like, in the middle of their ranges.
const (
	Density          = 0.745 // kg/L [pub: EN 228, 0.720–0.775]
	HeatingMJPerKg   = 43.5  // lower heating value [memory]
	pumpingKPa       = 60.0  // of the mean effective pressure of friction, what goes by the density of the air [memory]
	ofSingles        = 0.38  // indicated efficiency [memory: 0.36–0.42]
	ofTwins          = 0.40  // of engines with more cylinders, likewise
	leanExponent     = -0.5  // of the density, by which a carburettor that was not re-jetted runs richer [memory]
	climbLost        = 0.5   // of the work of climbing, to engine braking and brakes [memory]
	kilojoulePerL    = HeatingMJPerKg * Density * 1000
	rollingOfBlocks  = 0.4 // how much more a tyre of nothing but blocks rolls on hard ground than a road tyre [memory]
	roadTyreRoad     = 0.9 // the road share of a road tyre
	SheltersOfScreen = 0.2 // share of the drag area that a screen takes off which keeps all wind away [memory]
)

// Machine is a loaded bike as fuel sees it.
type Machine struct {
	DisplacementL   float64
	Overalls        []float64 // crankshaft turns per wheel turn, first gear first
	CircumferenceMM float64   // of the driven wheel
	CleanRPM        float64   // the lowest clean engine speed
	MassKg          float64   // with rider, loads and half the fuel
	DragAreaM2      float64
	TyreRoad        float64 // the road share of the tyres, 0–1: blocks roll harder
	Single          bool    // one cylinder
	Carburettor     bool    // it goes on feeding the engine on the overrun
	Lean            bool    // jets or map follow the height, so that it does not run rich there
	IdleRPM         float64
}

// frictions are mean effective pressures of friction and pumping, kPa, by displacement, L: small
// engines lose more of what they do [memory: 150–250].
var frictions = [...]struct{ litres, kPa float64 }{{0.3, 250}, {0.4, 230}, {0.45, 230}, {0.6, 200}}

// FrictionKPa is the mean effective pressure of friction and pumping of an engine.
func FrictionKPa(displacementL float64) float64 {
	for i, at := range frictions {
		if displacementL > at.litres {
			continue
		}
		if i == 0 {
			return at.kPa
		}
		before := frictions[i-1]
		return before.kPa + (at.kPa-before.kPa)*(displacementL-before.litres)/(at.litres-before.litres)
	}
	return frictions[len(frictions)-1].kPa
}

// indicated is the efficiency of what burns.
func (m Machine) indicated() float64 {
	if m.Single {
		return ofSingles
	}
	return ofTwins
}

// IdleLitres is what a second of idling takes, L: friction alone, at the idle's speed.
func (m Machine) IdleLitres() float64 {
	const cyclesPerMinute = 0.5 // of a revolution, four-stroke
	kW := FrictionKPa(m.DisplacementL) * m.DisplacementL / 1000 * m.IdleRPM * cyclesPerMinute / 60
	return kW / m.indicated() / kilojoulePerL
}

// Known reports whether no number is missing.
func (m Machine) Known() bool {
	return m.Geared() && !math.IsNaN(m.DisplacementL+m.MassKg+m.DragAreaM2+m.TyreRoad)
}

// Geared reports whether the engine's speed follows from the road's.
func (m Machine) Geared() bool {
	sum := m.CircumferenceMM + m.CleanRPM
	for _, o := range m.Overalls {
		sum += o
	}
	return !math.IsNaN(sum) && len(m.Overalls) > 0
}

// betweenGears is how far above the least lively speed the engine turns on average,
// half a step of a gearbox [memory].
const betweenGears = 1.12

// RPM at a speed on a kind of ground, and the gear next to it: in top gear where
// that is as lively as riders keep the engine there, else in the gears that are,
// and never below its lowest clean speed, where the clutch slips.
func (m Machine) RPM(g terrain.Ground, kmh float64) (rpm float64, gear int) {
	in := func(gear int) float64 { return drive.RPM(kmh, m.Overalls[gear-1], m.CircumferenceMM) }
	top := len(m.Overalls)
	rpm = max(m.CleanRPM, min(max(in(top), betweenGears*g.Lively*m.CleanRPM), in(1)))
	for gear = top; gear > 1 && math.Abs(in(gear-1)-rpm) < math.Abs(in(gear)-rpm); gear-- {
	}
	return rpm, gear
}

// RollingFactor is how much harder tyres roll on hard ground than road tyres, by
// the share of road that they are made for.
func RollingFactor(tyreRoad float64) float64 {
	return 1 + rollingOfBlocks*max(0, roadTyreRoad-tyreRoad)/roadTyreRoad
}

// Work is what a km of one ground takes at one speed, kJ. The air's part is per
// kg/m³ of its density, the climb's per metre.
type Work struct {
	Slip               float64
	SpeedKmh, RPM      float64
	Gear               int
	Friction           float64 // of the engine, in air as at sea level
	Pumping            float64 // share of it that goes by the density of the air
	Efficiency         float64 // indicated
	Rich               bool    // it burns more in thin air than it needs
	Rolling, Air, Pace float64 // at the wheel; Pace is what slowing takes from the speed
	Climb              float64
	Slowing            float64 // v²·(1 − 0.4²)/2 of all slowings of a km, m²/s²
	MassKg             float64
	Wind               float64 // what a wind makes of the air's part, 1 where it is still
	Saves              float64 // of the fuel on the overrun, a share: 1 for injection
}

// The formulas of [Machine.On] and [Work.Litres].
var (
	FrictionFormula = sheet.Formula{Text: "friction = fmep × displacement / 2 × crankshaft turns per km; 60 kPa of fmep go by the density of the air", Origin: sheet.Published, Source: "J. B. Heywood, Internal Combustion Engine Fundamentals, ch. 13"}
	PaceFormula     = sheet.Formula{Text: "braking = times per km × ½·m·(v² − (0.4·v)²)", Origin: sheet.Memory}
	OverrunFormula  = sheet.Formula{Text: "x = min(0.6, Σ v²·(1 − 0.4²) / (2·a) / 1000) of the way, a = max(1.5, (friction + rolling + air, as forces at the road) / m); half of it for carburettors", Origin: sheet.Computed, Source: "momentum pays friction, rolling and air on the overrun: a body slowed by a covers v²/2a"}
	WindFormula     = sheet.Formula{Text: "air into the wind = air × ((v + w) / v)²", Origin: sheet.Published, Source: "J. Y. Wong, Theory of Ground Vehicles, ch. 3: drag goes by the square of the air's speed"}
	WorkFormula     = sheet.Formula{Text: "at the wheel = Crr·m·g + ½·ρ·CdA·v² + braking + half of m·g × climb", Origin: sheet.Published, Source: "J. Y. Wong, Theory of Ground Vehicles, ch. 3"}
	BurnFormula     = sheet.Formula{Text: "litres per km = (1 + slip) × ((1 − x) × (friction + (rolling + air) / η_drive) + (slowing + climb) / η_drive) / η_indicated / (heating value × density)", Origin: sheet.Published, Source: "L. Guzzella, A. Sciarretta, Vehicle Propulsion Systems, ch. 3: the Willans line"}
)

// On is the work of a km on a kind of ground at a speed.
func (m Machine) On(g terrain.Ground, kmh float64) Work {
	rpm, gear := m.RPM(g, kmh)
	w := m.at(g, kmh, rpm)
	w.Gear = gear
	return w
}

func (m Machine) at(g terrain.Ground, kmh, rpm float64) Work {
	v := kmh / 3.6
	rolling := g.Rolling
	if g.Kind == terrain.Motorway || g.Kind == terrain.Paved {
		rolling *= RollingFactor(m.TyreRoad)
	}
	weight := m.MassKg * unit.StandardGravity
	slowing := g.Brakings / 2 * v * v * (1 - terrain.SlowTo*terrain.SlowTo)
	saves := 1.0
	if m.Carburettor {
		saves = 0.5 // [memory]
	}
	fmep := FrictionKPa(m.DisplacementL)
	return Work{
		Pumping: pumpingKPa / fmep, Efficiency: m.indicated(), Rich: m.Carburettor && !m.Lean,
		Slip: g.Slip, SpeedKmh: kmh, RPM: rpm, Slowing: slowing, MassKg: m.MassKg, Wind: 1, Saves: saves,
		Friction: fmep * m.DisplacementL / 1000 / 2 * rpm * 60 / kmh,
		Rolling:  rolling * weight,
		Air:      m.DragAreaM2 / 2 * v * v,
		Pace:     slowing * m.MassKg / 1000,
		Climb:    climbLost * weight / 1000,
	}
}

// Wheel is the work at the wheel, kJ/km, in air of a density in kg/m³, on a way
// that climbs so many metres per km.
func (w Work) Wheel(density, climbM float64) float64 {
	return w.Rolling + w.Air*w.Wind*density + w.Pace + w.Climb*climbM
}

// What bounds the overrun [memory]: more of the way than that is never ridden so, and a
// rider who slows for a bend helps with the brakes.
const (
	overrunMost  = 0.6
	slowsAtLeast = 1.5 // m/s²
)

// Overrun is the share of the way on which momentum pays friction, rolling and air.
func (w Work) Overrun(density float64) float64 {
	force := w.FrictionIn(density) + w.Rolling + w.Air*w.Wind*density // kJ per km are N
	a := max(slowsAtLeast, force/w.MassKg)
	return w.Saves * min(overrunMost, w.Slowing/a/1000)
}

// Litres per km, before the bike's own multiplier. More slowings never take less.
func (w Work) Litres(density, climbM float64) float64 {
	pulled := w.FrictionIn(density) + (w.Rolling+w.Air*w.Wind*density)/drive.Efficiency
	paid := (w.Pace + w.Climb*climbM) / drive.Efficiency
	litres := (1 + w.Slip) * ((1-w.Overrun(density))*pulled + paid) / w.Efficiency / kilojoulePerL
	if w.Rich {
		litres *= math.Pow(density/air.SeaLevel, leanExponent)
	}
	return litres
}

// FrictionIn is the friction of the engine in air of a density, kJ/km.
func (w Work) FrictionIn(density float64) float64 {
	return w.Friction * (1 - w.Pumping*(1-density/air.SeaLevel))
}

// Into is the work against a wind of a speed, km/h.
func (w Work) Into(windKmh float64) Work {
	if windKmh > 0 {
		by := (w.SpeedKmh + windKmh) / w.SpeedKmh
		w.Wind = by * by
	}
	return w
}
