package ready

import (
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/parts"
)

// How long things take that nobody has said, hours at the bike [memory].
const (
	faultHours   = 1.0 // to put right what an inspection found
	settingHours = 0.3 // levers, clickers, pressures
	makeHours    = 5.0 // a bracket or carrier, sawn, drilled, filed
	tryHours     = 0.5 // on, full lock and full travel, off again
	measureHours = 0.5
	sagHours     = 1.0
	forkHours    = 0.5
	lampHours    = 0.3
	testHours    = 0.5
	packHours    = 1.5
	carrierHours = 1.0
	insideHours  = 0.2 // of a small thing, once its wheel is out
	openMost     = 0.6 // of a job, that taking apart is
)

// … and days [memory; workshops and paint: the handbook's calendar].
var (
	usualQueue = calendar.Spread{Low: 3, Likely: 7, High: 21} // until a workshop has time
	usualVisit = calendar.Spread{Low: 1, Likely: 1, High: 3}
	paintTakes = calendar.Spread{Low: 1, Likely: 1.5, High: 2}
	papersTake = calendar.Spread{Low: 7, Likely: 14, High: 28}
)

const (
	bringDays    = 0.5 // of a visit: there and back
	usualRideKm  = 150 // a week, until the trip
	promisesSlip = 0.3 // of the time that was promised, at worst
)

// atCheck is what is taken apart to put right what a check found.
var atCheck = map[string][]calendar.Place{
	"front-tyre": {calendar.FrontWheel}, "front-spokes": {calendar.FrontWheel}, "front-bearings": {calendar.FrontWheel}, "front-disc": {calendar.FrontWheel},
	"fork-seals": {calendar.FrontWheel, calendar.Fork}, "head-bearings": {calendar.FrontWheel, calendar.Fork, calendar.Bars},
	"rear-tyre": {calendar.RearWheel}, "rear-spokes": {calendar.RearWheel}, "rear-bearings": {calendar.RearWheel}, "rear-disc": {calendar.RearWheel}, "tubes": {calendar.RearWheel},
	"swingarm": {calendar.Swingarm}, "shock": {calendar.Swingarm}, "chain-slider": {calendar.Swingarm}, "chain-wear": {calendar.Chain}, "sprockets": {calendar.Chain},
	"coolant": {calendar.Coolant}, "clutch": {calendar.Clutch}, "exhaust": {calendar.Exhaust}, "air-filter": {calendar.Seat}, "valves": {calendar.Tank}, "carburettor": {calendar.Tank},
	"front-brake": {calendar.FrontFluid}, "rear-brake": {calendar.RearFluid}, "cables": {calendar.Bars}, "throttle": {calendar.Bars}, "oil": {calendar.Plate},
}

func slotName(s parts.Slot) string {
	kind, _ := parts.KindOf(s)
	return strings.ToLower(kind.Name)
}

// interims are what keeps a door open until the part comes after all: nothing that has to be
// undone, and the standard part stays [practice, the handbook's calendar].
var interims = map[parts.Slot]string{
	parts.ForkSprings: "preload at its stop, less in the front bags, ridden with care", parts.Fork: "preload at its stop, ridden with care",
	parts.ShockSpring: "preload at its stop, bags lighter and further forward, ridden with care", parts.Shock: "preload at its stop, bags lighter, ridden with care",
	parts.Grips: "thick gloves now, grips that take a heater later", parts.HandGuards: "spare levers in the bag",
	parts.RearRack: "soft bags across the seat", parts.SideRack: "soft bags across the seat, off the exhaust", parts.TopBox: "a roll on the seat", parts.SideBags: "a roll and a rucksack, both light",
	parts.FuelTank: "a can or a bladder for the long legs", parts.AuxTank: "a can or a bladder for the long legs",
	parts.FrontTyre: "the old tyre, and slower where it is loose", parts.RearTyre: "the old tyre, and slower where it is loose",
	parts.RearSprocket: "the gearing that is on", parts.FrontSprocket: "the gearing that is on", parts.Chain: "the chain that is on, cleaned, and a spare link",
	parts.SkidPlate: "slower over rock, a tin of metal putty in the kit", parts.EngineBars: "slower where it falls", parts.AuxLamps: "no riding in the dark", parts.WideLamps: "no riding in the dark",
	parts.Windscreen: "a slower cruise", parts.Seat: "a pad on the seat, more stops", parts.Handlebar: "bars rolled and levers set", parts.Risers: "bars rolled and levers set",
	parts.Silencer: "the one that is on", parts.Fuelling: "as the maker set it", parts.Socket: "a charged spare battery", parts.Levers: "the levers that are on, set loose to turn",
}

// Interim is what is done meanwhile where a part of a slot comes after the trip, "" where the
// tables know of nothing.
func Interim(s parts.Slot) string { return interims[s] }
