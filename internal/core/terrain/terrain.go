// Package terrain is the ground a trip runs over: eight kinds, as shares of its
// distance. It holds only the properties that a computation uses.
package terrain

// A Kind is one of the eight kinds of ground.
type Kind string

// The kinds, from fast and hard to slow and loose.
const (
	Motorway     Kind = "motorway"
	Paved        Kind = "paved"
	SmoothGravel Kind = "smooth-gravel"
	RoughGravel  Kind = "rough-gravel"
	Track        Kind = "track"
	Mud          Kind = "mud"
	Sand         Kind = "sand"
	SingleTrack  Kind = "single-track"
)

// Ground is what a kind does to a bike. All values are starting values from
// memory of the trade; a rider may know better.
type Ground struct {
	Kind     Kind
	Name     string
	SpeedKmh float64 // typical travelling speed
	Abrasion float64 // tread worn against a motorway's
}

var grounds = []Ground{
	{Motorway, "Motorway", 110, 1.0},
	{Paved, "Paved road", 75, 1.1},
	{SmoothGravel, "Smooth gravel", 55, 1.3},
	{RoughGravel, "Rough gravel, rock", 35, 1.6},
	{Track, "Forest, field track", 30, 1.1},
	{Mud, "Mud, clay", 20, 0.8},
	{Sand, "Deep sand", 30, 0.9},
	{SingleTrack, "Single track", 15, 1.2},
}

// Grounds lists the kinds in their order.
func Grounds() []Ground { return grounds }

// Of finds a kind's ground.
func Of(k Kind) (Ground, bool) {
	for _, g := range grounds {
		if g.Kind == k {
			return g, true
		}
	}
	return Ground{}, false
}

// A Mix is the share of the distance on each kind, 0 to 1.
type Mix map[Kind]float64

// Sum of the shares; a whole trip is 1.
func (m Mix) Sum() float64 {
	sum := 0.0
	for _, g := range grounds { // in order, so that rounding is the same each time
		sum += m[g.Kind]
	}
	return sum
}

// Road is the share on motorway and paved road.
func (m Mix) Road() float64 { return m[Motorway] + m[Paved] }

// Abrasion is the tread worn per km over the mix against a motorway's.
func (m Mix) Abrasion() float64 {
	sum := 0.0
	for _, g := range grounds {
		sum += m[g.Kind] * g.Abrasion
	}
	return sum
}

// Hours to ride the distance in km at each ground's typical speed.
func (m Mix) Hours(distanceKm float64) float64 {
	hours := 0.0
	for _, g := range grounds {
		hours += distanceKm * m[g.Kind] / g.SpeedKmh
	}
	return hours
}
