// Package need says what a brief asks of a bike: named rows, each with the sentence
// of the brief that it comes from, what the bare bike gives, what is fitted, and
// what is short. It judges no part; it only says whether the brief is answered.
package need

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
)

// Need is one thing that the brief asks for.
type Need struct {
	ID, Name string
	Page     string     // where it is settled
	Because  knock.Text // the sentence of the brief
	Bare     knock.Text // what the bike gives as it came
	Fitted   knock.Text // what it gives now
	Short    knock.Text // "" when it is met
}

// Met reports that nothing is short.
func (n Need) Met() bool { return n.Short == "" }

// row is one need: ok is false when the brief does not ask for it.
type row struct {
	id, name, page string
	ask            func(f *knock.Facts) (n Need, ok bool)
}

// IDs lists the needs there are, in the order of the work.
func IDs() []string {
	ids := make([]string, len(rows))
	for i, r := range rows {
		ids[i] = r.id
	}
	return ids
}

// List is what the brief asks of the bike, in the order of the work; known is false
// when it does not say how far and on what ground.
func List(f *knock.Facts) (needs []Need, known bool) {
	if f.Risks == nil {
		return nil, false
	}
	for _, r := range rows {
		if n, ok := r.ask(f); ok {
			n.ID, n.Name, n.Page = r.id, r.name, r.page
			needs = append(needs, n)
		}
	}
	return needs, true
}

// From how much on a need is one [practice where the handbook of the trade says
// so, else memory].
const (
	looseShare   = 0.3  // of the distance, for tyres
	mudShare     = 0.05 // for a mudguard
	strandsFrom  = 0.02 // chance over the trip, for a guard
	breaksFrom   = 0.2  // of levers
	halved       = 0.5  // of the bare risk left: a guard has answered it
	pegHours     = 1.0  // standing a day, for pegs
	gripHours    = 0.5  // for bars
	windHours    = 1.0  // a day at the cruise, for a screen
	windKmh      = 100.0
	shelterMost  = 15.0 // percent that answers it
	lostFromKm   = 500.0
	tyreToolsKm  = 300.0
	chargeHours  = 3.0
	tyreRoadMost = 0.6 // road share of a tyre that is for loose ground
)

var rows = []row{
	{"tyres-for-the-ground", "Tyres for the ground", "tyres", tyresForTheGround},
	{"mend-a-flat", "Something to mend a flat", "inside", mendAFlat},
	{"fuel", "Fuel to the next pump", "range", fuelToThePump},
	{"sump", "The sump kept whole", "armour", guarded(guard.Sump)},
	{"cases", "The cases kept whole", "armour", guarded(guard.Cases)},
	{"cooler", "The cooler kept whole", "armour", cooler},
	{"hands", "Hands and levers kept whole", "armour", hands},
	{"mud", "Room for mud", "armour", mud},
	{"seat", "A seat for the hours", "contact", seat},
	{"stand", "Grips to stand by", "contact", stand},
	{"pegs", "Pegs to stand on", "contact", pegs},
	{"wind", "Shelter from the wind", "contact", wind},
	{"warm-hands", "Warm hands", "cockpit", warmHands},
	{"navigation", "Something to find the way by", "cockpit", navigation},
	{"charging", "Charging on the way", "cockpit", charging},
}

func say(format string, args ...any) knock.Text { return knock.Text(fmt.Sprintf(format, args...)) }

func tyresForTheGround(f *knock.Facts) (n Need, ok bool) {
	loose := 1 - f.Plan.Brief.Mix().Road()
	if loose < looseShare {
		return n, false
	}
	words := func(b *plan.Built) (knock.Text, float64) {
		t := b.Tyre(plan.RearTyre)
		if t == nil {
			return "a rear tyre that nobody has named", math.NaN()
		}
		c, _ := tyre.CharacterOf(t.Kind)
		return say("%s, made for %.0f %% road", strings.ToLower(c.Name), 100*c.RoadShare), c.RoadShare
	}
	n.Because = say("%.0f %% of the trip is off the road.", 100*loose)
	n.Bare, _ = words(f.Standard)
	fitted, share := words(f.Built)
	n.Fitted = fitted
	if !(share <= math.Max(tyreRoadMost, 1-loose+0.15)) {
		n.Short = "a tyre with more block"
	}
	return n, true
}

