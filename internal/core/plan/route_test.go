package plan_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

func stretch(from, to float64, g terrain.Kind) plan.GroundStretch {
	return plan.GroundStretch{From: plan.Km(from), To: plan.Km(to), Ground: g}
}

// TestPut: a later stretch covers an earlier one, takes away with no ground, and
// joins its like.
func TestPut(t *testing.T) {
	r := &plan.Route{Nodes: []track.Node{{}, {3: 100}}}
	r = r.Put(stretch(0, 100, terrain.Paved), stretch(40, 60, terrain.Sand), stretch(50, 55, ""))
	assert.Equal(t, []plan.GroundStretch{stretch(0, 40, terrain.Paved), stretch(40, 50, terrain.Sand), stretch(55, 60, terrain.Sand), stretch(60, 100, terrain.Paved)}, r.Ground)
	assert.Equal(t, terrain.Sand, r.GroundAt(45))
	assert.Equal(t, terrain.Kind(""), r.GroundAt(52))
	assert.InDelta(t, 0.8, r.Mix().Of(terrain.Paved), 1e-9)
	assert.InDelta(t, 0.95, r.Mix().Sum(), 1e-9)
	assert.Equal(t, []plan.GroundStretch{stretch(0, 100, terrain.Paved)}, r.Put(stretch(40, 60, terrain.Paved)).Ground, "and grows together")
}

// TestPutAnything: whatever is laid on, in any order, no two stretches overlap and
// every point has the ground of the last that covered it.
func TestPutAnything(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 5))
	kinds := []terrain.Kind{terrain.Paved, terrain.Sand, terrain.Mud, ""}
	for range 200 {
		r := &plan.Route{Nodes: []track.Node{{}, {3: 100}}}
		var laid []plan.GroundStretch
		for range 8 {
			from := float64(random.IntN(90))
			s := stretch(from, from+1+float64(random.IntN(int(100-from))), kinds[random.IntN(len(kinds))])
			laid = append(laid, s)
			r = r.Put(s)
		}
		for i := 1; i < len(r.Ground); i++ {
			require.GreaterOrEqual(t, r.Ground[i].From.Base(), r.Ground[i-1].To.Base())
		}
		for km := 0.5; km < 100; km++ {
			want := terrain.Kind("")
			for _, s := range laid {
				if s.From.In("km") <= km && km < s.To.In("km") {
					want = s.Ground
				}
			}
			require.Equal(t, want, r.GroundAt(km))
		}
	}
}

func filled(on, odometer, litres string, more func(*logbook.Fill)) logbook.Reading {
	f := &logbook.Fill{By: logbook.ByOdometer}
	_ = f.Odometer.Enter(odometer, "km")
	_ = f.Litres.Enter(litres, "L")
	if more != nil {
		more(f)
	}
	return logbook.Reading{ID: on, Kind: logbook.FillReading, On: on, Read: f}
}

// TestIntervals, by hand: full at 1000; 5 L not to the brim at 1120; full with 7 L
// at 1270: 12 L over 270 km. One before the next was not written down, so counting
// starts anew there.
func TestIntervals(t *testing.T) {
	partial := func(f *logbook.Fill) { f.Partial = true }
	missed := func(f *logbook.Fill) { f.Missed = true }
	list := logbook.Intervals([]logbook.Reading{
		filled("2026-05-01", "900", "3", partial),
		filled("2026-05-02", "1000", "11", nil),
		filled("2026-05-03", "1120", "5", partial),
		filled("2026-05-04", "1270", "7", nil),
		filled("2026-05-09", "1900", "10", missed),
		filled("2026-05-10", "2100", "9", func(f *logbook.Fill) { f.By = logbook.ByGuess }),
		filled("2026-05-11", "2050", "9", nil),
	})
	require.Len(t, list, 2, "an odometer that runs backwards makes none")
	assert.InDelta(t, 12, list[0].Litres, 1e-9)
	assert.InDelta(t, 270, list[0].Km, 1e-9)
	assert.Len(t, list[0].Fills, 2)
	assert.InDelta(t, 200, list[1].Km, 1e-9)
	assert.InDelta(t, logbook.ByGuess.Spread(), list[1].Spread, 1e-12, "the least sure distance counts")

	trips := logbook.Intervals([]logbook.Reading{
		filled("2026-06-01", "", "11", nil),
		filled("2026-06-02", "", "5", func(f *logbook.Fill) { f.Partial = true; _ = f.Trip.Enter("100", "mi") }),
		filled("2026-06-03", "", "6", func(f *logbook.Fill) { _ = f.Trip.Enter("50", "mi") }),
	})
	require.Len(t, trips, 1)
	assert.InDelta(t, 150*1.609344, trips[0].Km, 1e-6, "trip meters add up, in their own unit")
}

