package eval

import (
	"math"

	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/verdict"
)

// What is in which bag, and how it sits on the bike.

const (
	shippedFuel  = 0.25 // of the tank: carriers want it low [practice]
	standForward = 0.05 // of the wheelbase, that standing moves the rider forward [memory]
)

// bags sums what is in each bag, hangs on each side, and stands on the rear rack.
func (r *run) bags() {
	f := r.facts
	f.Sides, f.RackKg = knock.Sides{}, 0
	for _, slot := range plan.BagSlots() {
		if p := r.built.Part(slot); p != nil && p.Bag != nil {
			f.Bags = append(f.Bags, knock.BagLoad{Slot: slot, Part: p, LimitKg: p.Bag.Carries.In("kg"), LimitL: p.Bag.Litres.In("L")})
			if !p.Bag.Pair {
				r.onRack(p.Sits(), p.Mass.In("kg"))
			}
		}
	}
	for _, l := range r.loadout.Loads {
		kg := l.Mass.In("kg")
		if l.Bag != "" && l.InBag(r.built) == nil {
			f.Loose = append(f.Loose, l)
		}
		for i := range f.Bags {
			if f.Bags[i].Slot == l.Bag {
				f.Bags[i].Kg += kg
				if l.Volume.Known() {
					f.Bags[i].Litres += l.Volume.In("L")
				}
			}
		}
		switch l.Side {
		case plan.Left:
			f.Sides.LeftKg += kg
		case plan.Right:
			f.Sides.RightKg += kg
		}
		r.onRack(l.Sits(r.built), kg)
	}
	f.RackLimitKg = r.built.Bike.RackLimit.In("kg")
	if p := r.built.Part(plan.RearRack); p != nil && p.Rack != nil && p.Rack.Carries.Known() {
		f.RackLimitKg = p.Rack.Carries.In("kg")
	}
}

// onRack counts what stands behind the seat.
func (r *run) onRack(at load.Place, kg float64) {
	if at == load.Tail || at == load.TopBox {
		r.facts.RackKg += kg
	}
}

var (
	unevenFormula  = sheet.Formula{Text: "uneven = |Σ left − Σ right| of what hangs on a side", Origin: sheet.Computed}
	rackFormula    = sheet.Formula{Text: "on the rack = Σ of what sits behind the seat, bags too", Origin: sheet.Computed}
	shareFormula   = sheet.Formula{Text: "front = front axle / loaded mass, tank full", Origin: sheet.Computed}
	shiftFormula   = sheet.Formula{Text: "centre ahead of the rear axle = wheelbase × front share, against the bike alone", Origin: sheet.Computed}
	shipFormula    = sheet.Formula{Text: "when shipped = kerb + Σ parts + fuel of a quarter tank", Origin: sheet.Computed}
	upFormula      = sheet.Formula{Text: "front, standing = (front axle + rider × 0.05) / loaded mass", Origin: sheet.Memory}
	fullestFormula = sheet.Formula{Text: "fullest = the greatest of load over limit, in kg or in litres", Origin: sheet.Computed}
)

