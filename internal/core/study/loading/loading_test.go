package loading_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// loaded is the demo plan with other things in its travel loadout.
func loaded(t testing.TB, loads ...plan.Load) *plan.Plan {
	p, _ := studytest.Demo(t)
	p.Loadouts[1].Loads = loads
	return p
}

func TestFrontLightTwoUp(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650")
	studytest.Enter(t, &p.Loadouts[1].Pillion, "75", "kg")
	share := b.Facts(p).Carrying.FrontShare
	require.True(t, share > 0.33 && share < 0.38, "%.3f", share)
	assert.NotContains(t, b.Findings(p), "front-light")
	studytest.Enter(t, &p.Loadouts[1].Pillion, "140", "kg")
	require.Less(t, b.Facts(p).Carrying.FrontShare, 0.33)
	assert.Contains(t, b.Findings(p), "front-light")
}

// TestBagsTakeTheirLoadAlong: a load sits where its bag sits, and at its own place
// when the bag is off.
func TestBagsTakeTheirLoadAlong(t *testing.T) {
	b := studytest.New(t)
	loads := studytest.Packed(studytest.Thing(t, "5", "4", parts.ToolTube, "", load.Tail))
	without, with := b.With("holt-650"), b.With("holt-650", "tool-tube-5")
	loads(without)
	loads(with)
	off, on := b.Facts(without), b.Facts(with)
	assert.Greater(t, on.Axles.Kg.Front, off.Axles.Kg.Front, "from behind the seat to before the engine")
	assert.InDelta(t, 5, off.Bags.RackKg, 1e-9)
	assert.Zero(t, on.Bags.RackKg)
	assert.InDelta(t, 5, on.Bags.On[0].Kg, 1e-9)
	assert.InDelta(t, 5.0/6, facts.Bag{Kg: 5, LimitKg: 6, Litres: 1, LimitL: 10}.Share(), 1e-12)
}

// TestRollBagOnTheSeat does not load the rack, what is in it neither; with a pillion there is
// no seat for it.
func TestRollBagOnTheSeat(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "roll-40")
	p.Loadouts[1].Loads = []plan.Load{studytest.Thing(t, "6", "2", parts.TailBag, plan.Middle, load.Tail), studytest.Thing(t, "2", "2", "", plan.Middle, load.Tail)}
	assert.InDelta(t, 2, b.Facts(p).Bags.RackKg, 1e-9)
	studytest.Enter(t, &p.Loadouts[1].Pillion, "60", "kg")
	assert.InDelta(t, 8.9, b.Facts(p).Bags.RackKg, 1e-9, "2 and 6 kg, and the bag's 0.9")
}

// TestMirrored: what hangs left hung right instead changes nothing but the side.
func TestMirrored(t *testing.T) {
	left := loaded(t, studytest.Thing(t, "6", "2", parts.SideBags, plan.Left, load.Panniers), studytest.Thing(t, "2", "2", parts.SideBags, plan.Right, load.Panniers))
	right := loaded(t, studytest.Thing(t, "6", "2", parts.SideBags, plan.Right, load.Panniers), studytest.Thing(t, "2", "2", parts.SideBags, plan.Left, load.Panniers))
	for _, id := range []figure.ID{"loaded-mass", "axle-front", "axle-rear", "left-right", "centre-height", "bag-fullest"} {
		assert.InDelta(t, studytest.Value(t, left, id), studytest.Value(t, right, id), 1e-9, id)
	}
	assert.InDelta(t, 4, studytest.Value(t, left, "left-right"), 1e-9)
	assert.Equal(t, studytest.Report(t, left).Facts.Bags.Sides.LeftKg, studytest.Report(t, right).Facts.Bags.Sides.RightKg)
}

// TestStandingLoadsTheFront, and so does a load that is moved forward.
func TestStandingLoadsTheFront(t *testing.T) {
	p := loaded(t, studytest.Thing(t, "8", "2", "", "", load.Tail))
	assert.Greater(t, studytest.Value(t, p, "standing-share"), studytest.Value(t, p, "front-share"))
	forward := loaded(t, studytest.Thing(t, "8", "2", "", "", load.Engine))
	assert.Greater(t, studytest.Value(t, forward, "front-share"), studytest.Value(t, p, "front-share"))
	assert.Less(t, studytest.Value(t, forward, "centre-height"), studytest.Value(t, p, "centre-height"))
	assert.Less(t, studytest.Value(t, forward, "rack-load"), studytest.Value(t, p, "rack-load"))
	over := loaded(t, studytest.Thing(t, "12", "2", "", "", load.Tail))
	f, _ := studytest.Report(t, over).Figure("rack-load")
	assert.Equal(t, verdict.Stop, f.State, "the bike's own rack carries 8 kg")
}

