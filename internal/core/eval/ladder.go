package eval

import (
	"math"

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
	Leg    int // of the report's legs
	Levels []Level
}

// Level is what is left in the tank at a distance from the start: in the middle of
// the band, at its thirsty and at its thrifty end. It does not stop at zero.
type Level struct{ Km, Low, Mid, High float64 }

// rungs is into how many steps the whole way is cut.
const rungs = 160

// FuelLadder walks the report's legs in small steps; ok is false when what it rests
// on is not known.
func FuelLadder(report *LoadoutReport) (ladder Ladder, ok bool) {
	f := report.Facts
	if f == nil || f.Range.Deciding < 0 || math.IsNaN(f.Range.Tank.UsableL+f.Range.Legs[f.Range.Deciding].NeedL) {
		return ladder, false
	}
	p := f.Plan
	b := burningOf(f.Machine, p.Brief.Cruise.In("km/h"), Learn(p).flat)
	rest := p.Brief.Mix()
	if rest == nil {
		rest = terrain.Mix{terrain.Paved: 1}
	}
	legs, walk := []wayLeg{gapLeg(p)}, (*walker)(nil)
	if p.Route != nil {
		legs, walk = legsOf(p.Route), &walker{nodes: p.Route.Nodes, grounds: groundsOf(p.Route)}
	}
	tank := f.Range.Tank
	ladder = Ladder{LengthKm: legs[len(legs)-1].toKm, FullL: tank.UsableL, ReserveL: tank.UsableL * tank.Reserve}
	for i, l := range legs {
		run := Run{Leg: i, Levels: []Level{{l.fromKm, tank.UsableL, tank.UsableL, tank.UsableL}}}
		steps := max(2, int(rungs*(l.toKm-l.fromKm)/ladder.LengthKm))
		var burnt fuel.Amount
		for k := range steps {
			bit := l
			bit.fromKm, bit.toKm = at(l, k, steps), at(l, k+1, steps)
			bit.detourKm = l.detourKm / float64(steps)
			if walk != nil {
				bit.on, bit.upM = [9]lie{}, 0
				bit = walk.to(bit)
			} else {
				bit.on[unsaid] = lie{km: l.on[unsaid].km / float64(steps), kmDensity: l.on[unsaid].kmDensity / float64(steps)}
			}
			amount, _, _ := bit.need(&b, rest)
			burnt = burnt.Plus(amount)
			litres, spread := f.Range.Model.Litres(burnt)
			spread = fuel.BandSigma * math.Hypot(spread, tank.SpreadL)
			run.Levels = append(run.Levels, Level{bit.toKm, tank.UsableL - litres - spread, tank.UsableL - litres, tank.UsableL - litres + spread})
		}
		ladder.Runs = append(ladder.Runs, run)
	}
	return ladder, true
}

func at(l wayLeg, step, steps int) float64 {
	return l.fromKm + (l.toKm-l.fromKm)*float64(step)/float64(steps)
}

// Stands is how the model stood after each of the bike's fills, the one before any
// first.
func (l Learning) Stands() []fuel.Model {
	stands := []fuel.Model{l.First}
	for i := range l.Tankfuls {
		stands = append(stands, fuel.Learn(l.First, l.Tankfuls[:i+1]).Model)
	}
	return stands
}

// OnTheRoad is what a model makes of 100 km of paved road, the bike as it came and
// its rider alone: litres and their spread. It is what stands and fills are compared
// by.
func OnTheRoad(p *plan.Plan, l Learning, m fuel.Model) (litres, spread float64) {
	std := p.BuildStandard()
	b := burningOf(asItCame(p, std), math.NaN(), l.flat)
	return m.Litres(b.over(100, terrain.Mix{terrain.Paved: 1}))
}

// ByGround is what the report's model burns on each kind of ground as loaded, L/100
// km with its spread, on the level at sea level.
type ByGround struct {
	Ground         terrain.Ground
	Kmh, RPM       float64
	Gear           int
	Litres, Spread float64
}

// Grounds lists them; nil where the model lacks a number.
func Grounds(report *LoadoutReport) []ByGround {
	f := report.Facts
	if f == nil || !f.Machine.Known() {
		return nil
	}
	b := burningOf(f.Machine, f.Plan.Brief.Cruise.In("km/h"), math.NaN())
	var list []ByGround
	for i, g := range terrain.Grounds() {
		w := b.works[i]
		litres, spread := f.Range.Model.Litres(b.over(100, terrain.Mix{g.Kind: 1}))
		list = append(list, ByGround{g, w.SpeedKmh, w.RPM, w.Gear, litres, spread})
	}
	return list
}

// Profile is the route's nodes, or two of a level way as long as the brief's gap.
func Profile(p *plan.Plan) []track.Node {
	if p.Route != nil {
		return p.Route.Nodes
	}
	return []track.Node{{}, {3: gapLeg(p).toKm}}
}
