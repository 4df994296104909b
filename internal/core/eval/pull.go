package eval

import (
	"math"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
)

// What the engine pulls: from walking pace, up a slope, into the wind.

// engine takes the two points of the torque curve and the engine's range.
func (c *calc) engine() drive.Engine {
	b := c.run.built.Bike
	values := []sheet.Value{
		c.bike("torque", "torque", "Nm", b.Torque), c.bike("torque_rpm", "engine speed of torque", "rpm", b.TorqueRPM),
		c.bike("power", "power", "kW", b.Power), c.bike("power_rpm", "engine speed of power", "rpm", b.PowerRPM),
		c.bike("clean_rpm", "lowest clean engine speed", "rpm", b.CleanRPM), c.bike("max_rpm", "highest engine speed", "rpm", b.MaxRPM),
	}
	return drive.Engine{
		TorqueNm: values[0].Number, TorqueRPM: values[1].Number, PowerKW: values[2].Number, PowerRPM: values[3].Number,
		CleanRPM: values[4].Number, MaxRPM: values[5].Number,
	}
}

// thin is the density of the air at the brief's highest ground, and what is left
// of the engine there, 0–1.
func (c *calc) thin() (density, left float64) {
	high := c.run.plan.Brief.Altitude
	if !high.Known() {
		c.working.Note("The brief does not say how high the ground goes: taken at sea level.")
		return air.Density(0), 1
	}
	density = air.Density(high.In("m"))
	left = air.PowerPercent(density) / 100
	if c.working != nil {
		at := sheet.Value{Name: "highest ground", Number: high.In("m"), Unit: "m", Origin: sheet.Rider}
		c.working.Step(air.DensityFormula, computed("ρ", density, "kg/m³"), at)
		c.working.Step(air.PowerFormula, computed("power left", 100*left, "%"), computed("ρ", density, "kg/m³"))
	}
	return density, left
}

// road is what stands against the loaded bike on a kind of ground.
func (c *calc) road(ground terrain.Ground, density, headwindKmh float64) drive.Road {
	if math.IsNaN(c.run.facts.LoadedKg) {
		c.lacks("loaded mass")
	}
	c.bike("drag_area", "drag area", "m²", c.run.built.Bike.DragArea)
	return drive.Road{MassKg: c.run.facts.LoadedKg, Rolling: ground.Rolling, DragAreaM2: c.run.facts.DragAreaM2, Density: density, HeadwindKmh: headwindKmh}
}

// thrust is what a torque comes to at the ground, with its step.
func (c *calc) thrust(torque, overall, roll sheet.Value) sheet.Value {
	out := computed("F thrust", drive.Thrust(torque.Number, overall.Number, drive.Efficiency, roll.Number), "N")
	if c.working != nil {
		c.working.Step(drive.ThrustFormula, out, torque, overall,
			sheet.Value{Name: "η gearbox and final drive", Number: drive.Efficiency, Origin: sheet.Memory}, roll)
	}
	return out
}

// slope is what a thrust climbs on a kind of ground, in per cent.
func (c *calc) slope(thrust sheet.Value, ground terrain.Ground) float64 {
	if math.IsNaN(c.run.facts.LoadedKg) {
		c.lacks("loaded mass")
	}
	slope := 100 * drive.SteepestByPull(thrust.Number, c.run.facts.LoadedKg, ground.Rolling)
	if c.working != nil {
		c.working.Step(drive.PullFormula, computed("slope by pull", slope, "%"), thrust, computed("loaded mass", c.run.facts.LoadedKg, "kg"), rolling(ground))
	}
	return slope
}

func rolling(g terrain.Ground) sheet.Value {
	return sheet.Value{Name: "Crr on " + g.Name, Number: g.Rolling, Origin: sheet.Memory}
}

// crawlPull is the slope that first gear climbs at walking pace: clutch home, at
// the lowest clean engine speed.
func (r *run) crawlPull() Figure {
	c := r.figure("crawl-pull", "Climbs at walking pace", "%")
	e := c.engine()
	_, left := c.thin()
	torque := computed("torque at the lowest clean speed, up there", e.Torque(e.CleanRPM)*left, "Nm")
	if c.working != nil {
		c.working.Step(drive.TorqueFormula, torque, computed("greatest torque", e.TorqueNm, "Nm"), computed("engine speed", e.CleanRPM, "rpm"))
	}
	c.is(c.slope(c.thrust(torque, c.overall(true), c.rollOut(plan.RearTyre)), r.plan.Brief.SteepGround()))
	return c.plain()
}

