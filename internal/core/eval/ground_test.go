package eval_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestEveryBikeHasItsNumbers: the bikes of the demo leave no gauge of these stages
// open, the shaft drive's too.
func TestEveryBikeHasItsNumbers(t *testing.T) {
	for id := range studytest.New(t).Bikes {
		r := studytest.Report(t, studytest.On(t, id))
		for _, gauge := range []figure.ID{"cost", "loaded-mass", "axle-front", "axle-rear", "tyre-load", "tyre-life", "cruise-rpm", "crawl-speed", "range", "seat-reach", "clearance", "crawl-pull", "climb", "top-speed", "hold-gear"} {
			f, ok := r.Figure(gauge)
			require.True(t, ok, gauge)
			assert.True(t, f.Known || gauge == "hold-gear", "%s: %s lacks %v", id, gauge, f.Missing)
		}
		for _, q := range eval.RightBike(r) {
			assert.NotEqual(t, verdict.Unknown, q.State, "%s: %s", id, q.Name)
		}
	}
}

// TestRightBike asks what a rider would ask before money is spent.
func TestRightBike(t *testing.T) {
	states := func(p *plan.Plan) map[string]verdict.State {
		all := map[string]verdict.State{}
		for _, q := range eval.RightBike(studytest.Report(t, p)) {
			all[q.ID] = q.State
		}
		return all
	}
	p, _ := studytest.Demo(t)
	single := states(eval.AsItCame(p, p.Bike))
	assert.Equal(t, verdict.Over, single["range"], "215 km of gravel and rock are too far for its tank")
	assert.Equal(t, verdict.OK, single["rating"])

	short := studytest.On(t, "holt-650")
	require.NoError(t, short.Brief.Inseam.Enter("720", "mm"))
	assert.NotEqual(t, verdict.OK, states(short)["reach"], "the same bike for a shorter rider")
	for id := range studytest.New(t).Bikes {
		near := studytest.On(t, id)
		near.Route = nil
		require.NoError(t, near.Brief.Gap.Enter("60", "km"))
		assert.Equal(t, verdict.OK, states(near)["range"], "%s: any bike reaches the next village", id)
	}
	blank := plan.New("P", "EUR")
	assert.Nil(t, eval.RightBike(studytest.Report(t, blank)), "without a bike there is nothing to ask")
	blank.Bike = &plan.Bike{ID: "own", Name: "Own"}
	for id, state := range states(blank) {
		if id != "climb" && id != "clearance" { // asked only of who wishes for it
			assert.Equal(t, verdict.Unknown, state, "an empty sheet answers nothing: %s", id)
		}
	}
}

func TestAsItCameKeepsTheSums(t *testing.T) {
	p, _ := studytest.Demo(t)
	bare := eval.AsItCame(p, p.Bike)
	assert.NotEmpty(t, bare.Lines)
	for _, l := range bare.Lines {
		assert.Nil(t, l.Part)
	}
	assert.True(t, slices.ContainsFunc(p.Lines, func(l plan.Line) bool { return l.Part != nil }), "the plan itself stays")
}

// TestReadings: which speedometers see which change.
func TestReadings(t *testing.T) {
	p, shelf := studytest.Demo(t)
	p.Lines = nil
	p = p.With(plan.Choice{Slot: parts.RearSprocket, Part: shelf.Find(p.Bike, parts.RearSprocket, "rear-h6-47")})
	factor := map[drive.Pickup]float64{}
	own := 0
	for _, reading := range gearing.Readings(studytest.Report(t, p).Facts) {
		factor[reading.Pickup] = reading.Factor
		if reading.Own {
			own++
		}
	}
	assert.InDelta(t, 1, factor[drive.FrontWheel], 1e-12)
	assert.InDelta(t, 1, factor[drive.RearWheel], 1e-12)
	assert.InDelta(t, 47.0/43, factor[drive.Gearbox], 1e-12, "the output shaft turns more often")
	assert.Equal(t, 1, own)
}