// TestShippedByHand: 176 kg with a full tank less a tenth of 14 L, tyres and what
// else the plan puts on 11.5 kg, three quarters of 14 L at 0.745 kg/L taken out.
func TestShippedByHand(t *testing.T) {
	p := loaded(t)
	parts := 1.4 + 0.5 + 0.8 + 0.6 + 1.1 + 3.4 + 0.9 + 2.6
	assert.InDelta(t, 176+0.1*14*0.745+parts-0.75*14*0.745, studytest.Value(t, p, "shipping-mass"), 1e-9)
}

// TestWeighingsCorrect every figure that rests on the bike's mass, by exactly what
// they read.
func TestWeighingsCorrect(t *testing.T) {
	p, _ := studytest.Demo(t)
	before := studytest.Report(t, p)
	w := &logbook.Weighing{}
	for _, q := range []struct {
		entry entry.Entry
		text  string
	}{{&w.Front, "133"}, {&w.Rear, "198"}, {&w.ExpectedFront, "130"}, {&w.ExpectedRear, "197"}} {
		require.NoError(t, q.entry.Enter(q.text, "kg"))
	}
	corrected := *p
	corrected.Readings = append(append([]logbook.Reading{}, p.Readings...), logbook.Reading{ID: "W", Kind: logbook.Weighed, On: "2026-11-20", Bike: p.Bike.ID, Read: w})
	for id, by := range map[figure.ID]float64{"loaded-mass": 4, "front-load": 3, "rear-load": 1, "payload-left": -4} {
		was, _ := before.Figure(id)
		assert.InDelta(t, was.Value+by, studytest.Value(t, &corrected, id), 1e-9, id)
	}
	_, working, err := eval.Explain(&corrected, "travel", "loaded-mass", studytest.Today)
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(working.Steps[0].Formula), "weighings")
}

// BenchmarkHundredTwentyItems is a full evaluation with a long packing list.
func BenchmarkHundredTwentyItems(b *testing.B) {
	var loads []plan.Load
	for i := range 120 {
		loads = append(loads, studytest.Thing(b, "0.2", "2", parts.SideBags, []plan.Side{plan.Left, plan.Right}[i%2], load.Panniers))
	}
	p := loaded(b, loads...)
	for b.Loop() {
		eval.Evaluate(p, nil, studytest.Today)
	}
}

// TestRepack: what is packed anew leaves nothing out, breaks no limit, keeps the plan
// that it came from, and is settled: packing it anew again moves nothing.
func TestRepack(t *testing.T) {
	p, _ := studytest.Demo(t)
	crooked, loadout := p.OwnLoads("travel")
	for i := range loadout.Loads {
		if loadout.Loads[i].Side == plan.Right {
			loadout.Loads[i].Side = plan.Left
		}
	}
	now := studytest.Report(t, crooked)
	r := loading.Repack(now.Facts)
	require.True(t, r.Packing.OK)
	require.NotEmpty(t, r.Moves)
	for _, m := range r.Moves {
		assert.Equal(t, m.From.Name, m.To.Name)
		assert.NotEqual(t, m.From.Side, m.To.Side, m.To.Name)
		assert.NotEmpty(t, m.Why)
	}
	after := studytest.Report(t, r.Plan)
	assert.Less(t, studytest.Value(t, r.Plan, "left-right"), studytest.Value(t, crooked, "left-right"))
	assert.InDelta(t, studytest.Value(t, crooked, "loaded-mass"), studytest.Value(t, r.Plan, "loaded-mass"), 1e-9)
	for _, b := range after.Facts.Bags.On {
		assert.LessOrEqual(t, b.Share(), 1+1e-9, b.Part.Name)
	}
	assert.Empty(t, loading.Repack(after.Facts).Moves)
	assert.Equal(t, now.Facts.Bags.Sides, studytest.Report(t, crooked).Facts.Bags.Sides, "the plan itself is not touched")
}

// TestRepackWhatIsInNone: what lies where bags sit goes into them; a thing that has a place
// of its own stays there, and one that does not go in stays out without stopping the rest.
func TestRepackWhatIsInNone(t *testing.T) {
	tent := studytest.Thing(t, "2.5", "2", "", plan.Middle, load.Tail)
	tools := studytest.Thing(t, "2", "2", "", plan.Middle, load.Engine)
	r := loading.Repack(studytest.Report(t, loaded(t, tent, tools)).Facts)
	require.True(t, r.Packing.OK)
	require.Len(t, r.Moves, 1)
	assert.Equal(t, load.Tail, r.Moves[0].From.Place)
	assert.NotEmpty(t, r.Moves[0].To.Bag)
	assert.NotEmpty(t, r.Moves[0].Why)
	assert.Empty(t, r.Out)

	canoe := studytest.Thing(t, "3", "2", "", plan.Middle, load.Tail)
	require.NoError(t, canoe.Volume.Enter("400", "L"))
	bagged := studytest.Thing(t, "4", "2", parts.SideBags, plan.Left, load.Panniers)
	r = loading.Repack(studytest.Report(t, loaded(t, canoe, bagged)).Facts)
	require.True(t, r.Packing.OK, "the rest is packed all the same")
	require.Len(t, r.Out, 1)
	assert.InDelta(t, 400-holds(r.Out[0].Bag), r.Out[0].Litres, 5, "by how much: all of that bag but what is in it")
	assert.False(t, r.Out[0].FromBag)
	for _, m := range r.Moves {
		assert.NotEqual(t, load.Tail, m.From.Place)
	}
}

