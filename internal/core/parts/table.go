package parts

import (
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/sheet"
)

// The kinds, by what they are of. Places are usual ones; hours are what fitting one takes
// of a rider who has done it before, masses what most such parts lie between, of a pair or
// set together [memory].

// Wheels, and what turns the rear one.
var wheels = []Kind{
	{Slot: FrontTyre, Name: "Front tyre", Place: load.FrontWheel, Weighs: kg(4.2, 1.2), Standing: true, Hours: 0.8, Takes: Tools, Asks: tyreAsks, Found: TyreCode.Key},
	{Slot: RearTyre, Name: "Rear tyre", Place: load.RearWheel, Weighs: kg(5.8, 1.8), Standing: true, Hours: 1, Takes: Tools, Asks: tyreAsks, Found: TyreCode.Key},
	{Slot: FrontTube, Name: "Front tube", Place: load.FrontWheel, Weighs: kg(0.8, 0.4), Hours: 0.3, Takes: Tools, Asks: filling},
	{Slot: RearTube, Name: "Rear tube", Place: load.RearWheel, Weighs: kg(1, 0.5), Hours: 0.3, Takes: Tools, Asks: filling},
	{Slot: FrontLock, Name: "Front rim lock", Place: load.FrontWheel, Weighs: kg(0.3, 0.12), Hours: 0.4, Takes: Tools, Asks: filling, AtOnce: 2},
	{Slot: RearLock, Name: "Rear rim lock", Place: load.RearWheel, Weighs: kg(0.3, 0.12), Hours: 0.4, Takes: Tools, Asks: filling, AtOnce: 2},
	{Slot: FrontSealant, Name: "Sealant, front", Place: load.FrontWheel, Weighs: kg(0.25, 0.1), Hours: 0.2, Asks: filling},
	{Slot: RearSealant, Name: "Sealant, rear", Place: load.RearWheel, Weighs: kg(0.25, 0.1), Hours: 0.2, Asks: filling},
	{Slot: FrontWheel, Name: "Front wheel", Place: load.FrontWheel, Weighs: kg(8, 2), Standing: true, Hours: 0.5, Takes: Tools, Asks: wheel},
	{Slot: RearWheel, Name: "Rear wheel", Place: load.RearWheel, Weighs: kg(10, 2.5), Standing: true, Hours: 0.7, Takes: Tools, Asks: wheel},
	{Slot: TyreKit, Name: "Puncture kit", Place: load.Tail, Weighs: kg(1.6, 0.8)},
	{Slot: FrontSprocket, Name: "Front sprocket", Place: load.Engine, Weighs: kg(0.32, 0.12), Hours: 0.7, Takes: Tools, Asks: asks(Teeth.Moving(FrontTeeth, Set).Within(8, 30)), Found: Teeth.Key},
	{Slot: RearSprocket, Name: "Rear sprocket", Place: load.RearWheel, Weighs: kg(0.8, 0.35), Hours: 0.8, Takes: Tools, Asks: asks(Teeth.Moving(RearTeeth, Set).Within(20, 80)), Found: Teeth.Key},
	{Slot: Chain, Name: "Chain", Place: load.RearWheel, Weighs: kg(1.7, 0.3), Hours: 0.6, Takes: Tools, Asks: asks(ChainPitches.Moving(ChainLinks, Set)), Found: ChainPitches.Key},
	{Slot: ChainSlider, Name: "Chain slider", Place: load.RearWheel, Weighs: kg(0.2, 0.12), Hours: 1.5, Takes: Tools},
	{Slot: Speedometer, Name: "Speedometer", Place: load.FrontRack, Weighs: kg(0.3, 0.2), Hours: 0.8, Takes: Press},
	{Slot: SideStand, Name: "Side stand", Place: load.Engine, Weighs: kg(0.9, 0.4), Hours: 0.5, Takes: Tools, Asks: asks(Sole.Moving(StandFoot, Set), StandLonger), Found: Sole.Key},
}

