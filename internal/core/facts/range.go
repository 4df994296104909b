package facts

import (
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
)

// Way is the legs of the trip as the route has them, before any bike.
type Way []WayLeg

// Lie is what of a leg lies on one kind of ground: how far, how high, how steep.
// What it burns is linear in all three, so sums do.
type Lie struct{ Km, KmDensity, UpM float64 }

// Unsaid is the place in [WayLeg.On] of ground that nobody has named.
const Unsaid = terrain.Count

// WayLeg is one leg of the way.
type WayLeg struct {
	From, To     string
	FromKm, ToKm float64
	Ends         *plan.Stop
	DetourKm     float64
	UpM          float64
	On           [terrain.Count + 1]Lie // by terrain.Grounds, then Unsaid
}

// Learning is what the fills of the plan's bike teach.
type Learning struct {
	Anchor       float64            // known consumption over the computed one, as it came; NaN when none is known
	First        fuel.Model         // before any fill
	Intervals    []logbook.Interval // from full to full, the oldest first
	Tankfuls     []fuel.Tankful     // the same with what the model computes
	Taught       fuel.Taught
	FlatPer100Km float64 // L/100 km where there is no model
}

// Stand is how the model stood after so many of the bike's tanks.
type Stand struct {
	Tanks int
	Model fuel.Model
}

// Stands is how the model stood before any tank and after some of them: after each where
// they are few, and after at most so many, evenly apart, where they are not. The last one
// is among them.
func (l Learning) Stands(most int) []Stand {
	stands := []Stand{{0, l.First}}
	count := min(most, len(l.Tankfuls))
	for i := 1; i <= count; i++ {
		tanks := i * len(l.Tankfuls) / count
		stands = append(stands, Stand{tanks, fuel.Learn(l.First, l.Tankfuls[:tanks]).Model})
	}
	return stands
}

// Range is how far the fuel goes, leg by leg.
type Range struct {
	Tank     fuel.Tank
	Legs     []Leg      // in order; one for the brief's gap when there is no route; none when nothing is known
	Deciding int        // which of them has the least to spare
	Leader   *plan.Mate // whose range is smaller than this bike's

	Km, MidKm float64 // before the reserve on the leg that decides, low end and middle
	GapKm     float64 // how long that leg is
}

// Decides is the leg with the least to spare; ok is false where there is none.
func (r Range) Decides() (leg Leg, ok bool) {
	if len(r.Legs) == 0 {
		return Leg{}, false
	}
	return r.Legs[r.Deciding], true
}

// Joined is a leg and the next as one, with the pump between them shut; ok is false
// where there is none. Their spreads are summed, as if the thirst of both had one
// cause.
func (r Range) Joined(i int) (joined Leg, ok bool) {
	if i+1 >= len(r.Legs) || r.Legs[i].Ends == nil {
		return Leg{}, false
	}
	a, b := r.Legs[i], r.Legs[i+1]
	return Leg{From: a.From, To: b.To, FromKm: a.FromKm, ToKm: b.ToKm, Ends: b.Ends, UpM: a.UpM + b.UpM, Leg: r.Tank.Cover(a.Km+b.Km, a.NeedL+b.NeedL, a.SpreadL+b.SpreadL)}, true
}

// Leg is the way from one stop to the next.
type Leg struct {
	From, To     string
	FromKm, ToKm float64    // along the route
	Ends         *plan.Stop // the pump at its end, nil at the end of the route
	Shut         []*plan.Stop
	UpM          float64
	Mix          terrain.Mix
	StillL       float64 // of the need, in still air
	fuel.Leg
}

// OnlyIntoWind reports whether a leg that is thirsty reaches in still air.
func (l Leg) OnlyIntoWind() bool { return l.LowL < 0 && l.LowL+l.NeedL-l.StillL >= 0 }

// Short reports whether the fuel before the reserve does not reach at the middle of
// the band; Thirsty whether it does not at its low end.
func (l Leg) Short() bool   { return l.MarginL < 0 }
func (l Leg) Thirsty() bool { return l.LowL < 0 }
