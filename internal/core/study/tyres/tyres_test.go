package tyres_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestNoTubeForTubeless rims is offered: whether one may go in, their maker says.
func TestNoTubeForTubeless(t *testing.T) {
	b := studytest.New(t)
	p := b.With("corrin-850")
	size := b.Facts(p).Built.Tyre(parts.RearTyre).Size
	size.TubeType = true
	own := *p.Build("").Part(parts.RearTyre)
	own.ID, own.Name = "own-rear", "Own"
	parts.TyreCode.Put(&own, parts.Code{Size: size})
	p = p.With(plan.Choice{Slot: parts.RearTyre, Part: &own})
	air, said := b.Findings(p)["holds-no-air"]
	require.True(t, said)
	assert.Empty(t, air.Remedies())
}

// TestTapeInFront is worse than behind, and neither "holds no air".
func TestTapeInFront(t *testing.T) {
	b := studytest.New(t)
	taped := func(w parts.Slot) map[string]study.Finding {
		part := &parts.Part{ID: "own-tape", Slot: w, Name: "Tape"}
		parts.FillingKind.Put(part, tyre.RimTape)
		return b.Findings(b.With("holt-650").With(plan.Choice{Slot: w, Part: part}))
	}
	for slot, state := range map[parts.Slot]verdict.State{parts.FrontTube: verdict.Over, parts.RearTube: verdict.Watch} {
		assert.Equal(t, state, taped(slot)["taped-rim"].State, slot)
		assert.NotContains(t, taped(slot), "holds-no-air", slot)
	}
}

// TestGroundUnderBothEnds: a road tread in front is spoken of as one behind is, and rain
// decides where dry ground would not.
func TestGroundUnderBothEnds(t *testing.T) {
	b := studytest.New(t)
	muddy := func(weather plan.Weather, mud string, parts ...string) map[string]study.Finding {
		p := b.With("holt-650", parts...)
		p.Brief.Weather = weather
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.Mud: mud, terrain.Track: "60"})
		return b.Findings(p)
	}
	front := muddy(plan.Warm, "40", "bracken-140-80-18")["front-tyre-against-ground"]
	require.NotNil(t, front.Tell, "the standard front is a road-biased one")
	assert.Contains(t, string(front.Tell().What), "front")
	assert.NotContains(t, muddy(plan.Warm, "40", "bracken-90-90-21", "bracken-140-80-18"), "front-tyre-against-ground")
	assert.NotContains(t, muddy(plan.Warm, "8"), "front-tyre-against-ground")
	assert.Contains(t, muddy(plan.Wet, "8"), "front-wet-grip", "standard tyres in a wet, muddy brief are not ok")
	assert.NotContains(t, muddy(plan.Wet, "8", "bracken-90-90-21", "bracken-140-80-18"), "front-wet-grip")
	assert.NotContains(t, muddy(plan.Warm, "8"), "front-wet-grip")
}

// TestBlocksOnWetRoads: few blocks, much road, and rain.
func TestBlocksOnWetRoads(t *testing.T) {
	b := studytest.New(t)
	said := func(weather plan.Weather, road string) bool {
		p := b.With("holt-650", "hackle-140-80-18")
		p.Brief.Weather = weather
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.Paved: road, terrain.Track: "50"})
		_, said := b.Findings(p)["rear-wet-grip"]
		return said
	}
	assert.True(t, said(plan.Wet, "50"))
	assert.False(t, said(plan.Warm, "50"))
	assert.False(t, said(plan.Wet, "30"))
}

// TestSlowGround: where it is ridden slowly a tyre carries its axle on less, by UN R75's
// table from memory; under that it is a stop, between the two it is said with its speed.
func TestSlowGround(t *testing.T) {
	b := studytest.New(t)
	card := func(p *plan.Plan, surface string) facts.PressureEnd {
		for _, q := range b.Facts(p).Pressures {
			if q.Surface.ID == surface {
				return q.Rear
			}
		}
		require.Fail(t, surface)
		return facts.PressureEnd{}
	}
	plain := b.With("corrin-850", "lock-rear-250")
	rock := card(plain, "rock")
	assert.InEpsilon(t, 0.72, rock.Slow/rock.Load, 1e-9)
	assert.Equal(t, card(plain, "gravel").Load, card(plain, "gravel").Slow, "smooth gravel is ridden faster")
	at := func(kPa float64) map[string]study.Finding {
		text := fmt.Sprintf("%.0f", kPa)
		return b.Findings(b.Changing("corrin-850", own(t, "rock", "300", text), "lock-rear-250")())
	}
	assert.Equal(t, verdict.Watch, at(rock.Load - 8)["pressure-load"].State)
	assert.Equal(t, verdict.Watch, at(rock.Slow + 4)["pressure-load"].State)
	assert.Equal(t, verdict.Stop, at(rock.Slow - 8)["pressure-load"].State)
	assert.NotContains(t, at(rock.Load+1), "pressure-load")
}