// What keeps something whole.
var guards = []Kind{
	{Slot: HandGuards, Name: "Hand guards", Place: load.FrontRack, Weighs: kg(0.9, 0.5), Hours: 0.8, Takes: Tools, Asks: guarding},
	{Slot: SkidPlate, Name: "Skid plate", Place: load.Engine, Weighs: kg(2.8, 1.5), Hours: 0.6, Takes: Tools, Asks: asks(GuardMount, GuardWidth, Hangs.Usually(8, 6), Bolts, Blocks, Covering)},
	{Slot: EngineBars, Name: "Engine bars", Place: load.Engine, Weighs: kg(4, 1.8), Hours: 1.5, Takes: Tools, Asks: guarding},
	{Slot: CaseCovers, Name: "Case covers", Place: load.Engine, Weighs: kg(0.6, 0.35), Hours: 0.6, Takes: Tools, Asks: guarding},
	{Slot: CoolerGuard, Name: "Cooler guard", Place: load.Engine, Weighs: kg(0.6, 0.35), Hours: 0.6, Takes: Tools, Asks: guarding},
	{Slot: LampGuard, Name: "Headlamp guard", Place: load.FrontRack, Weighs: kg(0.4, 0.25), Hours: 0.4, Asks: guarding},
	{Slot: FrontMudguard, Name: "Front mudguard", Place: load.FrontWheel, Weighs: kg(0.5, 0.25), Comes: true, Hours: 0.8, Takes: Tools, Asks: guarding},
	{Slot: ForkGuards, Name: "Fork guards", Place: load.FrontWheel, Weighs: kg(0.3, 0.2), Hours: 0.4, Takes: Tools, Asks: guarding},
	{Slot: FrameGuards, Name: "Frame guards", Place: load.Engine, Weighs: kg(0.3, 0.2), Hours: 0.5, Asks: guarding, AtOnce: 4},
	{Slot: TankGuard, Name: "Tank guard", Place: load.Tank, Weighs: kg(0.3, 0.2), Hours: 0.3, Asks: guarding},
	{Slot: DashGuard, Name: "Dash guard", Place: load.FrontRack, Weighs: kg(0.1, 0.08), Hours: 0.2, Asks: guarding},
	{Slot: CaseSaver, Name: "Case saver", Place: load.Engine, Weighs: kg(0.15, 0.1), Hours: 0.5, Takes: Tools, Asks: guarding},
	{Slot: ChainGuide, Name: "Chain guide", Place: load.RearWheel, Weighs: kg(0.3, 0.15), Hours: 0.5, Takes: Tools, Asks: guarding},
	{Slot: BrakeGuard, Name: "Rear brake guard", Place: load.RearWheel, Weighs: kg(0.2, 0.15), Hours: 0.4, Takes: Tools, Asks: guarding},
	{Slot: StandGuard, Name: "Stand switch guard", Place: load.Engine, Weighs: kg(0.1, 0.08), Hours: 0.2, Takes: Tools, Asks: guarding},
	{Slot: Indicators, Name: "Indicators", Place: load.Tail, Weighs: kg(0.3, 0.2), Comes: true, Hours: 1, Takes: Press, Asks: asks(GuardMount, FrontBlink, RearBlink, GuardWidth, Bolts, Blocks, Covering)},
	{Slot: PlateHolder, Name: "Plate holder", Place: load.Tail, Weighs: kg(0.5, 0.3), Comes: true, Hours: 0.8, Takes: Tools, Asks: guarding},
}