// TestReadingsOf lists those of the plan's bike that stand, in the order of the
// days, then of the odometer.
func TestReadingsOf(t *testing.T) {
	p := plan.New("P", "EUR")
	late, early := filled("2026-05-02", "2000", "9", nil), filled("2026-05-02", "1800", "9", nil)
	other := filled("2026-05-01", "10", "9", nil)
	late.ID, early.ID, late.Bike, early.Bike, other.Bike = "A", "B", "own", "own", "lent"
	gone := filled("2026-04-01", "1700", "9", nil)
	gone.Bike = "own"
	p.Readings = []logbook.Reading{late, other, early, gone, {Kind: logbook.Revocation, Of: gone.ID}}
	assert.Empty(t, p.ReadingsOf(logbook.FillReading), "without a bike")
	p.Bike = &plan.Bike{ID: "own"}
	list := p.ReadingsOf(logbook.FillReading)
	require.Len(t, list, 2)
	assert.Equal(t, []string{"B", "A"}, []string{list[0].ID, list[1].ID})
}

// TestRouteProblems name the place in the document.
func TestRouteProblems(t *testing.T) {
	good := func() *plan.Route {
		return &plan.Route{Name: "R", Nodes: []track.Node{{-27, -18, 5, 0, 0}, {-27.5, -18, 50, 60, 45}},
			Ground: []plan.GroundStretch{stretch(0, 20, terrain.Paved)}, Stops: []plan.Stop{{ID: "a", Name: "A", At: plan.Km(10), Certainty: plan.Sure}}}
	}
	problems := func(change func(r *plan.Route)) []string {
		p := plan.New("P", "EUR")
		p.Route = good()
		change(p.Route)
		var paths []string
		for _, problem := range p.Validate() {
			paths = append(paths, problem.Path)
		}
		return paths
	}
	assert.Empty(t, problems(func(*plan.Route) {}))
	for path, change := range map[string]func(r *plan.Route){
		"route.name":               func(r *plan.Route) { r.Name = "" },
		"route.track":              func(r *plan.Route) { r.Track = "../etc" },
		"route.nodes":              func(r *plan.Route) { r.Nodes[1][3] = 0; r.Ground, r.Stops = nil, nil },
		"route.nodes[1]":           func(r *plan.Route) { r.Nodes[1][0] = 95 },
		"route.ground[0]":          func(r *plan.Route) { r.Ground[0].To = plan.Km(70) },
		"route.ground[0].ground":   func(r *plan.Route) { r.Ground[0].Ground = "lava" },
		"route.ground[1].from":     func(r *plan.Route) { r.Ground = append(r.Ground, stretch(10, 30, terrain.Sand)) },
		"route.stops[0]":           func(r *plan.Route) { r.Stops[0].At = plan.Km(61) },
		"route.stops[0].certainty": func(r *plan.Route) { r.Stops[0].Certainty = "perhaps" },
		"route.stops[1].id":        func(r *plan.Route) { r.Stops = append(r.Stops, r.Stops[0]) },
	} {
		assert.Equal(t, []string{path}, problems(change), path)
	}
}

func TestCarriers(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = &plan.Bike{ID: "own", Name: "Own"}
	require.NoError(t, p.Bike.Tank.Enter("14", "L"))
	can := &parts.Part{ID: "can", Slot: parts.FuelCans, Name: "Can"}
	require.NoError(t, can.Say("holds", "3"))
	tank := &parts.Part{ID: "tank", Slot: parts.FuelTank, Name: "Tank"}
	require.NoError(t, tank.Say("holds", "20"))
	require.NoError(t, tank.Say("unusable", "0.5"))
	require.NoError(t, tank.Say("plastic", "yes"))
	built := p.With(plan.Choice{Slot: can.Slot, Part: can}, plan.Choice{Slot: tank.Slot, Part: tank}).Build("travel")
	require.Len(t, built.Fuels, 2)
	assert.InDelta(t, 20, built.Fuels[0].HoldsL, 0, "a bigger tank takes the place of the bike's own")
	assert.InDelta(t, 0.5, built.Fuels[0].UnusedL, 1e-12)
	assert.Greater(t, built.Fuels[0].SpreadL, 20*0.02, "plastic swells")
	assert.InDelta(t, 3, built.Fuels[1].HoldsL, 0)

	parts.FuelKind.Put(tank, parts.Poured)
	assert.NotEmpty(t, p.With(plan.Choice{Slot: tank.Slot, Part: tank}).Validate(), "what is poured feeds no engine")
	parts.Unusable.Put(can, parts.Holds.In(can))
	assert.NotEmpty(t, p.With(plan.Choice{Slot: can.Slot, Part: can}).Validate(), "nothing of it would be left")
}

// TestTold: a report by who paid for the same version counts five times one by who
// did neither (1 against 0.5 × 0.4), worked by hand: (1 × 4 + 0.2 × 10) / 1.2 = 5.
func TestTold(t *testing.T) {
	_, _, _, ok := plan.Told([]plan.Report{{Who: "No number"}})
	assert.False(t, ok)
	reports := []plan.Report{{Own: true, Same: true}, {}, {Who: "No number"}}
	require.NoError(t, reports[0].Uses.Enter("4", "L/100 km"))
	require.NoError(t, reports[1].Uses.Enter("10", "L/100 km"))
	mean, low, high, ok := plan.Told(reports)
	require.True(t, ok)
	assert.InDelta(t, 5, mean, 1e-9)
	assert.Equal(t, []float64{4, 10}, []float64{low, high})
}
