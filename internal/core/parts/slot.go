package parts

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

	AirFilter   Slot = "air-filter"
	Airbox      Slot = "airbox"
	Fuelling    Slot = "fuelling" // jets, or a map
	Header      Slot = "header"   // what leads to the silencer
	Hoses       Slot = "hoses"    // of coolant
	Clutch      Slot = "clutch"   // plates and springs
	BrakeLines  Slot = "brake-lines"
	FrontPads   Slot = "front-pads"
	RearPads    Slot = "rear-pads"
	FrontDisc   Slot = "front-disc" // both, where there are two
	RearDisc    Slot = "rear-disc"
	HubRubbers  Slot = "hub-rubbers" // between rear wheel and sprocket
	CentreStand Slot = "centre-stand"
	ShaftGuard  Slot = "shaft-guard" // of a final drive in oil

	OtherPart Slot = "other-part" // without a stage yet
)
