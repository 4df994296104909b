package plan

import (
	"fmt"
	"math"
	"regexp"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

// Limits of a route, far above any real one's.
const (
	MaxNodes   = 500
	maxGrounds = 500
	maxStops   = 200
	maxOthers  = 100 // reports, mates, parts of a track
	maxRouteKm = 100_000.0
)

var address = regexp.MustCompile(`^[0-9a-f]{64}$`)

func (r *Route) validate(v *entry.Problems) {
	if r == nil {
		return
	}
	v.Name("route.name", r.Name)
	v.That(r.Track == "" || address.MatchString(r.Track), "route.track", "%q is not the address of a track", r.Track)
	v.Few("route.parts", len(r.Parts), maxOthers)
	for i, name := range r.Parts {
		v.That(len(name) <= entry.MaxName, fmt.Sprintf("route.parts[%d]", i), "is longer than %d bytes", entry.MaxName)
	}
	v.That(len(r.Nodes) >= 2 && len(r.Nodes) <= MaxNodes, "route.nodes", "are %d, want 2–%d", len(r.Nodes), MaxNodes)
	last := track.Node{}
	for i, n := range r.Nodes {
		path := fmt.Sprintf("route.nodes[%d]", i)
		v.That(n.Point().Valid() && math.Abs(n.EleM()) <= 9000, path, "is no place on the ground")
		v.That(n.Km() >= last.Km() && n.UpM() >= last.UpM() && n.Km() <= maxRouteKm, path, "goes back: distance and climb only grow")
		last = n
	}
	length := r.LengthKm()
	v.That(len(r.Nodes) < 2 || length > 0, "route.nodes", "lead nowhere")
	v.Few("route.ground", len(r.Ground), maxGrounds)
	end := 0.0
	for i, s := range r.Ground {
		path := fmt.Sprintf("route.ground[%d]", i)
		v.Check(path, s.Check(length))
		v.That(s.From.In("km") >= end-1e-9, path+".from", "lies on the stretch before")
		end = s.To.In("km")
		_, known := terrain.Of(s.Ground)
		v.That(known, path+".ground", "%q is not a kind of ground", s.Ground)
	}
	v.Few("route.stops", len(r.Stops), maxStops)
	seen := map[string]bool{}
	at := 0.0
	for i, s := range r.Stops {
		path := fmt.Sprintf("route.stops[%d]", i)
		v.That(entry.IsSlug(s.ID) && !seen[s.ID], path+".id", "%q is not a short id of a–z, 0–9 and -, or there twice", s.ID)
		seen[s.ID] = true
		v.Name(path+".name", s.Name)
		v.Check(path, s.Check(length))
		v.That(s.At.In("km") >= at, path+".at", "lies before the stop before it")
		at = s.At.In("km")
		v.That(entry.Among(Certainties(), string(s.Certainty)), path+".certainty", "%q is none of %s", s.Certainty, entry.Values(Certainties()))
		v.That(len(s.Open) <= entry.MaxName && len(s.Note) <= entry.MaxName, path, "opening or note is longer than %d bytes", entry.MaxName)
	}
}

func (p *Plan) validateOthers(v *entry.Problems) {
	v.Few("group", len(p.Group), maxOthers)
	for i, m := range p.Group {
		path := fmt.Sprintf("group[%d]", i)
		v.Name(path+".name", m.Name)
		v.Check(path+".range", m.Check())
	}
	v.Few("reports", len(p.Reports), maxOthers)
	for i, r := range p.Reports {
		path := fmt.Sprintf("reports[%d]", i)
		v.Name(path+".who", r.Who)
		v.Check(path+".uses", r.Check())
		v.That(len(r.Bike) <= entry.MaxName && len(r.Conditions) <= entry.MaxName, path, "bike or conditions are longer than %d bytes", entry.MaxName)
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
