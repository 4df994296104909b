// Package knock says what a change needs or breaks: named rules, each one row of
// the trade's knowledge of how one change upsets another.
//
// A rule looks at a bike as built beside the same bike as it came, and at the
// numbers that package eval computed. It speaks when its row applies and is
// silent when it does not; a number that is missing is NaN and keeps the rules
// that compare it silent, for the gauge that lacks it already says so.
package knock

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Finding is what a rule has to say.
type Finding struct {
	ID       string
	Stage    Stage
	State    verdict.State
	What     Text // what is the case, in figures
	Why      Text // what comes of it
	Do       Text // what a rider does about it
	Remedies []Remedy
}

// Text is what a rule says. Its quantities stand in braces, "{17 mm}", so that a
// page can show them in the rider's own units.
type Text string

// String is the text as it stands, in metric units.
func (t Text) String() string { return braces.Replace(string(t)) }

var braces = strings.NewReplacer("{", "", "}", "")

func say(format string, args ...any) Text { return Text(fmt.Sprintf(format, args...)) }

// Remedy is a way out that can be previewed: parts that are on the shelf.
type Remedy struct {
	Label   string
	Choices []plan.Choice
}

// Ends is a number at the front wheel and at the rear one.
type Ends struct{ Front, Rear float64 }

// Chain is how the chain runs. Shifts count from where the axle is set with the
// standard sprockets and chain, + is back.
type Chain struct {
	Links     int     // of the chain as built, 0 when unknown
	Exact     float64 // pitches that the pair asks for at the centre as set now
	ShiftMM   float64 // to tighten the chain as built
	Adjuster  drive.Adjuster
	Best      int // even links with the smallest shift in reach, 0 for none
	BestShift float64
}

// Facts is everything that rules look at. Floats are NaN when unknown.
type Facts struct {
	Plan            *plan.Plan
	Loadout         string
	Built, Standard *plan.Built
	Shelf           plan.Shelf
	Due             []plan.Line // to be put right first

	CircumferenceMM, StandardCircumferenceMM Ends
	DiameterMM, StandardDiameterMM           Ends

	Pair, StandardPair drive.Pair // zero when unknown
	ChangePercent      float64    // of the gearing, + = shorter
	Chain              Chain

	SeatRiseMM   float64
	StandShortMM float64
	RakeDegrees  float64 // + = steeper
	MixPercent   float64 // front/rear circumference against standard
	SpeedoFactor float64 // display against the standard bike's
	SpeedoOver   float64 // shown over true, less 1

	CruiseKmh   float64
	LoadedKg    float64
	PermittedKg float64
	CarriedKg   float64 // of it pillion and loads
	AxleKg      Ends    // the worse of full and empty tank
	AxleLimitKg Ends
	TyreLoad    Ends        // of the rated load, 1 = all of it
	Bags        []BagLoad   // that are on
	Loose       []plan.Load // in a bag that is not
	Sides       Sides
	RackKg      float64 // behind the seat
	RackLimitKg float64
	ShipKg      float64 // without rider and bags, a quarter tank
	Parts       int     // how many of the masses on board are the plan's parts
	FrontShare  float64 // of the loaded mass on the front wheel
	UnsprungKg  Ends    // that the plan's wheels, tyres and fillings weigh over the standard ones

	Pressures []Pressure // by surface
	Climb     Climb
	Balance   drive.Balance
	Cruise    Cruise

	SeatedHours, StandingHours float64 // a day
	SeatHours                  float64 // that the seat does
	KneeDegrees                float64
	BarShortMM, BarRiseMM      float64 // for standing; over standard
	CableSlackMM               float64

	Risks []guard.Risk // of each place, over the trip; nil when distance or ground are unknown

	Machine                    fuel.Machine
	DragAreaM2                 float64 // with screen, bags and pillion
	RangeKm, RangeMidKm, GapKm float64 // before the reserve, low end and middle, on the leg that decides; how long it is
	Range                      Range
	ReachMM, ReachWishMM       float64 // sole to ground
	RoomMM, RoomWishMM         float64 // under the engine, rider on
}

// Pressure is what is known of the pressures for a surface.
type Pressure struct {
	Surface     terrain.Surface
	Share       float64 // of the trip
	Front, Rear PressureEnd
}

// PressureEnd is one wheel's, kPa, cold. What is NaN is not known, 0 is no floor.
type PressureEnd struct {
	Placard float64 // for the load that is on
	Load    float64 // below it the tyre does not carry its axle
	Pinch   float64 // below it a stone reaches the rim
	Bead    float64 // below it the tyre moves on its rim
	Maker   float64 // the maker's least
	Advice  float64 // what follows from them
	Own     float64 // the rider's choice
	Carries float64 // at the pressure taken, kg
}

// Taken is the rider's choice, or else the advice.
func (e PressureEnd) Taken() float64 {
	if math.IsNaN(e.Own) {
		return e.Advice
	}
	return e.Own
}

// Climb is the steepest slope, as a tangent, on the ground that allows least.
type Climb struct {
	Ground                 terrain.Ground
	Pull, Traction, Wheely float64
	Wish                   float64
}