func mendAFlat(f *knock.Facts) (n Need, ok bool) {
	km := f.Plan.Brief.Distance.In("km")
	if km < tyreToolsKm {
		return n, false
	}
	n.Because, n.Bare, n.Fitted = say("{%.0f km}, and help is not everywhere.", km), "nothing", "nothing"
	if p := f.Built.Part(plan.TyreKit); p != nil {
		n.Fitted = knock.Text(p.Name)
		return n, true
	}
	n.Short = "irons or plugs, and air"
	return n, true
}

func fuelToThePump(f *knock.Facts) (n Need, ok bool) {
	if f.Range.Deciding < 0 || math.IsNaN(f.GapKm) || math.IsNaN(f.RangeKm) {
		return n, false
	}
	leg := f.Range.Legs[f.Range.Deciding]
	bare := f.Standard.Fuels[0]
	n.Because = say("{%.0f km} from %s to %s.", f.GapKm, leg.From, leg.To)
	n.Bare, n.Fitted = say("{%.1f L}", bare.HoldsL-bare.UnusedL), say("{%.1f L}, {%.0f km} before the reserve", f.Range.Tank.UsableL, f.RangeKm)
	if f.RangeKm < f.GapKm {
		n.Short = "a tank, cans or a bladder for that leg, or a pump in between"
	}
	return n, true
}

// riskOf a place.
func riskOf(f *knock.Facts, p guard.Place) (guard.Risk, bool) {
	for _, r := range f.Risks {
		if r.Place.Place == p {
			return r, true
		}
	}
	return guard.Risk{}, false
}

// guarded asks for a guard where a broken place ends the ride often enough.
func guarded(place guard.Place) func(f *knock.Facts) (Need, bool) {
	return func(f *knock.Facts) (n Need, ok bool) {
		r, ok := riskOf(f, place)
		if !ok || r.Bare.Stranded < strandsFrom {
			return n, false
		}
		n.Because = say("On this ground and over this distance, bare, it ends the ride %.0f times in 100.", 100*r.Bare.Stranded)
		n.Bare, n.Fitted = say("%.0f in 100", 100*r.Bare.Stranded), say("%.1f in 100", 100*r.Left.Stranded)
		if r.Left.Stranded > halved*r.Bare.Stranded {
			n.Short = "a guard that takes at least half of it away"
		}
		return n, true
	}
}

// cooler is whichever the bike has.
func cooler(f *knock.Facts) (Need, bool) {
	if n, ok := guarded(guard.Radiator)(f); ok {
		return n, true
	}
	return guarded(guard.OilCooler)(f)
}

func hands(f *knock.Facts) (n Need, ok bool) {
	r, ok := riskOf(f, guard.Levers)
	if !ok || r.Bare.Broken < breaksFrom {
		return n, false
	}
	n.Because = say("Falls and branches break a lever on %.0f of 100 such trips.", 100*r.Bare.Broken)
	n.Bare, n.Fitted = say("%.0f in 100", 100*r.Bare.Broken), say("%.0f in 100", 100*r.Left.Broken)
	if r.Left.Broken > halved*r.Bare.Broken {
		n.Short = "hand guards, or a spare lever"
	}
	return n, true
}

func mud(f *knock.Facts) (n Need, ok bool) {
	share := f.Plan.Brief.Mix()[terrain.Mud]
	if share < mudShare {
		return n, false
	}
	n.Because, n.Bare, n.Fitted = say("%.0f %% of the trip is mud.", 100*share), "the standard mudguard, close to the tyre", "the standard mudguard, close to the tyre"
	if p := f.Built.Part(plan.FrontMudguard); p != nil {
		n.Fitted = knock.Text(p.Name)
		return n, true
	}
	n.Short = "a raised or shortened mudguard: packed mud brakes the wheel"
	return n, true
}

