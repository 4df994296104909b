package ranging

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"math"
	"net/http"
	"regexp"
	"slices"
	"strconv"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/track"
	"valiantmule/internal/format/gpx"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// importRoute reads a GPX file while it comes in, keeps its track and makes it the
// plan's route.
func importRoute(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	body, err := r.MultipartReader()
	if err != nil {
		return refuseRoute(s, w, r, "Choose a GPX file first.")
	}
	for {
		part, err := body.NextPart()
		if errors.Is(err, io.EOF) {
			return refuseRoute(s, w, r, "Choose a GPX file first.")
		}
		if err != nil {
			return err
		}
		if part.FormName() != "file" || part.FileName() == "" {
			continue
		}
		file, err := gpx.Read(part)
		var tooLarge *http.MaxBytesError
		switch {
		case errors.As(err, &tooLarge):
			return refuseRoute(s, w, r, fmt.Sprintf("%s is larger than the %d MB that are taken here.", part.FileName(), gpx.MaxBytes>>20))
		case err != nil:
			return refuseRoute(s, w, r, fmt.Sprintf("%s was not taken, and nothing was changed. %v.", part.FileName(), err))
		case len(file.Ways()) == 0:
			return refuseRoute(s, w, r, part.FileName()+" has neither a track nor a route in it; nothing was changed.")
		}
		if err := takeRoute(s, r, file); err != nil {
			return refuseRoute(s, w, r, fmt.Sprintf("%s was not taken, and nothing was changed: %v.", part.FileName(), err))
		}
		d, err := s.Open(r)
		if err != nil {
			return err
		}
		return desk.SeeOther(w, r, d.Href("route"))
	}
}

// refuseRoute shows the page again with why the file was not taken.
func refuseRoute(s *desk.House, w http.ResponseWriter, r *http.Request, why string) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	view := routeOf(d, nil, nil)
	view.ImportError = why
	return s.ShowPage(w, r, http.StatusUnprocessableEntity, d, "route", nil, view)
}

// partNames are the names of the parts of a track that has several.
func partNames(parts []track.Part) []string {
	if len(parts) < 2 {
		return nil
	}
	var names []string
	for i, p := range parts[:min(len(parts), mostParts)] {
		name := p.Name
		if len(name) > 80 || name == "" {
			name = fmt.Sprintf("Part %d", i+1)
		}
		names = append(names, name)
	}
	return names
}

var errPlace = errors.New("its points are all at one place")

// takeRoute keeps the file's track and puts the route that it makes on the plan's
// head: a file that took a while to come must not be lost to a change meanwhile.
func takeRoute(s *desk.House, r *http.Request, file gpx.File) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	ways := file.Ways()
	route, err := routeFrom(ways, file.Waypoints)
	if err != nil {
		return err
	}
	route.Parts = partNames(ways)
	if route.Track, err = s.Store.KeepTrack(r.Context(), s.Rider(r), ways); err != nil {
		return err
	}
	return putRoute(s, r.Context(), s.Rider(r), d.PlanID, route, fmt.Sprintf("Route: %s, %.0f km, %d pumps", route.Name, route.LengthKm(), len(route.Stops)))
}

func putRoute(s *desk.House, ctx context.Context, rider, planID string, route *plan.Route, summary string) error {
	return s.Store.Amend(ctx, rider, planID, rand.Text(), func(p *plan.Plan) (*plan.Plan, string) {
		changed := *p
		changed.Route = route
		return &changed, summary
	})
}

// routeFrom makes a route of ways and of the marked places that look like pumps.
func routeFrom(ways []track.Part, marks []track.Waypoint) (*plan.Route, error) {
	whole := track.Join(ways)
	measured := track.Measure(whole.Points)
	route := &plan.Route{Name: ways[0].Name, Level: measured.Level, Nodes: measured.Reduce(plan.UsualNodes)}
	if route.Name == "" {
		route.Name = "Route"
	}
	if len(ways) > 1 {
		route.Name = fmt.Sprintf("%s and %d more", route.Name, len(ways)-1)
	}
	if len(route.Nodes) < 2 || route.LengthKm() == 0 {
		return nil, errPlace
	}
	route.Stops = pumpsAmong(marks, route)
	for _, problem := range (&plan.Plan{Format: plan.Format, Version: plan.Version, Name: "x", Currency: "EUR", Loadouts: plan.New("x", "EUR").Loadouts, Route: route}).Validate() {
		return nil, problem
	}
	return route, nil
}

// pumpWords are how files call places with fuel.
var pumpWords = regexp.MustCompile(`(?i)\b(fuel|petrol|gas|gasoline|pump|pumps|filling|service station|benzin|tanken|tankstelle|essence|gasolinera|bensin)\b`)