// carrying is the figures of how the load sits.
func (r *run) carrying() []Figure {
	f := r.facts
	uneven := r.figure("left-right", "Between the sides", "kg")
	for _, l := range r.loadout.Loads {
		if l.Side != plan.Middle && !l.Mass.Known() {
			uneven.lacks("mass of " + l.Name)
		}
	}
	apart := math.Abs(f.Sides.LeftKg - f.Sides.RightKg)
	uneven.is(apart)
	if uneven.working != nil {
		uneven.working.Step(unevenFormula, computed("uneven", apart, "kg"), computed("left", f.Sides.LeftKg, "kg"), computed("right", f.Sides.RightKg, "kg"))
	}
	rack := r.figure("rack-load", "Behind the seat", "kg")
	rack.is(f.RackKg)
	if rack.working != nil {
		rack.working.Step(rackFormula, computed("on the rack", f.RackKg, "kg"), computed("its limit", f.RackLimitKg, "kg"))
	}
	full, _ := rack.axles()
	share := r.figure("front-share", "On the front wheel", "%")
	share.axles()
	f.FrontShare = full.FrontKg / full.TotalKg()
	share.is(100 * f.FrontShare)
	if share.working != nil {
		share.working.Step(shareFormula, computed("front", 100*f.FrontShare, "%"), computed("front axle", full.FrontKg, "kg"), computed("loaded mass", full.TotalKg(), "kg"))
	}
	b := r.built.Bike
	shift := r.figure("centre-shift", "Centre moves back by", "mm")
	shift.axles()
	base := b.Wheelbase.In("mm")
	bare := base * b.KerbFront.In("kg") / b.KerbMass.In("kg")
	moved := bare - load.CentreXMM(full, base)
	shift.is(moved)
	if shift.working != nil {
		shift.working.Step(shiftFormula, computed("moves back by", moved, "mm"), computed("bike alone", bare, "mm"), computed("as loaded", load.CentreXMM(full, base), "mm"))
	}
	fullest := r.figure("bag-fullest", "Fullest bag", "%")
	most, in := 0.0, []sheet.Value(nil)
	for _, bag := range f.Bags {
		most = max(most, bag.Share())
		if fullest.working != nil {
			in = append(in, computed(bag.Part.Name, 100*bag.Share(), "%"))
		}
	}
	if len(f.Bags) == 0 {
		fullest.lacks("bags (Load)")
	}
	fullest.is(100 * most)
	if fullest.working != nil {
		fullest.working.Step(fullestFormula, computed("fullest", 100*most, "%"), in...)
	}
	ships := r.figure("shipping-mass", "When shipped", "kg")
	kerb := ships.kerbMass()
	ships.onBoard()
	weighs := kerb.Number + r.fuel.topUp.Number - (1-shippedFuel)*r.fuel.full.Number
	for i, it := range r.items[:f.Parts] {
		weighs += it.mass.Number
		if ships.working != nil && i == 0 {
			ships.working.Note("Without rider, passenger and bags' contents; cans and bladders empty, a quarter in the tank.")
		}
	}
	f.ShipKg = weighs
	ships.is(weighs)
	if ships.working != nil {
		ships.working.Step(shipFormula, computed("when shipped", weighs, "kg"), append([]sheet.Value{kerb}, valuesOf(r.items[:f.Parts])...)...)
	}
	standing := r.figure("standing-share", "On the front, standing", "%")
	standing.axles()
	rider := r.plan.Brief.Rider.In("kg")
	up := 100 * (full.FrontKg + rider*standForward) / full.TotalKg()
	standing.is(up)
	if standing.working != nil {
		standing.working.Step(upFormula, computed("front, standing", up, "%"), computed("front axle, seated", full.FrontKg, "kg"), sheet.Value{Name: "rider", Number: rider, Unit: "kg", Origin: sheet.Rider},
			sheet.Value{Name: "moves forward by", Number: 100 * standForward, Unit: "% of the wheelbase", Origin: sheet.Memory})
	}
	return []Figure{
		ships.plain(), standing.plain(), judged(uneven.plain(), false, apart > knock.UnevenKg), judgedRack(rack.plain(), f), judged(share.plain(), false, f.FrontShare < knock.FrontLeast), shift.plain(),
		judged(fullest.plain(), most > 1, most > 0.95),
	}
}

// judgedRack is a stop over what the rack carries.
func judgedRack(fig Figure, f *knock.Facts) Figure {
	if !math.IsNaN(f.RackLimitKg) {
		fig.Limited, fig.Limit = true, f.RackLimitKg
		if f.RackKg > f.RackLimitKg {
			fig.State = verdict.Stop
		}
	}
	return fig
}

// ExpectedWheels are what scales under the wheels should read, kg, with a full tank,
// and on each side with the bike across; before any correction by weighings. They
// are not known where an axle load is not.
func ExpectedWheels(p *plan.Plan, now *LoadoutReport) (w load.Wheels, known bool) {
	if now.Facts == nil {
		return w, false
	}
	front, _ := now.Figure("front-load")
	rear, _ := now.Figure("rear-load")
	by := p.Correction()
	w = load.Wheels{FrontKg: front.Value - by.FrontKg, RearKg: rear.Value - by.RearKg}
	half, apart := (w.FrontKg+w.RearKg)/2, (now.Facts.Sides.LeftKg-now.Facts.Sides.RightKg)/2
	w.LeftKg, w.RightKg = half+apart, half-apart
	return w, front.Known && rear.Known
}
