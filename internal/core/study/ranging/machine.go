package ranging

import (
	"math"
	"strconv"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
)

// The bike as fuel sees it: as it came, as built, and as it was when a fill was
// written down.

// machineOf folds a bike's engine and gearbox with a final ratio.
func machineOf(b *plan.Bike, final float64) fuel.Machine {
	m := fuel.Machine{Single: b.Single(), Carburettor: b.Fuelling == plan.Carburettor, DisplacementL: b.Displacement.In("L"), CleanRPM: b.CleanRPM.In("rpm"), IdleRPM: b.IdlesAt()}
	primary := b.Primary.In("")
	for _, ratio := range b.Gearbox.Ratios() {
		m.Overalls = append(m.Overalls, drive.Overall(primary, ratio, final))
	}
	return m
}

// tyreRoad is the share of road that both tyres are made for, on average.
func tyreRoad(b *plan.Built) float64 {
	sum := 0.0
	for _, slot := range []parts.Slot{parts.FrontTyre, parts.RearTyre} {
		t := b.Tyre(slot)
		if t == nil {
			return math.NaN()
		}
		c, _ := tyre.CharacterOf(t.Kind)
		sum += c.RoadShare / 2
	}
	return sum
}

// asItCame is the machine with its rider alone and half a tank: what a consumption
// from papers is taken to hold for.
func asItCame(p *plan.Plan, std *plan.Built) fuel.Machine {
	b := std.Bike
	m := machineOf(b, std.FinalRatio())
	m.CircumferenceMM, m.TyreRoad, m.DragAreaM2 = math.NaN(), tyreRoad(std), b.DragArea.In("m²")
	if t := std.Tyre(parts.RearTyre); t != nil {
		m.CircumferenceMM = t.CircumferenceMM()
	}
	share, _ := b.KerbShare()
	m.MassKg = b.KerbMass.In("kg") + b.Tank.In("L")*fuel.Density*(0.5-share) + p.Brief.Rider.In("kg")
	return m
}

// machine is the bike as built and loaded.
func machine(f *facts.All) fuel.Machine {
	m := machineOf(f.Built.Bike, f.Built.FinalRatio())
	m.CircumferenceMM, m.TyreRoad, m.DragAreaM2 = f.Wheels.CircumferenceMM.Rear, tyreRoad(f.Built), f.DragAreaM2
	m.MassKg, m.Lean = f.Loaded.Kg, f.Built.Chosen(parts.Fuelling)
	for i := range f.Built.Fuels {
		m.MassKg -= f.Built.Fuels[i].HoldsL * fuel.Density / 2
	}
	return m
}

// asRidden is the machine of a fill: the bike as it came, but for what the fill says.
func asRidden(m fuel.Machine, b *plan.Bike, as logbook.Ridden) fuel.Machine {
	if as.Final.Known() {
		m.Overalls = machineOf(b, as.Final.In("")).Overalls
	}
	for _, own := range []struct {
		known bool
		value float64
		into  *float64
	}{
		{as.Mass.Known(), as.Mass.In("kg"), &m.MassKg}, {as.DragArea.Known(), as.DragArea.In("m²"), &m.DragAreaM2},
		{as.RollOut.Known(), as.RollOut.In("mm"), &m.CircumferenceMM}, {as.TyreRoad.Known(), as.TyreRoad.In(""), &m.TyreRoad},
	} {
		if own.known {
			*own.into = own.value
		}
	}
	return m
}

// travelling is the speed on a kind of ground: what is usual there, on the road by
// as much faster or slower as the brief's cruise is against the motorway's.
func travelling(g terrain.Ground, cruiseKmh float64) float64 {
	if fast, _ := terrain.Of(terrain.Motorway); g.Kind.IsRoad() && !math.IsNaN(cruiseKmh) {
		return g.SpeedKmh * cruiseKmh / fast.SpeedKmh
	}
	return g.SpeedKmh
}

// Ridden is the bike as it is ridden in the loadout, to be written down
// with a fill.
func Ridden(f *facts.All) logbook.Ridden {
	as := logbook.Ridden{Name: f.Loadout.Name, Cruise: f.Plan.Brief.Cruise}
	set := func(q entry.Entry, v float64, digits int, unit string) {
		if !math.IsNaN(v) {
			_ = q.Enter(strconv.FormatFloat(v, 'f', digits, 64), unit) // a plain number in a unit there is
		}
	}
	set(&as.Mass, f.Machine.MassKg, 1, "kg")
	set(&as.DragArea, f.Machine.DragAreaM2, 3, "m²")
	set(&as.Final, f.Built.FinalRatio(), 4, "")
	set(&as.RollOut, f.Machine.CircumferenceMM, 0, "mm")
	set(&as.TyreRoad, 100*f.Machine.TyreRoad, 0, "%")
	return as
}