// climb is the steepest slope: the least of pull, grip and the front wheel's
// weight.
func (r *run) climb() Figure {
	c := r.figure("climb", "Steepest climb", "%")
	b, ground := r.built.Bike, r.plan.Brief.SteepGround()
	e := c.engine()
	_, left := c.thin()
	most := computed("greatest torque, up there", e.TorqueNm*left, "Nm")
	pull := c.slope(c.thrust(most, c.overall(true), c.rollOut(plan.RearTyre)), ground)
	full, _ := c.axles()
	base := c.bike("wheelbase", "wheelbase", "mm", b.Wheelbase)
	c.bike("centre_height", "centre of the bike above ground", "mm", b.CentreHeight)
	balance := drive.Balance{
		BehindFrontMM: base.Number * full.RearKg / full.TotalKg(), AheadRearMM: base.Number * full.FrontKg / full.TotalKg(), HeightMM: r.centre,
	}
	r.facts.Balance = balance
	r.facts.Climb = knock.Climb{
		Ground: ground, Pull: pull / 100, Traction: balance.SteepestByTraction(ground.Friction), Wheely: balance.SteepestByWheelie(),
		Wish: r.plan.Brief.Climb.Base(),
	}
	slope, _ := r.facts.Climb.Slope()
	c.is(100 * slope)
	if c.working != nil {
		a, ahead := computed("a, centre behind the front axle", balance.BehindFrontMM, "mm"), computed("b, ahead of the rear axle", balance.AheadRearMM, "mm")
		h := computed("h, centre above ground", balance.HeightMM, "mm")
		c.working.Step(drive.TractionFormula, computed("slope by grip", 100*r.facts.Climb.Traction, "%"),
			sheet.Value{Name: "μ on " + ground.Name, Number: ground.Friction, Origin: sheet.Memory}, a, ahead, h)
		c.working.Step(drive.WheelieFormula, computed("slope by the front wheel", 100*r.facts.Climb.Wheely, "%"), ahead, h)
		c.working.Note("Seated, tank full, at a steady speed. Standing, leaning in or a run-up move the limits.")
	}
	return c.plain()
}

// topSpeed is what power and gearing hold on the level in still air.
func (r *run) topSpeed() Figure {
	c := r.figure("top-speed", "Top speed by power", "km/h")
	paved, _ := terrain.Of(terrain.Paved)
	density, left := c.thin()
	road := c.road(paved, density, 0)
	power := c.bike("power", "power", "kW", r.built.Bike.Power)
	byPower := road.TopSpeed(1000 * power.Number * left * drive.Efficiency)
	highest := c.bike("max_rpm", "highest engine speed", "rpm", r.built.Bike.MaxRPM)
	overall, roll := c.overall(false), c.rollOut(plan.RearTyre)
	byGearing := drive.SpeedKmh(highest.Number, overall.Number, roll.Number)
	c.is(min(byPower, byGearing))
	if c.working != nil {
		c.working.Step(drive.TopSpeedFormula, computed("by power", byPower, "km/h"), power,
			computed("power left up there", 100*left, "%"), sheet.Value{Name: "η", Number: drive.Efficiency, Origin: sheet.Memory},
			computed("loaded mass", road.MassKg, "kg"), rolling(paved), computed("drag area as loaded", road.DragAreaM2, "m²"), computed("ρ", density, "kg/m³"))
		c.working.Step(drive.SpeedFormula, computed("by gearing", byGearing, "km/h"), highest, overall, roll)
		c.working.Step(leastFormula, computed("top speed", min(byPower, byGearing), "km/h"), computed("by power", byPower, "km/h"), computed("by gearing", byGearing, "km/h"))
	}
	return c.plain()
}

var leastFormula = sheet.Formula{Text: "the lower of the two", Origin: sheet.Computed}

var holdFormula = sheet.Formula{Text: "the highest gear in which thrust ≥ resistance at the cruise", Origin: sheet.Computed}

// holdGear is the highest gear that holds the cruise into the headwind.
func (r *run) holdGear() Figure {
	c := r.figure("hold-gear", "Holds the cruise in gear", "")
	b := r.built.Bike
	paved, _ := terrain.Of(terrain.Paved)
	wind := 0.0
	if r.plan.Brief.Headwind.Known() {
		wind = r.plan.Brief.Headwind.In("km/h")
	}
	cruise := c.brief("cruise", "km/h", r.plan.Brief.Cruise)
	e := c.engine()
	density, left := c.thin()
	road := c.road(paved, density, wind)
	roll, final := c.rollOut(plan.RearTyre), c.final()
	primary := c.bike("primary", "primary ratio", "", b.Primary)
	if !b.Gearbox.Known() {
		c.lacks("gearbox (Bike)")
	}
	if len(c.figure.Missing) > 0 {
		return c.plain()
	}
	against := road.Resistance(cruise.Number, 0)
	ratios := b.Gearbox.Ratios()
	gear := len(ratios)
	for ; gear > 0; gear-- {
		overall := computed("overall ratio", drive.Overall(primary.Number, ratios[gear-1], final.Number), "")
		rpm := drive.RPM(cruise.Number, overall.Number, roll.Number)
		torque := computed("torque up there", e.Torque(rpm)*left, "Nm")
		if rpm < e.CleanRPM || rpm > e.MaxRPM {
			continue
		}
		if thrust := c.thrust(torque, overall, roll); thrust.Number >= against {
			break
		}
	}
	r.facts.Cruise = knock.Cruise{Known: true, Gear: gear, Gears: len(ratios)}
	c.is(float64(gear))
	if c.working != nil {
		resistance := computed("resistance at the cruise", against, "N")
		c.working.Step(drive.ResistanceFormula, resistance, cruise, sheet.Value{Name: "headwind", Number: wind, Unit: "km/h", Origin: sheet.Rider},
			computed("loaded mass", road.MassKg, "kg"), rolling(paved), computed("drag area as loaded", road.DragAreaM2, "m²"), computed("ρ", density, "kg/m³"))
		c.working.Step(holdFormula, computed("gear, 0 for none", float64(gear), ""), resistance)
	}
	return c.plain()
}
