package plan

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// Slot is a place on the bike that holds one part.
type Slot string

// The slots.
const (
	FrontTyre     Slot = "front-tyre"
	RearTyre      Slot = "rear-tyre"
	FrontTube     Slot = "front-tube" // or what else is inside
	RearTube      Slot = "rear-tube"
	FrontLock     Slot = "front-lock"
	RearLock      Slot = "rear-lock"
	FrontSealant  Slot = "front-sealant"
	RearSealant   Slot = "rear-sealant"
	FrontWheel    Slot = "front-wheel"
	RearWheel     Slot = "rear-wheel"
	TyreKit       Slot = "tyre-kit" // what mends a flat on the way
	FrontSprocket Slot = "front-sprocket"
	RearSprocket  Slot = "rear-sprocket"
	Chain         Slot = "chain"
	ChainSlider   Slot = "chain-slider"
	Speedometer   Slot = "speedometer"
	SideStand     Slot = "side-stand"

	HandGuards    Slot = "hand-guards"
	SkidPlate     Slot = "skid-plate"
	EngineBars    Slot = "engine-bars"
	CaseCovers    Slot = "case-covers"
	CoolerGuard   Slot = "cooler-guard" // before radiator or oil cooler
	LampGuard     Slot = "lamp-guard"
	FrontMudguard Slot = "front-mudguard"
	ForkGuards    Slot = "fork-guards"
	FrameGuards   Slot = "frame-guards"
	TankGuard     Slot = "tank-guard"
	DashGuard     Slot = "dash-guard"
	CaseSaver     Slot = "case-saver" // at the front sprocket
	ChainGuide    Slot = "chain-guide"
	BrakeGuard    Slot = "brake-guard"
	StandGuard    Slot = "stand-guard"
	Indicators    Slot = "indicators"
	PlateHolder   Slot = "plate-holder"

	Handlebar   Slot = "handlebar"
	Risers      Slot = "risers" // or damped clamps
	Grips       Slot = "grips"
	Levers      Slot = "levers"
	Mirrors     Slot = "mirrors"
	Windscreen  Slot = "windscreen"
	Seat        Slot = "seat"
	Pegs        Slot = "pegs"
	ShiftLever  Slot = "shift-lever"
	BrakePedal  Slot = "brake-pedal"
	KneeGrip    Slot = "knee-grip"
	HighwayPegs Slot = "highway-pegs"
	NavMount    Slot = "nav-mount"
	Navigator   Slot = "navigator"
	Socket      Slot = "socket"
	Monitor     Slot = "monitor"

	Headlamp Slot = "headlamp"
	AuxLamps Slot = "aux-lamps" // to see far by
	VestLead Slot = "vest"      // heated, with its lead
	Camera   Slot = "camera"
	Inflator Slot = "inflator"
	Horn     Slot = "horn"
	Battery  Slot = "battery"
	Stator   Slot = "stator"

	WideLamps   Slot = "wide-lamps" // floods, for bends
	DayLamps    Slot = "day-lamps"  // to be seen
	HelmetLamp  Slot = "helmet-lamp"
	LampControl Slot = "lamp-control" // what switches them
	BrakeLamp   Slot = "brake-lamp"
	Flashing    Slot = "flasher"
	PowerBox    Slot = "power-box"
	BagLead     Slot = "bag-lead" // into the tank bag
	Regulator   Slot = "regulator"

	FuelTank    Slot = "fuel-tank" // the one that feeds the engine
	AuxTank     Slot = "aux-tank"
	FuelCans    Slot = "fuel-cans"
	FuelBladder Slot = "fuel-bladder"
	FuelBottles Slot = "fuel-bottles" // in holders, beside cans

	RearRack Slot = "rear-rack"
	SideRack Slot = "side-rack"
	SideBags Slot = "side-bags" // the pair
	TailBag  Slot = "tail-bag"
	TopBox   Slot = "top-box"
	TankBag  Slot = "tank-bag"
	ToolTube Slot = "tool-tube"
	BarBags  Slot = "bar-bags" // on the engine bars, the pair
	FrameBag Slot = "frame-bags"

	SpareFront Slot = "spare-front-tyre" // carried, or waiting on the way
	SpareRear  Slot = "spare-rear-tyre"

	Silencer    Slot = "silencer"
	PillionPegs Slot = "pillion-pegs"
	Cables      Slot = "cables" // longer ones, and hoses
	Clamps      Slot = "clamps" // of the fork

	ForkSprings    Slot = "fork-springs" // the pair
	ForkCaps       Slot = "fork-caps"    // with adjusters or valves
	ForkOil        Slot = "fork-oil"
	ForkValving    Slot = "fork-valving"
	Fork           Slot = "fork"
	ShockSpring    Slot = "shock-spring"
	ShockAdjuster  Slot = "shock-adjuster" // of its preload
	ShockValving   Slot = "shock-valving"
	Shock          Slot = "shock"
	Links          Slot = "links"
	SteeringDamper Slot = "steering-damper"
	StandPlateSlot Slot = "stand-plate" // carried, to put under the stand

	OtherPart Slot = "other-part" // without a stage yet
)

