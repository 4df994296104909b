package parts

import "valiantmule/internal/core/calendar"

// opens is what is taken apart on a bike to fit a part of a slot [practice, the openings of the
// handbook]. What is not listed hangs on from outside.
var opens = map[Slot][]calendar.Place{
	FrontTyre: {calendar.FrontWheel}, FrontTube: {calendar.FrontWheel}, FrontLock: {calendar.FrontWheel}, FrontWheel: {calendar.FrontWheel},
	RearTyre: {calendar.RearWheel}, RearTube: {calendar.RearWheel}, RearLock: {calendar.RearWheel}, RearWheel: {calendar.RearWheel},
	RearSprocket: {calendar.RearWheel}, FrontSprocket: {calendar.Chain}, Chain: {calendar.Chain}, ChainSlider: {calendar.Swingarm},
	Handlebar: {calendar.Bars}, Risers: {calendar.Bars}, Grips: {calendar.Bars}, Levers: {calendar.Bars}, HandGuards: {calendar.Bars}, Cables: {calendar.Bars, calendar.Tank},
	Clamps: {calendar.Bars, calendar.FrontWheel, calendar.Fork}, SteeringDamper: {calendar.Bars},
	Fork: {calendar.FrontWheel, calendar.Fork}, ForkSprings: {calendar.FrontWheel, calendar.Fork}, ForkCaps: {calendar.Bars}, ForkOil: {calendar.FrontWheel, calendar.Fork},
	ForkValving: {calendar.FrontWheel, calendar.Fork}, ForkGuards: {calendar.FrontWheel}, FrontMudguard: {calendar.FrontWheel},
	Shock: {calendar.Swingarm}, ShockSpring: {calendar.Swingarm}, ShockValving: {calendar.Swingarm}, Links: {calendar.Swingarm},
	Seat: {calendar.Seat}, FuelTank: {calendar.Tank}, Battery: {calendar.Seat}, PowerBox: {calendar.Seat, calendar.Tank}, Regulator: {calendar.Seat},
	Headlamp: {calendar.LampMask}, LampGuard: {calendar.LampMask}, Windscreen: {calendar.LampMask}, AuxLamps: {calendar.LampMask, calendar.Tank}, WideLamps: {calendar.LampMask, calendar.Tank},
	Socket: {calendar.Tank}, Monitor: {calendar.LampMask}, Speedometer: {calendar.LampMask}, LampControl: {calendar.LampMask, calendar.Tank}, Horn: {calendar.Tank},
	SkidPlate: {calendar.Plate}, EngineBars: {calendar.Plate}, CaseCovers: {calendar.Plate}, Silencer: {calendar.Exhaust}, CoolerGuard: {calendar.Tank},
	Airbox: {calendar.Seat}, AirFilter: {calendar.Seat}, Fuelling: {calendar.Tank}, RearRack: {calendar.Seat}, SideRack: {calendar.Exhaust},
	Header: {calendar.Exhaust}, Hoses: {calendar.Coolant}, Clutch: {calendar.Clutch}, BrakeLines: {calendar.FrontFluid}, FrontDisc: {calendar.FrontWheel}, RearDisc: {calendar.RearWheel}, HubRubbers: {calendar.RearWheel}, ShockAdjuster: {calendar.Seat},
}

// Opens is what is taken apart to fit a part of the slot.
func (s Slot) Opens() []calendar.Place { return opens[s] }

// sets are the waits behind a fit: what has to set before it is ridden [memory].
var sets = map[Slot]struct {
	What string
	Days calendar.Spread
}{
	Grips:      {"grip glue sets", calendar.Just(1)},
	CaseCovers: {"thread-lock sets", calendar.Just(1)},
	SkidPlate:  {"thread-lock sets", calendar.Just(1)},
	EngineBars: {"thread-lock sets", calendar.Just(1)},
	RearRack:   {"thread-lock sets", calendar.Just(1)},
	SideRack:   {"thread-lock sets", calendar.Just(1)},
}

// Sets is what has to set behind a fit in the slot, and for how many days; "" for nothing.
func (s Slot) Sets() (what string, days calendar.Spread) {
	return sets[s].What, sets[s].Days
}
