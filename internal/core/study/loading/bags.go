package loading

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// What is in which bag, and how it sits on the bike.

const (
	shippedFuel = 0.25 // of the tank: carriers want it low [practice]
)

// bags sums what is in each bag, hangs on each side, and stands on the rear rack.
func bags(r *study.Run) {
	b := facts.Bags{RackLimitKg: r.Built.Bike.RackLimit.In("kg")}
	// A pillion sits where a bag would lie across the seat.
	onSeat := func(p *parts.Part) bool { return p != nil && parts.OnSeat.Yes(p) && !(r.Loadout.Pillion.Base() > 0) }
	onRack := func(at load.Place, in *parts.Part, kg float64) {
		if (at == load.Tail || at == load.TopBox) && !onSeat(in) {
			b.RackKg += kg
		}
	}
	for _, slot := range parts.BagSlots() {
		if bag := r.Built.Bag(slot); bag != nil {
			p := r.Built.Part(slot)
			b.On = append(b.On, facts.Bag{Slot: slot, Part: p, LimitKg: bag.Carries.In("kg"), LimitL: bag.Litres.In("L")})
			if !bag.Pair {
				onRack(p.Sits(), p, p.Mass.In("kg"))
			}
		}
	}
	for i := range r.Loadout.Loads {
		l := &r.Loadout.Loads[i]
		kg := l.Mass.In("kg")
		if l.Bag != "" && l.InBag(r.Built) == nil {
			b.Loose = append(b.Loose, *l)
		}
		for i := range b.On {
			if b.On[i].Slot == l.Bag {
				b.On[i].Kg += kg
				if l.Volume.Known() {
					b.On[i].Litres += l.Volume.In("L")
				}
			}
		}
		switch l.Side {
		case plan.Left:
			b.Sides.LeftKg += kg
		case plan.Right:
			b.Sides.RightKg += kg
		}
		onRack(l.Sits(r.Built), l.InBag(r.Built), kg)
	}
	if p := r.Built.Part(parts.RearRack); p != nil {
		if carries := parts.Carries.In(p); carries.Known() {
			b.RackLimitKg = carries.In("kg")
		}
	}
	r.Bags = b
	leftRight(r)
	rackLoad(r)
	fullest(r)
}

var (
	unevenFormula  = sheet.Formula{Text: "uneven = |Σ left − Σ right| of what hangs on a side", Origin: sheet.Computed}
	rackFormula    = sheet.Formula{Text: "on the rack = Σ of what sits behind the seat, bags too, but for one that lies across the free seat", Origin: sheet.Computed}
	shareFormula   = sheet.Formula{Text: "front = front axle / loaded mass, tank full", Origin: sheet.Computed}
	shiftFormula   = sheet.Formula{Text: "centre ahead of the rear axle = wheelbase × front share, against the bike alone", Origin: sheet.Computed}
	shipFormula    = sheet.Formula{Text: "when shipped = kerb + Σ parts + fuel of a quarter tank", Origin: sheet.Computed}
	upFormula      = sheet.Formula{Text: "front, standing = (front axle + rider × forward) / loaded mass", Origin: sheet.Memory}
	fullestFormula = sheet.Formula{Text: "fullest = the greatest of load over limit, in kg or in litres", Origin: sheet.Computed}
)

// leftRight is how much more hangs on one side.
func leftRight(r *study.Run) {
	c := r.Figure(figure.LeftRight)
	for i := range r.Loadout.Loads {
		if l := &r.Loadout.Loads[i]; l.Side != plan.Middle && !l.Mass.Known() {
			c.Lacks("mass of " + l.Name)
		}
	}
	sides := r.Bags.Sides
	apart := math.Abs(sides.LeftKg - sides.RightKg)
	c.Is(apart)
	if c.Sheet != nil {
		c.Sheet.Step(unevenFormula, study.Computed("uneven", apart, "kg"), study.Computed("left", sides.LeftKg, "kg"), study.Computed("right", sides.RightKg, "kg"))
	}
	c.Judged(false, apart > unevenKg)
}

