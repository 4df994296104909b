package guess

import (
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/tyre"
)

// class is a column of the table.
type class int

// The columns, in the order of [plan.Classes].
const (
	lightTrial class = iota
	trailSingle
	dualSport
	rallySingle
	trailTwin
	roadTwin
	largeTwin
	shaftTourer
	roadster
	sportsBike
	smallRoad
	cruiser
	classes
)

var columnOf = map[plan.Class]class{
	plan.LightTrial: lightTrial, plan.TrailSingle: trailSingle, plan.DualSport: dualSport, plan.RallySingle: rallySingle,
	plan.TrailTwin: trailTwin, plan.RoadTwin: roadTwin, plan.LargeTwin: largeTwin, plan.ShaftTourer: shaftTourer,
	plan.Roadster: roadster, plan.SportsBike: sportsBike, plan.SmallRoadBike: smallRoad, plan.Cruiser: cruiser,
}

// single are the classes with one cylinder.
func (c class) single() bool {
	return c <= rallySingle || c == smallRoad
}

// classOf is what kind of bike it is; vague where nobody has said and it was told by what
// else is known, ok is false where that is nothing.
func classOf(b *plan.Bike) (c class, vague, ok bool) {
	if c, said := columnOf[b.Class]; said {
		return c, false, true
	}
	if b.Shaft() {
		return shaftTourer, true, true
	}
	if !b.Displacement.Known() {
		return 0, true, false
	}
	cc, front := b.Displacement.In("cc"), frontInches(b)
	switch {
	case cc <= 200 && front < 20:
		return smallRoad, true, true
	case b.Single() && front >= 20 && b.FrontTravel.In("mm") >= 280:
		return trailSingle, true, true
	case b.Single() && (front == 0 || front >= 20):
		return dualSport, true, true
	case cc >= 950 && (front == 0 || front > 18):
		return largeTwin, true, true
	case front >= 20:
		return trailTwin, true, true
	case front == 0 || front > 18:
		return roadTwin, true, true
	case b.Power.In("kW") > 0.11*cc:
		return sportsBike, true, true
	}
	return roadster, true, true
}

// frontInches is the front rim's diameter by rim or tyre, 0 where nobody knows.
func frontInches(b *plan.Bike) float64 {
	if b.FrontRimDiameter.Known() {
		return b.FrontRimDiameter.In("in")
	}
	if size := sizeIn(b, parts.FrontTyre); !size.IsZero() {
		return size.RimIn
	}
	return 0
}

// sizeIn is the size of a standard tyre, none where nobody knows.
func sizeIn(b *plan.Bike, s parts.Slot) tyre.Size {
	p := b.StandardIn(s)
	if p == nil {
		return tyre.Size{}
	}
	return parts.TyreCode.In(p).Size
}