// TestPinchOnALoaded450: what a rider with bags on ultra-heavy tubes calls a pinch risk in
// front, 83 kPa, and had no flat above [common practice, no source].
func TestPinchOnALoaded450(t *testing.T) {
	b := studytest.New(t)
	rock := func(tubes ...string) facts.Pressure {
		p := b.With("fennick-450", tubes...)
		p.Loadouts[1].Loads = append(p.Loadouts[1].Loads, studytest.Thing(t, "30", "2", "", "", load.Tail))
		for _, q := range b.Facts(p).Pressures {
			if q.Surface.ID == "rock" {
				return q
			}
		}
		require.Fail(t, "no rock")
		return facts.Pressure{}
	}
	ultra, standard := rock("tube-ultra-front-21", "tube-ultra-rear-18"), rock()
	assert.InDelta(t, 67.5, ultra.Front.Pinch, 17.5)
	assert.Greater(t, standard.Front.Pinch, ultra.Front.Pinch)
	assert.Greater(t, ultra.Rear.Pinch, ultra.Front.Pinch, "the rear carries the bags")
}

// TestCardRaisesNothing: who types the card's own advice, read off a gauge in the rider's
// unit, hears of no pressure but of a stone that the placard does not hold off.
func TestCardRaisesNothing(t *testing.T) {
	b := studytest.New(t)
	for _, bike := range []string{"holt-650", "fennick-450", "fennick-250", "corrin-850", "morrow-400"} {
		for _, in := range []struct {
			unit string
			step float64
		}{{"kPa", 1}, {"psi", 6.894757}} {
			p := b.Changing(bike, func(p *plan.Plan) {
				l := &p.Loadouts[1]
				l.Pressures = nil
				for _, q := range b.Facts(p).Pressures {
					typed := plan.Pressure{Surface: q.Surface.ID}
					studytest.Enter(t, &typed.Front, fmt.Sprintf("%.0f", q.Front.Advice/in.step), in.unit)
					studytest.Enter(t, &typed.Rear, fmt.Sprintf("%.0f", q.Rear.Advice/in.step), in.unit)
					l.Pressures = append(l.Pressures, typed)
				}
			})()
			for _, id := range []string{"pressure-load", "pressure-maker", "pressure-soft", "pressure-road"} {
				assert.NotContains(t, b.Findings(p), id, "%s in %s", bike, in.unit)
			}
		}
	}
}

// TestPressuresByHand works one corner of the card out on paper: the demo's rear
// tyre on sand, loaded to travel.
func TestPressuresByHand(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "bracken-140-80-18", "tube-heavy-rear-18")
	var soft facts.Pressure
	f := b.Facts(p)
	for _, q := range f.Pressures {
		if q.Surface.ID == "soft" {
			soft = q
		}
	}
	// 250 kPa carry 335 kg (index 70); the axle's share of that to the power 1.25.
	assert.InDelta(t, 250*math.Pow(f.Axles.Kg.Rear/335, 1.25), soft.Rear.Load, 1e-9)
	assert.Equal(t, 120.0, soft.Rear.Bead, "a tube and no rim lock")
	assert.Equal(t, 100.0, soft.Rear.Maker)
	assert.GreaterOrEqual(t, soft.Rear.Advice, soft.Rear.Load)
	assert.Zero(t, int(soft.Rear.Advice)%5, "in steps of a gauge")
	locked := b.Facts(p.With(b.Part("lock-light-rear-250")))
	for i, q := range locked.Pressures {
		assert.LessOrEqual(t, q.Rear.Advice, f.Pressures[i].Rear.Advice, "a rim lock never asks for more")
	}
}

// own sets the rider's pressures for a surface in the loadout that is looked at.
func own(t *testing.T, surface, front, rear string) func(p *plan.Plan) {
	return func(p *plan.Plan) {
		q := plan.Pressure{Surface: surface}
		studytest.Enter(t, &q.Front, front, "kPa")
		studytest.Enter(t, &q.Rear, rear, "kPa")
		p.Loadouts[1].Pressures = []plan.Pressure{q}
	}
}

