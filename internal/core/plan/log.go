package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"valiantmule/internal/core/unit"
)

// Reading is one thing that was read off the bike. Readings are only ever added:
// one that was wrong is revoked by another. They belong to a bike and are kept
// beside the plan's revisions, so that an undo leaves them alone.
type Reading struct {
	ID   string      `json:"id"` // made by whoever took it: sent twice, it is kept once
	Kind ReadingKind `json:"kind"`
	On   string      `json:"on"`   // date, 2026-09-12
	Bike string      `json:"bike"` // id of the bike that it was read off
	Note string      `json:"note,omitempty"`

	Fill     *Fill     `json:"fill,omitempty"`
	Weighing *Weighing `json:"weighing,omitempty"`
	Sag      *Sag      `json:"sag,omitempty"`
	Volts    *Volts    `json:"volts,omitempty"`

	Of string `json:"of,omitempty"` // id of the reading that is revoked
}

// ReadingKind is what was read.
type ReadingKind string

// The kinds of readings.
const (
	FillReading ReadingKind = "fill"
	Weighed     ReadingKind = "weighing"
	SagRead     ReadingKind = "sag"
	VoltsRead   ReadingKind = "volts"
	Revocation  ReadingKind = "revoked"
)

// Whole reports whether the reading has what its kind is of; one of no kind has not.
func (r *Reading) Whole() bool {
	switch r.Kind {
	case FillReading:
		return r.Fill != nil
	case Weighed:
		return r.Weighing != nil
	case SagRead:
		return r.Sag != nil
	case VoltsRead:
		return r.Volts != nil
	}
	return r.Kind == Revocation
}

// Fill is fuel that went in at a pump.
type Fill struct {
	Litres   unit.Volume `json:"litres"`
	Odometer unit.Length `json:"odometer,omitzero"` // what it showed
	Trip     unit.Length `json:"trip,omitzero"`     // since the fill before
	By       DistanceBy  `json:"by"`                // where the distance came from
	Partial  bool        `json:"partial,omitempty"` // not to the brim
	Missed   bool        `json:"missed,omitempty"`  // one before it was not written down
	Ground   []Stretch   `json:"ground,omitempty"`  // shares since the fill before; none is the brief's
	As       Ridden      `json:"as"`
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
func DistancesBy() []Option {
	return []Option{
		{string(ByGPS), "GPS"}, {string(ByTrip), "trip meter"}, {string(ByOdometer), "odometer"}, {string(ByMap), "map"}, {string(ByGuess), "a guess"},
	}
}

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

// Readings of a kind about the plan's bike that nobody has revoked, the oldest
// first.
func (p *Plan) ReadingsOf(kind ReadingKind) []Reading {
	if p.Bike == nil {
		return nil
	}
	revoked := map[string]bool{}
	for _, r := range p.Readings {
		if r.Kind == Revocation {
			revoked[r.Of] = true
		}
	}
	var list []Reading
	for _, r := range p.Readings {
		if r.Kind == kind && r.Bike == p.Bike.ID && !revoked[r.ID] {
			list = append(list, r)
		}
	}
	slices.SortStableFunc(list, earlier)
	return list
}

// earlier orders two readings by day, and two fills of one day by odometer where
// both have it.
func earlier(a, b Reading) int {
	if c := cmp.Compare(a.On, b.On); c != 0 || a.Fill == nil || b.Fill == nil || !a.Fill.Odometer.Known() || !b.Fill.Odometer.Known() {
		return c
	}
	return cmp.Compare(a.Fill.Odometer.Base(), b.Fill.Odometer.Base())
}

// Interval is what was burnt from one full tank to the next.
type Interval struct {
	Fills  []Reading // after the first full tank, up to the full one that ends it
	Litres float64
	Km     float64
	Spread float64 // of the distance, a share
}

// Last fill of the interval: the full one.
func (i Interval) Last() Reading { return i.Fills[len(i.Fills)-1] }

// Intervals puts fills, in order, together from full to full. Partial ones count
// with the full one that follows. After one that was not written down counting
// starts anew. Fills between which no distance is known make none.
func Intervals(fills []Reading) []Interval {
	var list []Interval
	var open []Reading
	start := -1 // the full fill that the open ones follow
	for i, r := range fills {
		if r.Fill.Missed {
			start, open = -1, nil
		}
		if start >= 0 {
			open = append(open, r)
		}
		if r.Fill.Partial {
			continue
		}
		if start >= 0 {
			if in, ok := intervalOf(fills[start], open); ok {
				list = append(list, in)
			}
		}
		start, open = i, nil
	}
	return list
}

func intervalOf(start Reading, fills []Reading) (Interval, bool) {
	in := Interval{Fills: fills}
	trips := true
	for _, r := range fills {
		in.Litres += r.Fill.Litres.In("L")
		in.Spread = max(in.Spread, r.Fill.By.Spread())
		in.Km += r.Fill.Trip.In("km")
		trips = trips && r.Fill.Trip.Known()
	}
	if !trips {
		in.Km = in.Last().Fill.Odometer.In("km") - start.Fill.Odometer.In("km")
	}
	return in, in.Km > 0 && !math.IsNaN(in.Litres)
}

// Check tells whether the fill is one that is believed; its errors are a [Problem] by
// the field's name.
func (f *Fill) Check() error {
	litres := f.Litres.In("L")
	switch {
	case !f.Litres.Known():
		return Problem{"litres", "how much went in?"}
	case !(litres > 0 && litres <= 100):
		return Problem{"litres", fmt.Sprintf("%s is outside 0–100 L", f.Litres)}
	case !f.Odometer.Known() && !f.Trip.Known() && f.Partial: // a full one starts counting anew
		return Problem{"odometer", "give the odometer, or the distance since the fill before"}
	case f.Odometer.Known() && !(f.Odometer.In("km") >= 0 && f.Odometer.In("km") <= 1e6):
		return Problem{"odometer", fmt.Sprintf("%s is outside 0–1 000 000 km", f.Odometer)}
	case f.Trip.Known() && !(f.Trip.In("km") > 0 && f.Trip.In("km") <= 3000):
		return Problem{"trip", fmt.Sprintf("%s is outside 0–3000 km", f.Trip)}
	}
	return nil
}