// SlotInfo is a slot's name, where its part sits unless the part says, and what
// fitting one usually takes [practice].
type SlotInfo struct {
	Slot     Slot
	Name     string
	Place    load.Place
	Standing bool    // every bike has something in it: what replaces it weighs the difference
	Comes    bool    // every bike comes with one, though no sheet lists it
	Hours    float64 // to fit; a thing that is only carried takes none
	Takes    Effort
}

var slots = [...]SlotInfo{
	{FrontTyre, "Front tyre", load.FrontWheel, true, false, 0.8, Tools},
	{RearTyre, "Rear tyre", load.RearWheel, true, false, 1, Tools},
	{FrontTube, "Front tube", load.FrontWheel, false, false, 0.3, Tools},
	{RearTube, "Rear tube", load.RearWheel, false, false, 0.3, Tools},
	{FrontLock, "Front rim lock", load.FrontWheel, false, false, 0.4, Tools},
	{RearLock, "Rear rim lock", load.RearWheel, false, false, 0.4, Tools},
	{FrontSealant, "Sealant, front", load.FrontWheel, false, false, 0.2, Hands},
	{RearSealant, "Sealant, rear", load.RearWheel, false, false, 0.2, Hands},
	{FrontWheel, "Front wheel", load.FrontWheel, true, false, 0.5, Tools},
	{RearWheel, "Rear wheel", load.RearWheel, true, false, 0.7, Tools},
	{TyreKit, "Puncture kit", load.Tail, false, false, 0, Hands},
	{FrontSprocket, "Front sprocket", load.Engine, false, false, 0.7, Tools},
	{RearSprocket, "Rear sprocket", load.RearWheel, false, false, 0.8, Tools},
	{Chain, "Chain", load.RearWheel, false, false, 0.6, Tools},
	{ChainSlider, "Chain slider", load.RearWheel, false, false, 1.5, Tools},
	{Speedometer, "Speedometer", load.FrontRack, false, false, 0.8, Press},
	{SideStand, "Side stand", load.Engine, false, false, 0.5, Tools},

	{HandGuards, "Hand guards", load.FrontRack, false, false, 0.8, Tools},
	{SkidPlate, "Skid plate", load.Engine, false, false, 0.6, Tools},
	{EngineBars, "Engine bars", load.Engine, false, false, 1.5, Tools},
	{CaseCovers, "Case covers", load.Engine, false, false, 0.6, Tools},
	{CoolerGuard, "Cooler guard", load.Engine, false, false, 0.6, Tools},
	{LampGuard, "Headlamp guard", load.FrontRack, false, false, 0.4, Hands},
	{FrontMudguard, "Front mudguard", load.FrontWheel, false, true, 0.8, Tools},
	{ForkGuards, "Fork guards", load.FrontWheel, false, false, 0.4, Tools},
	{FrameGuards, "Frame guards", load.Engine, false, false, 0.5, Hands},
	{TankGuard, "Tank guard", load.Tank, false, false, 0.3, Hands},
	{DashGuard, "Dash guard", load.FrontRack, false, false, 0.2, Hands},
	{CaseSaver, "Case saver", load.Engine, false, false, 0.5, Tools},
	{ChainGuide, "Chain guide", load.RearWheel, false, false, 0.5, Tools},
	{BrakeGuard, "Rear brake guard", load.RearWheel, false, false, 0.4, Tools},
	{StandGuard, "Stand switch guard", load.Engine, false, false, 0.2, Tools},
	{Indicators, "Indicators", load.Tail, false, true, 1, Press},
	{PlateHolder, "Plate holder", load.Tail, false, true, 0.8, Tools},

	{Handlebar, "Handlebar", load.FrontRack, false, true, 1.5, Tools},
	{Risers, "Risers, clamps", load.FrontRack, false, false, 0.8, Tools},
	{Grips, "Grips", load.FrontRack, false, true, 0.5, Tools},
	{Levers, "Levers", load.FrontRack, false, true, 0.4, Tools},
	{Mirrors, "Mirrors", load.FrontRack, false, true, 0.2, Hands},
	{Windscreen, "Screen", load.FrontRack, false, false, 0.7, Tools},
	{Seat, "Seat", load.Rider, false, true, 0.1, Hands},
	{Pegs, "Foot pegs", load.Engine, false, true, 0.5, Tools},
	{ShiftLever, "Shift lever", load.Engine, false, true, 0.2, Tools},
	{BrakePedal, "Brake pedal", load.Engine, false, true, 0.4, Tools},
	{KneeGrip, "Knee and calf grip", load.Tank, false, false, 0.3, Hands},
	{HighwayPegs, "Highway pegs", load.Engine, false, false, 0.4, Tools},
	{NavMount, "Navigation mount", load.FrontRack, false, false, 0.3, Hands},
	{Navigator, "Navigation", load.FrontRack, false, false, 0, Hands},
	{Socket, "Charging socket", load.FrontRack, false, false, 0.8, Press},
	{Monitor, "Gauges to act on", load.FrontRack, false, false, 0.8, Press},

	{Headlamp, "Headlamp", load.FrontRack, false, true, 1.5, Press},
	{AuxLamps, "Lamps to see far", load.FrontRack, false, false, 2, Press},
	{WideLamps, "Lamps for bends", load.FrontRack, false, false, 2, Press},
	{DayLamps, "Lamps to be seen by", load.FrontRack, false, false, 1, Tools},
	{HelmetLamp, "Helmet lamp", load.Rider, false, false, 0.3, Hands},
	{LampControl, "Lamp switching", load.FrontRack, false, false, 1.5, Press},
	{BrakeLamp, "Brake lamp", load.Tail, false, true, 0.5, Tools},
	{Flashing, "Flasher relay", load.FrontRack, false, true, 0.3, Tools},
	{PowerBox, "Distribution box", load.Tail, false, false, 2, Press},
	{BagLead, "Lead to the tank bag", load.TankBag, false, false, 0.5, Tools},
	{VestLead, "Heated vest", load.Rider, false, false, 0.5, Tools},
	{Camera, "Camera", load.FrontRack, false, false, 0.5, Tools},
	{Inflator, "Inflator", load.Tail, false, false, 0.3, Tools},
	{Horn, "Horn", load.FrontRack, false, true, 0.6, Tools},
	{Battery, "Battery", load.Engine, false, true, 0.4, Tools},
	{Stator, "Alternator", load.Engine, false, true, 4, Press},
	{Regulator, "Regulator", load.Tail, false, true, 0.6, Tools},

	{FuelTank, "Fuel tank", load.Tank, true, true, 2, Tools},
	{AuxTank, "Second tank", load.Panniers, false, false, 3, Press},
	{FuelBladder, "Fuel bladder", load.Tail, false, false, 0.2, Hands},
	{FuelCans, "Fuel cans", load.Panniers, false, false, 0.5, Tools},
	{FuelBottles, "Fuel bottles", load.Engine, false, false, 0.3, Hands},

	{RearRack, "Rear rack", load.Tail, false, false, 1, Tools},
	{SideRack, "Side rack", load.Panniers, false, false, 1.5, Tools},
	{SideBags, "Side bags", load.Panniers, false, false, 0.4, Hands},
	{TailBag, "Tail bag", load.Tail, false, false, 0.1, Hands},
	{TopBox, "Top box", load.TopBox, false, false, 0.5, Tools},
	{TankBag, "Tank bag", load.TankBag, false, false, 0.1, Hands},
	{ToolTube, "Tool tube", load.Engine, false, false, 0.5, Tools},
	{BarBags, "Bags on the bars", load.Engine, false, false, 0.2, Hands},
	{FrameBag, "Frame bags", load.Tank, false, false, 0.2, Hands},

	{SpareFront, "Spare front tyre", load.Tail, false, false, 0, Tools},
	{SpareRear, "Spare rear tyre", load.Tail, false, false, 0, Tools},

	{Silencer, "Silencer", load.Panniers, false, true, 0.6, Tools},
	{PillionPegs, "Pillion pegs", load.Panniers, false, true, 1, Tools},
	{Cables, "Longer cables, hoses", load.FrontRack, false, true, 2.5, Tools},
	{Clamps, "Fork clamps", load.FrontRack, false, true, 2.5, Press},

	{ForkSprings, "Fork springs", load.FrontWheel, false, true, 2, Tools},
	{ForkCaps, "Fork caps", load.FrontWheel, false, true, 0.8, Tools},
	{ForkOil, "Fork oil", load.FrontWheel, false, true, 1.5, Tools},
	{ForkValving, "Fork valving", load.FrontWheel, false, true, 4, Press},
	{Fork, "Fork", load.FrontWheel, false, true, 3, Press},
	{ShockSpring, "Shock spring", load.Engine, false, true, 2, Press},
	{ShockAdjuster, "Preload adjuster", load.Engine, false, true, 1, Tools},
	{ShockValving, "Shock valving", load.Engine, false, true, 3, Press},
	{Shock, "Shock absorber", load.Engine, false, true, 2, Press},
	{Links, "Suspension links", load.RearWheel, false, true, 1.5, Tools},
	{SteeringDamper, "Steering damper", load.FrontRack, false, false, 1, Tools},
	{StandPlateSlot, "Plate for the stand", load.Tail, false, false, 0, Hands},

	{OtherPart, "Another part", load.Engine, false, false, 0.5, Tools},
}

