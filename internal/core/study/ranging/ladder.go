package ranging

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

// Ladder is the level in the tank along the way, falling from pump to pump.
type Ladder struct {
	LengthKm float64
	FullL    float64 // usable
	ReserveL float64
	Runs     []Run // one a leg
}

// Run is one leg of the ladder: how the level falls between two rungs.
type Run struct {
	Leg    int // of the legs of the way
	Levels []Level
}

// Level is what is left in the tank at a distance from the start: in the middle of
// the band, at its thirsty and at its thrifty end. It does not stop at zero.
type Level struct{ Km, Low, Mid, High float64 }

// rungs is into how many steps the whole way is cut.
const rungs = 160

// FuelLadder walks the legs of the way in small steps; ok is false when what it rests
// on is not known.
func FuelLadder(f *facts.All) (ladder Ladder, ok bool) {
	if leg, ok := f.Range.Decides(); !ok || math.IsNaN(f.Range.Tank.UsableL+leg.NeedL) {
		return ladder, false
	}
	p := f.Plan
	b := burningOf(f.Machine, p.Brief.Cruise.In("km/h"), p.Brief.Headwind.In("km/h"), f.Learning.FlatPer100Km)
	rest := p.Brief.Mix().Or(terrain.Only(terrain.Paved))
	legs, walk := f.Way, (*walker)(nil)
	if p.Route != nil {
		walk = &walker{nodes: p.Route.Nodes, grounds: groundsOf(p.Route)}
	}
	tank := f.Range.Tank
	ladder = Ladder{LengthKm: legs[len(legs)-1].ToKm, FullL: tank.UsableL, ReserveL: tank.UsableL * tank.Reserve}
	for i, l := range legs {
		run := Run{Leg: i, Levels: []Level{{l.FromKm, tank.UsableL, tank.UsableL, tank.UsableL}}}
		steps := max(2, int(rungs*(l.ToKm-l.FromKm)/ladder.LengthKm))
		var burnt fuel.Amount
		for k := range steps {
			bit := l
			bit.FromKm, bit.ToKm = at(l, k, steps), at(l, k+1, steps)
			bit.DetourKm = l.DetourKm / float64(steps)
			if walk != nil {
				bit.On, bit.UpM = [terrain.Count + 1]facts.Lie{}, 0
				bit = walk.to(bit)
			} else {
				bit.On[facts.Unsaid] = facts.Lie{Km: l.On[facts.Unsaid].Km / float64(steps), KmDensity: l.On[facts.Unsaid].KmDensity / float64(steps)}
			}
			amount, _, _ := need(&bit, &b, rest)
			burnt = burnt.Plus(amount)
			litres, spread := f.Learning.Taught.Litres(burnt)
			spread = fuel.BandSigma * math.Hypot(spread, tank.SpreadL)
			run.Levels = append(run.Levels, Level{bit.ToKm, tank.UsableL - litres - spread, tank.UsableL - litres, tank.UsableL - litres + spread})
		}
		ladder.Runs = append(ladder.Runs, run)
	}
	return ladder, true
}

func at(l facts.WayLeg, step, steps int) float64 {
	return l.FromKm + (l.ToKm-l.FromKm)*float64(step)/float64(steps)
}

// OnTheRoad is what a model makes of 100 km of paved road, the bike as it came and
// its rider alone: litres and their spread. It is what stands and fills are compared
// by.
func OnTheRoad(f *facts.All, m fuel.Model) (litres, spread float64) {
	b := burningOf(asItCame(f.Plan, f.Standard), math.NaN(), 0, f.Learning.FlatPer100Km)
	return m.Litres(b.over(100, terrain.Only(terrain.Paved)))
}

// ByGround is what the model burns on each kind of ground as loaded, L/100
// km with its spread, on the level at sea level in still air.
type ByGround struct {
	Ground         terrain.Ground
	Kmh, RPM       float64
	Gear           int
	Litres, Spread float64
}

// Grounds lists them; nil where the model lacks a number.
func Grounds(f *facts.All) []ByGround {
	if !f.Machine.Known() {
		return nil
	}
	b := burningOf(f.Machine, f.Plan.Brief.Cruise.In("km/h"), 0, math.NaN())
	var list []ByGround
	for i, g := range terrain.Grounds() {
		w := b.works[i]
		litres, spread := f.Learning.Taught.Litres(b.over(100, terrain.Only(g.Kind)))
		list = append(list, ByGround{g, w.SpeedKmh, w.RPM, w.Gear, litres, spread})
	}
	return list
}

// Profile is the route's nodes, or two of a level way as long as the brief's gap.
func Profile(p *plan.Plan) []track.Node {
	if p.Route != nil {
		return p.Route.Nodes
	}
	return []track.Node{{}, {3: gapLeg(p).ToKm}}
}