// What a rider touches and looks at.
var contact = []Kind{
	{Slot: Handlebar, Name: "Handlebar", Place: load.FrontRack, Weighs: kg(0.9, 0.35), Comes: true, Hours: 1.5, Takes: Tools, Asks: asks(BarsUp, BarsBack), Found: BarsUp.Key},
	{Slot: Risers, Name: "Risers, clamps", Place: load.FrontRack, Weighs: kg(0.4, 0.25), Hours: 0.8, Takes: Tools, Asks: asks(BarsUp, BarsBack), Found: BarsUp.Key},
	{Slot: Grips, Name: "Grips", Place: load.FrontRack, Weighs: kg(0.25, 0.15), Comes: true, Hours: 0.5, Takes: Tools, Used: InCold, Asks: drawing(Draw.As(Draw.Label, "With it on, by its label: volts × amperes. Of warm ones: without it the charging is unknown.").Usually(40, 10)), Found: Draw.Key},
	{Slot: Levers, Name: "Levers", Place: load.FrontRack, Weighs: kg(0.25, 0.1), Comes: true, Hours: 0.4, Takes: Tools},
	{Slot: Mirrors, Name: "Mirrors", Place: load.FrontRack, Weighs: kg(0.6, 0.3), Comes: true, Hours: 0.2},
	{Slot: Windscreen, Name: "Screen", Place: load.FrontRack, Weighs: kg(1, 0.7), Hours: 0.7, Takes: Tools, Asks: asks(Shelters.Moving(Shelter, Add))},
	{Slot: Seat, Name: "Seat", Place: load.Rider, Weighs: kg(3.5, 1.5), Comes: true, Hours: 0.1, Asks: asks(Comfort.Moving(SeatHours, Set), SeatUp, SeatWider), Found: SeatUp.Key},
	{Slot: Pegs, Name: "Foot pegs", Place: load.Engine, Weighs: kg(0.8, 0.35), Comes: true, Hours: 0.5, Takes: Tools, Asks: asks(PegsDown, PegsOut), Found: PegsDown.Key},
	{Slot: ShiftLever, Name: "Shift lever", Place: load.Engine, Weighs: kg(0.2, 0.1), Comes: true, Hours: 0.2, Takes: Tools},
	{Slot: BrakePedal, Name: "Brake pedal", Place: load.Engine, Weighs: kg(0.3, 0.12), Comes: true, Hours: 0.4, Takes: Tools},
	{Slot: KneeGrip, Name: "Knee and calf grip", Place: load.Tank, Weighs: kg(0.25, 0.15), Hours: 0.3, AtOnce: 2},
	{Slot: HighwayPegs, Name: "Highway pegs", Place: load.Engine, Weighs: kg(0.9, 0.5), Hours: 0.4, Takes: Tools},
	{Slot: NavMount, Name: "Navigation mount", Place: load.FrontRack, Weighs: kg(0.35, 0.25), Hours: 0.3},
	{Slot: Navigator, Name: "Navigation", Place: load.FrontRack, Weighs: kg(0.3, 0.15), Asks: drawing(Draw.Usually(14, 6)), Found: Draw.Key, AtOnce: 2},
	{Slot: Socket, Name: "Charging socket", Place: load.FrontRack, Weighs: kg(0.15, 0.1), Hours: 0.8, Takes: Press, Asks: drawing(Draw), Found: Draw.Key, AtOnce: 3},
	{Slot: Monitor, Name: "Gauges to act on", Place: load.FrontRack, Weighs: kg(0.15, 0.1), Hours: 0.8, Takes: Press, Asks: drawing(Draw), Found: Draw.Key, AtOnce: 3},
}

