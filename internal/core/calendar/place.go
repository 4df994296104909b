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
}

// places are in the order in which one walks around the bike.
var places = []PlaceRow{
	{FrontWheel, "Front wheel", "front wheel out", Spread{0.4, 0.6, 0.8}},
	{Fork, "Fork", "fork out", Spread{1, 1.2, 1.5}},
	{FrontFluid, "Front brake circuit", "front brake open", Spread{0.5, 0.6, 0.75}},
	{Bars, "Bars", "bars off", Spread{0.5, 0.7, 1}},
	{LampMask, "Lamp mask", "lamp mask off", Spread{0.2, 0.3, 0.4}},
	{Tank, "Tank", "tank off", Spread{0.3, 0.6, 1}},
	{Seat, "Seat", "seat off", Spread{0.1, 0.1, 0.1}},
	{Plate, "Skid plate", "plate off", Spread{0.15, 0.2, 0.3}},
	{Coolant, "Coolant", "coolant drained", Spread{0.5, 0.7, 1}},
	{Clutch, "Clutch cover", "clutch open", Spread{0.7, 0.9, 1.2}},
	{Exhaust, "Exhaust", "exhaust off", Spread{0.4, 0.6, 1}},
	{Chain, "Chain", "chain open", Spread{0.4, 0.5, 0.7}},
	{RearWheel, "Rear wheel", "rear wheel out", Spread{0.5, 0.7, 1}},
	{RearFluid, "Rear brake circuit", "rear brake open", Spread{0.5, 0.6, 0.75}},
	{Swingarm, "Swingarm, shock", "swingarm out", Spread{2, 2.4, 3}},
}

// Places lists them as one walks around the bike.
func Places() []PlaceRow { return places }

// PlaceOf finds a place, and where it stands among [Places].
func PlaceOf(p Place) (row PlaceRow, at int, ok bool) {
	for i := range places {
		if places[i].Place == p {
			return places[i], i, true
		}
	}
	return PlaceRow{}, -1, false
}
