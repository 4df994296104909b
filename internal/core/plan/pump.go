package plan

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/track"
)

// NearKm is how far along the route two pumps, or one and an end, are one.
const NearKm = 1.0

// besideKm is how far off the route there is no detour yet.
const besideKm = 0.5

// again marks the name of a pump that the route has passed before.
const again = ", again"

// AddPump puts a pump where the route passes it, each time, in the route's order; false
// where it never does within so many km. Where a pump stands already it is the same one.
func (r *Route) AddPump(place geo.Point, pump Stop, withinKm float64) bool {
	passes := track.Passes(r.Nodes, place, besideKm)
	if len(passes) == 0 || passes[0].OffKm > withinKm {
		return false
	}
	for i, by := range passes {
		if slices.ContainsFunc(r.Stops, func(s Stop) bool { return math.Abs(s.At.In("km")-by.AtKm) < NearKm }) {
			continue
		}
		s := pump
		s.ID, s.At = r.freeStop(), Km(by.AtKm)
		if by.OffKm > besideKm && !s.Detour.Known() {
			s.Detour = Km(by.OffKm)
		}
		if i > 0 {
			s.Name += again
		}
		r.Stops = append(r.Stops, s)
	}
	slices.SortStableFunc(r.Stops, func(a, b Stop) int { return cmp.Compare(a.At.In("km"), b.At.In("km")) })
	return true
}

// KeepPumps gives a part of a route the pumps of the route that it was part of, as far as
// it passes them.
func (r *Route) KeepPumps(whole *Route) {
	for _, pump := range whole.Stops {
		pump.Name = strings.TrimSuffix(pump.Name, again)
		r.AddPump(track.At(whole.Nodes, pump.At.In("km")).Point(), pump, besideKm)
	}
}

func (r *Route) freeStop() string {
	for n := len(r.Stops) + 1; ; n++ {
		id := "stop-" + strconv.Itoa(n)
		if !slices.ContainsFunc(r.Stops, func(s Stop) bool { return s.ID == id }) {
			return id
		}
	}
}