// Lamps, and what gives and takes current.
var electrics = []Kind{
	{Slot: Headlamp, Name: "Headlamp", Place: load.FrontRack, Weighs: kg(0.9, 0.5), Comes: true, InPlace: true, Drew: power.StandardLampW, Hours: 1.5, Takes: Press, Asks: lamp(Draw), Found: Draw.Key},
	{Slot: AuxLamps, Name: "Lamps to see far", Place: load.FrontRack, Weighs: kg(0.9, 0.5), Hours: 2, Takes: Press, Used: AtNight, Asks: lamp(thirst.Usually(40, 30), Outward), Found: Draw.Key, AtOnce: 4},
	{Slot: WideLamps, Name: "Lamps for bends", Place: load.FrontRack, Weighs: kg(0.9, 0.5), Hours: 2, Takes: Press, Used: AtNight, Asks: lamp(thirst.Usually(40, 30), Outward), Found: Draw.Key, AtOnce: 4},
	{Slot: DayLamps, Name: "Lamps to be seen by", Place: load.FrontRack, Weighs: kg(0.4, 0.25), Hours: 1, Takes: Tools, Asks: lamp(thirst.Usually(12, 8)), Found: Draw.Key, AtOnce: 4},
	{Slot: HelmetLamp, Name: "Helmet lamp", Place: load.Rider, Weighs: kg(0.3, 0.15), Hours: 0.3, Used: AtNight, Asks: lamp(Draw.Usually(10, 3), Outward), Found: Draw.Key},
	{Slot: LampControl, Name: "Lamp switching", Place: load.FrontRack, Weighs: kg(0.1, 0.06), Hours: 1.5, Takes: Press},
	{Slot: BrakeLamp, Name: "Brake lamp", Place: load.Tail, Weighs: kg(0.2, 0.15), Comes: true, InPlace: true, Drew: power.StandardBrakeLampW, Hours: 0.5, Takes: Tools, Asks: drawing(Draw, Duty.Usually(10, 5)), Found: Draw.Key},
	{Slot: Flashing, Name: "Flasher relay", Place: load.FrontRack, Weighs: kg(0.05, 0.03), Comes: true, Hours: 0.3, Takes: Tools, Asks: asks(RelayKind, MadeForW)},
	{Slot: PowerBox, Name: "Distribution box", Place: load.Tail, Weighs: kg(0.4, 0.25), Hours: 2, Takes: Press, Asks: asks(Channels, Limit, Total, Delay)},
	{Slot: BagLead, Name: "Lead to the tank bag", Place: load.TankBag, Weighs: kg(0.15, 0.1), Hours: 0.5, Takes: Tools, Asks: drawing(thirst.Usually(14, 4)), Found: Draw.Key},
	{Slot: VestLead, Name: "Heated vest", Place: load.Rider, Weighs: kg(0.9, 0.4), Hours: 0.5, Takes: Tools, Used: InCold, Asks: drawing(thirst.Usually(75, 15)), Found: Draw.Key},
	{Slot: Camera, Name: "Camera", Place: load.FrontRack, Weighs: kg(0.25, 0.15), Hours: 0.5, Takes: Tools, Asks: drawing(thirst.Usually(7.5, 2.5)), Found: Draw.Key, AtOnce: 3},
	{Slot: Inflator, Name: "Inflator", Place: load.Tail, Weighs: kg(0.7, 0.4), Hours: 0.3, Takes: Tools, Used: AtStops, Asks: drawing(thirst.Usually(100, 20)), Found: Draw.Key},
	{Slot: Horn, Name: "Horn", Place: load.FrontRack, Weighs: kg(0.3, 0.2), Comes: true, Hours: 0.6, Takes: Tools, Asks: drawing(thirst.Usually(60, 20), Duty.Usually(0.5, 0.5)), Found: Draw.Key},
	{Slot: Battery, Name: "Battery", Place: load.Engine, Weighs: kg(3, 1.5), Comes: true, Hours: 0.4, Takes: Tools, Asks: asks(Capacity.Moving(BatteryAh, Set), ColdCrank.Moving(CrankAmps, Set)), Found: Capacity.Key},
	{Slot: Stator, Name: "Alternator", Place: load.Engine, Weighs: kg(1.3, 0.6), Comes: true, Hours: 4, Takes: Press, Asks: asks(Output.Moving(AlternatorW, Set)), Found: Output.Key},
	{Slot: Regulator, Name: "Regulator", Place: load.Tail, Weighs: kg(0.4, 0.2), Comes: true, Hours: 0.6, Takes: Tools},
}

