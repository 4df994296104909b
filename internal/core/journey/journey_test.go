package journey_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/journey"
)

// TestGamma: the conjugate pair by hand, and the asthma example of Gelman and others, Bayesian Data
// Analysis, section 2.6, from memory: prior Gamma(3, 5), 3 deaths in 2 (hundred thousand person-years)
// is Gamma(6, 7), mean 0.86; 30 in 20 is Gamma(33, 25), mean 1.32.
func TestGamma(t *testing.T) {
	prior := journey.Gamma{Shape: 3, Rate: 5}
	g := prior.Given(3, 2)
	assert.Equal(t, journey.Gamma{Shape: 6, Rate: 7}, g)
	assert.InDelta(t, 0.86, g.Mean(), 0.005)
	more := prior.Given(30, 20)
	assert.Equal(t, journey.Gamma{Shape: 33, Rate: 25}, more)
	assert.InDelta(t, 1.32, more.Mean(), 0.005)
	assert.InDelta(t, 1, journey.AsThought.Mean(), 1e-12)
	assert.InDelta(t, 3./6, journey.AsThought.Given(1, 4).Mean(), 1e-12, "one fall where four were expected")
	one := prior
	for range 3 {
		one = one.Given(1, 2./3)
	}
	assert.InDelta(t, g.Mean(), one.Mean(), 1e-12, "one after the other or all at once")
}

// TestSlope: the first set of Anscombe, Graphs in Statistical Analysis, The American Statistician 27
// (1973): slope 0.500 and Sxx 110.
func TestSlope(t *testing.T) {
	x := []float64{10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5}
	y := []float64{8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68}
	points := make([]journey.Point, len(x))
	for i := range x {
		points[i] = journey.Point{Km: x[i], Reading: y[i]}
	}
	r, ok := journey.Slope(points, 1)
	require.True(t, ok)
	assert.InDelta(t, 0.500, r.PerKm, 0.0005)
	assert.InDelta(t, 1/math.Sqrt(110), r.Spread, 1e-9)
	_, ok = journey.Slope(points[:1], 1)
	assert.False(t, ok)
	_, ok = journey.Slope(nil, 1)
	assert.False(t, ok)
}

// TestWith: what both say lies between them, nearer to the surer, and is surer than either.
func TestWith(t *testing.T) {
	before, seen := journey.Rate{PerKm: 0.001, Spread: 0.0004}, journey.Rate{PerKm: 0.002, Spread: 0.0002}
	both := before.With(seen)
	assert.InDelta(t, 0.0018, both.PerKm, 1e-12, "four times the weight")
	assert.Less(t, both.Spread, seen.Spread)
	assert.Equal(t, both, seen.With(before))
	nothing := journey.Rate{PerKm: math.NaN(), Spread: math.NaN()}
	assert.Equal(t, seen, nothing.With(seen))
	assert.Equal(t, seen, seen.With(nothing))
	low, mid, high := seen.Band(2)
	assert.Less(t, low, mid)
	assert.Less(t, mid, high)
	low, _, _ = seen.Band(100)
	assert.Positive(t, low)
}

// ExampleSince is a tyre that was renewed at 3000 km.
func ExampleSince() {
	fmt.Println(journey.Since([]journey.Point{{0, 6}, {1500, 3.2}, {3000, 9}, {4000, 8.1}}, 0.5))
	// Output: [{3000 9} {4000 8.1}]
}
