package plan

import "valiantmule/internal/core/drive"

// Pick is a word of the document out of a closed list; "" is not known.
type Pick struct {
	Key, Label string
	Options    []Option
	Get        func() string
	Set        func(value string)
}

func pick[S ~string](key, label string, value *S, options ...Option) Pick {
	return Pick{key, label, options, func() string { return string(*value) }, func(v string) { *value = S(v) }}
}

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

// WheelBuild is how a wheel is made.
type WheelBuild string

// The builds. Cast wheels are tubeless; spoked ones mostly need tubes.
const (
	Spoked         WheelBuild = "spoked"
	SpokedTubeless WheelBuild = "spoked-tubeless"
	Cast           WheelBuild = "cast"
)

// Tubeless reports whether the rim holds air by itself.
func (w WheelBuild) Tubeless() bool { return w == Cast || w == SpokedTubeless }

// LeverReach is whether levers come to the hand.
type LeverReach string

// The two.
const (
	FixedLevers      LeverReach = "fixed"
	AdjustableLevers LeverReach = "adjustable"
)

// Body is what stands between rider and wind.
type Body string

// The bodies, from no shelter to much.
const (
	Naked  Body = "naked"
	Screen Body = "screen"
	Faired Body = "faired"
)

func builds() []Option {
	return []Option{{string(Spoked), "Spoked, with tube"}, {string(SpokedTubeless), "Spoked, tubeless"}, {string(Cast), "Cast"}}
}

// Picks lists the bike's words for forms and validation.
func (b *Bike) Picks() []Pick {
	return []Pick{
		pick("fuelling", "Fuelling", &b.Fuelling, Option{string(Carburettor), "Carburettor"}, Option{string(Injection), "Injection"}),
		pick("cooling", "Cooling", &b.Cooling, Option{string(AirCooled), "Air"}, Option{string(OilCooled), "Air and oil"}, Option{string(LiquidCooled), "Liquid"}),
		pick("final", "Final drive", &b.Final, Option{string(ChainDrive), "Chain"}, Option{string(ShaftDrive), "Shaft"}),
		pick("chain", "Chain number", &b.Chain, Option{"428", "428"}, Option{"520", "520"}, Option{"525", "525"}, Option{"530", "530"}),
		pick("front_wheel_build", "Front wheel", &b.FrontBuild, builds()...),
		pick("rear_wheel_build", "Rear wheel", &b.RearBuild, builds()...),
		pick("levers", "Levers", &b.Levers, Option{string(FixedLevers), "Fixed"}, Option{string(AdjustableLevers), "Adjustable reach"}),
		pick("front_preload_by", "Fork adjuster counts", &b.FrontAdjustBy, adjustsBy()...),
		pick("rear_preload_by", "Shock adjuster counts", &b.RearAdjustBy, adjustsBy()...),
		pick("body", "Against the wind", &b.Body, Option{string(Naked), "Nothing"}, Option{string(Screen), "A screen"}, Option{string(Faired), "A fairing"}),
		pick("headlamp_mount", "Headlamp sits on", &b.HeadlampMount, LampMounts()[:2]...),
		pick("flasher", "Flasher relay", &b.Flasher, FlasherKinds()...),
		pick("speedometer", "Speedometer counts at", &b.Speedometer,
			Option{string(drive.FrontWheel), "Front wheel"}, Option{string(drive.RearWheel), "Rear wheel"}, Option{string(drive.Gearbox), "Gearbox output"}),
	}
}
