package plan

import (
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/unit"
)

// Carrier is what a tank, bladder or can is beyond a part, whose mass is the empty
// one's.
type Carrier struct {
	Kind     CarrierKind `json:"kind"`
	Holds    unit.Volume `json:"holds,omitzero"`
	Unusable unit.Volume `json:"unusable,omitzero"` // what never reaches the engine
	Plastic  bool        `json:"plastic,omitempty"` // swells over the years, and wants metal unions
	Approved bool        `json:"approved,omitempty"`
	Wider    unit.Length `json:"wider,omitzero"` // at the knees, both sides together
	Seen     bool        `json:"seen,omitempty"` // the level shows from outside
}

// UsableL is what of it reaches the engine, in litres.
func (c *Carrier) UsableL() float64 {
	if c.Unusable.Known() {
		return c.Holds.In("L") - c.Unusable.In("L")
	}
	return c.Holds.In("L")
}

// CarrierKind is how fuel gets from a carrier to the engine.
type CarrierKind string

// The kinds of carriers.
const (
	MainTank CarrierKind = "tank"      // feeds the engine
	Plumbed  CarrierKind = "auxiliary" // runs into the main tank by a hose
	Poured   CarrierKind = "poured"    // by hand, at a stop
)

// CarrierKinds lists them.
func CarrierKinds() []Option {
	return []Option{{string(MainTank), "feeds the engine"}, {string(Plumbed), "runs into the tank by a hose"}, {string(Poured), "poured by hand"}}
}

// FuelSlots are the slots that hold fuel, the main tank first.
func FuelSlots() []Slot { return fuelSlots }

var fuelSlots = []Slot{FuelTank, AuxTank, FuelBladder, FuelCans, FuelBottles}

// Fuel is one place of the bike that holds fuel. Litres are NaN when unknown.
type Fuel struct {
	Slot    Slot
	Part    *Part // nil for the bike's own tank
	HoldsL  float64
	UnusedL float64 // never reaches the engine
	SpreadL float64 // of what it holds, one standard deviation
}

// holdsFuel lists what holds fuel on the bike as built, the main tank first.
func (b *Built) holdsFuel() []Fuel {
	main := Fuel{Slot: FuelTank, HoldsL: b.Bike.Tank.In("L"), UnusedL: b.Bike.Unusable.In("L")}
	main.SpreadL = fuel.SteelSpread * main.HoldsL
	list := append(make([]Fuel, 0, len(fuelSlots)), main)
	for _, slot := range fuelSlots {
		p := b.Part(slot)
		if p == nil || p.Carrier == nil {
			continue
		}
		f := Fuel{Slot: slot, Part: p, HoldsL: p.Carrier.Holds.In("L")}
		f.UnusedL = f.HoldsL - p.Carrier.UsableL()
		f.SpreadL = fuel.SteelSpread * f.HoldsL
		if p.Carrier.Plastic {
			f.SpreadL = fuel.PlasticSpread * f.HoldsL
		}
		if slot == FuelTank {
			list[0] = f
			continue
		}
		list = append(list, f)
	}
	return list
}
