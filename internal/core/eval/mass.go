package eval

import (
	"fmt"
	"math"

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
	for _, f := range r.built.Fitted {
		if !f.Chosen {
			continue
		}
		info, _ := plan.InfoOf(f.Slot)
		place := info.Place
		if f.Part.Place != "" {
			place = f.Part.Place
		}
		mass := sheet.Value{Name: f.Part.Name, Number: f.Part.Mass.In("kg"), Unit: "kg", Origin: f.Part.Origin}
		if standard := r.std.Part(f.Slot); standard != nil {
			mass.Name += " less the standard one"
			mass.Number -= standard.Mass.In("kg")
		}
		items = append(items, item{mass, place})
	}
	items = append(items, item{sheet.Value{Name: "Rider, dressed", Number: r.plan.Brief.Rider.In("kg"), Unit: "kg", Origin: sheet.Rider}, load.Rider})
	if r.loadout.Pillion.Known() {
		items = append(items, item{sheet.Value{Name: "Pillion", Number: r.loadout.Pillion.In("kg"), Unit: "kg", Origin: sheet.Rider}, load.Pillion})
	}
	for _, l := range r.loadout.Loads {
		items = append(items, item{sheet.Value{Name: l.Name, Number: l.Mass.In("kg"), Unit: "kg", Origin: sheet.Rider}, l.Place})
	}
	return items
}

// fuel is the mass from the kerb state to a full tank, and of a full tank.
func (c *calc) fuel() (topUp, full sheet.Value) {
	b := c.run.built.Bike
	share := c.bike("kerb_fuel", "fuel in the kerb mass", "%", b.KerbFuel)
	tank := c.bike("tank", "tank", "L", b.Tank)
	full = computed("fuel, full tank", tank.Number*load.FuelDensity, "kg")
	topUp = computed("fuel to the brim", full.Number*(1-share.Number/100), "kg")
	if c.working != nil {
		density := sheet.Value{Name: "density", Number: load.FuelDensity, Unit: "kg/L", Origin: sheet.Published, Note: "EN 228: 0.720–0.775"}
		c.working.Step(fuelFormula, topUp, tank, share, density)
	}
	return topUp, full
}

var (
	fuelFormula = sheet.Formula{Text: "to the brim = tank × density × (1 − share)", Origin: sheet.Computed}
	massFormula = sheet.Formula{Text: "loaded = kerb + fuel to the brim + Σ (new − removed) + rider + pillion + loads", Origin: sheet.Computed}
)

// loadedMass is everything, with a full tank, against the plate.
func (r *run) loadedMass() Figure {
	c := r.gauge("loaded-mass")
	b := r.built.Bike
	kerb := c.bike("kerb_mass", "kerb mass", "kg", b.KerbMass)
	topUp, _ := c.fuel()
	total := kerb.Number + topUp.Number
	for _, it := range r.items {
		c.lacksMass(it)
		total += it.mass.Number
	}
	c.is(total)
	r.facts.LoadedKg = total
	r.facts.PermittedKg = b.Permitted.In("kg")
	if c.working != nil {
		c.working.Step(massFormula, computed("loaded mass", total, "kg"), append([]sheet.Value{kerb, topUp}, r.itemValues()...)...)
	}
	return c.atMost(c.bike("permitted_mass", "permitted mass", "kg", b.Permitted), 0.95, verdict.Stop)
}

func (c *calc) lacksMass(it item) {
	if math.IsNaN(it.mass.Number) {
		c.lacks("mass of " + it.mass.Name)
	}
}

func (r *run) itemValues() []sheet.Value {
	values := make([]sheet.Value, len(r.items))
	for i, it := range r.items {
		values[i] = it.mass
	}
	return values
}

// axles are the loads under the wheels with a full and with an empty tank.
func (c *calc) axles() (full, empty load.Axles) {
	r, b := c.run, c.run.built.Bike
	kerb := c.bike("kerb_mass", "kerb mass", "kg", b.KerbMass)
	front := c.bike("kerb_front", "kerb mass under the front wheel", "kg", b.KerbFront)
	base := c.bike("wheelbase", "wheelbase", "mm", b.Wheelbase)
	topUp, fullTank := c.fuel()
	items := make([]load.Item, 0, len(r.items)+1)
	values := []sheet.Value(nil)
	for _, it := range r.items {
		c.lacksMass(it)
		at := load.Item{MassKg: it.mass.Number, XMM: it.place.XMM(base.Number)}
		items = append(items, at)
		if c.working != nil {
			v := it.mass
			v.Name = fmt.Sprintf("%s, at %+.0f mm", v.Name, at.XMM)
			values = append(values, v)
		}
	}
	stand := load.Axles{FrontKg: front.Number, RearKg: kerb.Number - front.Number}
	tankMM := load.Tank.XMM(base.Number)
	full = load.Add(stand, base.Number, append(items, load.Item{MassKg: topUp.Number, XMM: tankMM}))
	empty = load.Add(full, base.Number, []load.Item{{MassKg: -fullTank.Number, XMM: tankMM}})
	if c.working != nil {
		in := append([]sheet.Value{kerb, front, base, topUp}, values...)
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
