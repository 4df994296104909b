package knock

import (
	"math"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Rows of what is carried, and of what carries it.

// Limits of what is carried that figures are held against, too.
const (
	UnevenKg   = 2.0  // between the sides [practice]
	FrontLeast = 0.38 // of the loaded mass under the front wheel, from which steering goes light [memory]
)

const (
	highKg       = 8.0  // behind and high, from which it is felt [memory]
	takesShare   = 0.15 // of the kerb mass, from which springs, tyres and brakes are set for it [memory]
	hardOnLoose  = 0.3  // loose share, from which hard boxes and trapped legs are spoken of [memory]
	narrowShare  = 0.1  // single track share
	narrowMostMM = 950.0
)

// Sides is what hangs on either.
type Sides struct{ LeftKg, RightKg float64 }

// BagLoad is a bag with what is in it.
type BagLoad struct {
	Slot            plan.Slot
	Part            *plan.Part
	Kg, Litres      float64
	LimitKg, LimitL float64 // NaN when nobody has said
}

// Share of its limits that is used, the greater of both.
func (b BagLoad) Share() float64 {
	share := b.Litres / b.LimitL
	if kg := b.Kg / b.LimitKg; !math.IsNaN(kg) {
		share = max(share, kg)
	}
	return share
}

func rackOverload(f *Facts) (Finding, bool) {
	if !(f.RackKg > f.RackLimitKg) {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Stop,
		What:     say("{%.1f kg} behind the seat; the rack carries {%.1f kg}.", f.RackKg, f.RackLimitKg),
		Why:      "Racks and subframes crack at their bolts, far out, on the corrugations.",
		Do:       "Move it down into side bags and forward, or fit a rack that is made for it; the subframe keeps its limit either way.",
		Remedies: offer(f, plan.RearRack, func(p *plan.Part) bool { return p.Rack != nil && p.Rack.Carries.In("kg") >= f.RackKg }),
	}, true
}

func bagOverload(f *Facts) (Finding, bool) {
	for _, b := range f.Bags {
		if b.Kg > b.LimitKg {
			return Finding{
				State: verdict.Stop,
				What:  say("{%.1f kg} in %s; it carries {%.1f kg}.", b.Kg, b.Part.Name, b.LimitKg),
				Why:   "Straps, hooks and hinges let go first, and what falls off at speed meets a wheel.",
				Do:    "Spread it over the bags; the packing page proposes how.",
			}, true
		}
	}
	return Finding{}, false
}

func bagOverfull(f *Facts) (Finding, bool) {
	for _, b := range f.Bags {
		if b.Litres > b.LimitL {
			return Finding{
				State: verdict.Over,
				What:  say("{%.0f L} for %s; it holds {%.0f L}.", b.Litres, b.Part.Name, b.LimitL),
				Why:   "What does not go in is strapped on outside, high and loose.",
				Do:    "Leave something at home, share it in the group, or move it to another bag.",
			}, true
		}
	}
	return Finding{}, false
}

func bagSpeed(f *Facts) (Finding, bool) {
	for _, b := range f.Bags {
		if most := b.Part.Bag.MaxSpeed.In("km/h"); f.CruiseKmh > most {
			return Finding{
				State: verdict.Watch,
				What:  say("%s is made for {%.0f km/h}; the cruise is {%.0f km/h}.", b.Part.Name, most, f.CruiseKmh),
				Why:   "Bags beside and behind stir the air: faster, a loaded bike can start to weave.",
				Do:    "Ride to the bags' limit, or take some with a higher one.",
			}, true
		}
	}
	return Finding{}, false
}

func sidesUneven(f *Facts) (Finding, bool) {
	apart := f.Sides.LeftKg - f.Sides.RightKg
	if !(math.Abs(apart) > UnevenKg) {
		return Finding{}, false
	}
	heavy := "left"
	if apart < 0 {
		heavy = "right"
	}
	return Finding{
		State: verdict.Watch,
		What:  say("The %s side is {%.1f kg} heavier.", heavy, math.Abs(apart)),
		Why:   "The bike pulls to one side and leans on its stand, and in sand it steers itself.",
		Do:    "Within {2 kg} is good. The side with the exhaust often takes less.",
	}, true
}

func frontLight(f *Facts) (Finding, bool) {
	if !(f.FrontShare < FrontLeast) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("%.0f %% of the loaded mass is on the front wheel.", 100*f.FrontShare),
		Why:   "With little weight in front it wanders, washes out in gravel and lifts on climbs.",
		Do:    "Heavy things low and forward: tools before the engine, water on the tank, nothing heavy behind the axle.",
	}, true
}

