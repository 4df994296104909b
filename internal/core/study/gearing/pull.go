package gearing

import (
	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
)

// What the engine pulls: from walking pace, up a slope, into the wind.

var (
	leastFormula = sheet.Formula{Text: "the lower of the two", Origin: sheet.Computed}
	holdFormula  = sheet.Formula{Text: "the highest gear in which thrust ≥ resistance at the cruise", Origin: sheet.Computed}
)

func pull(r *study.Run) {
	crawlPull(r)
	topSpeed(r)
	holdGear(r)
}

// engine takes the two points of the torque curve and the engine's range.
func engine(c study.Calc) drive.Engine {
	b := c.Run.Built.Bike
	return drive.Engine{
		TorqueNm:  c.Bike("torque", "torque", "Nm", &b.Torque).Number,
		TorqueRPM: c.Bike("torque_rpm", "engine speed of torque", "rpm", &b.TorqueRPM).Number,
		PowerKW:   c.Bike("power", "power", "kW", &b.Power).Number,
		PowerRPM:  c.Bike("power_rpm", "engine speed of power", "rpm", &b.PowerRPM).Number,
		CleanRPM:  c.Bike("clean_rpm", "lowest clean engine speed", "rpm", &b.CleanRPM).Number,
		MaxRPM:    c.Bike("max_rpm", "highest engine speed", "rpm", &b.MaxRPM).Number,
	}
}

// thin is the density of the air at the brief's highest ground, and what is left
// of the engine there, 0–1.
func thin(c study.Calc) (density, left float64) {
	high := c.Run.Plan.Brief.Altitude
	if !high.Known() {
		c.Sheet.Note("The brief does not say how high the ground goes: taken at sea level.")
		return air.SeaLevel, 1
	}
	density = air.Density(high.In("m"))
	left = air.PowerPercent(density) / 100
	if c.Sheet != nil {
		at := sheet.Value{Name: "highest ground", Number: high.In("m"), Unit: "m", Origin: sheet.Rider}
		c.Sheet.Step(air.DensityFormula, study.Computed("ρ", density, "kg/m³"), at)
		c.Sheet.Step(air.PowerFormula, study.Computed("power left", 100*left, "%"), study.Computed("ρ", density, "kg/m³"))
	}
	return density, left
}

// loaded is the mass that is pulled.
func loaded(c study.Calc) float64 {
	return c.Fact("loaded mass", c.Run.Loaded.Kg, "kg").Number
}

// road is what stands against the loaded bike on a kind of ground.
func road(c study.Calc, ground terrain.Ground, density, headwindKmh float64) drive.Road {
	kg := loaded(c)
	c.Bike("drag_area", "drag area", "m²", &c.Run.Built.Bike.DragArea)
	return drive.Road{MassKg: kg, Rolling: ground.Rolling, DragAreaM2: c.Run.DragAreaM2, Density: density, HeadwindKmh: headwindKmh}
}

// thrust is what a torque comes to at the ground, with its step.
func thrust(c study.Calc, torque, overall, roll sheet.Value) sheet.Value {
	out := study.Computed("F thrust", drive.Thrust(torque.Number, overall.Number, drive.Efficiency, roll.Number), "N")
	if c.Sheet != nil {
		c.Sheet.Step(drive.ThrustFormula, out, torque, overall,
			sheet.Value{Name: "η gearbox and final drive", Number: drive.Efficiency, Origin: sheet.Memory}, roll)
	}
	return out
}

// slope is what a thrust climbs on a kind of ground, in per cent.
func slope(c study.Calc, thrust sheet.Value, ground terrain.Ground) float64 {
	kg := loaded(c)
	slope := 100 * drive.SteepestByPull(thrust.Number, kg, ground.Rolling)
	if c.Sheet != nil {
		c.Sheet.Step(drive.PullFormula, study.Computed("slope by pull", slope, "%"), thrust, study.Computed("loaded mass", kg, "kg"), study.Rolling(ground))
	}
	return slope
}

