package stance_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/stance"
	"valiantmule/internal/referee"
)

// regression is the slope and intercept of Debian's python3, by statistics.linear_regression
// of its standard library.
func regression(t *testing.T, points []stance.Point) (slope, intercept float64) {
	t.Helper()
	var x, y []string
	for _, p := range points {
		x, y = append(x, fmt.Sprintf("%.17g", p.Kg*9.80665)), append(y, fmt.Sprintf("%.17g", p.MM))
	}
	script := "import statistics, json\nr = statistics.linear_regression([" + strings.Join(x, ",") + "], [" + strings.Join(y, ",") + "])\nprint(json.dumps([r.slope, r.intercept]))"
	out, err := exec.Command(referee.Program(t, "python3", "python3"), "-c", script).Output()
	require.NoError(t, err)
	var both [2]float64
	require.NoError(t, json.Unmarshal(out, &both))
	return both[0], both[1]
}

// TestLineGivesTheSpringBack: a worksheet made from a known bike, each reading off by
// stiction, gives its spring back within it, as another program finds the same line.
func TestLineGivesTheSpringBack(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	e := stance.End{Spring: stance.Spring{Nmm: 58}, Ratio: 0.42, PreloadMM: 21, TravelMM: 215, Along: 1}
	var points []stance.Point
	for _, kg := range []float64{78, 118, 124, 140, 152} {
		const stictionMM = 3
		points = append(points, stance.Point{Kg: kg, MM: e.SagMM(kg) + stictionMM*(2*r.Float64()-1)})
	}
	line, err := stance.LineOf(points, 1)
	require.NoError(t, err)
	slope, intercept := regression(t, points)
	assert.InDelta(t, 1/slope, line.WheelNmm, 1e-9)
	assert.InDelta(t, intercept, line.AtRestMM, 1e-9)
	assert.InDelta(t, 58, stance.SpringOfRate(line.WheelNmm, 0.42), 4, "within the stiction")
	assert.InDelta(t, -21/0.42, line.AtRestMM, 8, "and its preload")
	assert.Less(t, line.ResidualMM, 3.5)
	two, err := stance.LineOf(points[:2], 1)
	require.NoError(t, err)
	plain, err := stance.WheelRateNmm(points[0].Kg, points[0].MM, points[1].Kg, points[1].MM)
	require.NoError(t, err)
	assert.InDelta(t, plain, two.WheelNmm, 1e-9, "two loads are the plain difference")
	assert.True(t, math.IsNaN(two.ResidualMM))
}

// TestRisingLink bends off the straight line, and the residual shows it.
func TestRisingLink(t *testing.T) {
	points := []stance.Point{{Kg: 60, MM: 20}, {Kg: 90, MM: 62}, {Kg: 120, MM: 92}, {Kg: 150, MM: 112}, {Kg: 180, MM: 124}}
	line, err := stance.LineOf(points, 1)
	require.NoError(t, err)
	assert.Greater(t, line.ResidualMM, 5.0)
	for _, bad := range [][]stance.Point{nil, points[:1], {{Kg: 100, MM: 60}, {Kg: 101, MM: 66}}, {{Kg: 100, MM: 60}, {Kg: 140, MM: 50}}} {
		_, err := stance.LineOf(bad, 1)
		assert.ErrorIs(t, err, stance.ErrSameSag)
	}
}
