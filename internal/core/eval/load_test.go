package eval_test

import (
	"fmt"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/core/verdict"
)

// loaded is the demo plan with other things in its travel loadout.
func loaded(t testing.TB, loads ...plan.Load) *plan.Plan {
	p, _ := demoPlan(t)
	p.Loadouts[1].Loads = loads
	return p
}

func packedThing(t testing.TB, kg float64, in plan.Slot, side plan.Side, at load.Place) plan.Load {
	l := plan.Load{Name: "Thing", Place: at, Bag: in, Side: side}
	require.NoError(t, l.Mass.Enter(strconv.FormatFloat(kg, 'f', -1, 64), "kg"))
	require.NoError(t, l.Volume.Enter("2", "L"))
	return l
}

// TestMirrored: what hangs left hung right instead changes nothing but the side.
func TestMirrored(t *testing.T) {
	left := loaded(t, packedThing(t, 6, plan.SideBags, plan.Left, load.Panniers), packedThing(t, 2, plan.SideBags, plan.Right, load.Panniers))
	right := loaded(t, packedThing(t, 6, plan.SideBags, plan.Right, load.Panniers), packedThing(t, 2, plan.SideBags, plan.Left, load.Panniers))
	for _, id := range []figure.ID{"loaded-mass", "axle-front", "axle-rear", "left-right", "centre-height", "bag-fullest"} {
		assert.InDelta(t, value(t, left, id), value(t, right, id), 1e-9, id)
	}
	assert.InDelta(t, 4, value(t, left, "left-right"), 1e-9)
	assert.Equal(t, report(t, left).Facts.Bags.Sides.LeftKg, report(t, right).Facts.Bags.Sides.RightKg)
}

// TestStandingLoadsTheFront, and so does a load that is moved forward.
func TestStandingLoadsTheFront(t *testing.T) {
	p := loaded(t, packedThing(t, 8, "", "", load.Tail))
	assert.Greater(t, value(t, p, "standing-share"), value(t, p, "front-share"))
	forward := loaded(t, packedThing(t, 8, "", "", load.Engine))
	assert.Greater(t, value(t, forward, "front-share"), value(t, p, "front-share"))
	assert.Less(t, value(t, forward, "centre-height"), value(t, p, "centre-height"))
	assert.Less(t, value(t, forward, "rack-load"), value(t, p, "rack-load"))
	over := loaded(t, packedThing(t, 12, "", "", load.Tail))
	f, _ := report(t, over).Figure("rack-load")
	assert.Equal(t, verdict.Stop, f.State, "the bike's own rack carries 8 kg")
}

// TestShippedByHand: 176 kg with a full tank less a tenth of 14 L, tyres and what
// else the plan puts on 11.5 kg, three quarters of 14 L at 0.745 kg/L taken out.
func TestShippedByHand(t *testing.T) {
	p := loaded(t)
	parts := 1.4 + 0.5 + 0.8 + 0.6 + 1.1 + 3.4 + 0.9 + 2.6
	assert.InDelta(t, 176+0.1*14*0.745+parts-0.75*14*0.745, value(t, p, "shipping-mass"), 1e-9)
}

// TestWeighingsCorrect every figure that rests on the bike's mass, by exactly what
// they read.
func TestWeighingsCorrect(t *testing.T) {
	p, _ := demoPlan(t)
	before := report(t, p)
	w := &plan.Weighing{}
	for _, q := range []struct {
		entry plan.Entry
		text  string
	}{{&w.Front, "133"}, {&w.Rear, "198"}, {&w.ExpectedFront, "130"}, {&w.ExpectedRear, "197"}} {
		require.NoError(t, q.entry.Enter(q.text, "kg"))
	}
	corrected := *p
	corrected.Readings = append(append([]plan.Reading{}, p.Readings...), plan.Reading{ID: "W", Kind: plan.Weighed, On: "2026-11-20", Bike: p.Bike.ID, Weighing: w})
	for id, by := range map[figure.ID]float64{"loaded-mass": 4, "front-load": 3, "rear-load": 1, "payload-left": -4} {
		was, _ := before.Figure(id)
		assert.InDelta(t, was.Value+by, value(t, &corrected, id), 1e-9, id)
	}
	_, working, err := eval.Explain(&corrected, "travel", "loaded-mass", today)
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(working.Steps[0].Formula), "weighings")
}