// Comes reports whether every bike comes with something in a slot, though no sheet
// lists it.
func (s Slot) Comes() bool {
	info, _ := InfoOf(s)
	return info.Comes
}

// Slots lists the slots in the order in which parts are folded in.
func Slots() []SlotInfo { return slots[:] }

// InfoOf finds a slot.
func InfoOf(s Slot) (SlotInfo, bool) {
	at, ok := slotsByName[s]
	if !ok {
		return SlotInfo{}, false
	}
	return slots[at], true
}

// Part is something that goes into a slot. What it does is data: a tyre's size,
// and effects on the figures of the bike.
type Part struct {
	ID       string       `json:"id"`
	Slot     Slot         `json:"slot"`
	Name     string       `json:"name"`
	Price    money.Amount `json:"price,omitzero"`
	Mass     unit.Mass    `json:"mass,omitzero"`
	Place    load.Place   `json:"place,omitempty"` // "" for the slot's own
	Origin   sheet.Origin `json:"origin,omitempty"`
	Note     string       `json:"note,omitempty"`
	Tyre     *Tyre        `json:"tyre,omitempty"`
	Wheel    *Wheel       `json:"wheel,omitempty"`
	Filling  *Filling     `json:"filling,omitempty"`
	Guard    *Guard       `json:"guard,omitempty"`
	Carrier  *Carrier     `json:"carrier,omitempty"`
	Bag      *Bag         `json:"bag,omitempty"`
	Rack     *Rack        `json:"rack,omitempty"`
	Spring   *Spring      `json:"spring,omitempty"`
	Adjuster *Adjuster    `json:"adjuster,omitempty"`
	Electric *Electric    `json:"electric,omitempty"`
	Lamp     *Lamp        `json:"lamp,omitempty"`
	Box      *Box         `json:"box,omitempty"`
	Flasher  *Flasher     `json:"flasher,omitempty"`
	Blinkers *Blinkers    `json:"blinkers,omitempty"`
	Effects  []Effect     `json:"effects,omitempty"`
	Provides []string     `json:"provides,omitempty"`
	Needs    []string     `json:"needs,omitempty"`    // tags that the bike or another part must provide
	Excludes []string     `json:"excludes,omitempty"` // tags that no other part may provide
	Replaces unit.Mass    `json:"replaces,omitzero"`  // mass of what it takes the place of; missing: what the bike's sheet says
	Fitment  *Fitment     `json:"fitment,omitempty"`
	Made     Made         `json:"made,omitzero"` // the bikes that it was made for
}

