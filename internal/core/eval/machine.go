package eval

import (
	"math"
	"strconv"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
)

// The bike as fuel sees it: as it came, as built, and as it was when a fill was
// written down.

// machineOf folds a bike's engine and gearbox with a final ratio.
func machineOf(b *plan.Bike, final float64) fuel.Machine {
	m := fuel.Machine{DisplacementL: b.Displacement.In("L"), CleanRPM: b.CleanRPM.In("rpm")}
	primary := b.Primary.In("")
	for _, ratio := range b.Gearbox.Ratios() {
		m.Overalls = append(m.Overalls, drive.Overall(primary, ratio, final))
	}
	return m
}

// tyreRoad is the share of road that both tyres are made for, on average.
func tyreRoad(b *plan.Built) float64 {
	sum := 0.0
	for _, slot := range []plan.Slot{plan.FrontTyre, plan.RearTyre} {
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
	if t := std.Tyre(plan.RearTyre); t != nil {
		m.CircumferenceMM = t.CircumferenceMM()
	}
	m.MassKg = b.KerbMass.In("kg") + b.Tank.In("L")*fuel.Density*(0.5-b.KerbFuel.In("")) + p.Brief.Rider.In("kg")
	return m
}

// machine is the bike as built and loaded.
func (r *run) machine() fuel.Machine {
	m := machineOf(r.built.Bike, r.built.FinalRatio())
	m.CircumferenceMM, m.TyreRoad, m.DragAreaM2 = r.facts.CircumferenceMM.Rear, tyreRoad(r.built), r.facts.DragAreaM2
	m.MassKg = r.facts.LoadedKg
	for _, f := range r.built.Fuels {
		m.MassKg -= f.HoldsL * fuel.Density / 2
	}
	return m
}

// asRidden is the machine of a fill: the bike as it came, but for what the fill says.
func asRidden(m fuel.Machine, b *plan.Bike, as plan.Ridden) fuel.Machine {
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
	if fast, _ := terrain.Of(terrain.Motorway); isRoad(g.Kind) && !math.IsNaN(cruiseKmh) {
		return g.SpeedKmh * cruiseKmh / fast.SpeedKmh
	}
	return g.SpeedKmh
}

// burning is what a bike burns, before its multipliers: by the model, or the same
// everywhere where a number that the model needs is missing.
type burning struct {
	works    [8]fuel.Work // by kind of ground
	modelled bool
	flat     float64 // L/km, where there is no model
}

func burningOf(m fuel.Machine, cruiseKmh, flatPer100Km float64) burning {
	if !m.Known() {
		return burning{flat: flatPer100Km / 100}
	}
	b := burning{modelled: true}
	for i, g := range terrain.Grounds() {
		b.works[i] = m.On(g, travelling(g, cruiseKmh))
	}
	return b
}

// at is what a km of a ground, by its index, takes in air of a density, on a way
// that climbs so many metres per km.
func (b *burning) at(ground int, density, climbM float64) float64 {
	if !b.modelled {
		return b.flat
	}
	return b.works[ground].Litres(density, climbM)
}

// over is what so many km of a mix take at sea level, on the level.
func (b *burning) over(km float64, mix terrain.Mix) fuel.Amount {
	var l wayLeg
	for g, ground := range terrain.Grounds() {
		l.on[g] = lie{km: km * mix[ground.Kind], kmDensity: km * mix[ground.Kind] * air.Density(0)}
	}
	a, _, _ := l.need(b, nil)
	return a
}

func isRoad(k terrain.Kind) bool { return k == terrain.Motorway || k == terrain.Paved }

// anchor is the known consumption over the computed one: the bike as it came, its
// rider alone, on a paved road at sea level. NaN when a number is missing.
func anchor(p *plan.Plan, std *plan.Built) float64 {
	m := asItCame(p, std)
	if !m.Known() {
		return math.NaN()
	}
	g, _ := terrain.Of(terrain.Paved)
	return std.Bike.Economy.In("L/100 km") / 100 / m.On(g, g.SpeedKmh).Litres(air.Density(0), 0)
}

// Learning is what the fills of the plan's bike teach.
type Learning struct {
	Anchor    float64         // NaN when no consumption is known
	First     fuel.Model      // before any fill
	Intervals []plan.Interval // from full to full, the oldest first
	Tankfuls  []fuel.Tankful  // the same with what the model computes
	Taught    fuel.Taught
	flat      float64 // L/100 km where there is no model
}

// Learn takes the fills together. Each is computed for the bike as it was then.
func Learn(p *plan.Plan) Learning {
	std := p.BuildStandard()
	came := asItCame(p, std)
	l := Learning{Anchor: anchor(p, std), Intervals: plan.Intervals(p.ReadingsOf(plan.FillReading)), flat: std.Bike.Economy.In("L/100 km")}
	l.First = fuel.Anchored(l.Anchor, false)
	if math.IsNaN(l.Anchor) {
		l.First = fuel.Anchored(1, true)
	}
	if math.IsNaN(l.flat) && len(l.Intervals) > 0 {
		litres, km := 0.0, 0.0
		for _, in := range l.Intervals {
			litres, km = litres+in.Litres, km+in.Km
		}
		l.flat = litres / km * 100
	}
	for _, in := range l.Intervals {
		t := fuel.Tankful{Litres: in.Litres, Km: in.Km, KmSpread: in.Spread}
		for _, r := range in.Fills {
			km := in.Km / float64(len(in.Fills))
			if r.Fill.Trip.Known() {
				km = r.Fill.Trip.In("km")
			}
			b := burningOf(asRidden(came, std.Bike, r.Fill.As), r.Fill.As.Cruise.In("km/h"), l.flat)
			t.By = t.By.Plus(b.over(km, mixOf(r.Fill.Ground)))
		}
		l.Tankfuls = append(l.Tankfuls, t)
	}
	l.Taught = fuel.Learn(l.First, l.Tankfuls)
	return l
}

// mixOf shares of ground; none is a paved road.
func mixOf(list []plan.Stretch) terrain.Mix {
	if len(list) == 0 {
		return terrain.Mix{terrain.Paved: 1}
	}
	mix := make(terrain.Mix, len(list))
	for _, s := range list {
		mix[s.Ground] = s.Share.Base()
	}
	return mix
}

// Ridden is the bike as it is ridden in the report's loadout, to be written down
// with a fill.
func Ridden(report *LoadoutReport) plan.Ridden {
	f := report.Facts
	as := plan.Ridden{Name: report.Name, Cruise: f.Plan.Brief.Cruise}
	set := func(q plan.Entry, v float64, digits int, unit string) {
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
