package demo

import (
	"math"
	"math/rand/v2"
	"slices"
	"strconv"
	"sync"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
	"valiantmule/internal/format"
)

// The demo's way leads over an island that there is not, in the open sea. It is
// made here, point by point, from a seed: with bends, hills, and the noise that a
// receiver's heights have.

// A bend is a place that the way passes, and how it goes on from there.
type bend struct {
	north, east float64 // degrees from the island's south-western corner
	heightM     float64
	ground      terrain.Kind // to the next
	hillsM      float64      // of the hills on the way there
	stop        *plan.Stop
}

var corner = geo.Point{Lat: -27.6, Lon: -18.9}

var island = []bend{
	{0.05, 0.10, 4, terrain.Paved, 30, &plan.Stop{Name: "Sallow Quay", Certainty: plan.Sure, Note: "Harbour pump, card day and night."}},
	{0.22, 0.42, 60, terrain.Motorway, 25, nil},
	{0.30, 0.80, 120, terrain.Paved, 60, &plan.Stop{Name: "Harrow Ford", Certainty: plan.Sure}},
	{0.46, 0.98, 240, terrain.SmoothGravel, 80, nil},
	{0.66, 1.10, 410, terrain.SmoothGravel, 90, &plan.Stop{Name: "Tansy Cross", Certainty: plan.Hours, Open: "Monday to Saturday, 8 to 18", Note: "In the shop; bring cash."}},
	{0.95, 1.02, 980, terrain.RoughGravel, 120, nil},
	{1.18, 0.82, 1520, terrain.Track, 140, nil},
	{1.34, 0.94, 1130, terrain.RoughGravel, 110, nil},
	{1.42, 1.18, 640, terrain.SmoothGravel, 60, &plan.Stop{Name: "Merrow Gap", Certainty: plan.Unsure, Note: "From drums, behind the smithy. Nobody answers the telephone."}},
	{1.50, 1.62, 210, terrain.Paved, 40, &plan.Stop{Name: "Brackwater", Certainty: plan.Sure, Open: "6 to 22"}},
	{1.24, 1.90, 90, terrain.SmoothGravel, 40, nil},
	{1.04, 2.02, 60, terrain.Sand, 8, nil},
	{0.97, 2.08, 75, terrain.SmoothGravel, 60, nil},
	{0.78, 1.98, 460, terrain.RoughGravel, 130, nil},
	{0.62, 1.78, 1240, terrain.Track, 120, nil},
	{0.48, 1.66, 720, terrain.SmoothGravel, 70, nil},
	{0.34, 1.50, 380, terrain.Paved, 40, &plan.Stop{Name: "Upper Thole", Certainty: plan.Seasonal, Open: "May to September"}},
	{0.12, 1.24, 130, terrain.Paved, 50, nil},
	{0.02, 0.92, 40, terrain.Paved, 50, &plan.Stop{Name: "Cold Lantern", Certainty: plan.Sure}},
	{0.01, 0.52, 35, terrain.Paved, 35, nil},
	{0.04, 0.13, 6, terrain.Paved, 0, &plan.Stop{Name: "Ferry Stair", Certainty: plan.Sure}},
}

// curves is how far a way on a ground swings from side to side, in its own steps.
var curves = map[terrain.Kind]float64{
	terrain.Motorway: 0.6, terrain.Paved: 1.2, terrain.SmoothGravel: 1.6, terrain.RoughGravel: 2.2, terrain.Track: 2.4, terrain.Sand: 0.8,
}

// Island is the demo's track with about so many metres between its points, and the
// marked places beside it.
func Island(stepM float64) (parts []track.Part, marks []track.Waypoint) {
	random := rand.New(rand.NewPCG(2026, 11))
	var points []track.Point
	drift := 0.0
	for i, from := range island {
		at := from.point()
		if from.stop != nil {
			marks = append(marks, track.Waypoint{Point: track.Point{Point: at, EleM: from.heightM}, Name: from.stop.Name, Note: from.stop.Note, Kind: "Fuel"})
		}
		if i+1 == len(island) {
			points = append(points, track.Point{Point: at, EleM: from.heightM})
			break
		}
		to := island[i+1]
		side, up := waves(random, 9), waves(random, 7)
		straight := geo.DistanceM(at, to.point())
		n := int(straight * 1.2 / stepM)
		for k := range n {
			t := float64(k) / float64(n)
			window := math.Sin(math.Pi * t)
			swing := curves[from.ground] / 100 * window * side(t, straight/9000)
			north, east := to.north-from.north, to.east-from.east
			length := math.Hypot(north, east)
			drift = 0.96*drift + 0.9*random.NormFloat64()
			height := from.heightM + t*(to.heightM-from.heightM) + from.hillsM*window*(1+up(t, straight/14000))
			points = append(points, track.Point{
				Point: geo.Point{
					Lat: corner.Lat + from.north + t*north + swing*east/length,
					Lon: corner.Lon + from.east + t*east - swing*north/length,
				},
				EleM: math.Round((height+drift+1.2*random.NormFloat64())*10) / 10,
			})
		}
	}
	marks = append(marks, track.Waypoint{Point: track.Point{Point: geo.Point{Lat: corner.Lat + 1.2, Lon: corner.Lon + 0.83}, EleM: 1540}, Name: "The Saddle", Note: "Highest ground of the tour.", Kind: "Summit"})
	half := len(points) / 2
	return []track.Part{{Name: "Round the island", Segments: [][]track.Point{points[:half], points[half:]}}}, marks
}

func (b bend) point() geo.Point {
	return geo.Point{Lat: corner.Lat + b.north, Lon: corner.Lon + b.east}
}

// waves is a sum of sines of falling height, the longest as often as asked for.
func waves(random *rand.Rand, n int) func(t, often float64) float64 {
	phases := make([]float64, n)
	for i := range phases {
		phases[i] = 2 * math.Pi * random.Float64()
	}
	return func(t, often float64) float64 {
		sum, times := 0.0, max(1, often)
		for _, phase := range phases {
			sum += math.Sin(2*math.Pi*times*t+phase) / times
			times *= 1.7
		}
		return sum * max(1, often) / 2
	}
}

// stepM is how far the points of the demo's own track are apart.
const stepM = 25

// route is the demo plan's: made once, for the plans share it.
var route = sync.OnceValues(func() (*plan.Route, error) {
	parts, _ := Island(stepM)
	_, address, err := format.EncodeTrack(parts)
	if err != nil {
		return nil, err
	}
	nodes := track.Measure(track.Join(parts).Points).Reduce(plan.UsualNodes)
	r := &plan.Route{Name: parts[0].Name, Track: address, Nodes: nodes}
	for i, b := range island {
		at := track.Snap(nodes, b.point()).AtKm
		if i+1 == len(island) {
			at = r.LengthKm()
		}
		if i > 0 {
			r.Ground[i-1].To = plan.Km(at)
		}
		if i+1 < len(island) {
			r.Ground = append(r.Ground, plan.GroundStretch{From: plan.Km(at), Ground: b.ground})
		}
		if b.stop != nil {
			s := *b.stop
			s.ID, s.At = "pump-"+strconv.Itoa(len(r.Stops)+1), plan.Km(at)
			r.Stops = append(r.Stops, s)
		}
	}
	r.Ground = slices.Clip(r.Put().Ground)
	return r, nil
})