// Sits is where a part sits: its own place, or its slot's.
func (p *Part) Sits() load.Place {
	if p.Place != "" {
		return p.Place
	}
	info, _ := InfoOf(p.Slot)
	return info.Place
}

// Guard is what a guard does, and what it is in the way of.
type Guard struct {
	Mount  Mount       `json:"mount,omitempty"`
	Width  unit.Length `json:"width,omitzero"`   // that it adds to the bike at its place, both sides
	Blocks []Access    `json:"blocks,omitempty"` // until it is taken off
	Bolts  string      `json:"bolts,omitempty"`  // how it is held, and by what torque one can reach
	Covers []Cover     `json:"covers,omitempty"`
}

// Cover is the share of hazards' events that a guard stops from breaking a place.
type Cover struct {
	Place   guard.Place    `json:"place"`
	Against []guard.Hazard `json:"against"`
	Stops   unit.Ratio     `json:"stops"`
}

// Mount is what a guard hangs on.
type Mount string

// The mounts.
const (
	ToFrame  Mount = "frame"
	ToEngine Mount = "engine"
	ToBars   Mount = "bars"
	ToFork   Mount = "fork"
	Glued    Mount = "glued"
)

// Mounts lists them.
func Mounts() []Option {
	return []Option{{string(ToFrame), "frame"}, {string(ToEngine), "engine"}, {string(ToBars), "bars"}, {string(ToFork), "fork"}, {string(Glued), "glued or strapped"}}
}

