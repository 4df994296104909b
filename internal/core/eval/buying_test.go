package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
)

const buyingDay = "2026-12-01"

// TestReadyFor adds by hand what a bike costs until it is ready: what is due with a price, and the
// cheapest part for each lack, each once.
func TestReadyFor(t *testing.T) {
	trip, shelf := studytest.Demo(t)
	b := studytest.New(t)
	m := plan.Machine{Held: plan.Looked, Bike: b.Bikes["fennick-300"]}
	bare, err := eval.ReadyFor(trip, m, nil, shelf, "travel", buyingDay)
	require.NoError(t, err)
	assert.Empty(t, bare.Due)
	require.NotEmpty(t, bare.Lacks)
	sum := int64(0)
	for _, l := range bare.Lacks {
		if l.Cost.Known() {
			sum += l.Cost.Minor()
		}
	}
	assert.Equal(t, sum, bare.LackCost.Minor())
	assert.Equal(t, sum, bare.Cost().Minor())
	met, all := bare.Met()
	assert.Less(t, met, all)
	assert.Empty(t, bare.Report.Plan.Lines, "nothing of the trip's own bike goes onto it")

	m.Baseline.Answers = []plan.Answer{
		{Check: "head-bearings", Verdict: baseline.Do, Cost: money.New(4800, "EUR")},
		{Check: "front-brake", Verdict: baseline.Do},                                // nobody has said what it costs
		{Check: "oil", Verdict: baseline.Done, Cost: money.New(3800, "EUR")},        // paid for
		{Check: "fork-seals", Verdict: baseline.Good, Cost: money.New(9900, "EUR")}, // not due
	}
	due, err := eval.ReadyFor(trip, m, nil, shelf, "travel", buyingDay)
	require.NoError(t, err)
	assert.Len(t, due.Due, 2)
	assert.EqualValues(t, 4800, due.DueCost.Minor())
	assert.Equal(t, bare.Unpriced+1, due.Unpriced, "a thing without a price is told, not free")
	assert.Equal(t, bare.Cost().Minor()+4800, due.Cost().Minor())

	// With the parts that are on it a bike lacks no more than without.
	own, err := eval.ReadyFor(trip, trip.Machine, trip.OnTheBike(), shelf, "travel", buyingDay)
	require.NoError(t, err)
	without, err := eval.ReadyFor(trip, trip.Machine, nil, shelf, "travel", buyingDay)
	require.NoError(t, err)
	metOwn, _ := own.Met()
	metBare, _ := without.Met()
	assert.GreaterOrEqual(t, metOwn, metBare)
}

// TestServes: a part of a previous owner's is good for what would be short without it; what is to
// be undone is not counted.
func TestServes(t *testing.T) {
	trip, shelf := studytest.Demo(t)
	looked, err := demo.Looked()
	require.NoError(t, err)
	r, err := eval.ReadyFor(trip, looked.Machine, nil, shelf, "travel", buyingDay)
	require.NoError(t, err)
	require.Len(t, r.Serves, 1)
	assert.NotEmpty(t, r.Serves[0].Needs, "the trip is cold, and the grips are warm")
	looked.Baseline.Changes[0].Fate = baseline.Undo
	r, err = eval.ReadyFor(trip, looked.Machine, nil, shelf, "travel", buyingDay)
	require.NoError(t, err)
	assert.Empty(t, r.Serves)
}

// TestRiddenByAnother: a loadout that somebody else rides is worked out for them, alone and in the
// whole report alike; the others, and the plan, stay the rider's.
func TestRiddenByAnother(t *testing.T) {
	p, shelf := studytest.Demo(t)
	before := eval.Evaluate(p, shelf, buyingDay)
	light := plan.Person{}
	for key, text := range map[string]string{"rider": "58 kg", "inseam": "740 mm", "sole": "30 mm"} {
		for _, f := range light.Fields() {
			if f.Key == key {
				require.NoError(t, f.Entry.Enter(text, ""))
			}
		}
	}
	changed := *p
	changed.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
	changed.Loadouts[0].By = &light
	after := eval.Evaluate(&changed, shelf, buyingDay)
	value := func(r *eval.LoadoutReport, id string) float64 {
		for _, g := range r.Gauges {
			if string(g.ID) == id {
				return g.Value
			}
		}
		return 0
	}
	was, is := &before.Loadouts[0], &after.Loadouts[0]
	assert.InDelta(t, value(was, "loaded-mass")-p.Brief.Rider.In("kg")+58, value(is, "loaded-mass"), 0.01)
	assert.Greater(t, value(is, "seat-reach"), value(was, "seat-reach"))
	for _, id := range []string{"loaded-mass", "seat-reach", "sag-rear"} {
		assert.Equal(t, value(&before.Loadouts[1], id), value(&after.Loadouts[1], id), id)
	}
	alone, err := eval.EvaluateLoadout(&changed, shelf, changed.Loadouts[0].ID, buyingDay)
	require.NoError(t, err)
	assert.Equal(t, value(is, "loaded-mass"), value(alone, "loaded-mass"))
	// An option that is held against it is of the same rider.
	bench, err := eval.NewBench(&changed, shelf, changed.Loadouts[0].ID, buyingDay)
	require.NoError(t, err)
	diff, err := bench.Preview(eval.Alternative{Plan: &changed})
	require.NoError(t, err)
	assert.Empty(t, diff[0].Moves)
}

// TestAsFound: a fork that was found up through its clamps, and a preload as found, do just what the
// same does that a plan sets; a plan that sets its own goes before, and so do other springs.
func TestAsFound(t *testing.T) {
	p, shelf := studytest.Demo(t)
	bare := eval.AsItCame(p, p.Bike)
	figures := func(p *plan.Plan) []float64 {
		r, err := eval.EvaluateLoadout(p, shelf, "travel", buyingDay)
		require.NoError(t, err)
		var list []float64
		for _, id := range []string{"rake", "trail", "wheelbase", "sag-rear", "sag-front"} {
			for _, f := range append(append(r.Gauges[:0:0], r.Gauges...), r.Others...) {
				if string(f.ID) == id {
					list = append(list, f.Value)
				}
			}
		}
		return list
	}
	set := *bare
	require.NoError(t, set.ForkThrough.Enter("10 mm", ""))
	set.Loadouts = append([]plan.Loadout{}, bare.Loadouts...)
	found := *bare
	require.NoError(t, found.Baseline.Set.ForkThrough.Enter("10 mm", ""))
	require.NoError(t, found.Baseline.Set.RearPreload.Enter("14 mm", ""))
	for i := range set.Loadouts {
		require.NoError(t, set.Loadouts[i].Setting.RearPreload.Enter("14 mm", ""))
	}
	require.Equal(t, figures(&set), figures(&found))
	assert.NotEqual(t, figures(bare), figures(&found))
	assert.Equal(t, figures(&found), figures(eval.AsFound(&found)))
	again := found
	require.NoError(t, again.ForkThrough.Enter("0 mm", ""))
	assert.NotEqual(t, figures(&found), figures(&again), "what the plan sets goes before")
}
