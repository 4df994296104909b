package draw_test

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/track"
	"valiantmule/internal/demo"
	"valiantmule/internal/draw"
)

func km(v float64) (float64, string) { return v, fmt.Sprintf("%.0f km", v) }

func pumps(r *plan.Route) []draw.Pump {
	list := make([]draw.Pump, len(r.Stops))
	for i, s := range r.Stops {
		list[i] = draw.Pump{ID: s.ID, Name: s.Name, Certainty: s.Certainty, Closed: s.Closed}
	}
	return list
}

// coordinates of a path's points.
func coordinates(t *testing.T, path string) (points [][2]float64) {
	for _, m := range regexp.MustCompile(`[ML](-?[0-9.]+) (-?[0-9.]+)`).FindAllStringSubmatch(path, -1) {
		x, err := strconv.ParseFloat(m[1], 64)
		require.NoError(t, err)
		y, err := strconv.ParseFloat(m[2], 64)
		require.NoError(t, err)
		points = append(points, [2]float64{x, y})
	}
	return points
}

// TestWayIsToScale: distances on the drawing are those on the earth by the scale
// bar, in every direction, and north is up.
func TestWayIsToScale(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	d := draw.WayFromAbove(p.Route, pumps(p.Route), km)
	require.True(t, d.Shown)
	bar, err := strconv.ParseFloat(regexp.MustCompile(`[0-9]+`).FindString(d.ScaleText), 64)
	require.NoError(t, err)
	perKm := float64(d.Scale.X-d.ScaleLeft) / bar
	for i, a := range d.Pumps {
		for j, b := range d.Pumps[:i] {
			pa, pb := track.At(p.Route.Nodes, p.Route.Stops[i].At.In("km")).Point(), track.At(p.Route.Nodes, p.Route.Stops[j].At.In("km")).Point()
			far := geo.DistanceM(pa, pb) / 1000
			assert.InDelta(t, far, math.Hypot(float64(a.X-b.X), float64(a.Y-b.Y))/perKm, 0.012*far+0.3, "%s to %s", a.Name, b.Name)
			if pa.Lat > pb.Lat+0.05 {
				assert.Less(t, a.Y, b.Y)
			}
		}
	}
	at := [2]float64{}
	for i, piece := range d.Pieces {
		points := coordinates(t, piece.Path)
		if i > 0 {
			assert.InDeltaSlice(t, at[:], points[0][:], 0.02, "the pieces are one line")
		}
		at = points[len(points)-1]
		for _, q := range points {
			assert.True(t, q[0] > 0 && q[0] < float64(d.Width) && q[1] > 0 && q[1] < float64(d.Height))
		}
	}
	assert.False(t, draw.WayFromAbove(nil, nil, km).Shown)
}

// TestLadderFalls: the level falls from rung to rung, the band holds its middle, and
// a leg that does not reach stands out.
func TestLadderFalls(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	for _, route := range []*plan.Route{p.Route, p.Route.Closing("pump-3"), nil} {
		p.Route = route
		report, err := eval.EvaluateLoadout(p, nil, "travel", "2026-11-26")
		require.NoError(t, err)
		l, ok := ranging.FuelLadder(report.Facts)
		require.True(t, ok)
		legs := report.Facts.Range.Legs
		require.Len(t, l.Runs, len(legs))
		for i, run := range l.Runs {
			last := run.Levels[len(run.Levels)-1]
			assert.InDelta(t, legs[i].HaveL-legs[i].NeedL, last.Mid, 1e-6, "small steps add up to the leg")
			for k, v := range run.Levels {
				require.True(t, v.Low <= v.Mid && v.Mid <= v.High)
				require.True(t, k == 0 || v.Mid < run.Levels[k-1].Mid)
			}
		}
		var list []draw.Pump
		if route != nil {
			list = pumps(route)
		}
		d := draw.FuelLadder(l, legs, route, ranging.Profile(p), list, km, km, func(m float64) string { return fmt.Sprintf("%.0f m", m) })
		require.Len(t, d.Legs, len(legs))
		for i, leg := range d.Legs {
			assert.Equal(t, legs[i].Short(), leg.State == "short")
			points := coordinates(t, leg.Middle)
			for k := 1; k < len(points); k++ {
				assert.True(t, points[k][0] >= points[k-1][0] && points[k][1] >= points[k-1][1], "down and to the right")
			}
		}
		assert.Len(t, d.Pumps, len(list))
		assert.NotEmpty(t, d.Profile.Area)
	}
}

// TestEstimatesStayInThePlot, the fills that say something odd too.
func TestEstimatesStayInThePlot(t *testing.T) {
	d := draw.Estimates([]draw.Estimate{{4.3, 0.8}, {4.5, 0.6}, {4.6, 0.5}}, []draw.Said{{Value: 4.9, Day: "1 May"}, {Value: 8, Flagged: true, Day: "2 May"}}, 4.3)
	require.Len(t, d.Dots, 2)
	for _, dot := range d.Dots {
		assert.True(t, dot.Y >= d.Top && dot.Y <= d.Lower && dot.X >= d.Left && dot.X <= d.Right)
	}
	assert.Less(t, d.Dots[1].Y, d.Dots[0].Y, "thirstier is higher")
	assert.True(t, d.Paper.Shown)
	assert.False(t, draw.Estimates(nil, nil, 4).Shown)
}