// Access is what has to be reached.
type Access string

// What guards are in the way of.
const (
	OilFilter Access = "oil-filter"
	Drain     Access = "drain"
	SeatOff   Access = "seat"
)

// Accesses lists them.
func Accesses() []Option {
	return []Option{{string(OilFilter), "the oil filter"}, {string(Drain), "the drain plug"}, {string(SeatOff), "taking the seat off"}}
}

// Tyre is what a tyre is beyond a part. Measured numbers overrule the size.
type Tyre struct {
	Size     tyre.Size   `json:"size,omitzero"`
	Kind     tyre.Kind   `json:"kind,omitempty"`
	Width    unit.Length `json:"width,omitzero"`     // measured, mounted
	RollOut  unit.Length `json:"roll_out,omitzero"`  // one wheel turn, rider on
	LifeLow  unit.Length `json:"life_low,omitzero"`  // of a rear on the reference bike
	LifeHigh unit.Length `json:"life_high,omitzero"` // both or neither
	Tread    unit.Ratio  `json:"tread,omitzero"`     // left on it; missing: all of it
	Room     unit.Length `json:"room,omitzero"`      // the least around it, measured with it mounted

	RatedAt     unit.Pressure `json:"rated_at,omitzero"`     // cold, on the sidewall: where it carries its rated load
	MinPressure unit.Pressure `json:"min_pressure,omitzero"` // the maker's least
}

