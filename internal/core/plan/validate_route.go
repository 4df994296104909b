package plan

import (
	"fmt"
	"math"
	"regexp"
	"strings"

	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
	"valiantmule/internal/core/unit"
)

// Limits of a route and of a log, far above any real ones.
const (
	MaxNodes    = 500
	maxGrounds  = 500
	maxStops    = 200
	maxOthers   = 100 // reports, mates, parts of a track
	MaxReadings = 5000
	maxRouteKm  = 100_000.0
)

var address = regexp.MustCompile(`^[0-9a-f]{64}$`)

func (v *validator) route(r *Route) {
	if r == nil {
		return
	}
	v.name("route.name", r.Name)
	v.that(r.Track == "" || address.MatchString(r.Track), "route.track", "%q is not the address of a track", r.Track)
	v.few("route.parts", len(r.Parts), maxOthers)
	for i, name := range r.Parts {
		v.that(len(name) <= maxName, fmt.Sprintf("route.parts[%d]", i), "is longer than %d bytes", maxName)
	}
	v.that(len(r.Nodes) >= 2 && len(r.Nodes) <= MaxNodes, "route.nodes", "are %d, want 2–%d", len(r.Nodes), MaxNodes)
	last := track.Node{}
	for i, n := range r.Nodes {
		path := fmt.Sprintf("route.nodes[%d]", i)
		v.that(n.Point().Valid() && math.Abs(n.EleM()) <= 9000, path, "is no place on the ground")
		v.that(n.Km() >= last.Km() && n.UpM() >= last.UpM() && n.Km() <= maxRouteKm, path, "goes back: distance and climb only grow")
		last = n
	}
	length := r.LengthKm()
	v.that(len(r.Nodes) < 2 || length > 0, "route.nodes", "lead nowhere")
	v.few("route.ground", len(r.Ground), maxGrounds)
	end := 0.0
	for i, s := range r.Ground {
		path := fmt.Sprintf("route.ground[%d]", i)
		v.check(path, s.Check(length))
		v.that(s.From.In("km") >= end-1e-9, path+".from", "lies on the stretch before")
		end = s.To.In("km")
		_, known := terrain.Of(s.Ground)
		v.that(known, path+".ground", "%q is not a kind of ground", s.Ground)
	}
	v.few("route.stops", len(r.Stops), maxStops)
	seen := map[string]bool{}
	at := 0.0
	for i, s := range r.Stops {
		path := fmt.Sprintf("route.stops[%d]", i)
		v.that(slug.MatchString(s.ID) && !seen[s.ID], path+".id", "%q is not a short id of a–z, 0–9 and -, or there twice", s.ID)
		seen[s.ID] = true
		v.name(path+".name", s.Name)
		v.check(path, s.Check(length))
		v.that(s.At.In("km") >= at, path+".at", "lies before the stop before it")
		at = s.At.In("km")
		v.that(hasOption(Certainties(), string(s.Certainty)), path+".certainty", "%q is none of %s", s.Certainty, values(Certainties()))
		v.that(len(s.Open) <= maxName && len(s.Note) <= maxName, path, "opening or note is longer than %d bytes", maxName)
	}
}

// Check tells whether the stretch lies on a route of a length.
func (s GroundStretch) Check(lengthKm float64) error {
	from, to := s.From.In("km"), s.To.In("km")
	if !(from >= 0 && from < to && to <= lengthKm+0.05) {
		return fmt.Errorf("%s to %s is no stretch of the route: it goes from 0 to %.1f km", s.From, s.To, lengthKm)
	}
	return nil
}

// Check tells whether the stop lies on a route of a length.
func (s Stop) Check(lengthKm float64) error {
	if at := s.At.In("km"); !(at >= 0 && at <= lengthKm+0.05) {
		return fmt.Errorf("%s is not on the route: it goes from 0 to %.1f km", s.At, lengthKm)
	}
	if s.Detour.Known() && !(s.Detour.In("km") >= 0 && s.Detour.In("km") <= 200) {
		return fmt.Errorf("a detour of %s is outside 0–200 km", s.Detour)
	}
	return nil
}

func (v *validator) others(p *Plan) {
	v.few("group", len(p.Group), maxOthers)
	for i, m := range p.Group {
		path := fmt.Sprintf("group[%d]", i)
		v.name(path+".name", m.Name)
		v.check(path+".range", m.Check())
	}
	v.few("reports", len(p.Reports), maxOthers)
	for i, r := range p.Reports {
		path := fmt.Sprintf("reports[%d]", i)
		v.name(path+".who", r.Who)
		v.check(path+".uses", r.Check())
		v.that(len(r.Bike) <= maxName && len(r.Conditions) <= maxName, path, "bike or conditions are longer than %d bytes", maxName)
	}
}

// Check tells whether the mate's range is one that is believed.
func (m Mate) Check() error {
	if km := m.Range.In("km"); m.Range.Known() && !(km >= 10 && km <= 2000) {
		return fmt.Errorf("%s is outside 10–2000 km", m.Range)
	}
	return nil
}

// Check tells whether the consumption is one that is believed.
func (r Report) Check() error {
	if l := r.Uses.In("L/100 km"); r.Uses.Known() && !(l >= 1 && l <= 20) {
		return fmt.Errorf("%s is outside 1–20 L/100 km", r.Uses)
	}
	return nil
}

