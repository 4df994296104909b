package load

import "math"

// Place names where on a bike a load sits when nobody has measured it.
type Place string

// The places. Each is a share of the wheelbase forward of the rear axle, and of
// the seat height above ground [memory: first guesses, good to about a tenth].
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

// Where a rider sits or stands beside the usual spot. They are nowhere to put a load.
const (
	RiderForward  Place = "rider-forward"
	RiderBack     Place = "rider-back"
	RiderStanding Place = "rider-standing"
)

// sits are those spots [memory]: a hand's width either way on the seat, and on the pegs.
var sits = []Spot{
	{RiderForward, "Rider, forward", 0.43, 1.25},
	{RiderBack, "Rider, back", 0.32, 1.25},
	{RiderStanding, "Rider, standing", 0.43, 1.5},
}

// Spot is a place with its name and default position.
type Spot struct {
	Place Place
	Name  string
	Share float64 // of the wheelbase, forward of the rear axle
	// Height is the share of the seat height at which it sits above ground.
	Height float64
}

var spots = []Spot{
	{FrontWheel, "Front wheel", 1, 0.38},
	{FrontRack, "In front of the bars", 0.95, 1.15},
	{TankBag, "On the tank", 0.58, 1.25},
	{Tank, "In the tank", 0.56, 1},
	{Engine, "Engine, skid plate", 0.55, 0.5},
	{Rider, "Rider", 0.38, 1.25},
	{Pillion, "Pillion seat", 0.1, 1.3},
	{Panniers, "Side bags", -0.02, 0.85},
	{Tail, "Behind the seat", -0.12, 1.1},
	{TopBox, "Top box", -0.25, 1.3},
	{RearWheel, "Rear wheel", 0, 0.37},
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

// ZMM is a place's default height above ground for a seat height, mm; NaN for a
// place that there is not.
func (p Place) ZMM(seatHeightMM float64) float64 {
	spot, ok := SpotOf(p)
	if !ok {
		return math.NaN()
	}
	return spot.Height * seatHeightMM
}

// SpotOf finds a place.
func SpotOf(p Place) (Spot, bool) {
	for _, list := range [...][]Spot{spots, sits} {
		for _, s := range list {
			if s.Place == p {
				return s, true
			}
		}
	}
	return Spot{}, false
}