// Wheel is a wheel that replaces the bike's.
type Wheel struct {
	Build    WheelBuild  `json:"build,omitempty"`
	Diameter unit.Length `json:"diameter,omitzero"` // of the rim
	Width    unit.Length `json:"width,omitzero"`
}

// Rim of the wheel.
func (w *Wheel) Rim() tyre.Rim { return rim(w.Diameter, w.Width) }

// Filling is what goes into a tyre, for one size of rim.
type Filling struct {
	Kind     tyre.Filling `json:"kind,omitempty"`
	Rim      unit.Length  `json:"rim,omitzero"`       // diameter it is made for; missing for any
	RimWidth unit.Length  `json:"rim_width,omitzero"` // of a rim lock
	MaxSpeed unit.Speed   `json:"max_speed,omitzero"` // the maker's
}

// Shape of the tyre where it meets the ground.
func (t *Tyre) Shape() tyre.Shape {
	return tyre.Shape{DiameterMM: t.DiameterMM(), WidthMM: t.WidthMM(), HeightMM: (t.DiameterMM() - 25.4*t.Size.RimIn) / 2}
}

func rim(diameter, width unit.Length) tyre.Rim {
	var r tyre.Rim
	if diameter.Known() {
		r.DiameterIn = diameter.In("in")
	}
	if width.Known() {
		r.WidthIn = width.In("in")
	}
	return r
}

// WidthMM is the measured width or else the code's, NaN when neither is known.
func (t *Tyre) WidthMM() float64 {
	if t.Width.Known() || t.Size.IsZero() {
		return t.Width.In("mm")
	}
	return t.Size.SectionMM
}

// CircumferenceMM is the measured roll-out or else the code's.
func (t *Tyre) CircumferenceMM() float64 {
	if t.RollOut.Known() || t.Size.IsZero() {
		return t.RollOut.In("mm")
	}
	return t.Size.RollingCircumferenceMM()
}

// DiameterMM is the overall diameter; a measured roll-out overrules the code.
func (t *Tyre) DiameterMM() float64 {
	if t.Size.IsZero() {
		return math.NaN()
	}
	if t.RollOut.Known() {
		return t.RollOut.In("mm") / t.Size.RollingFactor()
	}
	return t.Size.OverallDiameterMM()
}

// Figure is a figure of the bike that parts may move: a closed list.
type Figure string

// The figures, in the order in which effects are applied.
const (
	FrontTeeth  Figure = "front-teeth"
	RearTeeth   Figure = "rear-teeth"
	ChainLinks  Figure = "chain-links"
	StandLength Figure = "stand-length-mm" // over the standard stand's
	BarRise     Figure = "bar-rise-mm"     // of the grips
	BarBack     Figure = "bar-back-mm"     // of the grips, towards the rider
	CableSlack  Figure = "cable-slack-mm"  // more than the standard ones'
	SeatRise    Figure = "seat-rise-mm"
	PegDrop     Figure = "peg-drop-mm"
	SeatHours   Figure = "seat-hours" // a day, until it hurts
	Shelter     Figure = "shelter-percent"

	SeatWidth   Figure = "seat-width-mm"   // over the standard seat's
	ForkLength  Figure = "fork-length-mm"  // over the standard fork's, wheel hanging, along the leg
	ForkTravel  Figure = "fork-travel-mm"  // more of it, along the leg
	ShockLength Figure = "shock-length-mm" // over the standard shock's, eye to eye
	LinkRise    Figure = "link-rise-mm"    // of the frame over the rear axle, wheel hanging
	RearTravel  Figure = "rear-travel-mm"  // more of it, at the wheel
	LinkPercent Figure = "link-percent"    // that the shock moves more for the same travel
	StandFoot   Figure = "stand-foot-cm2"
	StandPlate  Figure = "stand-plate-cm2"

	AlternatorW Figure = "alternator-w" // rated, in place of the bike's
	BatteryAh   Figure = "battery-ah"
	CrankAmps   Figure = "cold-crank-a"
)

