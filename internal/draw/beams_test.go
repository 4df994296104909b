package draw_test

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/lamp"
	"valiantmule/internal/draw"
)

func length(m float64) string { return fmt.Sprintf("%.0f m", m) }

// seen is a drawing of one round lamp that reaches so far, with a way to standing in it.
func seen(litM, stopM float64) draw.Beams {
	round := func(float64) float64 { return litM }
	return draw.BeamsAbove(draw.BeamsIn{Lamps: []draw.BeamIn{{Name: "round", Reach: round}}, All: round, LitM: litM, OwnM: litM, ReactM: stopM / 2, StopM: stopM, BendM: 10, RadiusM: 25, LaneM: 3.5, Length: length, UnitM: 1})
}

// points of a path.
func points(t *testing.T, path string) (xs, ys []float64) {
	t.Helper()
	for _, at := range strings.FieldsFunc(path, func(r rune) bool { return strings.ContainsRune("MLZ", r) }) {
		x, y, ok := strings.Cut(at, " ")
		require.True(t, ok, at)
		fx, err := strconv.ParseFloat(x, 64)
		require.NoError(t, err)
		fy, err := strconv.ParseFloat(y, 64)
		require.NoError(t, err)
		xs, ys = append(xs, fx), append(ys, fy)
	}
	return xs, ys
}

// TestBeamsToScale: a lamp that reaches the same to all sides is drawn as half a circle: ahead
// and aside at one scale.
func TestBeamsToScale(t *testing.T) {
	d := seen(40, 20)
	require.True(t, d.Shown)
	xs, ys := points(t, d.All)
	px := float64(d.Lit-d.Left) / 40
	for i := range xs {
		assert.InDelta(t, 40*px, math.Hypot(xs[i]-float64(d.Left), ys[i]-float64(d.Ahead)), 0.1)
	}
	assert.InDelta(t, float64(d.Left)+20*px, float64(d.Stands), 0.1)
	assert.False(t, d.Beyond)
	assert.True(t, seen(40, 60).Beyond, "it stands in the dark")
	assert.InDelta(t, float64(d.Lane[1]-d.Lane[0]), 3.5*px, 0.1)
}

// TestBeamsUnknown: no lamp that anybody knows is no drawing, and a fast rider does not shrink
// the light to nothing.
func TestBeamsUnknown(t *testing.T) {
	assert.False(t, seen(math.NaN(), 20).Shown)
	far := seen(40, 4000)
	assert.Greater(t, float64(far.Lit-far.Left), 100.0)
	assert.LessOrEqual(t, float64(far.Stands), float64(far.Width))
}

// TestDippedSide: the edge meets the ground where the formula says; at level and above it says
// that it dazzles.
func TestDippedSide(t *testing.T) {
	side := func(now float64) draw.BeamSide {
		return draw.DippedSide(900, 0.573, now, 1, length, func(mm float64) string { return fmt.Sprintf("%.0f mm", mm) })
	}
	d := side(1)
	assert.Contains(t, d.NowText, length(lamp.CutoffM(900, 1)))
	assert.Contains(t, d.CameText, "90 m")
	assert.False(t, d.Blinds)
	for _, deg := range []float64{0, -0.4} {
		assert.True(t, side(deg).Blinds)
		assert.Contains(t, side(deg).NowText, "dazzles")
	}
	assert.False(t, side(math.NaN()).Shown)
}
