package guard

import (
	"math"
	"slices"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
)

// Trip is what the bike is exposed to.
type Trip struct {
	DistanceKm float64
	Mix        terrain.Mix
	Skill      Skill
	Falls      float64 // expected on the trip; NaN leaves them to the rates
	Often      float64 // falls against what is expected, as a rider's log has it; NaN without one
	RoomMM     float64 // under the engine with the rider on; NaN takes what the ground asks for
	HelpDays   float64 // until parts or a truck come; 0 where help is at hand
	Bike       Class
	PerEuro    float64 // of the rider's money, for the prices from memory; NaN where nobody knows
}

// Rates are what a rider knows better, by their keys; see [Keys]. The rest is
// from memory.
type Rates map[string]float64

// Cover is what a guard does for a place: the share of a hazard's events that it
// stops from breaking it.
type Cover struct {
	Place  Place
	Hazard Hazard
	Share  float64
}

// Threat is one hazard to one place over the trip.
type Threat struct {
	Hazard Hazard
	Events float64 // over the trip
	Breaks float64 // share of them that breaks it bare
	Left   float64 // of that share, behind the guards: 1 bare, 0 never
}

// Risk is a place over the trip, bare and behind its guards.
type Risk struct {
	Place      *PlaceInfo // a row of [Places]
	Threats    []Threat
	Bare, Left Outcome
}

// Threatened tells whether a hazard breaks the place.
func (r Risk) Threatened(by Hazard) bool {
	return slices.ContainsFunc(r.Threats, func(t Threat) bool { return t.Hazard == by })
}

// Outcome is what is to be expected.
type Outcome struct {
	Broken   float64 // chance that it breaks at least once
	Stranded float64 // chance that it ends the ride where it happens
	Days     float64 // lost, expected
	Repair   float64 // expected, in the rider's money
}

// The formulas of the risks.
var (
	EventsFormula = sheet.Formula{Text: "events = Σ per 1000 km × distance on the ground × skill; falls × as often as the log has them", Origin: sheet.Memory}
	StrikeFormula = sheet.Formula{Text: "ground strikes × exp((room that the ground asks for − room) / 40 mm), 0.3 to 3 times, on each ground", Origin: sheet.Memory}
	LossFormula   = sheet.Formula{Text: "breaks = Σ events × share that breaks it × (1 − what guards stop); stranded = 1 − exp(−breaks × how often it strands); days = chance × days + stranded × days to help", Origin: sheet.Computed}
)

// strikeRoomMM is the room, mm, that is worth e times the strikes [memory].
const strikeRoomMM = 40

// StrikesTimes is how much more often than a bike with the room that the ground asks for
// one with roomMM strikes it, byMM being the room that is worth e times as many. Of a room
// that nobody knows it is as often.
func StrikesTimes(g terrain.Ground, roomMM, byMM float64) float64 {
	if math.IsNaN(roomMM) {
		return 1
	}
	return min(max(math.Exp((g.RoomMM-roomMM)/byMM), 0.3), 3)
}

// own is the rider's rate for a key, or else the one from memory.
func (r Rates) own(usual float64, key func() string) float64 {
	if len(r) > 0 {
		if v, ok := r[key()]; ok {
			return v
		}
	}
	return usual
}

// Events over the trip, in the order of the hazards.
func Events(t Trip, rates Rates) []float64 {
	var km [terrain.Count]float64
	for i := range grounds {
		km[i] = t.Mix.At(i) * t.DistanceKm / 1000
	}
	by := rates.own(strikeRoomMM, func() string { return StrikeRoomKey })
	skill := factorOf(t.Skill)
	events := make([]float64, len(hazards))
	slow, fast := 0, 0
	for at, h := range hazards {
		for i, g := range grounds {
			times := km[i] * rates.own(h.PerThousandKm[i], func() string { return EventKey(h.Hazard, g.Kind) })
			if h.Hazard == Strike {
				times *= StrikesTimes(g, t.RoomMM, by)
			}
			events[at] += times
		}
		switch h.Hazard {
		case SlowFall:
			slow = at
		case FastFall:
			fast = at
		case Strike:
		default:
			continue
		}
		events[at] *= skill
	}
	// Falls that the rider counts on keep their mix of slow and fast.
	if both := events[slow] + events[fast]; !math.IsNaN(t.Falls) && both > 0 {
		events[slow], events[fast] = events[slow]*t.Falls/both, events[fast]*t.Falls/both
	}
	if t.Often > 0 {
		events[slow], events[fast] = events[slow]*t.Often, events[fast]*t.Often
	}
	return events
}