var figures = [...]Figure{FrontTeeth, RearTeeth, ChainLinks, StandLength, BarRise, BarBack, CableSlack, SeatRise, PegDrop, SeatHours, Shelter,
	SeatWidth, ForkLength, ForkTravel, ShockLength, LinkRise, RearTravel, LinkPercent, StandFoot, StandPlate, AlternatorW, BatteryAh, CrankAmps}

// lengths are figures that parts add to, mm.
var lengths = [...]Figure{StandLength, BarRise, BarBack, CableSlack, SeatRise, PegDrop, SeatWidth, ForkLength, ForkTravel, ShockLength, LinkRise, RearTravel}

// Op is what an effect does to a figure. Sets come first, then adds, then scales.
type Op string

// The operations.
const (
	Set   Op = "set"
	Add   Op = "add"
	Scale Op = "scale"
)

// Effect is one part's effect on one figure.
type Effect struct {
	Figure Figure  `json:"figure"`
	Op     Op      `json:"op"`
	Value  float64 `json:"value"`
}

// Sets is the value that the part sets a figure to, 0 when it does not.
func (p *Part) Sets(f Figure) float64 {
	for _, e := range p.Effects {
		if e.Figure == f && e.Op == Set {
			return e.Value
		}
	}
	return 0
}

// Adds is what the part adds to a figure.
func (p *Part) Adds(f Figure) float64 {
	sum := 0.0
	for _, e := range p.Effects {
		if e.Figure == f && e.Op == Add {
			sum += e.Value
		}
	}
	return sum
}

// countOf names the figure that a slot's part counts, and how it is called.
var countOf = map[Slot]struct {
	figure Figure
	name   string
}{
	FrontSprocket: {FrontTeeth, "Front sprocket %d T"},
	RearSprocket:  {RearTeeth, "Rear sprocket %d T"},
	Chain:         {ChainLinks, "Chain, %d links"},
}

// Counted is a sprocket or chain that is known by its count alone; it has no
// mass and no price. Nil for other slots.
func Counted(slot Slot, count int) *Part {
	is, ok := countOf[slot]
	if !ok {
		return nil
	}
	return &Part{
		ID: fmt.Sprintf("any-%s-%d", slot, count), Slot: slot, Name: fmt.Sprintf(is.name, count),
		Effects: []Effect{{is.figure, Set, float64(count)}},
	}
}

// Count is the teeth or links of a part whose slot is told apart by them; ok is
// false for other slots and where no count is set.
func (p *Part) Count() (n int, ok bool) {
	n = int(p.Sets(countOf[p.Slot].figure))
	return n, n > 0
}

// Unlisted is a sprocket or chain that is not on the shelf: the bike's standard
// one with another count, as heavy as it and with no price yet.
func Unlisted(b *Bike, slot Slot, count int) *Part {
	p := Counted(slot, count)
	if p == nil {
		return nil
	}
	p.Origin, p.Note = sheet.Memory, "Not on the shelf: taken as heavy as the standard one, price unknown."
	if standard := b.StandardIn(slot); standard != nil {
		p.Mass = standard.Mass
	}
	return p
}

// Find is a part on the shelf, or one that is not listed, by its id; nil when
// there is none.
func (s Shelf) Find(b *Bike, slot Slot, id string) *Part {
	for _, p := range s {
		if p.Slot == slot && p.ID == id {
			return p
		}
	}
	number, unlisted := strings.CutPrefix(id, "any-"+string(slot)+"-")
	count, err := strconv.Atoi(number)
	if !unlisted || err != nil || b == nil {
		return nil
	}
	low, high := figureRange(countOf[slot].figure)
	if float64(count) < low || float64(count) > high {
		return nil
	}
	return Unlisted(b, slot, count)
}

// Shelf is the parts that can be had, for advice that names one.
type Shelf []*Part
