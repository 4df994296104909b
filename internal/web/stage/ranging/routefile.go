package ranging

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/track"
	"valiantmule/internal/format"
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
	part, err := desk.NextFile(body, "file")
	if errors.Is(err, http.ErrMissingFile) {
		return refuseRoute(s, w, r, "Choose a GPX file first.")
	}
	if err != nil {
		return err
	}
	file, err := gpx.Read(part)
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &tooLarge):
		return refuseRoute(s, w, r, fmt.Sprintf("%s is larger than the %d MB that are taken here.", part.FileName(), gpx.MaxBytes>>20))
	case err != nil:
		return refuseRoute(s, w, r, fmt.Sprintf("%s was not taken, and nothing was changed. %v.", part.FileName(), err))
	}
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	var left leftOut
	switch {
	case len(file.Ways()) > 0:
		left, err = takeRoute(s, r, d, file)
	case len(file.Waypoints) == 0:
		return refuseRoute(s, w, r, part.FileName()+" has neither a track nor a route in it; nothing was changed.")
	case d.Plan.Route == nil:
		return refuseRoute(s, w, r, part.FileName()+" has marked places only, neither a track nor a route. Bring a way in first: then its pumps join it.")
	default:
		left, err = takePumps(s, r, d, file.Waypoints)
	}
	if ofTheFile(err) {
		return refuseRoute(s, w, r, fmt.Sprintf("%s was not taken, and nothing was changed: %v.", part.FileName(), err))
	}
	if err != nil {
		return err
	}
	return desk.SeeOther(w, r, d.Href("route", left.query()...))
}