// Fuel and luggage; bags that ride best first.
var carrying = []Kind{
	{Slot: FuelTank, Name: "Fuel tank", Place: load.Tank, Weighs: kg(4.5, 2), Standing: true, Comes: true, Hours: 2, Takes: Tools, Asks: asks(Holds, Unusable, Wider, Plastic, Approved, Seen)},
	{Slot: AuxTank, Name: "Second tank", Place: load.Panniers, Weighs: kg(1.8, 1), Hours: 3, Takes: Press, Asks: asks(FuelKind, Holds.Usually(8, 4), Unusable, Wider, Plastic, Approved, Seen)},
	{Slot: FuelBladder, Name: "Fuel bladder", Place: load.Tail, Weighs: kg(0.4, 0.2), Hours: 0.2, Asks: asks(FuelKind, Holds.Usually(6, 4), Unusable, Wider, Plastic, Approved, Seen)},
	{Slot: FuelCans, Name: "Fuel cans", Place: load.Panniers, Weighs: kg(1.2, 0.7), Hours: 0.5, Takes: Tools, Asks: asks(FuelKind, Holds.Usually(4, 2), Unusable, Wider, Plastic, Approved, Seen), AtOnce: 4},
	{Slot: FuelBottles, Name: "Fuel bottles", Place: load.Engine, Weighs: kg(0.5, 0.3), Hours: 0.3, Asks: asks(FuelKind, Holds.Usually(1.5, 0.7), Unusable, Wider, Plastic, Approved, Seen), AtOnce: 4},
	{Slot: RearRack, Name: "Rear rack", Place: load.Tail, Weighs: kg(2.2, 1.2), Hours: 1, Takes: Tools, Asks: asks(rackLimits, SeatStays, NoPegs, Proved)},
	{Slot: SideRack, Name: "Side rack", Place: load.Panniers, Weighs: kg(3.2, 1.4), Hours: 1.5, Takes: Tools, Asks: asks(rackLimits, SeatStays, NoPegs, Proved)},
	{Slot: ToolTube, Name: "Tool tube", Place: load.Engine, Weighs: kg(0.6, 0.35), Hours: 0.5, Takes: Tools, Asks: bag, AtOnce: 2},
	{Slot: BarBags, Name: "Bags on the bars", Place: load.Engine, Weighs: kg(0.7, 0.4), Hours: 0.2, Asks: bag},
	{Slot: FrameBag, Name: "Frame bags", Place: load.Tank, Weighs: kg(0.5, 0.3), Hours: 0.2, Asks: bag, AtOnce: 4},
	{Slot: TankBag, Name: "Tank bag", Place: load.TankBag, Weighs: kg(1.1, 0.6), Hours: 0.1, Asks: bag},
	{Slot: SideBags, Name: "Side bags", Place: load.Panniers, Weighs: kg(4.5, 3), Hours: 0.4, Asks: bag},
	{Slot: TailBag, Name: "Tail bag", Place: load.Tail, Weighs: kg(1.1, 0.6), Hours: 0.1, Asks: bag},
	{Slot: TopBox, Name: "Top box", Place: load.TopBox, Weighs: kg(3.8, 1.6), Hours: 0.5, Takes: Tools, Asks: bag},
	{Slot: SpareFront, Name: "Spare front tyre", Place: load.Tail, Weighs: kg(4.2, 1.2), Takes: Tools, Asks: tyreAsks},
	{Slot: SpareRear, Name: "Spare rear tyre", Place: load.Tail, Weighs: kg(5.8, 1.8), Takes: Tools, Asks: tyreAsks},
}