// rackLoad is what stands behind the seat, against what the rack carries.
func rackLoad(r *study.Run) {
	c := r.Figure(figure.RackLoad)
	on, limit := r.Bags.RackKg, r.Bags.RackLimitKg
	c.Is(on)
	if c.Sheet != nil {
		c.Sheet.Step(rackFormula, study.Computed("on the rack", on, "kg"), study.Computed("its limit", limit, "kg"))
	}
	if math.IsNaN(limit) {
		c.Plain()
		return
	}
	c.AtMost(study.Computed("its limit", limit, "kg"), 1, verdict.Stop)
}

// fullest is how much of its limits the fullest bag uses.
func fullest(r *study.Run) {
	c := r.Figure(figure.BagFullest)
	most, in := 0.0, []sheet.Value(nil)
	for i := range r.Bags.On {
		bag := &r.Bags.On[i]
		most = max(most, bag.Share())
		if c.Sheet != nil {
			in = append(in, study.Computed(bag.Part.Name, 100*bag.Share(), "%"))
		}
	}
	if len(r.Bags.On) == 0 {
		c.Lacks("bags (Load)")
	}
	c.Is(100 * most)
	if c.Sheet != nil {
		c.Sheet.Step(fullestFormula, study.Computed("fullest", 100*most, "%"), in...)
	}
	c.Judged(most > 1, most > 0.95)
}

// carrying is how the load sits, and what is shipped.
func carrying(r *study.Run) {
	shippingMass(r)
	standingShare(r)
	frontShare(r)
	centreShift(r)
}

func shippingMass(r *study.Run) {
	c := r.Figure(figure.ShippingMass)
	kerb := kerbMass(c)
	onBoard(c)
	parts, tank := r.Masses.Items[:r.Masses.Parts], &r.Masses.Fuel
	weighs := kerb.Number + tank.TopUp.Number - (1-shippedFuel)*tank.Full.Number
	for i := range parts {
		weighs += parts[i].Mass.Number
	}
	r.Carrying.ShipKg = weighs
	c.Is(weighs)
	if c.Sheet != nil {
		if len(parts) > 0 {
			c.Sheet.Note("Without rider, passenger and bags' contents; cans and bladders empty, a quarter in the tank.")
		}
		c.Sheet.Step(shipFormula, study.Computed("when shipped", weighs, "kg"), append([]sheet.Value{kerb}, valuesOf(parts)...)...)
	}
	c.Plain()
}

func standingShare(r *study.Run) {
	c := r.Figure(figure.StandingShare)
	front := c.On(figure.FrontLoad, "front axle, seated")
	rider := r.Plan.Brief.Rider.In("kg")
	sits, _ := load.SpotOf(r.Loadout.Sits.Place())
	stands, _ := load.SpotOf(load.RiderStanding)
	forward := stands.Share - sits.Share
	up := 100 * (r.Axles.Full.FrontKg + rider*forward) / r.Axles.Full.TotalKg()
	c.Is(up)
	if c.Sheet != nil {
		c.Sheet.Step(upFormula, study.Computed("front, standing", up, "%"), front, sheet.Value{Name: "rider", Number: rider, Unit: "kg", Origin: sheet.Rider},
			sheet.Value{Name: "moves forward by", Number: 100 * forward, Unit: "% of the wheelbase", Origin: sheet.Memory})
	}
	c.Plain()
}

func frontShare(r *study.Run) {
	c := r.Figure(figure.FrontShare)
	front := c.On(figure.FrontLoad, "front axle")
	share := r.Axles.Full.FrontKg / r.Axles.Full.TotalKg()
	r.Carrying.FrontShare = share
	c.Is(100 * share)
	if c.Sheet != nil {
		c.Sheet.Step(shareFormula, study.Computed("front", 100*share, "%"), front, study.Computed("loaded mass", r.Axles.Full.TotalKg(), "kg"))
	}
	c.Judged(false, share < frontLeastOf(r.Loadout))
}

func centreShift(r *study.Run) {
	c := r.Figure(figure.CentreShift)
	c.On(figure.FrontLoad, "")
	b := r.Built.Bike
	base := b.Wheelbase.In("mm")
	bare, now := base*b.KerbFront.In("kg")/b.KerbMass.In("kg"), load.CentreXMM(r.Axles.Full, base)
	c.Is(bare - now)
	if c.Sheet != nil {
		c.Sheet.Step(shiftFormula, study.Computed("moves back by", bare-now, "mm"), study.Computed("bike alone", bare, "mm"), study.Computed("as loaded", now, "mm"))
	}
	c.Plain()
}
