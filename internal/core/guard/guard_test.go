package guard_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/terrain"
)

func everything(guard.Place) bool { return true }

func trip(mix terrain.Mix) guard.Trip {
	return guard.Trip{DistanceKm: 4000, Mix: mix, Falls: math.NaN(), RoomMM: math.NaN(), PerEuro: 1}
}

func of(t *testing.T, risks []guard.Risk, p guard.Place) guard.Risk {
	t.Helper()
	for _, r := range risks {
		if r.Place.Place == p {
			return r
		}
	}
	require.Fail(t, string(p))
	return guard.Risk{}
}

// TestSumpByHand: 4000 km, a quarter of it rough gravel. Strikes: 1.5 in 1000 km
// there, 0.04 of them hole the sump; stones 6 there and 0.3 on the paved rest,
// 0.003 of them.
func TestSumpByHand(t *testing.T) {
	tr := trip(terrain.MixOf(map[terrain.Kind]float64{terrain.Paved: 0.75, terrain.RoughGravel: 0.25}))
	tr.HelpDays = 2
	breaks := 1.5*0.04 + (6+0.3*3)*0.003
	sump := of(t, guard.Assess(tr, nil, everything, nil), guard.Sump)
	assert.InDelta(t, 1-math.Exp(-breaks), sump.Bare.Broken, 1e-12)
	stranded := 1 - math.Exp(-breaks*0.5)
	assert.InDelta(t, stranded, sump.Bare.Stranded, 1e-12)
	assert.InDelta(t, sump.Bare.Broken*3+stranded*2, sump.Bare.Days, 1e-12)
	assert.Equal(t, sump.Bare, sump.Left, "without a guard nothing is left out")

	plate := []guard.Cover{{Place: guard.Sump, Hazard: guard.Strike, Share: 0.9}}
	covered := of(t, guard.Assess(tr, nil, everything, plate), guard.Sump)
	assert.InDelta(t, 1-math.Exp(-(1.5*0.04*0.1+(6+0.9)*0.003)), covered.Left.Broken, 1e-12)
	assert.Equal(t, sump.Bare, covered.Bare)
	two := of(t, guard.Assess(tr, nil, everything, append(plate, plate...)), guard.Sump)
	assert.InDelta(t, 1-math.Exp(-(1.5*0.04*0.01+(6+0.9)*0.003)), two.Left.Broken, 1e-12, "each stops its share of what comes through the other")
}

// TestRoomUnderTheEngine: 40 mm too little is e times the strikes, held between 0.3 and 3
// times; where nothing strikes it changes nothing.
func TestRoomUnderTheEngine(t *testing.T) {
	at := func(mm float64, kind terrain.Kind) float64 {
		tr := trip(terrain.Only(kind))
		tr.RoomMM = mm
		return events(tr, guard.Strike)
	}
	usual := events(trip(terrain.Only(terrain.RoughGravel)), guard.Strike)
	assert.InDelta(t, 1.5*4, usual, 1e-12)
	assert.InDelta(t, usual, at(170, terrain.RoughGravel), 1e-12)
	assert.InDelta(t, usual*math.E, at(130, terrain.RoughGravel), 1e-9)
	assert.InDelta(t, usual/math.E, at(210, terrain.RoughGravel), 1e-9)
	assert.InDelta(t, usual*3, at(60, terrain.RoughGravel), 1e-9)
	assert.InDelta(t, usual*0.3, at(400, terrain.RoughGravel), 1e-9)
	assert.Zero(t, at(60, terrain.Paved))
}

func events(t guard.Trip, h guard.Hazard) float64 {
	for i, info := range guard.Hazards() {
		if info.Hazard == h {
			return guard.Events(t, nil)[i]
		}
	}
	return math.NaN()
}

// TestFalls that a rider counts on take the place of the rates'.
func TestFalls(t *testing.T) {
	tr := trip(terrain.MixOf(map[terrain.Kind]float64{terrain.SingleTrack: 1}))
	tr.Falls = 6
	assert.InDelta(t, 6, events(tr, guard.SlowFall)+events(tr, guard.FastFall), 1e-9)
	tr.Falls = 0
	assert.Zero(t, of(t, guard.Assess(tr, nil, everything, nil), guard.Bars).Bare.Broken, "who never falls bends no bar")
	tr.Falls = math.NaN()
	tr.Skill = guard.Learning
	learner := events(tr, guard.SlowFall)
	tr.Skill = guard.Old
	assert.Greater(t, learner, events(tr, guard.SlowFall))
}

