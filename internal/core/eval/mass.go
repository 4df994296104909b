package eval

import (
	"fmt"
	"math"

	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// item is a mass on the bike beyond its kerb mass, at a place's default spot.
type item struct {
	mass  sheet.Value // NaN when unknown
	place load.Place
}

// masses lists what stands on the kerb mass, but for the fuel: parts against the
// ones they replace, rider, pillion, loads.
func (r *run) masses() []item {
	items := make([]item, 0, 4+len(r.built.Fitted)+len(r.loadout.Loads))
	r.facts.UnsprungKg = knock.Ends{}
	for _, f := range r.built.Fitted {
		if !f.Chosen {
			continue
		}
		info, _ := plan.InfoOf(f.Slot)
		place := f.Part.Sits()
		mass := sheet.Value{Name: f.Part.Name, Number: f.Part.Mass.In("kg"), Unit: "kg", Origin: f.Part.Origin}
		switch standard := r.std.Part(f.Slot); {
		case standard != nil:
			mass.Name += " less the standard one"
			mass.Number -= standard.Mass.In("kg")
		case info.Standing: // the standard one weighs something, and nobody knows what
			mass.Name += " less the standard one"
			mass.Number = math.NaN()
		}
		switch place {
		case load.FrontWheel:
			r.facts.UnsprungKg.Front += mass.Number
		case load.RearWheel:
			r.facts.UnsprungKg.Rear += mass.Number
		}
		items = append(items, item{mass, place})
	}
	r.facts.Parts = len(items)
	items = append(items, item{sheet.Value{Name: "Rider, dressed", Number: r.plan.Brief.Rider.In("kg"), Unit: "kg", Origin: sheet.Rider}, load.Rider})
	carried := len(items)
	if r.loadout.Pillion.Known() {
		items = append(items, item{sheet.Value{Name: "Pillion", Number: r.loadout.Pillion.In("kg"), Unit: "kg", Origin: sheet.Rider}, load.Pillion})
	}
	for _, l := range r.loadout.Loads {
		items = append(items, item{sheet.Value{Name: l.Name, Number: l.Mass.In("kg"), Unit: "kg", Origin: sheet.Rider}, l.Sits(r.built)})
	}
	for _, it := range items[carried:] {
		r.facts.CarriedKg += it.mass.Number
	}
	return items
}

// fuelMass is the mass from the kerb state to full, and of all the fuel there is room
// for: of the tank that feeds the engine, and of what is carried beside it.
type fuelMass struct {
	topUp, full sheet.Value
	beside      []item
}

// fuelOf is the fuel of the bike as built, everything filled.
func (r *run) fuelOf() fuelMass {
	var f fuelMass
	for i, holds := range r.built.Fuels {
		v := sheet.Value{Name: "fuel, full tank", Number: holds.HoldsL * fuel.Density, Unit: "kg", Origin: sheet.Computed}
		if i == 0 {
			f.full = v
			continue
		}
		v.Name = "fuel in " + holds.Part.Name
		f.beside = append(f.beside, item{v, holds.Part.Sits()})
	}
	b := r.built.Bike
	f.topUp = computed("fuel to the brim", f.full.Number-b.Tank.In("L")*fuel.Density*b.KerbFuel.In(""), "kg")
	return f
}

var weighedFormula = sheet.Formula{Text: "kerb mass + mean of (read − expected) of the weighings that stand", Origin: sheet.Measured}

// kerbMass is the bike's kerb mass, corrected by weighings.
func (c *calc) kerbMass() sheet.Value {
	b, by := c.run.built.Bike, c.run.all.weighed
	mass := c.bike("kerb_mass", "kerb mass", "kg", b.KerbMass)
	if by.Weighings == 0 {
		return mass
	}
	mass.Number += by.FrontKg + by.RearKg
	mass.Origin = sheet.Measured
	if c.working != nil {
		c.working.Step(weighedFormula, mass, computed("front wheel, read less expected", by.FrontKg, "kg"), computed("rear wheel", by.RearKg, "kg"), computed("weighings", float64(by.Weighings), ""))
	}
	return mass
}

// kerb is the kerb mass with what of it is under the front wheel.
func (c *calc) kerb() (mass, front sheet.Value) {
	b, by := c.run.built.Bike, c.run.all.weighed
	mass, front = c.kerbMass(), c.bike("kerb_front", "kerb mass under the front wheel", "kg", b.KerbFront)
	if by.Weighings > 0 {
		front.Number += by.FrontKg
		front.Origin = sheet.Measured
	}
	return mass, front
}

// onBoard notes what the masses on board lack, and how the fuel's come about.
func (c *calc) onBoard() {
	r, b := c.run, c.run.built.Bike
	share := c.bike("kerb_fuel", "fuel in the kerb mass", "%", b.KerbFuel)
	own := c.bike("tank", "tank", "L", b.Tank)
	for _, it := range r.items {
		if math.IsNaN(it.mass.Number) {
			c.lacks("mass of " + it.mass.Name)
		}
	}
	if c.working == nil {
		return
	}
	density := sheet.Value{Name: "density", Number: fuel.Density, Unit: "kg/L", Origin: sheet.Published, Note: "EN 228: 0.720–0.775"}
	tank := sheet.Value{Name: "tank as built", Number: r.fuel.full.Number / fuel.Density, Unit: "L", Origin: own.Origin}
	c.working.Step(fuelFormula, r.fuel.topUp, tank, own, share, density)
	for _, it := range r.fuel.beside {
		c.working.Step(carrierFormula, it.mass, density)
	}
}

var (
	fuelFormula    = sheet.Formula{Text: "to the brim = (tank as built − the bike's own × share) × density", Origin: sheet.Computed}
	carrierFormula = sheet.Formula{Text: "fuel = what it holds × density", Origin: sheet.Computed}
	massFormula    = sheet.Formula{Text: "loaded = kerb + fuel to the brim + Σ (new − removed) + rider + pillion + loads", Origin: sheet.Computed}
)

// loadedMass is everything, with a full tank, against the plate.
func (r *run) loadedMass() Figure {
	c := r.gauge("loaded-mass")
	b := r.built.Bike
	kerb := c.kerbMass()
	c.onBoard()
	total := kerb.Number
	for _, it := range r.laden {
		total += it.mass.Number
	}
	c.is(total)
	r.facts.LoadedKg = total
	r.facts.PermittedKg = b.Permitted.In("kg")
	if c.working != nil {
		c.working.Step(massFormula, computed("loaded mass", total, "kg"), append([]sheet.Value{kerb}, valuesOf(r.laden)...)...)
	}
	return c.atMost(c.bike("permitted_mass", "permitted mass", "kg", b.Permitted), 0.95, verdict.Stop)
}

func valuesOf(items []item) []sheet.Value {
	values := make([]sheet.Value, len(items))
	for i, it := range items {
		values[i] = it.mass
	}
	return values
}

// axles are the loads under the wheels with a full and with an empty tank. They
// are worked out once, unless somebody looks at a figure that rests on them.
func (c *calc) axles() (full, empty load.Axles) {
	r, b := c.run, c.run.built.Bike
	kerb, front := c.kerb()
	base := c.bike("wheelbase", "wheelbase", "mm", b.Wheelbase)
	c.onBoard()
	if r.axlesDone && c.working == nil {
		return r.full, r.empty
	}
	items := make([]load.Item, 0, len(r.laden))
	values := []sheet.Value(nil)
	for _, it := range r.laden {
		at := load.Item{MassKg: it.mass.Number, XMM: it.place.XMM(base.Number)}
		items = append(items, at)
		if c.working != nil {
			v := it.mass
			v.Name = fmt.Sprintf("%s, at %+.0f mm", v.Name, at.XMM)
			values = append(values, v)
		}
	}
	stand := load.Axles{FrontKg: front.Number, RearKg: kerb.Number - front.Number}
	full = load.Add(stand, base.Number, items)
	burnt := []load.Item{{MassKg: -r.fuel.full.Number, XMM: load.Tank.XMM(base.Number)}}
	for _, it := range r.fuel.beside {
		burnt = append(burnt, load.Item{MassKg: -it.mass.Number, XMM: it.place.XMM(base.Number)})
	}
	empty = load.Add(full, base.Number, burnt)
	r.full, r.empty, r.axlesDone = full, empty, true
	r.facts.AxleKg = knock.Ends{Front: max(full.FrontKg, empty.FrontKg), Rear: max(full.RearKg, empty.RearKg)}
	if c.working != nil {
		in := append([]sheet.Value{kerb, front, base}, values...)
		c.working.Step(load.AxleFormula, computed("front, full tank", full.FrontKg, "kg"), in...)
		c.working.Step(load.AxleFormula, computed("rear, full tank", full.RearKg, "kg"))
		c.working.Step(load.AxleFormula, computed("front, empty tank", empty.FrontKg, "kg"))
		c.working.Step(load.AxleFormula, computed("rear, empty tank", empty.RearKg, "kg"))
		c.working.Note("Each load sits at the default spot of its place: good to about a tenth of the wheelbase. Scales under both wheels settle it.")
	}
	return full, empty
}

// axle is the load under one wheel with a full tank.
func (r *run) axle(id string) Figure {
	name := map[string]string{"front-load": "Front wheel carries", "rear-load": "Rear wheel carries"}[id]
	c := r.figure(id, name, "kg")
	full, _ := c.axles()
	if id == "front-load" {
		c.is(full.FrontKg)
	} else {
		c.is(full.RearKg)
	}
	return c.plain()
}

// axleGauge is the worse of full and empty tank under one wheel, against the
// plate.
func (r *run) axleGauge(id string) Figure {
	c := r.gauge(id)
	b := r.built.Bike
	full, empty := c.axles()
	if id == "axle-front" {
		c.is(max(full.FrontKg, empty.FrontKg))
		r.facts.AxleLimitKg.Front = b.FrontLimit.In("kg")
		return c.atMost(c.bike("front_axle_limit", "front axle limit", "kg", b.FrontLimit), 0.95, verdict.Stop)
	}
	c.is(max(full.RearKg, empty.RearKg))
	r.facts.AxleLimitKg.Rear = b.RearLimit.In("kg")
	return c.atMost(c.bike("rear_axle_limit", "rear axle limit", "kg", b.RearLimit), 0.95, verdict.Stop)
}

var payloadFormula = sheet.Formula{Text: "left = permitted − loaded", Origin: sheet.Computed}

// payloadLeft is what could still be put on.
func (r *run) payloadLeft() Figure {
	c := r.figure("payload-left", "May still be put on", "kg")
	permitted := c.bike("permitted_mass", "permitted mass", "kg", r.built.Bike.Permitted)
	if math.IsNaN(r.facts.LoadedKg) {
		c.lacks("loaded mass")
	}
	left := permitted.Number - r.facts.LoadedKg
	c.is(left)
	if c.working != nil {
		c.working.Step(payloadFormula, computed("left", left, "kg"), permitted, computed("loaded mass", r.facts.LoadedKg, "kg"))
	}
	return c.plain()
}

// centreHeight is how high the loaded bike's centre sits, tank full.
func (r *run) centreHeight() Figure {
	c := r.figure("centre-height", "Centre of mass above ground", "mm")
	b := r.built.Bike
	kerb := c.kerbMass()
	own := c.bike("centre_height", "centre of the bike above ground", "mm", b.CentreHeight)
	seat := c.bike("seat_height", "seat height", "mm", b.SeatHeight)
	c.onBoard()
	items := make([]load.Item, 0, len(r.laden))
	var values []sheet.Value
	for _, it := range r.laden {
		at := load.Item{MassKg: it.mass.Number, ZMM: it.place.ZMM(seat.Number)}
		items = append(items, at)
		if c.working != nil {
			v := it.mass
			v.Name = fmt.Sprintf("%s, at %.0f mm", v.Name, at.ZMM)
			values = append(values, v)
		}
	}
	height := load.Height(kerb.Number, own.Number, items)
	r.centre = height
	c.is(height)
	if c.working != nil {
		c.working.Step(load.HeightFormula, computed("centre", height, "mm"), append([]sheet.Value{kerb, own, seat}, values...)...)
		c.working.Note("Each load sits at the default height of its place, a share of the seat height: good to about a tenth.")
	}
	return c.plain()
}

var unsprungFormula = sheet.Formula{Text: "Σ (new − standard) of what turns or hangs at the wheel", Origin: sheet.Computed}

// unsprung is what the plan adds to one wheel.
func (r *run) unsprung(id string, slot plan.Slot) Figure {
	name, added, place := "Front wheel gains", r.facts.UnsprungKg.Front, load.FrontWheel
	if slot == plan.RearTyre {
		name, added, place = "Rear wheel gains", r.facts.UnsprungKg.Rear, load.RearWheel
	}
	c := r.figure(id, name, "kg")
	var values []sheet.Value
	for _, it := range r.items {
		if it.place == place {
			if math.IsNaN(it.mass.Number) {
				c.lacks("mass of " + it.mass.Name)
			}
			values = append(values, it.mass)
		}
	}
	c.is(added)
	if c.working != nil {
		c.working.Step(unsprungFormula, computed("gains", added, "kg"), values...)
	}
	return c.plain()
}

var tyreLoadFormula = sheet.Formula{
	Text: "tyre load = axle load / rated load × 100", Origin: sheet.Published, Source: tyre.RatingSource,
}

// tyreLoad is the worse of both tyres, over full and empty tank.
func (r *run) tyreLoad() Figure {
	c := r.gauge("tyre-load")
	full, empty := c.axles()
	r.facts.TyreLoad.Front = c.share(plan.FrontTyre, "front", max(full.FrontKg, empty.FrontKg))
	r.facts.TyreLoad.Rear = c.share(plan.RearTyre, "rear", max(full.RearKg, empty.RearKg))
	c.is(100 * max(r.facts.TyreLoad.Front, r.facts.TyreLoad.Rear))
	if c.working != nil {
		c.working.Note("Rated load holds at the pressure on the sidewall or the bike's placard; a softer tyre carries less.")
	}
	limit := sheet.Value{Name: "rated load", Number: 100, Unit: "%", Origin: sheet.Published, Note: tyre.RatingSource}
	return c.atMost(limit, 0.9, verdict.Stop)
}

func (c *calc) share(slot plan.Slot, end string, axleKg float64) float64 {
	t := c.run.built.Tyre(slot)
	if t == nil {
		c.lacks(end + " tyre (Tyres)")
		return math.NaN()
	}
	rated, ok := tyre.MaxLoadKg(t.Size.LoadIndex)
	if !ok {
		c.lacks("load index of the " + end + " tyre")
		return math.NaN()
	}
	if c.working != nil {
		c.working.Step(tyreLoadFormula, computed(end+" tyre", 100*axleKg/rated, "%"),
			computed(end+" axle, worse of full and empty tank", axleKg, "kg"),
			sheet.Value{Name: fmt.Sprintf("rated load, index %d", t.Size.LoadIndex), Number: rated, Unit: "kg", Origin: sheet.Published, Note: tyre.RatingSource})
	}
	return axleKg / rated
}
