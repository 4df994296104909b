package plan

import (
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

// Fuelling is how the engine gets its mixture.
type Fuelling string

// The ways of fuelling.
const (
	Carburettor Fuelling = "carburettor"
	Injection   Fuelling = "injection"
)

// Cooling is what carries the engine's heat away.
type Cooling string

// The ways of cooling.
const (
	AirCooled    Cooling = "air"
	OilCooled    Cooling = "air-oil"
	LiquidCooled Cooling = "liquid"
)

// Final is the final drive.
type Final string

// The final drives.
const (
	ChainDrive Final = "chain"
	ShaftDrive Final = "shaft"
)

// LeverReach is whether levers come to the hand.
type LeverReach string

// The two.
const (
	FixedLevers      LeverReach = "fixed"
	AdjustableLevers LeverReach = "adjustable"
)

// Cylinders are how many there are, as far as it matters.
type Cylinders string

// How many.
const (
	OneCylinder   Cylinders = "one"
	MoreCylinders Cylinders = "more"
)

// usuallySingleCC is up to which displacement a bike that goes on trails mostly has one cylinder
// [memory].
const usuallySingleCC = 700

// Single reports whether it has one cylinder; of one of which nobody has said, what is usual.
func (b *Bike) Single() bool {
	if b.Cylinders != "" {
		return b.Cylinders == OneCylinder
	}
	return b.Displacement.In("cc") <= usuallySingleCC
}

// Body is what stands between rider and wind.
type Body string

// The bodies, from no shelter to much.
const (
	Naked  Body = "naked"
	Screen Body = "screen"
	Faired Body = "faired"
)

// Picks lists the bike's words for forms and validation.
func (b *Bike) Picks() []entry.Pick {
	return []entry.Pick{
		entry.PickOf("class", "Kind of bike", &b.Class, Classes()...),
		entry.PickOf("fuelling", "Fuelling", &b.Fuelling, entry.Opt(Carburettor, "Carburettor"), entry.Opt(Injection, "Injection")),
		entry.PickOf("cylinders", "Cylinders", &b.Cylinders, entry.Opt(OneCylinder, "One"), entry.Opt(MoreCylinders, "Two or more")),
		entry.PickOf("cooling", "Cooling", &b.Cooling, entry.Opt(AirCooled, "Air"), entry.Opt(OilCooled, "Air and oil"), entry.Opt(LiquidCooled, "Liquid")),
		entry.PickOf("final", "Final drive", &b.Final, entry.Opt(ChainDrive, "Chain"), entry.Opt(ShaftDrive, "Shaft")),
		entry.PickOf("chain", "Chain number", &b.Chain, entry.Opt("428", "428"), entry.Opt("520", "520"), entry.Opt("525", "525"), entry.Opt("530", "530")),
		entry.PickOf("front_wheel_build", "Front wheel", &b.FrontBuild, parts.Builds()...),
		entry.PickOf("rear_wheel_build", "Rear wheel", &b.RearBuild, parts.Builds()...),
		entry.PickOf("levers", "Levers", &b.Levers, entry.Opt(FixedLevers, "Fixed"), entry.Opt(AdjustableLevers, "Adjustable reach")),
		entry.PickOf("front_preload_by", "Fork adjuster counts", &b.FrontAdjustBy, parts.AdjustsBy()...),
		entry.PickOf("rear_preload_by", "Shock adjuster counts", &b.RearAdjustBy, parts.AdjustsBy()...),
		entry.PickOf("body", "Against the wind", &b.Body, entry.Opt(Naked, "Nothing"), entry.Opt(Screen, "A screen"), entry.Opt(Faired, "A fairing")),
		entry.PickOf("headlamp_mount", "Headlamp sits on", &b.HeadlampMount, parts.LampMounts()[:2]...),
		entry.PickOf("flasher", "Flasher relay", &b.Flasher, parts.FlasherKinds()...),
		entry.PickOf("speedometer", "Speedometer counts at", &b.Speedometer,
			entry.Opt(drive.FrontWheel, "Front wheel"), entry.Opt(drive.RearWheel, "Rear wheel"), entry.Opt(drive.Gearbox, "Gearbox output")),
	}
}
