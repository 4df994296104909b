package track_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/track"
)

// hills is a way due north on the zero meridian, a point every so many metres, over
// hills of a height and length.
func hills(points int, stepM, heightM, lengthKm, noiseM float64, seed uint64) []track.Point {
	random := rand.New(rand.NewPCG(seed, 7))
	way := make([]track.Point, points)
	for i := range way {
		km := float64(i) * stepM / 1000
		way[i] = track.Point{
			Point: geo.Point{Lat: km / 111.19, Lon: 0.002 * math.Sin(km)},
			EleM:  500 + heightM/2*(1-math.Cos(2*math.Pi*km/lengthKm)) + noiseM*random.NormFloat64(),
		}
	}
	return way
}

// TestClimb: ten hills of 200 m climb 2000 m, by hand; the noise of a receiver must
// not make them 4000 (heights of receivers err by some metres: common practice).
func TestClimb(t *testing.T) {
	clean := track.Measure(hills(2001, 25, 200, 5, 0, 1))
	last := len(clean.UpM) - 1
	assert.InDelta(t, 2000, clean.UpM[last], 40)
	assert.InDelta(t, 50, clean.LengthKm(), 0.5)
	for seed := range uint64(8) {
		noisy := track.Measure(hills(2001, 25, 200, 5, 3, seed))
		assert.InDelta(t, 2000, noisy.UpM[last], 120, "seed %d", seed)
	}
	flat := track.Measure(hills(2001, 25, 0, 5, 3, 9))
	assert.InDelta(t, 0, flat.UpM[last], 1, "noise alone climbs nothing")
}

// TestClimbOnlyGrows along the way, and is the same however the way is cut.
func TestClimbOnlyGrows(t *testing.T) {
	m := track.Measure(hills(3000, 20, 150, 3, 2, 4))
	for i := 1; i < len(m.UpM); i++ {
		require.GreaterOrEqual(t, m.UpM[i], m.UpM[i-1])
		require.GreaterOrEqual(t, m.Km[i], m.Km[i-1])
	}
	nodes := m.Reduce(200)
	require.Len(t, nodes, 200)
	assert.InDelta(t, m.LengthKm(), nodes[199].Km(), 1e-3)
	assert.InDelta(t, m.UpM[2999], nodes[199].UpM(), 0.1)
}

// TestReduce keeps the shape: no left-out point is far from the line.
func TestReduce(t *testing.T) {
	way := hills(5000, 20, 300, 10, 0, 2)
	nodes := track.Measure(way).Reduce(300)
	for _, p := range way {
		assert.Less(t, track.Snap(nodes, p.Point).OffKm, 0.03)
	}
	assert.Len(t, track.Measure(way[:3]).Reduce(300), 3, "fewer points than asked for")
	assert.Empty(t, track.Measure(nil).Reduce(300))
}

func TestMissingHeights(t *testing.T) {
	way := hills(400, 25, 200, 5, 0, 1)
	for i := range way {
		if i%7 != 0 {
			way[i].EleM = math.NaN()
		}
	}
	some := track.Measure(way)
	assert.InDelta(t, 400, some.UpM[len(way)-1], 20)
	for i := range way {
		way[i].EleM = math.NaN()
	}
	none := track.Measure(way)
	assert.True(t, none.Level)
	assert.Zero(t, none.UpM[len(way)-1])
	assert.Zero(t, none.Reduce(50)[10].EleM())
}

func TestJoin(t *testing.T) {
	way := hills(100, 100, 0, 5, 0, 1)
	w := track.Join([]track.Part{{Segments: [][]track.Point{way[:40], nil, way[40:60]}}, {Segments: [][]track.Point{way[80:]}}})
	assert.Len(t, w.Points, 80)
	assert.Equal(t, 1, w.Gaps)
	assert.InDelta(t, 2.1, w.GapKm, 0.05)
}

func TestSnapAndAt(t *testing.T) {
	nodes := track.Measure(hills(1000, 50, 100, 5, 0, 1)).Reduce(120)
	by := track.Snap(nodes, geo.Point{Lat: 20 / 111.19, Lon: 0.02})
	assert.InDelta(t, 20, by.AtKm, 0.3)
	assert.InDelta(t, 2, by.OffKm, 0.3)
	assert.InDelta(t, 20, track.At(nodes, 20).Km(), 1e-6)
	assert.InDelta(t, 0, track.At(nodes, -3).Km(), 1e-6)
	assert.InDelta(t, nodes[119].Km(), track.At(nodes, 1e6).Km(), 1e-6)
}

// TestPasses: an out and back goes by twice, at its turn once; a bend near the place is no
// second time.
func TestPasses(t *testing.T) {
	out := hills(1000, 50, 100, 5, 0, 1)
	back := slices.Clone(out)
	slices.Reverse(back)
	nodes := track.Measure(append(out, back...)).Reduce(240)
	at := func(km, off float64) []track.Pass {
		return track.Passes(nodes, geo.Point{Lat: km / 111.19, Lon: off / 111.19}, 0.5)
	}
	twice := at(20, 2)
	require.Len(t, twice, 2)
	assert.InDelta(t, 20, twice[0].AtKm, 0.5)
	assert.InDelta(t, nodes[len(nodes)-1].Km()-20, twice[1].AtKm, 0.5)
	assert.Len(t, at(nodes[len(nodes)-1].Km()/2, 0), 1, "the turn")
	once := track.Passes(track.Measure(out).Reduce(120), geo.Point{Lat: 20 / 111.19, Lon: 0.02}, 0.5)
	assert.Equal(t, []track.Pass{track.Snap(track.Measure(out).Reduce(120), geo.Point{Lat: 20 / 111.19, Lon: 0.02})}, once)
}

// BenchmarkHundredThousand is a whole long file: distance, climb and nodes.
func BenchmarkHundredThousand(b *testing.B) {
	way := hills(100_000, 15, 250, 8, 2, 1)
	for b.Loop() {
		track.Measure(way).Reduce(400)
	}
}