// crawlPull is the slope that first gear climbs at walking pace: clutch home, at
// the lowest clean engine speed.
func crawlPull(r *study.Run) {
	c := r.Figure(figure.CrawlPull)
	e := engine(c)
	_, left := thin(c)
	torque := study.Computed("torque at the lowest clean speed, up there", e.Torque(e.CleanRPM)*left, "Nm")
	if c.Sheet != nil {
		c.Sheet.Step(drive.TorqueFormula, torque, study.Computed("greatest torque", e.TorqueNm, "Nm"), study.Computed("engine speed", e.CleanRPM, "rpm"))
	}
	c.Is(slope(c, thrust(c, torque, overall(c, true), rollOut(c)), r.Plan.Brief.SteepGround()))
	c.Plain()
}

// friction of the rear tyre as built on a ground; of a tyre whose kind nobody has named it
// is the ground's.
func friction(f *facts.All, g terrain.Ground) float64 {
	t := f.Built.Tyre(parts.RearTyre)
	if t == nil || g.Kind.IsRoad() {
		return g.Friction
	}
	c, named := tyre.CharacterOf(t.Kind)
	if !named {
		return g.Friction * drive.LooseGrip(1) // the least there is
	}
	return g.Friction * drive.LooseGrip(c.RoadShare)
}

// climb is the steepest slope: the least of pull, grip and the front wheel's
// weight.
func climb(r *study.Run) {
	c := r.Figure(figure.Climb)
	b, ground := r.Built.Bike, r.Plan.Brief.SteepGround()
	e := engine(c)
	_, left := thin(c)
	most := study.Computed("greatest torque, up there", e.TorqueNm*left, "Nm")
	byPull := slope(c, thrust(c, most, overall(c, true), rollOut(c)), ground)
	c.On(figure.FrontLoad, "")
	base := c.Bike("wheelbase", "wheelbase", "mm", &b.Wheelbase)
	c.Bike("centre_height", "centre of the bike above ground", "mm", &b.CentreHeight)
	full := r.Axles.Full
	r.Balance = drive.Balance{
		BehindFrontMM: base.Number * full.RearKg / full.TotalKg(), AheadRearMM: base.Number * full.FrontKg / full.TotalKg(), HeightMM: r.Centre.HeightMM,
	}
	r.Climb = facts.Climb{
		Ground: ground, Pull: byPull / 100, Traction: r.Balance.SteepestByTraction(friction(r.All, ground), ground.Rolling), Wheely: r.Balance.SteepestByWheelie(),
		Wish: r.Plan.Brief.Climb.Base(),
	}
	least, _ := r.Climb.Slope()
	c.Is(100 * least)
	if c.Sheet != nil {
		a, ahead := study.Computed("a, centre behind the front axle", r.Balance.BehindFrontMM, "mm"), study.Computed("b, ahead of the rear axle", r.Balance.AheadRearMM, "mm")
		h := study.Computed("h, centre above ground", r.Balance.HeightMM, "mm")
		c.Sheet.Step(drive.TractionFormula, study.Computed("slope by grip", 100*r.Climb.Traction, "%"),
			sheet.Value{Name: "μ on " + ground.Name, Number: friction(r.All, ground), Origin: sheet.Memory}, study.Rolling(ground), a, ahead, h)
		if !ground.Kind.IsRoad() {
			c.Sheet.Step(drive.LooseGripFormula, study.Computed("μ with this rear tyre", friction(r.All, ground), ""), sheet.Value{Name: "μ on " + ground.Name, Number: ground.Friction, Origin: sheet.Memory})
		}
		c.Sheet.Step(drive.WheelieFormula, study.Computed("slope by the front wheel", 100*r.Climb.Wheely, "%"), ahead, h)
		c.Sheet.Note("Seated, tank full, at a steady speed. Standing, leaning in or a run-up move the limits.")
	}
	c.Plain()
}

