package plan

import (
	"math"

	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/parts"
)

// Fuel is one place of the bike that holds fuel. Litres are NaN when unknown.
type Fuel struct {
	Slot    parts.Slot
	Part    *parts.Part // nil for the bike's own tank
	HoldsL  float64
	UnusedL float64 // never reaches the engine
	SpreadL float64 // of what it holds, one standard deviation
	HalfL   float64 // half of the band where what it holds is the usual of its kind; 0 for what somebody has filled
	Usual   int     // how many of its numbers are usual ones
}

// UnusedShare of the bike's own tank is what its pickup usually never reaches [memory].
const UnusedShare = 0.04

// oneSD of a band that nine in ten lie in.
const oneSD = 1.64

// holdsFuel lists what holds fuel on the bike as built, the main tank first.
func (b *Built) holdsFuel() []Fuel {
	slots := parts.FuelSlots()
	main := Fuel{Slot: parts.FuelTank, HoldsL: b.Bike.Tank.In("L"), UnusedL: b.Bike.Unusable.In("L")}
	main.SpreadL = fuel.SteelSpread * main.HoldsL
	if !b.Bike.Unusable.Known() {
		main.UnusedL, main.Usual = UnusedShare*main.HoldsL, 1
		main.SpreadL = math.Hypot(main.SpreadL, main.UnusedL/oneSD)
	}
	list := append(make([]Fuel, 0, len(slots)), main)
	for _, slot := range slots {
		for p := range b.Parts(slot) {
			is := p.Carrier()
			f := Fuel{Slot: slot, Part: p, HoldsL: is.Holds.In("L")}
			if !is.Holds.Known() {
				usual := p.Usually(parts.Holds)
				if !usual.Known() { // a tank holds what the bike's own does, until somebody says
					continue
				}
				f.HoldsL, f.HalfL, f.Usual = usual.Value, usual.Half, 1
			}
			if is.Unusable.Known() {
				f.UnusedL = is.Unusable.In("L")
			}
			f.SpreadL = fuel.SteelSpread * f.HoldsL
			if is.Plastic {
				f.SpreadL = fuel.PlasticSpread * f.HoldsL
			}
			f.SpreadL = math.Hypot(f.SpreadL, f.HalfL/oneSD)
			if slot == parts.FuelTank {
				list[0] = f
				continue
			}
			list = append(list, f)
		}
	}
	return list
}