// BenchmarkHundredTwentyItems is a full evaluation with a long packing list.
func BenchmarkHundredTwentyItems(b *testing.B) {
	var loads []plan.Load
	for i := range 120 {
		loads = append(loads, packedThing(b, 0.2, plan.SideBags, []plan.Side{plan.Left, plan.Right}[i%2], load.Panniers))
	}
	p := loaded(b, loads...)
	for b.Loop() {
		eval.Evaluate(p, nil, today)
	}
}

// TestRepack: what is packed anew leaves nothing out, breaks no limit, keeps the plan
// that it came from, and is settled: packing it anew again moves nothing.
func TestRepack(t *testing.T) {
	p, _ := demoPlan(t)
	crooked, loadout := p.OwnLoads("travel")
	for i := range loadout.Loads {
		if loadout.Loads[i].Side == plan.Right {
			loadout.Loads[i].Side = plan.Left
		}
	}
	now := report(t, crooked)
	r := loading.Repack(now.Facts)
	require.True(t, r.Packing.OK)
	require.NotEmpty(t, r.Moves)
	for _, m := range r.Moves {
		assert.Equal(t, m.From.Name, m.To.Name)
		assert.NotEqual(t, m.From.Side, m.To.Side, m.To.Name)
		assert.NotEmpty(t, m.Why)
	}
	after := report(t, r.Plan)
	assert.Less(t, value(t, r.Plan, "left-right"), value(t, crooked, "left-right"))
	assert.InDelta(t, value(t, crooked, "loaded-mass"), value(t, r.Plan, "loaded-mass"), 1e-9)
	for _, b := range after.Facts.Bags.On {
		assert.LessOrEqual(t, b.Share(), 1.0, b.Part.Name)
	}
	assert.Empty(t, loading.Repack(after.Facts).Moves)
	assert.Equal(t, now.Facts.Bags.Sides, report(t, crooked).Facts.Bags.Sides, "the plan itself is not touched")
}

// TestRepackWhatIsInNone: what lies where bags sit goes into them; a thing that has a place
// of its own stays there, and one that does not go in stays out without stopping the rest.
func TestRepackWhatIsInNone(t *testing.T) {
	tent := packedThing(t, 2.5, "", plan.Middle, load.Tail)
	tools := packedThing(t, 2, "", plan.Middle, load.Engine)
	r := loading.Repack(report(t, loaded(t, tent, tools)).Facts)
	require.True(t, r.Packing.OK)
	require.Len(t, r.Moves, 1)
	assert.Equal(t, load.Tail, r.Moves[0].From.Place)
	assert.NotEmpty(t, r.Moves[0].To.Bag)
	assert.NotEmpty(t, r.Moves[0].Why)
	assert.Zero(t, r.Out)

	canoe := packedThing(t, 3, "", plan.Middle, load.Tail)
	require.NoError(t, canoe.Volume.Enter("400", "L"))
	bagged := packedThing(t, 4, plan.SideBags, plan.Left, load.Panniers)
	r = loading.Repack(report(t, loaded(t, canoe, bagged)).Facts)
	require.True(t, r.Packing.OK, "the rest is packed all the same")
	assert.Equal(t, 1, r.Out)
	for _, m := range r.Moves {
		assert.NotEqual(t, load.Tail, m.From.Place)
	}
}

// TestExpectedWheels: both sides together weigh what both wheels do, and half of what
// hangs on one side more than on the other moves across.
func TestExpectedWheels(t *testing.T) {
	p, _ := demoPlan(t)
	now := report(t, p)
	w, known := loading.ExpectedWheels(now.Facts)
	require.True(t, known)
	assert.InDelta(t, w.FrontKg+w.RearKg, w.LeftKg+w.RightKg, 1e-9)
	assert.InDelta(t, value(t, p, "loaded-mass"), w.FrontKg+w.RearKg, 1e-6)
	assert.InDelta(t, now.Facts.Bags.Sides.LeftKg-now.Facts.Bags.Sides.RightKg, w.LeftKg-w.RightKg, 1e-9)
	p.Bike = nil
	_, known = loading.ExpectedWheels(report(t, p).Facts)
	assert.False(t, known)
}
