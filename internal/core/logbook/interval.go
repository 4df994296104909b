package logbook

import "math"

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
		if r.Fill().Missed {
			start, open = -1, nil
		}
		if start >= 0 {
			open = append(open, r)
		}
		if r.Fill().Partial {
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
		in.Litres += r.Fill().Litres.In("L")
		in.Spread = max(in.Spread, r.Fill().By.Spread())
		in.Km += r.Fill().Trip.In("km")
		trips = trips && r.Fill().Trip.Known()
	}
	if !trips {
		in.Km = in.Last().Fill().Odometer.In("km") - start.Fill().Odometer.In("km")
	}
	return in, in.Km > 0 && !math.IsNaN(in.Litres)
}