// TestPressureWorking explains the corner of the card that it is asked for.
func TestPressureWorking(t *testing.T) {
	p, _ := studytest.Demo(t)
	r := studytest.Report(t, p)
	at := slices.IndexFunc(r.Facts.Pressures, func(q facts.Pressure) bool { return q.Surface.ID == "rock" })
	require.NotEqual(t, -1, at)
	end, working, err := eval.PressureWorking(p, "travel", &study.RearWheel, "rock", studytest.Today)
	require.NoError(t, err)
	assert.Equal(t, r.Facts.Pressures[at].Rear.Advice, end.Advice)
	require.NotEmpty(t, working.Steps)
	for _, step := range working.Steps {
		assert.NotEmpty(t, step.Formula.Text)
		assert.False(t, math.IsNaN(step.Out.Number), step.Formula.Text)
	}
	_, _, err = eval.PressureWorking(p, "travel", &study.RearWheel, "ice", studytest.Today)
	assert.Error(t, err)
}

// TestTyreLoadTakesTheWorst: both wheels, tank full and empty, against the index.
func TestTyreLoadTakesTheWorst(t *testing.T) {
	p, _ := studytest.Demo(t)
	rated, _ := tyre.MaxLoadKg(70)
	assert.GreaterOrEqual(t, studytest.Value(t, p, "tyre-load"), 100*studytest.Value(t, p, "rear-load")/rated-1e-9)
	assert.InDelta(t, studytest.Value(t, p, "loaded-mass"), studytest.Value(t, p, "front-load")+studytest.Value(t, p, "rear-load"), 1e-9)
}

// TestAllRoundInMud: rain and much mud stop half road, half block too; and a tyre that a bike
// came with is road-biased until somebody says otherwise [common practice].
func TestAllRoundInMud(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "wether-140-80-18")
	p.Brief.Weather = plan.Wet
	studytest.Ground(t, p, map[terrain.Kind]string{terrain.Paved: "70", terrain.Mud: "30"})
	assert.Contains(t, b.Findings(p), "rear-wet-grip")
	studytest.Ground(t, p, map[terrain.Kind]string{terrain.Paved: "95", terrain.Mud: "5"})
	assert.NotContains(t, b.Findings(p), "rear-wet-grip")

	came := b.Standard("holt-650")
	rear := *came.Bike.StandardIn(parts.RearTyre)
	parts.TyreKind.Put(&rear, "")
	came.Bike.SetStandard(rear)
	assert.Equal(t, tyre.RoadBiased, came.Build("travel").Tyre(parts.RearTyre).Kind)
	own := &parts.Part{ID: "own-tyre", Slot: parts.RearTyre, Name: "Mine"}
	studytest.Say(t, own, "code", "140/80-18 M/C 70R")
	assert.Empty(t, came.With(plan.Choice{Slot: own.Slot, Part: own}).Build("travel").Tyre(parts.RearTyre).Kind, "of another's nobody knows")
}

// TestSymbolAgainstWhatIsKnown: a symbol is held against the papers' top speed, else against what
// the power makes, else against the symbol of the tyre that it came with; silence is no pass.
func TestSymbolAgainstWhatIsKnown(t *testing.T) {
	b := studytest.New(t)
	slow := func(p *plan.Plan) *plan.Plan {
		part := &parts.Part{ID: parts.OwnPrefix + "slow", Slot: parts.RearTyre, Name: "Slow"}
		return p.With(plan.Choice{Slot: parts.RearTyre, Part: studytest.Say(t, part, "code", "150/70R17 69M")})
	}
	p := b.With("corrin-850")
	said := func() (verdict.State, bool) {
		f, ok := b.Findings(slow(p))["rear-tyre-speed"]
		return f.State, ok
	}
	state, _ := said()
	assert.Equal(t, verdict.Stop, state)
	studytest.Enter(t, &p.Bike.TopSpeed, "", "km/h")
	state, _ = said()
	assert.Equal(t, verdict.Over, state, "by its power")
	studytest.Enter(t, &p.Bike.Power, "", "kW")
	state, _ = said()
	assert.Equal(t, verdict.Watch, state, "by the tyre that it came with")
	p.Bike.Standard = nil
	_, ok := said()
	assert.False(t, ok)
	assert.NotEqual(t, verdict.OK, b.Report(slow(p)).Stage(figure.Tyres))
}

// TestRiddenUntilTheDay: a tyre that stays is ridden until departure, and one that is bought for it is not.
func TestRiddenUntilTheDay(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Brief.Start, p.Ready = "2027-02-04", plan.Ready{} // ten weeks after the day of the tests
	left := studytest.Value(t, p, "rear-life")
	studytest.Enter(t, &p.Ready.Ride, "70", "km")
	assert.InDelta(t, left-700, studytest.Value(t, p, "rear-life"), 1e-6)
	fresh := b.With("holt-650", "bracken-140-80-18")
	fresh.Brief.Start, fresh.Ready = p.Brief.Start, plan.Ready{}
	new := studytest.Value(t, fresh, "rear-life")
	fresh.Ready = p.Ready
	assert.Equal(t, new, studytest.Value(t, fresh, "rear-life"))
}
