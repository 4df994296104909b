package calendar

// Place is what is taken apart for work on a bike, or opened.
type Place string

// The places.
const (
	FrontWheel Place = "front-wheel"
	RearWheel  Place = "rear-wheel"
	Bars       Place = "bars"
	Tank       Place = "tank"
	Seat       Place = "seat"
	Plate      Place = "plate"
	Fork       Place = "fork"
	Swingarm   Place = "swingarm"
	FrontFluid Place = "front-fluid"
	RearFluid  Place = "rear-fluid"
	Coolant    Place = "coolant"
	Clutch     Place = "clutch-cover"
	Exhaust    Place = "exhaust"
	LampMask   Place = "lamp-mask"
	Chain      Place = "chain"
)

// PlaceRow is a place with the hours that it takes there and back.
type PlaceRow struct {
	Place Place
	Name  string
	Apart string // as it is said of the bike then
	Hours Spread // [memory]
	Must  bool   // nothing is done there without
}

// places are in the order in which one walks around the bike.
var places = []PlaceRow{
	{FrontWheel, "Front wheel", "front wheel out", Spread{0.4, 0.6, 0.8}, true},
	{Fork, "Fork", "fork out", Spread{1, 1.2, 1.5}, true},
	{FrontFluid, "Front brake circuit", "front brake open", Spread{0.5, 0.6, 0.75}, false},
	{Bars, "Bars", "bars off", Spread{0.5, 0.7, 1}, false},
	{LampMask, "Lamp mask", "lamp mask off", Spread{0.2, 0.3, 0.4}, false},
	{Tank, "Tank", "tank off", Spread{0.3, 0.6, 1}, false},
	{Seat, "Seat", "seat off", Spread{0.1, 0.1, 0.1}, false},
	{Plate, "Skid plate", "plate off", Spread{0.15, 0.2, 0.3}, false},
	{Coolant, "Coolant", "coolant drained", Spread{0.5, 0.7, 1}, false},
	{Clutch, "Clutch cover", "clutch open", Spread{0.7, 0.9, 1.2}, false},
	{Exhaust, "Exhaust", "exhaust off", Spread{0.4, 0.6, 1}, false},
	{Chain, "Chain", "chain open", Spread{0.4, 0.5, 0.7}, false},
	{RearWheel, "Rear wheel", "rear wheel out", Spread{0.5, 0.7, 1}, true},
	{RearFluid, "Rear brake circuit", "rear brake open", Spread{0.5, 0.6, 0.75}, false},
	{Swingarm, "Swingarm, shock", "swingarm out", Spread{2, 2.4, 3}, true},
}

// Places lists them as one walks around the bike.
func Places() []PlaceRow { return places }

var placeAt = func() map[Place]int {
	at := make(map[Place]int, len(places))
	for i := range places {
		at[places[i].Place] = i
	}
	return at
}()

// PlaceOf finds a place, and where it stands among [Places]; an empty row and −1 for none.
func PlaceOf(p Place) (row *PlaceRow, at int) {
	at, ok := placeAt[p]
	if !ok {
		return &PlaceRow{}, -1
	}
	return &places[at], at
}