// pumpsAmong are the marked places near the way that look like pumps, in its order.
// Nobody has said how far they can be counted on.
func pumpsAmong(marks []track.Waypoint, route *plan.Route) []plan.Stop {
	var stops []plan.Stop
	for _, m := range marks {
		if !pumpWords.MatchString(m.Kind) && !pumpWords.MatchString(m.Name) && !pumpWords.MatchString(m.Note) {
			continue
		}
		at, off := track.Snap(route.Nodes, m.Point.Point)
		if off > farKm {
			continue
		}
		s := plan.Stop{Name: m.Name, At: plan.Km(at), Certainty: plan.Unsure, Note: m.Note}
		if s.Name == "" {
			s.Name = "Pump"
		}
		if off > besideKm {
			s.Detour = plan.Km(off)
		}
		stops = append(stops, s)
	}
	slices.SortStableFunc(stops, func(a, b plan.Stop) int { return int(1000 * (a.At.In("km") - b.At.In("km"))) })
	stops = stops[:min(len(stops), mostPumps)]
	for i := range stops {
		stops[i].ID = "stop-" + strconv.Itoa(i+1)
	}
	return stops
}

const (
	farKm     = 25.0 // off the way, from which a pump is not on it
	nearKm    = 1.0  // within which two pumps, or one and the start or end, are one
	besideKm  = 0.5  // within which there is no detour
	mostPumps = 200
	mostParts = 100
)

// routePart makes one part of the kept track the route, or all of them together.
func routePart(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Route == nil {
		return store.ErrNotFound
	}
	parts, err := s.Store.Track(r.Context(), s.Rider(r), d.Plan.Route.Track)
	if err != nil {
		return err
	}
	at, err := strconv.Atoi(r.PostFormValue("part"))
	ways := parts
	if err == nil && at >= 0 && at < len(parts) {
		ways = parts[at : at+1]
	}
	route, err := routeFrom(ways, nil)
	if err != nil {
		return err
	}
	route.Track, route.Parts = d.Plan.Route.Track, partNames(parts)
	if err := putRoute(s, r.Context(), s.Rider(r), d.PlanID, route, "Route: "+route.Name); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("route"))
}

// dropRoute takes the route out of the plan; the gap of the brief counts again.
func dropRoute(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	if d.Plan.Route == nil {
		return store.ErrNotFound
	}
	if err := putRoute(s, r.Context(), s.Rider(r), d.PlanID, nil, "Route taken out: "+d.Plan.Route.Name); err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("route"))
}

// routeFile is the route as GPX: each leg a track, each pump a waypoint.
func routeFile(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	route := d.Plan.Route
	if route == nil {
		return store.ErrNotFound
	}
	parts, err := s.Store.Track(r.Context(), s.Rider(r), route.Track)
	if errors.Is(err, store.ErrNotFound) {
		parts, err = nil, nil // only the nodes are known
	}
	if err != nil {
		return err
	}
	desk.Attach(w, "application/gpx+xml", desk.FileName(route.Name, ".gpx"))
	return gpx.Write(w, legsFile(route, parts))
}

// legsFile cuts a route at the pumps that are open.
func legsFile(route *plan.Route, parts []track.Part) gpx.File {
	way := track.Measure(track.Join(parts).Points)
	if math.Abs(way.LengthKm()-route.LengthKm()) > 0.01 { // another part, or none kept
		way = track.Measured{}
		for _, n := range route.Nodes {
			p := track.Point{Point: n.Point(), EleM: n.EleM()}
			if route.Level {
				p.EleM = math.NaN()
			}
			way.Points, way.Km = append(way.Points, p), append(way.Km, n.Km())
		}
	}
	var file gpx.File
	from, name := 0, "start"
	cut := func(to int, next string) {
		if way.Km[to]-way.Km[from] >= nearKm {
			file.Tracks = append(file.Tracks, track.Part{Name: fmt.Sprintf("%d %s to %s", len(file.Tracks)+1, name, next), Segments: [][]track.Point{way.Points[from : to+1]}})
			from = to
		} else if n := len(file.Tracks); n > 0 { // a pump a few steps on belongs to the leg before
			file.Tracks[n-1].Segments = append(file.Tracks[n-1].Segments, way.Points[from:to+1])
			from = to
		}
		name = next
	}
	for _, s := range route.Stops {
		note := certainty(s)
		if s.Closed {
			note = "counted as shut; " + note
		}
		if s.Note != "" {
			note += ". " + s.Note
		}
		at := track.At(route.Nodes, s.At.In("km"))
		file.Waypoints = append(file.Waypoints, track.Waypoint{Point: track.Point{Point: at.Point(), EleM: at.EleM()}, Name: s.Name, Note: note, Kind: "Fuel"})
		if !s.Closed {
			cut(nearest(way.Km, s.At.In("km")), s.Name)
		}
	}
	cut(len(way.Points)-1, "end")
	return file
}

// nearest point of a way to a distance from its start.
func nearest(km []float64, at float64) int {
	i, _ := slices.BinarySearch(km, at)
	i = min(i, len(km)-1)
	if i > 0 && at-km[i-1] < km[i]-at {
		i--
	}
	return i
}
