package ranging

import (
	"math"

	"valiantmule/internal/core/air"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
)

// burning is what a bike burns, before its multipliers: by the model, or the same
// everywhere where a number that the model needs is missing.
type burning struct {
	works    [terrain.Count]fuel.Work // by kind of ground
	modelled bool
	flat     float64 // L/km, where there is no model
}

func burningOf(m fuel.Machine, cruiseKmh, windKmh, flatPer100Km float64) burning {
	if !m.Known() {
		return burning{flat: flatPer100Km / 100}
	}
	b := burning{modelled: true}
	for i, g := range terrain.Grounds() {
		b.works[i] = m.On(g, travelling(g, cruiseKmh))
		if g.Kind.IsRoad() { // elsewhere one is slow, and among things that break the wind
			b.works[i] = b.works[i].Into(windKmh)
		}
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
	var l facts.WayLeg
	for g := range terrain.Count {
		l.On[g] = facts.Lie{Km: km * mix.At(g), KmDensity: km * mix.At(g) * air.SeaLevel}
	}
	a, _, _ := need(&l, b, mix)
	return a
}

// What a known consumption is taken to have been ridden on: half paved roads, a quarter
// motorway, a quarter town [memory].
const (
	motorwayKmh, townKmh = 105.0, 32.0
	townSlowings         = 13.8 // per km: 110 kJ of braking at 240 kg
	townIdles            = 0.15 // of the time
)

// anchor is the known consumption over the computed one: the bike as it came, its
// rider alone, in mixed use at sea level and without wind. NaN when a number is missing.
func anchor(p *plan.Plan, std *plan.Built) float64 {
	m := asItCame(p, std)
	if !m.Known() {
		return math.NaN()
	}
	return std.Bike.Economy.In("L/100 km") / 100 / mixedUse(m)
}

// mixedUse is what a machine takes in such use, L/km.
func mixedUse(m fuel.Machine) float64 {
	motorway, _ := terrain.Of(terrain.Motorway)
	paved, _ := terrain.Of(terrain.Paved)
	town := paved
	town.Brakings = townSlowings
	at := func(g terrain.Ground, kmh float64) float64 { return m.On(g, kmh).Litres(air.SeaLevel, 0) }
	idle := 3600 / townKmh * townIdles / (1 - townIdles) * m.IdleLitres() // beside each km of riding
	return at(paved, paved.SpeedKmh)/2 + at(motorway, motorwayKmh)/4 + (at(town, townKmh)+idle)/4
}

// mostFills is how many fills teach, the last ones: what it burnt years ago is another engine's, and a long log is
// looked at at each step.
const mostFills = 200

func lastOf(fills []logbook.Reading, most int) []logbook.Reading {
	return fills[max(0, len(fills)-most):]
}

// learn takes the fills together. Each is computed for the bike as it was then.
func learn(p *plan.Plan, std *plan.Built) facts.Learning {
	came := asItCame(p, std)
	l := facts.Learning{Anchor: anchor(p, std), Intervals: logbook.Intervals(lastOf(p.Refuelled(), mostFills)), FlatPer100Km: std.Bike.Economy.In("L/100 km")}
	l.First = fuel.Anchored(l.Anchor, false)
	if math.IsNaN(l.Anchor) {
		l.First = fuel.Anchored(1, true)
	}
	if math.IsNaN(l.FlatPer100Km) && len(l.Intervals) > 0 {
		litres, km := 0.0, 0.0
		for _, in := range l.Intervals {
			litres, km = litres+in.Litres, km+in.Km
		}
		l.FlatPer100Km = litres / km * 100
	}
	for _, in := range l.Intervals {
		t := fuel.Tankful{Litres: in.Litres, Km: in.Km, KmSpread: in.Spread}
		for _, r := range in.Fills {
			km := in.Km / float64(len(in.Fills))
			if r.Fill().Trip.Known() {
				km = r.Fill().Trip.In("km")
			}
			b := burningOf(asRidden(came, std.Bike, r.Fill().As), r.Fill().As.Cruise.In("km/h"), 0, l.FlatPer100Km) // the wind of that day is in what it took
			t.By = t.By.Plus(b.over(km, terrain.MixOfStretches(r.Fill().Ground).Or(terrain.Only(terrain.Paved))))
		}
		l.Tankfuls = append(l.Tankfuls, t)
	}
	l.Taught = fuel.Learn(l.First, l.Tankfuls)
	return l
}