func seat(f *knock.Facts) (n Need, ok bool) {
	if !(f.SeatedHours > 1) {
		return n, false
	}
	n.Because = say("%.1f hours a day, %.1f of them seated.", f.SeatedHours+f.StandingHours, f.SeatedHours)
	n.Bare, n.Fitted = "a standard seat", say("a seat that does %.1f hours", f.SeatHours)
	if f.SeatedHours > f.SeatHours {
		n.Short = "try the standard seat for a day first; then foam, a cover or another"
	}
	return n, true
}

func stand(f *knock.Facts) (n Need, ok bool) {
	if !(f.StandingHours > gripHours) || math.IsNaN(f.BarShortMM) {
		return n, false
	}
	n.Because = say("%.1f hours a day on the pegs, by the ground.", f.StandingHours)
	n.Bare, n.Fitted = say("grips {%.0f mm} too low", f.BarShortMM+f.BarRiseMM), say("grips {%.0f mm} too low", f.BarShortMM)
	if f.BarShortMM > fit.StandTaste {
		n.Short = "roll the bar forward; then risers or a higher bar"
	}
	return n, true
}

// provided asks for a tag.
func provided(f *knock.Facts, n Need, tag string, have, short knock.Text) Need {
	n.Bare, n.Fitted = "nothing", "nothing"
	if f.Built.Provides(tag) {
		n.Fitted = have
		return n
	}
	n.Short = short
	return n
}

func pegs(f *knock.Facts) (n Need, ok bool) {
	if !(f.StandingHours > pegHours) {
		return n, false
	}
	n.Because = say("%.1f hours a day on the pegs.", f.StandingHours)
	n = provided(f, n, "wide-pegs", "wide toothed pegs", "wide toothed pegs: control standing for little money")
	n.Bare = "standard pegs"
	return n, true
}

func wind(f *knock.Facts) (n Need, ok bool) {
	road := f.Plan.Brief.Day.In("h") * f.Plan.Brief.Mix().RoadHours(1) / f.Plan.Brief.Mix().Hours(1)
	if !(road > windHours) || !(f.CruiseKmh >= windKmh) {
		return n, false
	}
	n.Because = say("%.1f hours a day on the road, at {%.0f km/h}.", road, f.CruiseKmh)
	body := f.Built.Bike.Body
	shelter := f.Built.Figure(plan.Shelter)
	n.Bare, n.Fitted = "nothing in front of you", say("a screen that takes %.0f %% of the wind", shelter)
	if body == plan.Screen || body == plan.Faired {
		n.Bare = "the bike's own screen"
		n.Fitted = n.Bare
		return n, true
	}
	if shelter < shelterMost {
		n.Fitted, n.Short = n.Bare, "a low or adjustable screen, or a slower cruise"
	}
	return n, true
}

func warmHands(f *knock.Facts) (n Need, ok bool) {
	if f.Plan.Brief.Weather != plan.Cold {
		return n, false
	}
	n.Because = "Cold mornings are to be counted on."
	return provided(f, n, "warm-hands", "shields or heated grips", "shields before the hands, or heated grips"), true
}

func navigation(f *knock.Facts) (n Need, ok bool) {
	km := f.Plan.Brief.Distance.In("km")
	if km < lostFromKm || f.Plan.Brief.Mix().Road() > 0.9 {
		return n, false
	}
	n.Because = say("{%.0f km}, %.0f %% of them without signposts.", km, 100*(1-f.Plan.Brief.Mix().Road()))
	return provided(f, n, "navigation", "something in sight", "paper, a phone on a damped mount, or a sealed device"), true
}

func charging(f *knock.Facts) (n Need, ok bool) {
	if !f.Built.Provides("navigation") || !(f.Plan.Brief.Day.In("h") > chargeHours) || f.Built.Provides("paper") {
		return n, false
	}
	n.Because = say("A screen that is looked at for %.1f hours a day.", f.Plan.Brief.Day.In("h"))
	return provided(f, n, "socket", "a socket", "a switched socket, sealed or out of the rain"), true
}
