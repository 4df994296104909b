package load

import "math"

// Place names where on a bike a load sits when nobody has measured it.
type Place string

// The places. Each is a share of the wheelbase forward of the rear axle
// [memory: first guesses, good to about a tenth of the wheelbase].
const (
	FrontWheel Place = "front-wheel"
	FrontRack  Place = "front-rack"
	TankBag    Place = "tank-bag"
	Tank       Place = "tank"
	Engine     Place = "engine"
	Rider      Place = "rider"
	Pillion    Place = "pillion"
	Panniers   Place = "panniers"
	Tail       Place = "tail"
	TopBox     Place = "top-box"
	RearWheel  Place = "rear-wheel"
)

// Spot is a place with its name and default position.
type Spot struct {
	Place Place
	Name  string
	Share float64 // of the wheelbase, forward of the rear axle
}

var spots = []Spot{
	{FrontWheel, "Front wheel", 1},
	{FrontRack, "In front of the bars", 0.95},
	{TankBag, "On the tank", 0.58},
	{Tank, "In the tank", 0.56},
	{Engine, "Engine, skid plate", 0.55},
	{Rider, "Rider", 0.38},
	{Pillion, "Pillion seat", 0.1},
	{Panniers, "Side bags", -0.02},
	{Tail, "Behind the seat", -0.12},
	{TopBox, "Top box", -0.25},
	{RearWheel, "Rear wheel", 0},
}

// Spots lists the places from front to rear.
func Spots() []Spot { return spots }

// XMM is a place's default spot on a wheelbase, mm forward of the rear axle; NaN
// for a place that there is not.
func (p Place) XMM(wheelbaseMM float64) float64 {
	spot, ok := SpotOf(p)
	if !ok {
		return math.NaN()
	}
	return spot.Share * wheelbaseMM
}

// SpotOf finds a place.
func SpotOf(p Place) (Spot, bool) {
	for _, s := range spots {
		if s.Place == p {
			return s, true
		}
	}
	return Spot{}, false
}
