package ready

import (
	"slices"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// When a look of the shakedown is due.
type When string

// The looks come after a short round, after a first ride, and after the first hard day.
const (
	Round When = "round"
	Ride  When = "ride"
	Hard  When = "hard"
)

// Whens lists them with what the ride is to be.
func Whens() []struct {
	When       When
	Name, Says string
} {
	return []struct {
		When       When
		Name, Says string
	}{
		{Round, "After a short round", "A few kilometres on the road, then everything once by hand."},
		{Ride, "After 60–150 km", "Loaded as for the trip, on the ground of the trip. What hurts is noticed within the first hour."},
		{Hard, "After the first hard day", "Loaded, rough, hot. What carries is proved here and nowhere else."},
	}
}

// Look is one thing to look at, listen to, turn with a wrench or measure.
type Look struct {
	ID     string
	When   When
	Name   string
	Says   string
	Last   *logbook.Shake // nil while nobody has looked
	On     string         // on which day somebody did
	Grave  bool           // what ends the ride or throws its rider
	Proves bool           // it wants load and rough ground
	Reads  logbook.Kind   // what is measured with it, "" for what is looked at alone
}

// looks are what is looked at because of what was fitted [the handbook's shakedown; slots: practice].
var looks = []struct {
	when  When
	id    string
	name  string
	says  string
	slots []parts.Slot
	grave bool
}{
	{Round, "axle", "Axle, brakes, bearings", "Axle nut and pinch bolts by torque; the wheel turns free; the lever is hard before one rolls.", []parts.Slot{parts.FrontTyre, parts.RearTyre, parts.FrontWheel, parts.RearWheel, parts.FrontDisc, parts.RearDisc, parts.FrontPads, parts.RearPads, parts.BrakeLines}, true},
	{Round, "lock", "Full lock, full travel", "Hoses, cables and wires slack at both locks; nothing touches tank or screen; the throttle snaps shut.", []parts.Slot{parts.Handlebar, parts.Risers, parts.Clamps, parts.Grips, parts.HandGuards, parts.Cables, parts.NavMount, parts.Windscreen, parts.BarBags}, true},
	{Round, "leaks", "Leaks", "Dry after ten minutes of running, and after a night.", []parts.Slot{parts.FuelTank, parts.AuxTank, parts.Hoses, parts.Fork, parts.ForkOil, parts.ForkValving, parts.ForkSprings, parts.Shock, parts.ShockValving, parts.Clutch, parts.BrakeLines}, true},
	{Round, "circuits", "Switched, fused, not warm", "Each on and off; fuse and plug cold after ten minutes of all on.", []parts.Slot{parts.AuxLamps, parts.WideLamps, parts.DayLamps, parts.Socket, parts.PowerBox, parts.Headlamp, parts.Horn, parts.LampControl, parts.Regulator}, false},
	{Ride, "torque", "Bolts again", "By torque, those that came with the part too: their thread-lock is not yours.", []parts.Slot{parts.RearRack, parts.SideRack, parts.EngineBars, parts.SkidPlate, parts.HandGuards, parts.Handlebar, parts.Risers, parts.Clamps, parts.Pegs, parts.HighwayPegs, parts.Levers, parts.Silencer, parts.Links, parts.CentreStand, parts.CoolerGuard, parts.RearSprocket, parts.FrontSprocket}, true},
	{Ride, "chain", "Chain slack, loaded", "At its tightest place, rider and bags on; oil; links at the rivets.", []parts.Slot{parts.Chain, parts.RearSprocket, parts.FrontSprocket, parts.ChainSlider, parts.ChainGuide}, true},
	{Ride, "rub", "Rub and heat marks", "Bags, straps, silencer, indicators, swingarm, inner mudguard: bright spots, soot, melted edges.", []parts.Slot{parts.SideBags, parts.TailBag, parts.TopBox, parts.SideRack, parts.Silencer, parts.Header, parts.RearTyre, parts.FrontTyre, parts.FrontMudguard, parts.TankBag, parts.FrameBag}, false},
	{Ride, "sag", "Sag and clicks again", "With everything on; springs settle in the first hundred kilometres.", []parts.Slot{parts.ForkSprings, parts.ShockSpring, parts.Fork, parts.Shock, parts.ForkValving, parts.ShockValving, parts.Links}, false},
	{Ride, "spokes", "Spokes by ear", "The same note all round, each side for itself.", []parts.Slot{parts.FrontWheel, parts.RearWheel}, true},
	{Hard, "carries", "Held, loaded and rough", "Cracks at welds and brackets, bolts, what it hangs on. Keep the old one until this.", []parts.Slot{parts.RearRack, parts.SideRack, parts.SideBags, parts.TopBox, parts.Shock, parts.ShockSpring, parts.Fork, parts.ForkSprings, parts.FrontWheel, parts.RearWheel, parts.EngineBars, parts.CentreStand}, true},
	{Hard, "heat", "Hot, slow, dusty", "Fan on in time, coolant level cold again; filter clean inside; clutch does not drag.", []parts.Slot{parts.CoolerGuard, parts.Hoses, parts.AirFilter, parts.Airbox, parts.Clutch, parts.Fuelling, parts.Header, parts.Silencer}, false},
}

// always are looks of any bike before any trip.
var always = []Look{
	{ID: "round/pressures", When: Round, Name: "Pressures, cold", Says: "By the card, with the gauge that comes along."},
	{ID: "ride/hurts", When: Ride, Name: "What hurts after the first hour", Says: "Knees, seat, wrists, hands, wind in the helmet. What hurts then ends the second day."},
	{ID: "ride/straps", When: Ride, Name: "Straps, and what is in the bags", Says: "Each a hand tighter; what rubs inside has begun to."},
	{ID: "ride/volts", When: Ride, Name: "Volts with everything on", Says: "At 5000 rpm, all lamps, grips and vest on full.", Reads: logbook.VoltsRead},
	{ID: "ride/uses", When: Ride, Name: "Fuel used", Says: "From brim to brim.", Reads: logbook.FillReading},
	{ID: "hard/dry", When: Hard, Name: "The tank run to its pickup", Says: "With a can aboard, where it may stop: what goes in afterwards is what the tank really gives.", Reads: logbook.FillReading},
}

// Looks is the shakedown of a plan: what follows from what was fitted, and what is looked at on any bike. What
// would end the ride stands first.
func Looks(p *plan.Plan) []Look {
	last := p.Looks()
	var list []Look
	add := func(l Look) {
		if r, ok := last[l.ID]; ok {
			l.Last, l.On = r.Shake(), r.On
		}
		list = append(list, l)
	}
	for _, row := range looks {
		for i := range p.Lines {
			l := &p.Lines[i]
			if l.Part == nil || l.Standing() != plan.In || l.Decision == plan.OnTheBike || !slices.Contains(row.slots, l.Part.Slot) {
				continue
			}
			says := row.says
			if torque := l.Supplied().Torque; torque != "" && (row.id == "torque" || row.id == "axle") {
				says = torque + ". " + says
			}
			id := string(row.when) + "/" + row.id
			look := Look{ID: plan.LookAt(id, l.Part), When: row.when, Name: row.name + ": " + l.Part.Name, Says: says, Grave: row.grave, Proves: id == plan.Carries}
			if row.id == "sag" {
				look.Reads = logbook.SagRead
			}
			add(look)
		}
	}
	for _, l := range always {
		add(l)
	}
	slices.SortStableFunc(list, func(a, b Look) int {
		switch {
		case a.Grave == b.Grave:
			return 0
		case a.Grave:
			return -1
		}
		return 1
	})
	return list
}

// Held reports whether a look is done with: it was well, and where it proves something the ride was hard enough.
func (l *Look) Held() bool {
	return l.Last != nil && !l.Last.Wrong && (!l.Proves || l.Last.Loaded && l.Last.Rough)
}

// Wrong reports whether the last look found something.
func (l *Look) Wrong() bool { return l.Last != nil && l.Last.Wrong }

// shaken are the jobs of what a look found.
func (m *maker) shaken() {
	if len(m.p.ReadingsOf(logbook.Shaken)) == 0 {
		return
	}
	for _, l := range Looks(m.p) {
		if l.Wrong() {
			m.right(facts.Job{Key: l.ID + " " + l.On, Kind: facts.JobRight, Name: "Put right: " + strings.ToLower(l.Name[:1]) + l.Name[1:], Line: -1}, unit.Duration{}, m.usualFault())
		}
	}
}