// Slope is the least of the three, and what sets it.
func (c Climb) Slope() (slope float64, limit string) {
	slope, limit = c.Pull, "pull"
	if c.Traction < slope {
		slope, limit = c.Traction, "grip"
	}
	if c.Wheely < slope {
		slope, limit = c.Wheely, "the front wheel"
	}
	if math.IsNaN(c.Pull + c.Traction + c.Wheely) {
		return math.NaN(), ""
	}
	return slope, limit
}

// Cruise is how the engine holds the brief's cruise into its headwind.
type Cruise struct {
	Known bool
	Gear  int // the highest that holds it, 0 for none
	Gears int
}

// Range is how far the fuel goes, leg by leg.
type Range struct {
	Tank     fuel.Tank
	Model    fuel.Taught // of this bike's consumption
	Anchor   float64     // known consumption over the computed one, as it came; NaN when unknown
	Legs     []Leg       // in order; one for the brief's gap when there is no route
	Deciding int         // which of them has the least to spare, −1 for none
	Leader   *plan.Mate  // whose range is smaller than this bike's
}

// Joined is a leg and the next as one, with the pump between them shut; ok is false
// where there is none. Their spreads are summed, as if the thirst of both had one
// cause.
func (r Range) Joined(i int) (joined Leg, ok bool) {
	if i+1 >= len(r.Legs) || r.Legs[i].Ends == nil {
		return Leg{}, false
	}
	a, b := r.Legs[i], r.Legs[i+1]
	return Leg{From: a.From, To: b.To, FromKm: a.FromKm, ToKm: b.ToKm, Ends: b.Ends, UpM: a.UpM + b.UpM, Leg: r.Tank.Cover(a.Km+b.Km, a.NeedL+b.NeedL, a.SpreadL+b.SpreadL)}, true
}

// Leg is the way from one stop to the next.
type Leg struct {
	From, To     string
	FromKm, ToKm float64    // along the route
	Ends         *plan.Stop // the pump at its end, nil at the end of the route
	Shut         []*plan.Stop
	UpM          float64
	Mix          terrain.Mix
	fuel.Leg
}

// Short reports whether the fuel before the reserve does not reach at the middle of
// the band; Thirsty whether it does not at its low end.
func (l Leg) Short() bool   { return l.MarginL < 0 }
func (l Leg) Thirsty() bool { return l.LowL < 0 }

// Stage is the part of the work in which a finding is settled.
type Stage string

// The stages that have rules.
const (
	Bike     Stage = "bike"
	Baseline Stage = "baseline"
	Tyres    Stage = "tyres"
	Armour   Stage = "armour"
	Contact  Stage = "contact"
	Spend    Stage = "spend"
	Gearing  Stage = "gearing"
	Ranging  Stage = "range"
	Loading  Stage = "load"
)

// signed writes a number with its sign, minus as a true one.
func signed(v float64, digits int) string {
	text := strconv.FormatFloat(math.Abs(v), 'f', digits, 64)
	if v < 0 {
		return "−" + text
	}
	return "+" + text
}

// A Rule is a named row.
type Rule struct {
	ID    string
	Stage Stage
	speak func(*Facts) (Finding, bool)
}

// Rules lists every rule in the order in which findings are shown.
func Rules() []Rule { return rules }

