package parts

import (
	"cmp"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// What tanks, bladders and cans have.
var (
	FuelKind = choice[CarrierKind]("fuel_kind", "Its fuel", CarrierKinds)
	Holds    = prop[unit.Volume]("holds", "It holds", "L", 0.2, 80, "Filled to the brim from dry; a pair together.")
	Unusable = prop[unit.Volume]("unusable", "Never reached", "L", 0, 20, "What stays in it. Empty: nothing does.")
	Wider    = prop[unit.Length]("wider", "Wider at the knees by", "mm", 0, 300, "Both sides together.")
	Plastic  = yesNo("plastic", "Plastic: swells, and wants metal unions")
	Approved = yesNo("approved", "Approved for fuel")
	Seen     = yesNo("seen", "The level shows from outside")
)

// Carrier is what a tank, bladder or can is beyond a part, whose mass is the empty
// one's.
type Carrier struct {
	Kind     CarrierKind
	Holds    unit.Volume
	Unusable unit.Volume // what never reaches the engine
	Plastic  bool        // swells over the years, and wants metal unions
	Approved bool
	Wider    unit.Length // at the knees, both sides together
	Seen     bool        // the level shows from outside
}

// usualCarrier is how the fuel of such a part gets to the engine, unless its sheet says.
var usualCarrier = map[Slot]CarrierKind{FuelTank: MainTank, AuxTank: Plumbed, FuelBladder: Poured, FuelCans: Poured, FuelBottles: Poured}

// Carrier is a part as something that holds fuel, nil for one whose kind does not.
func (p *Part) Carrier() *Carrier {
	if !p.Slot.Has(Holds) {
		return nil
	}
	kind := cmp.Or(FuelKind.In(p), usualCarrier[p.Slot])
	return &Carrier{kind, Holds.In(p), Unusable.In(p), Plastic.Yes(p), Approved.Yes(p), Wider.In(p), Seen.Yes(p)}
}

// UsableL is what of it reaches the engine, in litres.
func (c *Carrier) UsableL() float64 {
	if c.Unusable.Known() {
		return c.Holds.In("L") - c.Unusable.In("L")
	}
	return c.Holds.In("L")
}

func (c *Carrier) check(v *entry.Problems, at string) {
	v.That(!(c.Unusable.In("L") >= c.Holds.In("L")), at+Unusable.Key, "%s is not less than it holds", c.Unusable)
}

// CarrierKind is how fuel gets from a carrier to the engine.
type CarrierKind string

// The kinds of carriers.
const (
	MainTank CarrierKind = "tank"      // feeds the engine
	Plumbed  CarrierKind = "auxiliary" // runs into the main tank by a hose
	Poured   CarrierKind = "poured"    // by hand, at a stop
)

// CarrierKinds lists those of what is beside the main tank, which is known by its slot.
func CarrierKinds() []entry.Option {
	return []entry.Option{entry.Opt(Plumbed, "runs into the tank by a hose"), entry.Opt(Poured, "poured by hand")}
}

// FuelSlots are the slots that hold fuel, the main tank first.
func FuelSlots() []Slot { return slotsThat(Holds) }
