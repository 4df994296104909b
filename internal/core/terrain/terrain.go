// Package terrain is the ground a trip runs over: eight kinds, as shares of its
// distance. It holds only the properties that a computation uses.
package terrain

import "math"

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
	Rolling  float64 // resistance, as a share of the weight
	Friction float64 // of a tyre that suits it
	Abrasion float64 // tread worn against a motorway's
	Puncture float64 // hazard, 0 to 5
	RoomMM   float64 // wanted under the engine with the rider on
	Slip     float64 // of the driven wheel, a share of the way: 0.02 on tarmac
	Brakings float64 // per km, each from the travelling speed down to SlowTo of it
	Lively   float64 // how far above its lowest clean speed the engine is kept
}

// SlowTo is the share of the travelling speed that a bend, a rut or a junction
// leaves [memory].
const SlowTo = 0.4

var grounds = [...]Ground{
	{Motorway, "Motorway", 110, 0.018, 0.8, 1.0, 0, 90, 0.02, 0.05, 1.3},
	{Paved, "Paved road", 75, 0.018, 0.8, 1.1, 0, 90, 0.02, 0.7, 1.4},
	{SmoothGravel, "Smooth gravel", 55, 0.025, 0.5, 1.3, 1, 120, 0.05, 1.8, 1.45},
	{RoughGravel, "Rough gravel, rock", 35, 0.05, 0.45, 1.6, 4, 170, 0.08, 8, 1.5},
	{Track, "Forest, field track", 30, 0.06, 0.45, 1.1, 2, 160, 0.08, 10, 1.5},
	{Mud, "Mud, clay", 20, 0.10, 0.25, 0.8, 1, 170, 0.15, 12, 1.5},
	{Sand, "Deep sand", 30, 0.15, 0.3, 0.9, 1, 150, 0.2, 5, 1.5},
	{SingleTrack, "Single track", 15, 0.07, 0.4, 1.2, 3, 190, 0.15, 25, 1.5},
}

// Count is how many kinds there are; tables by kind are arrays of as many.
const Count = len(grounds)

// Grounds lists the kinds in their order.
func Grounds() []Ground { return grounds[:] }

// Of finds a kind's ground.
func Of(k Kind) (Ground, bool) {
	if i := Index(k); i >= 0 {
		return grounds[i], true
	}
	return Ground{}, false
}

// Index of a kind in Grounds, -1 for one that there is not.
func Index(k Kind) int {
	for i := range grounds {
		if grounds[i].Kind == k {
			return i
		}
	}
	return -1
}

// IsRoad reports whether a kind is motorway or paved road.
func (k Kind) IsRoad() bool { return k == Motorway || k == Paved }

// A Mix is the share of the distance on each kind, 0 to 1. The zero Mix is one that
// nobody has said: its shares and all that follows from them are NaN, so that a
// brief without ground is neither all road nor all off it.
type Mix struct {
	said  bool
	share [Count]float64
}

// MixOf is a mix of shares; a kind that is not named has none.
func MixOf(shares map[Kind]float64) Mix {
	m := Mix{said: true}
	for k, share := range shares {
		m.Add(k, share)
	}
	return m
}

// Only is a mix of one kind.
func Only(k Kind) Mix {
	var m Mix
	m.Add(k, 1)
	return m
}

// Add gives a kind a larger share. A kind that there is not has no room in a mix.
func (m *Mix) Add(k Kind, share float64) {
	m.said = true
	if i := Index(k); i >= 0 {
		m.share[i] += share
	}
}

// Within is the mix of lengths as shares of a whole.
func (m Mix) Within(whole float64) Mix {
	for i := range m.share {
		m.share[i] /= whole
	}
	return m
}

// Said reports whether anybody has said.
func (m Mix) Said() bool { return m.said }

// Or is the mix, or another where nobody has said.
func (m Mix) Or(other Mix) Mix {
	if m.said {
		return m
	}
	return other
}

// Of is the share of a kind.
func (m Mix) Of(k Kind) float64 {
	if i := Index(k); i >= 0 {
		return m.At(i)
	}
	return math.NaN()
}

// At is the share of the kind at a place in Grounds.
func (m Mix) At(i int) float64 {
	if !m.said {
		return math.NaN()
	}
	return m.share[i]
}

// Sum of the shares; a whole trip is 1.
func (m Mix) Sum() float64 { return m.over(func(Ground) float64 { return 1 }) }

// Road is the share on motorway and paved road.
func (m Mix) Road() float64 { return m.Of(Motorway) + m.Of(Paved) }

// Loose is the share of everything else.
func (m Mix) Loose() float64 { return 1 - m.Road() }

// Abrasion is the tread worn per km over the mix against a motorway's.
func (m Mix) Abrasion() float64 { return m.over(func(g Ground) float64 { return g.Abrasion }) }

// Hours to ride the distance in km at each ground's typical speed.
func (m Mix) Hours(distanceKm float64) float64 {
	return m.over(func(g Ground) float64 { return distanceKm / g.SpeedKmh })
}

// RoadHours is the part of them on motorway and paved road.
func (m Mix) RoadHours(distanceKm float64) float64 {
	return m.over(func(g Ground) float64 {
		if !g.Kind.IsRoad() {
			return 0
		}
		return distanceKm / g.SpeedKmh
	})
}

// over sums a property of the grounds by their shares, in order, so that rounding
// is the same each time.
func (m Mix) over(property func(Ground) float64) float64 {
	sum := 0.0
	for i := range grounds {
		sum += m.At(i) * property(grounds[i])
	}
	return sum
}

// A Surface is a group of grounds that a tyre is pumped up alike for.
type Surface struct {
	ID    string
	Name  string
	Kinds []Kind
}

var surfaces = []Surface{
	{"road", "Road", []Kind{Motorway, Paved}},
	{"gravel", "Gravel, track", []Kind{SmoothGravel, Track}},
	{"rock", "Rock, single track", []Kind{RoughGravel, SingleTrack}},
	{"soft", "Sand, mud", []Kind{Sand, Mud}},
}

// Surfaces lists them, the road first.
func Surfaces() []Surface { return surfaces }

// SurfaceOf finds a surface.
func SurfaceOf(id string) (Surface, bool) {
	for _, s := range surfaces {
		if s.ID == id {
			return s, true
		}
	}
	return Surface{}, false
}

// Share of a mix that is on the surface.
func (s Surface) Share(m Mix) float64 {
	sum := 0.0
	for _, k := range s.Kinds {
		sum += m.Of(k)
	}
	return sum
}

// FastestKmh is the typical speed on the fastest of its grounds.
func (s Surface) FastestKmh() float64 { return s.most(func(g Ground) float64 { return g.SpeedKmh }) }

// Puncture is the worst hazard of its grounds.
func (s Surface) Puncture() float64 { return s.most(func(g Ground) float64 { return g.Puncture }) }

func (s Surface) most(of func(Ground) float64) float64 {
	most := 0.0
	for _, k := range s.Kinds {
		g, _ := Of(k)
		most = max(most, of(g))
	}
	return most
}