// ofTheFile tells whether it is the file that an error is about, or how much a rider may keep;
// others are the database's.
func ofTheFile(err error) bool {
	var problem entry.Problem
	return errors.Is(err, errPlace) || errors.Is(err, errNoPumps) || errors.Is(err, store.ErrQuota) || errors.As(err, &problem)
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

var (
	errPlace   = errors.New("its points are all at one place")
	errNoPumps = errors.New("none of its marked places looks like a pump near the route that is not there already; a pump is known by a word such as fuel in its name, kind or note")
)

// leftOut counts what of a file was not taken.
type leftOut struct {
	Routes int // beside the tracks
	Far    int // pumps off the way
	Marks  int // that are no pumps
	Many   int // pumps beyond what a route holds
}

// leavings are the counts with their names in an address and their words.
var leavings = []struct {
	name, words string
	of          func(leftOut) int
}{
	{"left-routes", "routes beside its tracks", func(l leftOut) int { return l.Routes }},
	{"left-far", fmt.Sprintf("pumps more than {%g km} off the way", farKm), func(l leftOut) int { return l.Far }},
	{"left-marks", "marked places that do not look like pumps", func(l leftOut) int { return l.Marks }},
	{"left-many", fmt.Sprintf("pumps beyond the %d that a route holds", mostPumps), func(l leftOut) int { return l.Many }},
}

func (l leftOut) query() (query []string) {
	for _, k := range leavings {
		if n := k.of(l); n > 0 {
			query = append(query, k.name, strconv.Itoa(n))
		}
	}
	return query
}

// leftWords says what the file that has just come had more than was taken.
func leftWords(d *desk.Desk, query url.Values) []string {
	var says []string
	for _, k := range leavings {
		if n, err := strconv.Atoi(query.Get(k.name)); err == nil && n > 0 {
			says = append(says, fmt.Sprintf("%s, %d", d.Units.Text(study.Text(k.words)), n))
		}
	}
	return says
}

// takeRoute keeps the file's track and puts the route that it makes on the plan's
// head: a file that took a while to come must not be lost to a change meanwhile.
func takeRoute(s *desk.House, r *http.Request, d *desk.Desk, file gpx.File) (left leftOut, err error) {
	ways := file.Ways()
	route, err := routeFrom(ways)
	if err != nil {
		return left, err
	}
	left = addPumps(route, file.Waypoints)
	if len(file.Tracks) > 0 {
		left.Routes = len(file.Routes)
	}
	route.Parts = partNames(ways)
	if err := sound(route); err != nil {
		return left, err
	}
	if route.Track, err = s.Store.KeepTrack(r.Context(), s.Rider(r), ways); err != nil {
		return left, err
	}
	return left, putRoute(s, r.Context(), s.Rider(r), d.ID, route, fmt.Sprintf("Route: %s, %.0f km, %d pumps", route.Name, route.LengthKm(), len(route.Stops)))
}

// takePumps adds the pumps of a file without a way to the route that is there.
func takePumps(s *desk.House, r *http.Request, d *desk.Desk, marks []track.Waypoint) (left leftOut, err error) {
	route := *d.Plan.Route
	route.Stops = slices.Clone(route.Stops)
	left = addPumps(&route, marks)
	more := len(route.Stops) - len(d.Plan.Route.Stops)
	if more == 0 {
		return left, errNoPumps
	}
	if err := sound(&route); err != nil {
		return left, err
	}
	return left, putRoute(s, r.Context(), s.Rider(r), d.ID, &route, fmt.Sprintf("Route: pumps added, %d", more))
}

func putRoute(s *desk.House, ctx context.Context, rider, planID string, route *plan.Route, summary string) error {
	return s.Store.Amend(ctx, rider, planID, rand.Text(), func(p *plan.Plan) (*plan.Plan, string) {
		changed := *p
		changed.Route = route
		return &changed, summary
	})
}

// routeFrom makes a route of ways, without a pump.
func routeFrom(ways []track.Part) (*plan.Route, error) {
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
	return route, nil
}

// sound is what is wrong with a route by itself.
func sound(route *plan.Route) error {
	p := plan.New("x", "EUR")
	p.Route = route
	for _, problem := range p.Validate() {
		return problem
	}
	return nil
}

// pumpWords are how files call places with fuel.
var pumpWords = regexp.MustCompile(`(?i)\b(fuel|petrol|gas|gasoline|pump|pumps|filling|service station|benzin|tanken|tankstelle|essence|gasolinera|bensin)\b`)

// addPumps gives the route those marked places near it that look like pumps, as often as
// it passes them. Nobody has said how far they can be counted on.
func addPumps(route *plan.Route, marks []track.Waypoint) (left leftOut) {
	for _, m := range marks {
		if !pumpWords.MatchString(m.Kind) && !pumpWords.MatchString(m.Name) && !pumpWords.MatchString(m.Note) {
			left.Marks++
			continue
		}
		stop := plan.Stop{Name: m.Name, Certainty: plan.Unsure, Note: m.Note}
		if stop.Name == "" {
			stop.Name = "Pump"
		}
		if !route.AddPump(m.Point.Point, stop, farKm) {
			left.Far++
		}
	}
	left.Many = max(0, len(route.Stops)-mostPumps)
	route.Stops = route.Stops[:min(len(route.Stops), mostPumps)]
	return left
}

const (
	farKm     = 25.0 // off the way, from which a pump is not on it
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
	route, err := routeFrom(ways)
	if err != nil {
		return err
	}
	route.Track, route.Parts = d.Plan.Route.Track, partNames(parts)
	route.KeepPumps(d.Plan.Route)
	if err := putRoute(s, r.Context(), s.Rider(r), d.ID, route, "Route: "+route.Name); err != nil {
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
	if err := putRoute(s, r.Context(), s.Rider(r), d.ID, nil, "Route taken out: "+d.Plan.Route.Name); err != nil {
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
	desk.Attach(w, "application/gpx+xml", format.FileName(route.Name, ".gpx"))
	return gpx.Write(w, legsFile(route, parts))
}

// legsFile cuts a route at the pumps that are open.
func legsFile(route *plan.Route, parts []track.Part) gpx.File {
	way := track.Measure(track.Join(parts).Points)
	if len(way.Points) < 2 || math.Abs(way.LengthKm()-route.LengthKm()) > 0.01 { // another part, or none kept
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
		if way.Km[to]-way.Km[from] >= plan.NearKm {
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