// topSpeed is what power and gearing hold on the level in still air.
func topSpeed(r *study.Run) {
	c := r.Figure(figure.TopSpeed)
	paved, _ := terrain.Of(terrain.Paved)
	density, left := thin(c)
	road := road(c, paved, density, 0)
	power := c.Bike("power", "power", "kW", &r.Built.Bike.Power)
	byPower := road.TopSpeed(1000 * power.Number * left * drive.Efficiency)
	highest := c.Bike("max_rpm", "highest engine speed", "rpm", &r.Built.Bike.MaxRPM)
	overall, roll := overall(c, false), rollOut(c)
	byGearing := drive.SpeedKmh(highest.Number, overall.Number, roll.Number)
	c.Is(min(byPower, byGearing))
	if c.Sheet != nil {
		c.Sheet.Step(drive.TopSpeedFormula, study.Computed("by power", byPower, "km/h"), power,
			study.Computed("power left up there", 100*left, "%"), sheet.Value{Name: "η", Number: drive.Efficiency, Origin: sheet.Memory},
			study.Computed("loaded mass", road.MassKg, "kg"), study.Rolling(paved), study.Computed("drag area as loaded", road.DragAreaM2, "m²"), study.Computed("ρ", density, "kg/m³"))
		c.Sheet.Step(drive.SpeedFormula, study.Computed("by gearing", byGearing, "km/h"), highest, overall, roll)
		c.Sheet.Step(leastFormula, study.Computed("top speed", min(byPower, byGearing), "km/h"), study.Computed("by power", byPower, "km/h"), study.Computed("by gearing", byGearing, "km/h"))
	}
	c.Plain()
}

// holdGear is the highest gear that holds the cruise into the headwind.
func holdGear(r *study.Run) {
	c := r.Figure(figure.HoldGear)
	defer c.Plain()
	b := r.Built.Bike
	paved, _ := terrain.Of(terrain.Paved)
	wind := 0.0
	if r.Plan.Brief.Headwind.Known() {
		wind = r.Plan.Brief.Headwind.In("km/h")
	}
	cruise := c.Brief("cruise", "km/h", &r.Plan.Brief.Cruise)
	e := engine(c)
	density, left := thin(c)
	road := road(c, paved, density, wind)
	roll, final := rollOut(c), final(c)
	primary := c.Bike("primary", "primary ratio", "", &b.Primary)
	if !b.Gearbox.Known() {
		c.Lacks("gearbox (Bike)")
	}
	if len(c.Missing) > 0 {
		return
	}
	against := road.Resistance(cruise.Number, 0)
	ratios := b.Gearbox.Ratios()
	gear := len(ratios)
	for ; gear > 0; gear-- {
		overall := study.Computed("overall ratio", drive.Overall(primary.Number, ratios[gear-1], final.Number), "")
		rpm := drive.RPM(cruise.Number, overall.Number, roll.Number)
		torque := study.Computed("torque up there", e.Torque(rpm)*left, "Nm")
		if rpm < e.CleanRPM || rpm > e.MaxRPM {
			continue
		}
		if thrust := thrust(c, torque, overall, roll); thrust.Number >= against {
			break
		}
	}
	r.Cruise = facts.Cruise{Known: true, Gear: gear, Gears: len(ratios)}
	c.Is(float64(gear))
	if c.Sheet != nil {
		resistance := study.Computed("resistance at the cruise", against, "N")
		c.Sheet.Step(drive.ResistanceFormula, resistance, cruise, sheet.Value{Name: "headwind", Number: wind, Unit: "km/h", Origin: sheet.Rider},
			study.Computed("loaded mass", road.MassKg, "kg"), study.Rolling(paved), study.Computed("drag area as loaded", road.DragAreaM2, "m²"), study.Computed("ρ", density, "kg/m³"))
		c.Sheet.Step(holdFormula, study.Computed("gear, 0 for none", float64(gear), ""), resistance)
	}
}
