package facts

import (
	"valiantmule/internal/core/journey"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
)

// Journey is what the days say that the bike was ridden.
type Journey struct {
	Days []logbook.Reading // of this trip, the oldest first
	Km   float64           // ridden on it; 0 before it begins

	Front, Rear Treads       // all days' readings
	Oil, Chain  journey.Rate // L and mm by the km, as seen; NaN while nobody has looked
	ChainMM     float64      // that the axle was moved back in all

	Expected, Falls float64       // over the days of which somebody said how often it fell
	Often           journey.Gamma // how often against what was thought
}

// Treads are the depths of one tyre after another at a wheel, at what the bike had run by its days.
type Treads struct {
	All []journey.Point // mm
	Our int             // how many of them, the last, are of this trip
}

// Of are the readings of the tyre that is on: of one that the plan has chosen only those of the
// trip, and in any case those since a deeper one was put on.
func (t Treads) Of(chosen bool) []journey.Point {
	list := t.All
	if chosen {
		list = list[len(list)-t.Our:]
	}
	return journey.Since(list, freshMM)
}

// freshMM is by how much more depth a tyre is another one: no gauge is so far off.
const freshMM = 1.0

// Tread are the depths at the wheel of a tyre.
func (j *Journey) Tread(slot parts.Slot) Treads {
	if slot == parts.FrontTyre {
		return j.Front
	}
	return j.Rear
}

// ToGo is what of a distance is still to be ridden, km.
func (j *Journey) ToGo(km float64) float64 { return max(0, km-j.Km) }
