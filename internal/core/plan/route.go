package plan

import (
	"cmp"
	"math"
	"slices"
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
	"valiantmule/internal/core/unit"
)

// Route is the way that the trip takes. The document holds the nodes that stand for
// it; the whole track is kept beside the plan under its address.
type Route struct {
	Name   string          `json:"name" is:"name"`
	Track  string          `json:"track,omitempty" is:"address"` // address of the whole track, "" when only the nodes are known
	Parts  []string        `json:"parts,omitempty"`              // names of the track's parts, where it has several
	Level  bool            `json:"level,omitempty"`              // the file had no heights
	Nodes  []track.Node    `json:"nodes"`
	Ground []GroundStretch `json:"ground,omitempty"` // in order, without overlap; what is between is the brief's mix
	Stops  []Stop          `json:"stops,omitempty"`  // in order
}

// GroundStretch is a stretch of the route on one kind of ground, counted from its
// start.
type GroundStretch struct {
	From   unit.Length  `json:"from"`
	To     unit.Length  `json:"to"`
	Ground terrain.Kind `json:"ground"`
}

// Stop is a place on the route where there may be fuel.
type Stop struct {
	ID        string      `json:"id" is:"id"`
	Name      string      `json:"name" is:"name"`
	At        unit.Length `json:"at"`              // from the start of the route
	Detour    unit.Length `json:"detour,omitzero"` // off the route, one way
	Certainty Certainty   `json:"certainty"`
	Open      string      `json:"open,omitempty"` // hours or season, in words
	Note      string      `json:"note,omitempty"`
	Closed    bool        `json:"closed,omitempty"` // taken out of the plan
}

// Certainty is how far a pump can be counted on.
type Certainty string

// How far pumps can be counted on.
const (
	Sure     Certainty = "sure"
	Hours    Certainty = "hours"
	Seasonal Certainty = "seasonal"
	Unsure   Certainty = "unsure"
)

// Certainties lists them, the surest first.
func Certainties() []entry.Option {
	return []entry.Option{entry.Opt(Sure, "sure"), entry.Opt(Hours, "opening hours"), entry.Opt(Seasonal, "by season"), entry.Opt(Unsure, "unsure")}
}

// LengthKm of the route.
func (r *Route) LengthKm() float64 {
	if len(r.Nodes) == 0 {
		return 0
	}
	return r.Nodes[len(r.Nodes)-1].Km()
}

// ClimbM over the whole route.
func (r *Route) ClimbM() float64 {
	if len(r.Nodes) == 0 {
		return 0
	}
	return r.Nodes[len(r.Nodes)-1].UpM()
}

// Open lists the stops that are counted on, in order.
func (r *Route) Open() []Stop {
	var open []Stop
	for _, s := range r.Stops {
		if !s.Closed {
			open = append(open, s)
		}
	}
	return open
}

// Shut lists the stops that are closed between two points of the route.
func (r *Route) Shut(fromKm, toKm float64) []*Stop {
	var shut []*Stop
	for i := range r.Stops {
		if at := r.Stops[i].At.In("km"); r.Stops[i].Closed && at > fromKm && at < toKm {
			shut = append(shut, &r.Stops[i])
		}
	}
	return shut
}

// Closing is a copy of the route with stops closed, or opened again where they are
// closed.
func (r *Route) Closing(ids ...string) *Route {
	changed := *r
	changed.Stops = slices.Clone(r.Stops)
	for i := range changed.Stops {
		if slices.Contains(ids, changed.Stops[i].ID) {
			changed.Stops[i].Closed = !changed.Stops[i].Closed
		}
	}
	return &changed
}

// Put is a copy of the route with stretches of ground laid over those there are, in
// the order given: a later one covers an earlier one. A stretch without a ground
// takes away what is there.
func (r *Route) Put(stretches ...GroundStretch) *Route {
	changed := *r
	changed.Ground = nil
	for _, s := range append(slices.Clone(r.Ground), stretches...) {
		changed.Ground = over(changed.Ground, s)
	}
	return &changed
}

// over lays one stretch over others and keeps them in order.
func over(list []GroundStretch, top GroundStretch) []GroundStretch {
	from, to := top.From.Base(), top.To.Base()
	var out []GroundStretch
	for _, s := range list {
		if s.To.Base() <= from || s.From.Base() >= to {
			out = append(out, s)
			continue
		}
		if before := s; s.From.Base() < from {
			before.To = top.From
			out = append(out, before)
		}
		if after := s; s.To.Base() > to {
			after.From = top.To
			out = append(out, after)
		}
	}
	if top.Ground != "" && from < to {
		out = append(out, top)
	}
	slices.SortFunc(out, func(a, b GroundStretch) int { return cmp.Compare(a.From.Base(), b.From.Base()) })
	return joined(out)
}

// joined makes one of stretches that touch and are of one ground.
func joined(list []GroundStretch) []GroundStretch {
	var out []GroundStretch
	for _, s := range list {
		if n := len(out); n > 0 && out[n-1].Ground == s.Ground && out[n-1].To.Base() == s.From.Base() {
			out[n-1].To = s.To
			continue
		}
		out = append(out, s)
	}
	return out
}

// GroundAt is the kind of ground at a distance from the start, "" where nobody has
// said.
func (r *Route) GroundAt(km float64) terrain.Kind {
	for _, s := range r.Ground {
		if s.From.In("km") <= km && km < s.To.In("km") {
			return s.Ground
		}
	}
	return ""
}

// Mix is the shares of the grounds that are known, over the whole route; what is
// not known is left out of the sum.
func (r *Route) Mix() terrain.Mix {
	mix := terrain.MixOf(nil)
	length := r.LengthKm()
	for _, s := range r.Ground {
		mix.Add(s.Ground, (min(length, s.To.In("km"))-s.From.In("km"))/length)
	}
	return mix
}

// Mate is another rider of the group: who has the smallest range leads.
type Mate struct {
	Name  string      `json:"name"`
	Range unit.Length `json:"range,omitzero"` // before reserve, as they say
}

// Report is what somebody else says their bike burns. It stands beside, and is
// never mixed into a figure.
type Report struct {
	Who        string           `json:"who"`
	Bike       string           `json:"bike,omitempty"` // and its version or year
	Uses       unit.Consumption `json:"uses,omitzero"`
	Conditions string           `json:"conditions,omitempty"`
	Own        bool             `json:"own_money,omitempty"` // they paid for it themselves
	Same       bool             `json:"same_bike,omitempty"` // the version is this one
}

// Weight of a report beside others: who paid for it themselves and rides the same
// version counts for more [memory].
func (r Report) Weight() float64 {
	w := 1.0
	if !r.Own {
		w *= 0.5
	}
	if !r.Same {
		w *= 0.4
	}
	return w
}

// Told is what reports come to, L/100 km: their weighed mean and how far they lie
// apart. ok is false where none gives a number.
func Told(reports []Report) (mean, low, high float64, ok bool) {
	sum, weight := 0.0, 0.0
	low, high = math.Inf(1), math.Inf(-1)
	for _, r := range reports {
		if r.Uses.Known() {
			uses := r.Uses.In("L/100 km")
			sum, weight = sum+r.Weight()*uses, weight+r.Weight()
			low, high = min(low, uses), max(high, uses)
		}
	}
	return sum / weight, low, high, weight > 0
}

// UsualNodes is how many nodes stand for a route.
const UsualNodes = 360

// Km is a length of so many km, to a hundred metres.
func Km(v float64) unit.Length {
	var q unit.Length
	_ = q.Enter(strconv.FormatFloat(max(0, v), 'f', 1, 64), "km") // a plain number
	return q
}