var rules = []Rule{
	{"overweight", Loading, overweight},
	{"axle-overload", Loading, axleOverload},
	{"out-of-reach", Bike, outOfReach},
	{"room-short", Bike, roomShort},
	{"heavy-for-the-ground", Bike, heavyForGround},
	{"light-for-the-road", Bike, lightForRoad},
	{"worn-past-limit", Baseline, wornPast},
	{"blocks-the-trip", Baseline, blocksTrip},
	{"wear-short", Baseline, wearShort},
	{"put-right-first", Baseline, dueFirst},
	{"tyre-overload", Tyres, tyreOverload},
	{"front-tyre-rim", Tyres, func(f *Facts) (Finding, bool) { return rimMismatch(f, plan.FrontTyre) }},
	{"rear-tyre-rim", Tyres, func(f *Facts) (Finding, bool) { return rimMismatch(f, plan.RearTyre) }},
	{"rear-tyre-clearance", Tyres, rearClearance},
	{"front-tyre-speed", Tyres, func(f *Facts) (Finding, bool) { return speedSymbol(f, plan.FrontTyre) }},
	{"rear-tyre-speed", Tyres, func(f *Facts) (Finding, bool) { return speedSymbol(f, plan.RearTyre) }},
	{"rear-tyre-in-front", Tyres, rearInFront},
	{"front-rim-width", Tyres, func(f *Facts) (Finding, bool) { return rimWidth(f, plan.FrontTyre) }},
	{"rear-rim-width", Tyres, func(f *Facts) (Finding, bool) { return rimWidth(f, plan.RearTyre) }},
	{"front-rear-mix", Tyres, frontRearMix},
	{"tyre-against-ground", Tyres, tyreAgainstGround},
	{"front-tyre-clearance", Tyres, frontClearance},
	{"holds-no-air", Tyres, holdsNoAir},
	{"filling-size", Tyres, fillingSize},
	{"rim-lock-fit", Tyres, rimLockFit},
	{"foam-speed", Tyres, foamSpeed},
	{"wheel-balance", Tyres, wheelBalance},
	{"unsprung-mass", Tyres, unsprungMass},
	{"pressure-load", Tyres, pressureLoad},
	{"pressure-maker", Tyres, pressureMaker},
	{"pressure-pinch", Tyres, pressurePinch},
	{"pressure-soft", Tyres, pressureSoft},
	{"pressure-road", Tyres, pressureRoad},
	{"tyre-tools", Tyres, tyreTools},
	{"cast-on-rock", Tyres, castOnRock},
	{"other-wheels", Tyres, otherWheels},
	{"part-does-not-fit", Bike, doesNotFit},
	{"effects-clash", Bike, effectsClash},
	{"cannot-both", Armour, cannotBoth},
	{"ends-the-ride", Armour, endsTheRide},
	{"lamp-behind-mudguard", Armour, lampBehindMudguard},
	{"guards-at-the-bars", Armour, guardsAtTheBars},
	{"blocked-access", Armour, blockedAccess},
	{"blow-into-cases", Armour, blowIntoCases},
	{"cables-short", Contact, cablesShort},
	{"knees-bent", Contact, kneesBent},
	{"seat-for-the-hours", Contact, seatForTheHours},
	{"bars-low-standing", Contact, barsLow},
	{"screen-in-sight", Contact, screenInSight},
	{"shaken-phone", Contact, shakenPhone},
	{"live-socket", Contact, liveSocket},
	{"glued-grips", Contact, gluedGrips},
	{"pegs-drag", Contact, pegsDrag},
	{"tower-and-bars", Contact, towerAndBars},
	{"double-pace", Armour, doublePace},
	{"short-plate-holder", Armour, shortPlateHolder},
	{"for-the-workshop", Spend, forTheWorkshop},
	{"range-short", Ranging, rangeShort},
	{"unsure-pump", Ranging, unsurePump},
	{"smallest-of-group", Ranging, smallestOfGroup},
	{"consumption-off", Ranging, consumptionOff},
	{"can-not-approved", Ranging, canNotApproved},
	{"tank-plumbing", Ranging, tankPlumbing},
	{"tank-at-the-knees", Ranging, tankAtTheKnees},
	{"tank-in-front", Ranging, tankInFront},
	{"fuel-behind", Ranging, fuelBehind},
	{"fuel-by-the-exhaust", Ranging, fuelByTheExhaust},
	{"rack-overload", Loading, rackOverload},
	{"bag-overload", Loading, bagOverload},
	{"bag-overfull", Loading, bagOverfull},
	{"bag-speed", Loading, bagSpeed},
	{"sides-uneven", Loading, sidesUneven},
	{"front-light", Loading, frontLight},
	{"high-behind", Loading, highBehind},
	{"bag-not-there", Loading, bagNotThere},
	{"bags-by-the-pipe", Loading, bagsByThePipe},
	{"hard-boxes-trap", Loading, hardBoxesTrap},
	{"rack-keeps-the-seat", Loading, rackKeepsTheSeat},
	{"rack-takes-the-pegs", Loading, rackTakesThePegs},
	{"home-made-carrier", Loading, homeMadeCarrier},
	{"tail-lamp-hidden", Loading, tailLampHidden},
	{"load-takes", Loading, loadTakes},
	{"too-heavy-to-ship", Loading, tooHeavyToShip},
	{"ships-too-late", Loading, shipsTooLate},
	{"nowhere-to-tie", Loading, nowhereToTie},
	{"tyre-moves-gearing", Gearing, tyreMovesGearing},
	{"chain-length", Gearing, chainLength},
	{"axle-position", Gearing, axlePosition},
	{"chain-slider", Gearing, chainSlider},
	{"small-front-sprocket", Gearing, smallFrontSprocket},
	{"worn-together", Gearing, wornTogether},
	{"swap-slack", Gearing, swapSlack},
	{"cruise-not-held", Gearing, cruiseNotHeld},
	{"climb-short", Gearing, climbShort},
	{"carburettor-altitude", Gearing, carburettorAltitude},
	{"speedometer", Gearing, speedometer},
	{"seat-height", Tyres, seatHeight},
	{"stand-too-short", Tyres, standTooShort},
	{"rake", Tyres, rake},
}

// Worst is the worst state of findings, OK when there are none.
func Worst(findings []Finding) verdict.State {
	worst := verdict.OK
	for _, f := range findings {
		worst = verdict.Worse(worst, f.State)
	}
	return worst
}

// Findings asks every rule.
func Findings(f *Facts) []Finding {
	var found []Finding
	for _, r := range rules {
		if finding, ok := r.speak(f); ok {
			finding.ID, finding.Stage = r.ID, r.Stage
			for i := range finding.Remedies {
				finding.Remedies[i].Choices = f.Plan.Scoped(finding.Remedies[i].Choices, f.Loadout)
			}
			found = append(found, finding)
		}
	}
	return found
}
