package plan

import (
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
}

// holdsFuel lists what holds fuel on the bike as built, the main tank first.
func (b *Built) holdsFuel() []Fuel {
	slots := parts.FuelSlots()
	main := Fuel{Slot: parts.FuelTank, HoldsL: b.Bike.Tank.In("L"), UnusedL: b.Bike.Unusable.In("L")}
	main.SpreadL = fuel.SteelSpread * main.HoldsL
	list := append(make([]Fuel, 0, len(slots)), main)
	for _, slot := range slots {
		p := b.Part(slot)
		if p == nil {
			continue
		}
		is := p.Carrier()
		if is == nil {
			continue
		}
		f := Fuel{Slot: slot, Part: p, HoldsL: is.Holds.In("L")}
		f.UnusedL = f.HoldsL - is.UsableL()
		f.SpreadL = fuel.SteelSpread * f.HoldsL
		if is.Plastic {
			f.SpreadL = fuel.PlasticSpread * f.HoldsL
		}
		if slot == parts.FuelTank {
			list[0] = f
			continue
		}
		list = append(list, f)
	}
	return list
}