// holds is the room of a bag, of a pair one side's, litres.
func holds(p *parts.Part) float64 {
	if b := p.Bag(); b.Pair {
		return b.Litres.In("L") / 2
	} else {
		return b.Litres.In("L")
	}
}

// TestRepackTooMuch: bags that are too full keep as much as goes in; what comes out is named,
// and the rider's plan can be taken so.
func TestRepackTooMuch(t *testing.T) {
	var loads []plan.Load
	for range 12 {
		l := studytest.Thing(t, "1", "2", parts.SideBags, plan.Left, load.Panniers)
		require.NoError(t, l.Volume.Enter("12", "L"))
		loads = append(loads, l)
	}
	r := loading.Repack(studytest.Report(t, loaded(t, loads...)).Facts)
	require.True(t, r.Packing.OK)
	require.NotEmpty(t, r.Out)
	for _, out := range r.Out {
		assert.True(t, out.FromBag)
		assert.Positive(t, out.Kg+out.Litres)
		assert.NotNil(t, out.Bag)
	}
	for _, b := range studytest.Report(t, r.Plan).Facts.Bags.On {
		assert.LessOrEqual(t, b.Share(), 1+1e-9, b.Part.Name)
	}
}

// TestRepackWithoutMeasures: a bag of which nobody has said what it holds, and a thing that
// weighs nothing, are packed all the same, and what is left out names a bag.
func TestRepackWithoutMeasures(t *testing.T) {
	feather := studytest.Thing(t, "0", "900", "", plan.Middle, load.Tail)
	anvil := studytest.Thing(t, "90", "5", "", plan.Middle, load.Tail)
	p := loaded(t, feather, anvil)
	for i := range p.Lines {
		if part := p.Lines[i].Part; part != nil && part.Bag() != nil {
			open := *part
			parts.Litres.Put(&open, unit.Volume{})
			p.Lines[i].Part = &open
		}
	}
	for _, out := range loading.Repack(studytest.Report(t, p).Facts).Out {
		assert.NotNil(t, out.Bag, out.Load.Name)
		assert.Positive(t, out.Kg+out.Litres)
	}
	for _, out := range loading.Repack(studytest.Report(t, loaded(t, feather, anvil)).Facts).Out {
		assert.NotNil(t, out.Bag, out.Load.Name)
	}
}

// TestExpectedWheels: both sides together weigh what both wheels do, and half of what
// hangs on one side more than on the other moves across.
func TestExpectedWheels(t *testing.T) {
	p, _ := studytest.Demo(t)
	now := studytest.Report(t, p)
	w, known := loading.ExpectedWheels(now.Facts, loading.Scaled{Rider: true, Loaded: true, Tank: 1})
	require.True(t, known)
	assert.InDelta(t, w.FrontKg+w.RearKg, w.LeftKg+w.RightKg, 1e-9)
	assert.InDelta(t, studytest.Value(t, p, "loaded-mass"), w.FrontKg+w.RearKg, 1e-6)
	assert.InDelta(t, now.Facts.Bags.Sides.LeftKg-now.Facts.Bags.Sides.RightKg, w.LeftKg-w.RightKg, 1e-9)
	p.Bike = nil
	_, known = loading.ExpectedWheels(studytest.Report(t, p).Facts, loading.Scaled{Rider: true, Loaded: true, Tank: 1})
	assert.False(t, known)
}

// TestScalesInAnyState: without its rider, its load or half of its fuel it weighs just that
// less.
func TestScalesInAnyState(t *testing.T) {
	p, _ := studytest.Demo(t)
	f := studytest.Report(t, p).Facts
	on := func(s loading.Scaled) float64 {
		w, known := loading.ExpectedWheels(f, s)
		require.True(t, known)
		return w.FrontKg + w.RearKg
	}
	all := on(loading.Scaled{Rider: true, Loaded: true, Tank: 1})
	rider := p.Brief.Rider.In("kg")
	assert.InDelta(t, all-rider, on(loading.Scaled{Loaded: true, Tank: 1}), 1e-9)
	assert.InDelta(t, all-f.Masses.CarriedKg, on(loading.Scaled{Rider: true, Tank: 1}), 1e-9)
	assert.InDelta(t, all-rider-f.Masses.CarriedKg, on(loading.Scaled{Tank: 1}), 1e-9)
	assert.InDelta(t, all-f.Masses.Fuel.Full.Number/2, on(loading.Scaled{Rider: true, Loaded: true, Tank: 0.5}), 1e-9)
}