// Falls expected over the trip, slow and fast together.
func Falls(t Trip, rates Rates) float64 {
	events, sum := Events(t, rates), 0.0
	for at, h := range hazards {
		if h.Hazard == SlowFall || h.Hazard == FastFall {
			sum += events[at]
		}
	}
	return sum
}

// Assess works out the risk of each place that the bike has, in their order.
func Assess(t Trip, rates Rates, has func(Place) bool, covers []Cover) []Risk {
	events := Events(t, rates)
	risks := make([]Risk, 0, len(places))
	threats := make([]Threat, 0, manyThreats) // of all places, in one piece
	here := make([]Cover, 0, len(covers))
	for i := range places {
		p := &places[i]
		if !has(p.Place) {
			continue
		}
		here = here[:0]
		for _, c := range covers {
			if c.Place == p.Place {
				here = append(here, c)
			}
		}
		loss := lossOf(p, t, rates)
		from := len(threats)
		bare, left := 0.0, 0.0
		for _, b := range p.Breaks {
			share := rates.own(b.Share, func() string { return BreakKey(p.Place, b.Hazard) })
			threat := Threat{Hazard: b.Hazard, Events: events[index[b.Hazard]], Breaks: share, Left: 1}
			for _, c := range here {
				if c.Hazard == b.Hazard {
					threat.Left *= 1 - c.Share
				}
			}
			bare += threat.Events * share
			left += threat.Events * share * threat.Left
			threats = append(threats, threat)
		}
		risks = append(risks, Risk{
			Place: p, Threats: threats[from:len(threats):len(threats)],
			Bare: outcome(bare, loss, t.HelpDays), Left: outcome(left, loss, t.HelpDays),
		})
	}
	return risks
}

// outcome of so many expected breaks.
func outcome(breaks float64, l loss, help float64) Outcome {
	o := Outcome{Broken: 1 - math.Exp(-breaks), Stranded: 1 - math.Exp(-breaks*l.stranded)}
	o.Days = o.Broken*l.days + o.Stranded*help
	o.Repair = o.Broken * l.repair
	return o
}

// Total of the places, bare and behind the guards: any one that strands is enough.
func Total(risks []Risk) (bare, left Outcome) {
	bare.Broken, left.Broken, bare.Stranded, left.Stranded = 1, 1, 1, 1
	for _, r := range risks {
		for _, sum := range []struct {
			to   *Outcome
			from Outcome
		}{{&bare, r.Bare}, {&left, r.Left}} {
			sum.to.Broken *= 1 - sum.from.Broken
			sum.to.Stranded *= 1 - sum.from.Stranded
			sum.to.Days += sum.from.Days
			sum.to.Repair += sum.from.Repair
		}
	}
	for _, o := range []*Outcome{&bare, &left} {
		o.Broken, o.Stranded = 1-o.Broken, 1-o.Stranded
	}
	return bare, left
}

// CoverageFormula is the formula of [Coverage].
var CoverageFormula = sheet.Formula{Text: "coverage = 1 − residual / unprotected", Origin: sheet.Practice}

// Coverage is how much of what is to be feared the guards take away; NaN when
// there is nothing to fear.
func Coverage(bare, left float64) float64 {
	if bare == 0 {
		return math.NaN()
	}
	return 1 - left/bare
}

// loss is what a broken place costs this rider on this trip.
type loss struct{ repair, days, stranded float64 }

func lossOf(p *PlaceInfo, t Trip, rates Rates) loss {
	at := func(usual float64, what string) float64 {
		return rates.own(usual, func() string { return LossKey(p.Place, what) })
	}
	return loss{at(p.Loss.Repair[t.Bike]*t.PerEuro, "repair"), at(p.Loss.Days, "days"), at(p.Loss.Stranded, "stranded")}
}

var manyThreats = func() (n int) {
	for _, p := range places {
		n += len(p.Breaks)
	}
	return n
}()

// index of the hazards.
var index = func() map[Hazard]int {
	all := make(map[Hazard]int, len(hazards))
	for i, h := range hazards {
		all[h.Hazard] = i
	}
	return all
}()