// TestLaws: more protection never more residual risk, more rock never less hazard
// to the sump, more distance never less of anything.
func TestLaws(t *testing.T) {
	random := rand.New(rand.NewPCG(7, 11))
	for range 200 {
		rock := random.Float64()
		tr := trip(terrain.MixOf(map[terrain.Kind]float64{terrain.Paved: 1 - rock, terrain.RoughGravel: rock}))
		var covers []guard.Cover
		before := guard.Assess(tr, nil, everything, nil)
		for range 8 {
			p := guard.Places()[random.IntN(len(guard.Places()))]
			covers = append(covers, guard.Cover{Place: p.Place, Hazard: p.Breaks[random.IntN(len(p.Breaks))].Hazard, Share: random.Float64()})
			after := guard.Assess(tr, nil, everything, covers)
			for i := range after {
				require.LessOrEqual(t, after[i].Left.Broken, before[i].Left.Broken)
				require.LessOrEqual(t, after[i].Left.Stranded, before[i].Left.Stranded)
				require.LessOrEqual(t, after[i].Left.Days, before[i].Left.Days)
			}
			_, now := guard.Total(after)
			_, was := guard.Total(before)
			require.LessOrEqual(t, now.Stranded, was.Stranded+1e-12)
			before = after
		}
		rockier, longer := tr, tr
		rockier.Mix = terrain.MixOf(map[terrain.Kind]float64{terrain.Paved: (1 - rock) / 2, terrain.RoughGravel: 1 - (1-rock)/2})
		longer.DistanceKm *= 1.3
		bare := of(t, guard.Assess(tr, nil, everything, nil), guard.Sump).Bare
		require.GreaterOrEqual(t, of(t, guard.Assess(rockier, nil, everything, nil), guard.Sump).Bare.Broken, bare.Broken)
		require.GreaterOrEqual(t, of(t, guard.Assess(longer, nil, everything, nil), guard.Sump).Bare.Broken, bare.Broken)
	}
}

// TestTotal: two places that each strand once in ten rides strand in 19 of 100.
func TestTotal(t *testing.T) {
	one := guard.Risk{Bare: guard.Outcome{Stranded: 0.1, Days: 1}, Left: guard.Outcome{Stranded: 0.1, Days: 0.5}}
	bare, left := guard.Total([]guard.Risk{one, one})
	assert.InDelta(t, 0.19, bare.Stranded, 1e-12)
	assert.InDelta(t, 1, left.Days, 1e-12)
	assert.InDelta(t, 0.5, guard.Coverage(bare.Days, left.Days), 1e-12)
	assert.True(t, math.IsNaN(guard.Coverage(0, 0)))
}

// TestRepairs by hand: what breaks, times what its parts cost on this class of bike, in the
// rider's money; a price of the rider's own needs no rate.
func TestRepairs(t *testing.T) {
	tr := trip(terrain.Only(terrain.SingleTrack))
	at := func(class guard.Class, per float64, rates guard.Rates) guard.Outcome {
		tr.Bike, tr.PerEuro = class, per
		return of(t, guard.Assess(tr, rates, everything, nil), guard.Sump).Bare
	}
	light := at(guard.LightBike, 1, nil)
	sump, _ := guard.PlaceOf(guard.Sump)
	assert.InDelta(t, light.Broken*sump.Loss.Repair[guard.LightBike], light.Repair, 1e-9)
	assert.InDelta(t, 11*light.Repair, at(guard.LightBike, 11, nil).Repair, 1e-9, "a krona is smaller")
	assert.True(t, math.IsNaN(at(guard.LightBike, math.NaN(), nil).Repair), "nobody knows the rate")
	own := guard.Rates{guard.LossKey(guard.Sump, "repair"): 90}
	assert.InDelta(t, light.Broken*90, at(guard.HeavyBike, math.NaN(), own).Repair, 1e-9)
	for _, p := range guard.Places() {
		r := p.Loss.Repair
		assert.True(t, 0 < r[guard.LightBike] && r[guard.LightBike] < r[guard.MiddleBike] && r[guard.MiddleBike] < r[guard.HeavyBike], "%s: parts of bigger bikes cost more", p.Place)
	}
	for kg, class := range map[float64]guard.Class{160: guard.LightBike, 161: guard.MiddleBike, 210: guard.MiddleBike, 211: guard.HeavyBike} {
		assert.Equal(t, class, guard.ClassOf(kg))
	}
}

// TestRates: each can be changed, and moves what it is for.
func TestRates(t *testing.T) {
	tr := trip(terrain.MixOf(map[terrain.Kind]float64{terrain.RoughGravel: 1}))
	plain := of(t, guard.Assess(tr, nil, everything, nil), guard.Sump).Bare
	tr.RoomMM = 150
	less := of(t, guard.Assess(tr, guard.Rates{guard.StrikeRoomKey: 80}, everything, nil), guard.Sump).Bare
	assert.Less(t, less.Stranded, of(t, guard.Assess(tr, nil, everything, nil), guard.Sump).Bare.Stranded, "where more room is worth the same")
	tr.RoomMM = math.NaN()
	for _, key := range []string{guard.EventKey(guard.Strike, terrain.RoughGravel), guard.BreakKey(guard.Sump, guard.Strike), guard.LossKey(guard.Sump, "stranded")} {
		k, ok := guard.KeyOf(key)
		require.True(t, ok, key)
		more := of(t, guard.Assess(tr, guard.Rates{key: k.Value * 1.2}, everything, nil), guard.Sump).Bare
		assert.Greater(t, more.Stranded, plain.Stranded, key)
	}
	for _, k := range guard.Keys() {
		assert.True(t, k.Value >= 0 && k.Value <= k.Max, k.Key)
		assert.NotEmpty(t, k.Name, k.Key)
	}
	_, ok := guard.KeyOf("events.meteor.paved")
	assert.False(t, ok)
	assert.Len(t, guard.Assess(tr, nil, func(p guard.Place) bool { return p != guard.Radiator }, nil), len(guard.Places())-1, "no radiator, no risk to it")
}