func highBehind(f *Facts) (Finding, bool) {
	if !(f.RackKg > highKg) || f.RackKg > f.RackLimitKg {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("{%.1f kg} high behind the seat.", f.RackKg),
		Why:   "A tall heavy end is the worst place: it lifts the front, swings, and works on the subframe.",
		Do:    "The tent may lie there; tools, water and food go down into the sides or forward.",
	}, true
}

func bagNotThere(f *Facts) (Finding, bool) {
	if len(f.Loose) == 0 {
		return Finding{}, false
	}
	names := make([]string, len(f.Loose))
	for i, l := range f.Loose {
		names[i] = l.Name
	}
	return Finding{
		State: verdict.Watch,
		What:  say("Packed into a bag that is not on the bike: %s.", listed(names)),
		Why:   "It is counted at the place that it had before.",
		Do:    "Put it into another bag on the packing page, or fit the one that is missing.",
	}, true
}

// racks are those that the plan puts on.
func racks(f *Facts) []*plan.Part {
	var list []*plan.Part
	for _, slot := range plan.RackSlots() {
		if p := f.Built.Part(slot); p != nil && p.Rack != nil {
			list = append(list, p)
		}
	}
	return list
}

func bagsByThePipe(f *Facts) (Finding, bool) {
	p := f.Built.Part(plan.SideBags)
	if p == nil || p.Bag == nil || p.Bag.Kind == plan.HardBag || f.Built.Provides("heat-shield") {
		return Finding{}, false
	}
	return Finding{
		State:    verdict.Watch,
		What:     say("%s hangs beside the silencer, without a shield.", p.Name),
		Why:      "Fabric melts at a hand's width from a hot pipe, and what is in it burns.",
		Do:       "A shield with air behind it, straps pulled tight again after the first hour, and a look at full compression.",
		Remedies: providing(f, plan.SideRack, "heat-shield", "%s"),
	}, true
}

func hardBoxesTrap(f *Facts) (Finding, bool) {
	p, mix := f.Built.Part(plan.SideBags), f.Plan.Brief.Mix()
	if p == nil || p.Bag == nil {
		return Finding{}, false
	}
	switch width := p.Bag.Width.In("mm"); {
	case p.Bag.Kind == plan.HardBag && 1-mix.Road() >= hardOnLoose:
		return Finding{
			State: verdict.Watch,
			What:  say("Hard boxes, and %.0f %% of the trip is off the road.", 100*(1-mix.Road())),
			Why:   "A foot that is put down slides back under a box that does not give; in a fall it traps the leg and bends its mounts.",
			Do:    "Soft bags there; or ride seated with the feet up, and empty them for the trail days.",
		}, true
	case mix[terrain.SingleTrack] >= narrowShare && width > narrowMostMM:
		return Finding{
			State: verdict.Watch,
			What:  say("{%.0f mm} over the bags, and %.0f %% of the trip is single track.", width, 100*mix[terrain.SingleTrack]),
			Why:   "What is wider than the bars catches where the bars went through.",
			Do:    "Narrow bags, or a loadout without them for those days.",
		}, true
	}
	return Finding{}, false
}

func rackKeepsTheSeat(f *Facts) (Finding, bool) {
	for _, p := range racks(f) {
		if p.Rack.SeatStays {
			return Finding{
				State: verdict.Watch,
				What:  say("%s wraps round the seat: it does not come off any more.", p.Name),
				Why:   "Battery, air filter and tools lie under it.",
				Do:    "A rack on the subframe alone leaves the seat free; else keep its keys and spanners outside.",
			}, true
		}
	}
	return Finding{}, false
}