// ValidID reports whether an id is one that a client may make, of a reading, a save or an
// answer: 26 letters and digits of A–Z, 2–7, as crypto/rand.Text makes them.
func ValidID(id string) bool {
	return len(id) == 26 && strings.Trim(id, "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567") == ""
}

func (v *validator) readings(list []Reading) {
	v.few("readings", len(list), MaxReadings)
	seen := map[string]bool{}
	for i, r := range list {
		path := fmt.Sprintf("readings[%d]", i)
		v.that(ValidID(r.ID) && !seen[r.ID], path+".id", "%q is not 26 letters and digits of A–Z, 2–7, or there twice", r.ID)
		seen[r.ID] = true
		v.reading(path, r)
	}
}

// Validate lists what is wrong with a reading by itself.
func (r Reading) Validate() []Problem {
	v := &validator{}
	v.reading("reading", r)
	return v.problems
}

func (v *validator) reading(path string, r Reading) {
	v.that(r.On != "", path+".on", "is missing")
	v.date(path+".on", r.On)
	v.that(len(r.Note) <= maxName, path+".note", "is longer than %d bytes", maxName)
	switch r.Kind {
	case FillReading:
		v.that(slug.MatchString(r.Bike), path+".bike", "%q is not the id of a bike", r.Bike)
		if r.Fill == nil {
			v.that(false, path+".fill", "is missing")
			return
		}
		v.check(path+".fill", r.Fill.Check())
		v.that(hasOption(DistancesBy(), string(r.Fill.By)), path+".fill.by", "%q is none of %s", r.Fill.By, values(DistancesBy()))
		v.stretches(path+".fill.ground", r.Fill.Ground)
		v.that(len(r.Fill.As.Name) <= maxName, path+".fill.as.name", "is longer than %d bytes", maxName)
	case SagRead:
		v.that(slug.MatchString(r.Bike), path+".bike", "%q is not the id of a bike", r.Bike)
		if r.Sag == nil {
			v.that(false, path+".sag", "is missing")
			return
		}
		v.check(path+".sag", r.Sag.Check())
		v.that(len(r.Sag.Name) <= maxName, path+".sag.name", "is longer than %d bytes", maxName)
		for _, end := range []*SagEnd{&r.Sag.Front, &r.Sag.Rear} {
			for _, mass := range []unit.Mass{end.FreeSprung, end.Sprung} {
				v.that(!mass.Known() || mass.Base() > 0 && mass.Base() < 1000, path+".sag", "%s on one end's springs is outside 0–1000 kg", mass)
			}
			v.that(!end.Preload.Known() || end.Preload.In("mm") >= 0 && end.Preload.In("mm") <= 80, path+".sag", "a preload of %s is outside 0–80 mm", end.Preload)
			v.that(!end.Spring.Known() || end.Spring.In("N/mm") >= 2 && end.Spring.In("N/mm") <= 600, path+".sag", "a spring of %s is outside 2–600 N/mm", end.Spring)
		}
	case VoltsRead:
		v.that(slug.MatchString(r.Bike), path+".bike", "%q is not the id of a bike", r.Bike)
		if r.Volts == nil {
			v.that(false, path+".volts", "is missing")
			return
		}
		v.check(path+".volts", r.Volts.Check())
		for _, w := range []unit.Power{r.Volts.OwnW, r.Volts.AllOnW, r.Volts.RatedW} {
			v.that(!w.Known() || w.In("W") >= 0 && w.In("W") <= 5000, path+".volts", "%s is outside 0–5000 W", w)
		}
	case Weighed:
		v.that(slug.MatchString(r.Bike), path+".bike", "%q is not the id of a bike", r.Bike)
		if r.Weighing == nil {
			v.that(false, path+".weighing", "is missing")
			return
		}
		v.check(path+".weighing", r.Weighing.Check())
		v.that(len(r.Weighing.Name) <= maxName, path+".weighing.name", "is longer than %d bytes", maxName)
	case Revocation:
		v.that(ValidID(r.Of), path+".of", "%q is not the id of a reading", r.Of)
	default:
		v.that(false, path+".kind", "%q is not a kind of reading", r.Kind)
	}
}

func (v *validator) carrier(path string, slot Slot, c *Carrier) {
	v.that(hasOption(CarrierKinds(), string(c.Kind)), path+".kind", "%q is none of %s", c.Kind, values(CarrierKinds()))
	v.that((c.Kind == MainTank) == (slot == FuelTank), path+".kind", "%q does not belong into the slot %s", c.Kind, slot)
	v.that(!c.Holds.Known() || c.Holds.In("L") > 0 && c.Holds.In("L") <= 80, path+".holds", "want 0–80 L")
	v.that(!c.Unusable.Known() || c.Unusable.In("L") >= 0 && !(c.Unusable.In("L") >= c.Holds.In("L")), path+".unusable", "%s is not less than it holds", c.Unusable)
	v.that(!c.Wider.Known() || (c.Wider.In("mm") >= 0 && c.Wider.In("mm") <= 400), path+".wider", "%s is outside 0–400 mm", c.Wider)
}