// Exhaust, controls and suspension.
var springing = []Kind{
	{Slot: Silencer, Name: "Silencer", Place: load.Panniers, Weighs: kg(3.5, 1.5), Comes: true, Hours: 0.6, Takes: Tools},
	{Slot: PillionPegs, Name: "Pillion pegs", Place: load.Panniers, Weighs: kg(0.8, 0.4), Comes: true, Hours: 1, Takes: Tools},
	{Slot: Cables, Name: "Longer cables, hoses", Place: load.FrontRack, Weighs: kg(0.3, 0.15), Comes: true, Hours: 2.5, Takes: Tools, Asks: asks(Slack), Found: Slack.Key},
	{Slot: Clamps, Name: "Fork clamps", Place: load.FrontRack, Weighs: kg(1.5, 0.6), Comes: true, Hours: 2.5, Takes: Press, Asks: asks(BarsUp), Found: BarsUp.Key},
	{Slot: ForkSprings, Name: "Fork springs", Place: load.FrontWheel, Weighs: kg(0.9, 0.4), Comes: true, Hours: 2, Takes: Tools, Asks: asks(Rate, SecondRate, Knee), Found: Rate.Key},
	{Slot: ForkCaps, Name: "Fork caps", Place: load.FrontWheel, Weighs: kg(0.3, 0.15), Comes: true, Hours: 0.8, Takes: Tools, Asks: adjusting},
	{Slot: ForkOil, Name: "Fork oil", Place: load.FrontWheel, Weighs: kg(1.1, 0.3), Comes: true, Hours: 1.5, Takes: Tools},
	{Slot: ForkValving, Name: "Fork valving", Place: load.FrontWheel, Weighs: kg(0.2, 0.15), Comes: true, Hours: 4, Takes: Press},
	{Slot: Fork, Name: "Fork", Place: load.FrontWheel, Weighs: kg(13, 3), Comes: true, Hours: 3, Takes: Press, Asks: asks(AdjustsIn, Rate, SecondRate, Knee, PreloadPer, PreloadMin, PreloadMax, ForkLonger, ForkMore, Proved), Found: Rate.Key},
	{Slot: ShockSpring, Name: "Shock spring", Place: load.Engine, Weighs: kg(1.6, 0.7), Comes: true, Hours: 2, Takes: Press, Asks: asks(rearRate, SecondRate, Knee), Found: Rate.Key},
	{Slot: ShockAdjuster, Name: "Preload adjuster", Place: load.Engine, Weighs: kg(0.5, 0.3), Comes: true, Hours: 1, Takes: Tools, Asks: adjusting},
	{Slot: ShockValving, Name: "Shock valving", Place: load.Engine, Weighs: kg(0.05, 0.05), Comes: true, Hours: 3, Takes: Press},
	{Slot: Shock, Name: "Shock absorber", Place: load.Engine, Weighs: kg(3.8, 1.3), Comes: true, Hours: 2, Takes: Press, Asks: asks(AdjustsIn, rearRate, SecondRate, Knee, PreloadPer, PreloadMin, PreloadMax, ShockLonger, RearMore, Proved), Found: Rate.Key},
	{Slot: Links, Name: "Suspension links", Place: load.RearWheel, Weighs: kg(0.7, 0.3), Comes: true, Hours: 1.5, Takes: Tools, Asks: asks(LinksUp, Leverage.Moving(LinkPercent, Add), RearMore), Found: LinksUp.Key},
	{Slot: SteeringDamper, Name: "Steering damper", Place: load.FrontRack, Weighs: kg(0.8, 0.35), Hours: 1, Takes: Tools, Asks: asks(BarsUp), Found: BarsUp.Key},
	{Slot: StandPlateSlot, Name: "Plate for the stand", Place: load.Tail, Weighs: kg(0.1, 0.07), Asks: asks(Sole.Moving(StandPlate, Set)), AtOnce: 1},
}

