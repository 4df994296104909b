package logbook

import (
	"fmt"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
)

// Fill is fuel that went in at a pump.
type Fill struct {
	Litres   unit.Volume       `json:"litres"`
	Odometer unit.Length       `json:"odometer,omitzero"` // what it showed
	Trip     unit.Length       `json:"trip,omitzero"`     // since the fill before
	By       DistanceBy        `json:"by"`                // where the distance came from
	Partial  bool              `json:"partial,omitempty"` // not to the brim
	Missed   bool              `json:"missed,omitempty"`  // one before it was not written down
	Ground   []terrain.Stretch `json:"ground,omitempty"`  // shares since the fill before; none is the brief's
	As       Ridden            `json:"as"`
}

// DistanceBy is where a distance came from.
type DistanceBy string

// Where distances come from.
const (
	ByOdometer DistanceBy = "odometer"
	ByTrip     DistanceBy = "trip-meter"
	ByGPS      DistanceBy = "gps"
	ByMap      DistanceBy = "map"
	ByGuess    DistanceBy = "guess"
)

// DistancesBy lists them.
func DistancesBy() []entry.Option {
	return []entry.Option{
		{Value: string(ByGPS), Name: "GPS"}, {Value: string(ByTrip), Name: "trip meter"}, {Value: string(ByOdometer), Name: "odometer"}, {Value: string(ByMap), Name: "map"}, {Value: string(ByGuess), Name: "a guess"},
	}
}

// OwnMeter reports whether the bike's own meter counted it: what is on its wheels and sprockets counts along.
func (d DistanceBy) OwnMeter() bool { return d == ByOdometer || d == ByTrip }

// Spread is one standard deviation of such a distance, a share of it [memory]. A
// wheel sensor lies after a tyre change, and when it fails.
func (d DistanceBy) Spread() float64 {
	switch d {
	case ByGPS:
		return 0.01
	case ByMap:
		return 0.05
	case ByGuess:
		return 0.1
	}
	return 0.03
}

// Ridden is the bike as it was ridden: a fill stays true when parts change later.
type Ridden struct {
	Name     string      `json:"name"`               // "as it came", or a loadout's
	Mass     unit.Mass   `json:"mass,omitzero"`      // with rider, loads and half the fuel
	DragArea unit.Area   `json:"drag_area,omitzero"` // with screen and bags
	Final    unit.Ratio  `json:"final,omitzero"`
	RollOut  unit.Length `json:"roll_out,omitzero"` // of the rear tyre
	TyreRoad unit.Ratio  `json:"tyre_road,omitzero"`
	Cruise   unit.Speed  `json:"cruise,omitzero"` // held on the fast ground
}

// Check tells whether the fill is one that is believed; its errors are a [Problem] by
// the field's name.
func (f *Fill) Check() error {
	litres := f.Litres.In("L")
	switch {
	case !f.Litres.Known():
		return entry.Problem{Path: "litres", What: "how much went in?"}
	case !(litres > 0 && litres <= 100):
		return entry.Problem{Path: "litres", What: fmt.Sprintf("%s is outside 0–100 L", f.Litres)}
	case !f.Odometer.Known() && !f.Trip.Known() && f.Partial: // a full one starts counting anew
		return entry.Problem{Path: "odometer", What: "give the odometer, or the distance since the fill before"}
	case f.Odometer.Known() && !(f.Odometer.In("km") >= 0 && f.Odometer.In("km") <= 1e6):
		return entry.Problem{Path: "odometer", What: fmt.Sprintf("%s is outside 0–1 000 000 km", f.Odometer)}
	case f.Trip.Known() && !(f.Trip.In("km") > 0 && f.Trip.In("km") <= 3000):
		return entry.Problem{Path: "trip", What: fmt.Sprintf("%s is outside 0–3000 km", f.Trip)}
	}
	return nil
}

// Validate notes what else is wrong with it.
func (f *Fill) Validate(v *entry.Problems, at string) {
	v.That(entry.Among(DistancesBy(), string(f.By)), at+".by", "%q is none of %s", f.By, entry.Values(DistancesBy()))
	terrain.Validate(v, at+".ground", f.Ground)
	v.Short(at+".as.name", f.As.Name)
}

// Words say what went in.
func (f *Fill) Words() string { return f.Litres.String() }

// Fill is what was filled, nil for another kind of reading.
func (r Reading) Fill() *Fill { return content[Fill](r) }