func rackTakesThePegs(f *Facts) (Finding, bool) {
	loadout, err := f.Plan.Loadout(f.Loadout)
	if err != nil || !loadout.Pillion.Known() {
		return Finding{}, false
	}
	for _, p := range racks(f) {
		if p.Rack.NoPegs {
			return Finding{
				State: verdict.Over,
				What:  say("%s takes the place of the pillion's pegs, and there is a pillion.", p.Name),
				Why:   "Feet without pegs end at the chain or the pipe.",
				Do:    "Relocated pegs, with the boots clear of a hot pipe, or another rack.",
			}, true
		}
	}
	return Finding{}, false
}

func homeMadeCarrier(f *Facts) (Finding, bool) {
	for _, l := range f.Plan.Lines {
		if l.Source != plan.HomeMade || l.Part == nil || l.Standing() != plan.In || (l.Part.Bag == nil && l.Part.Rack == nil) {
			continue
		}
		return Finding{
			State: verdict.Watch,
			What:  say("%s is home-made.", l.Part.Name),
			Why:   "It cracks at the first sharp bend of a bracket, loses its fasteners, and nobody answers for it.",
			Do:    "Fix it to the frame, not to pipes or cases; round the corners, lock the threads, look at every weld after the first rough day.",
		}, true
	}
	return Finding{}, false
}

func tailLampHidden(f *Facts) (Finding, bool) {
	var names []string
	for _, slot := range []plan.Slot{plan.TailBag, plan.TopBox} {
		if p := f.Built.Part(slot); p != nil && f.Built.Chosen(slot) {
			names = append(names, p.Name)
		}
	}
	if len(names) == 0 {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("Behind the lamp and the plate: %s.", listed(names)),
		Why:   "What hangs down or hides lamp, plate or indicators is not seen, and not legal.",
		Do:    "Walk round it at dusk with the lights on, packed as on the day.",
	}, true
}

func loadTakes(f *Facts) (Finding, bool) {
	kerb := f.Built.Bike.KerbMass.In("kg")
	if !(f.CarriedKg > takesShare*kerb) || math.IsNaN(f.LoadedKg) {
		return Finding{}, false
	}
	more := f.LoadedKg / (f.LoadedKg - f.CarriedKg)
	return Finding{
		State: verdict.Watch,
		What:  say("{%.0f kg} carried: %.0f %% more to stop, and as much more on the brakes.", f.CarriedKg, 100*(more-1)),
		Why:   "Rear preload, tyre pressure and lamp aim are set for a rider alone; hot brakes fade, and each climb takes a tooth more.",
		Do:    "Preload to the same sag, pressure by the card, the lamp down again. Then ride it loaded where nothing comes, and brake.",
	}, true
}

func tooHeavyToShip(f *Facts) (Finding, bool) {
	most := f.Plan.Brief.ShipMost.In("kg")
	if !(f.ShipKg > most) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Over,
		What:  say("Shipped it weighs {%.0f kg}; {%.0f kg} are allowed.", f.ShipKg, most),
		Why:   "A trailer's plate and a carrier's tariff are kept at the gate.",
		Do:    "Ship what comes off apart: racks, boxes, the second set of wheels. Less fuel, if the carrier wants it so.",
	}, true
}

func shipsTooLate(f *Facts) (Finding, bool) {
	b := &f.Plan.Brief
	if b.Ships == "" || b.Start == "" || b.Ships <= b.Start {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Over,
		What:  say("It ships on %s, after the start on %s.", b.Ships, b.Start),
		Why:   "Everything counts back from the day it leaves the garage.",
		Do:    "Correct one of the two dates in the brief.",
	}, true
}

func nowhereToTie(f *Facts) (Finding, bool) {
	b := &f.Plan.Brief
	if b.Ships == "" || b.TieDown != "" {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("It ships on %s, and nobody has said where its straps go.", b.Ships),
		Why:   "Straps over bars, hoses and plastic break them; a fork pressed down for days weeps.",
		Do:    "Find four points on frame and yokes, try them with the bags off, and note them in the brief.",
	}, true
}