// Engine, brakes, stands. Their effects come with their stage: mass, money, hours and fitment count.
var engine = []Kind{
	{Slot: AirFilter, Name: "Air filter", Place: load.Engine, Weighs: kg(0.15, 0.1), Comes: true, Hours: 0.3},
	{Slot: Airbox, Name: "Airbox", Place: load.Engine, Weighs: kg(0.9, 0.5), Comes: true, Hours: 1.5, Takes: Tools},
	{Slot: Fuelling, Name: "Jets or map", Place: load.Engine, Weighs: kg(0.1, 0.1), Comes: true, Hours: 2.5, Takes: Press},
	{Slot: Header, Name: "Header", Place: load.Engine, Weighs: kg(2, 0.8), Comes: true, Hours: 1.5, Takes: Tools},
	{Slot: Hoses, Name: "Coolant hoses", Place: load.Engine, Weighs: kg(0.3, 0.15), Comes: true, Hours: 1.5, Takes: Tools},
	{Slot: Clutch, Name: "Clutch", Place: load.Engine, Weighs: kg(1, 0.5), Comes: true, Hours: 2, Takes: Tools},
	{Slot: BrakeLines, Name: "Brake lines", Place: load.FrontRack, Weighs: kg(0.25, 0.12), Comes: true, Hours: 2.5, Takes: Press},
	{Slot: FrontPads, Name: "Front brake pads", Place: load.FrontWheel, Weighs: kg(0.2, 0.1), Comes: true, Hours: 0.4, Takes: Tools},
	{Slot: RearPads, Name: "Rear brake pads", Place: load.RearWheel, Weighs: kg(0.2, 0.1), Comes: true, Hours: 0.4, Takes: Tools},
	{Slot: FrontDisc, Name: "Front disc", Place: load.FrontWheel, Weighs: kg(1.2, 0.4), Comes: true, Hours: 1, Takes: Tools},
	{Slot: RearDisc, Name: "Rear disc", Place: load.RearWheel, Weighs: kg(0.9, 0.35), Comes: true, Hours: 1, Takes: Tools},
	{Slot: HubRubbers, Name: "Hub rubbers", Place: load.RearWheel, Weighs: kg(0.2, 0.1), Comes: true, Hours: 0.8, Takes: Tools},
	{Slot: CentreStand, Name: "Centre stand", Place: load.Engine, Weighs: kg(4, 1.5), Hours: 1, Takes: Tools, Asks: asks(Hangs.Usually(15, 10))},
	{Slot: ShaftGuard, Name: "Final drive guard", Place: load.RearWheel, Weighs: kg(0.4, 0.25), Hours: 0.4, Takes: Tools, Asks: guarding},
	{Slot: OtherPart, Name: "Another part", Place: load.Engine, Weighs: kg(0.5, 0.5), Hours: 0.5, Takes: Tools, Asks: drawing(Draw), Found: Draw.Key, AtOnce: 99},
}

// What kinds have in common.
var (
	tyreAsks  = asks(TyreKind, TyreCode, TyreWidth, RollOut, Tread, TyreRoom, RatedAt, MinPressure, LifeLow, LifeHigh, LifeOn, LifeStyle)
	wheel     = asks(Build, RimDiameter, RimWidth, Proved)
	filling   = asks(FillingKind, RimDiameter.As("For rims of", "Empty: any."), RimWidth.As("… as wide as", "Of a rim lock. Empty: any."), MaxSpeed)
	guarding  = asks(GuardMount, GuardWidth, Bolts, Blocks, Covering)
	bag       = asks(BagKindOf, Litres, Carries, BagSpeed, WidthOver, Pair, Handy, Quick, OnSeat)
	adjusting = asks(AdjustsIn, PreloadPer, PreloadMin, PreloadMax)
)

// drawing is what is asked of what draws; of some it is usual for which share of the time.
func drawing(draw row, duty ...row) []Property {
	if duty == nil {
		duty = []row{Duty}
	}
	return append(asks(FedBy, UsedAt, draw), append(asks(duty...), asks(Parked)...)...)
}

// lamp is what is asked of a lamp.
func lamp(draw row, more ...row) []Property {
	list := asks(SitsOn, FedBy, UsedAt, Candela, Lumens, Beam, Lasts)
	return append(append(list, asks(more...)...), asks(draw, Duty, Parked)...)
}

// kg is what parts of a kind weigh, give or take half of a band.
func kg(value, half float64) Usual { return Usual{value, half, sheet.Memory} }
