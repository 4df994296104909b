package eval_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

// Rules that spoke where the trade shrugs, each from both sides [common practice, no
// source].

func TestKneesFrom68Degrees(t *testing.T) {
	b := newGarage(t)
	knee := func(inseam string) (float64, bool) {
		p := b.changing("holt-650", func(p *plan.Plan) { enter(t, &p.Brief.Inseam, inseam, "mm") })()
		_, said := b.findings(p)["knees-bent"]
		return b.facts(p).Contact.KneeDegrees, said
	}
	for inseam := 780; inseam <= 980; inseam += 10 {
		degrees, said := knee(fmt.Sprint(inseam))
		assert.Equal(t, degrees < 68, said, "%d mm: %.1f°", inseam, degrees)
	}
}

func TestSeatBehindAScreen(t *testing.T) {
	b := newGarage(t)
	assert.Equal(t, 2.0, b.facts(b.with("holt-650")).Contact.SeatHours)
	assert.Equal(t, 3.5, b.facts(b.with("corrin-1180")).Contact.SeatHours, "it has a screen of its own")
	assert.Equal(t, 3.5, b.facts(b.with("holt-650", "screen-mid")).Contact.SeatHours)
}

func TestFrontLightTwoUp(t *testing.T) {
	b := newGarage(t)
	p := b.with("holt-650")
	enter(t, &p.Loadouts[1].Pillion, "75", "kg")
	share := b.facts(p).Carrying.FrontShare
	require.True(t, share > 0.33 && share < 0.38, "%.3f", share)
	assert.NotContains(t, b.findings(p), "front-light")
	enter(t, &p.Loadouts[1].Pillion, "140", "kg")
	require.Less(t, b.facts(p).Carrying.FrontShare, 0.33)
	assert.Contains(t, b.findings(p), "front-light")
}

// TestWornWhereWearSaysSo: who has looked and found the old half good hears nothing; who
// has measured it past half does.
func TestWornWhereWearSaysSo(t *testing.T) {
	b := newGarage(t)
	looked := func(verdicts baseline.Verdict, now string) map[string]study.Finding {
		p := b.with("holt-650", "rear-h6-46")
		chain := plan.Answer{Check: "chain-wear", Verdict: verdicts}
		if now != "" {
			enter(t, &chain.New, "317.5", "mm")
			enter(t, &chain.Limit, "322", "mm")
			enter(t, &chain.Now, now, "mm")
		}
		p.Baseline.Answers = []plan.Answer{chain, {Check: "sprockets", Verdict: baseline.Good}}
		return b.findings(p)
	}
	assert.NotContains(t, looked(baseline.Good, ""), "worn-together")
	assert.NotContains(t, looked(baseline.Watch, "319"), "worn-together", "a third of its measure")
	assert.Contains(t, looked(baseline.Good, "320.5"), "worn-together", "two thirds")
	assert.Contains(t, looked(baseline.Watch, ""), "worn-together")
}

// TestClearanceAndItsRule speak with one voice.
func TestClearanceAndItsRule(t *testing.T) {
	b := newGarage(t)
	for _, c := range []struct {
		over  float64 // of the wish, mm
		state verdict.State
	}{{-2, verdict.Over}, {4, verdict.Watch}, {20, verdict.OK}} {
		p := b.with("holt-650")
		enter(t, &p.Bike.Clearance, "100", "mm")
		room := b.facts(p).Room
		enter(t, &p.Bike.Clearance, fmt.Sprintf("%.1f", 100+room.WishMM-room.MM+c.over), "mm")
		gauge, ok := report(t, p).Figure(figure.Clearance)
		require.True(t, ok)
		assert.Equal(t, c.state, gauge.State, "%g mm over", c.over)
		finding, said := b.findings(p)["room-short"]
		assert.Equal(t, c.state != verdict.OK, said)
		if said {
			assert.Equal(t, c.state, finding.State)
		}
	}
}

// TestBarsNoHigherThanOneSits: what is offered to stand keeps to what one can sit behind.
func TestBarsNoHigherThanOneSits(t *testing.T) {
	b := newGarage(t)
	p := b.with("holt-650")
	enter(t, &p.Brief.Inseam, "980", "mm")
	enter(t, &p.Bike.CableSlack, "200", "mm")
	low, said := b.findings(p)["bars-low-standing"]
	require.True(t, said)
	require.NotEmpty(t, low.Remedies())
	for _, r := range low.Remedies() {
		rise := 0.0
		for _, c := range r.Choices {
			rise += c.Part.Adds(plan.BarRise)
		}
		assert.LessOrEqual(t, rise, 50.0)
	}
}

// TestNoTubeForTubeless rims is offered: whether one may go in, their maker says.
func TestNoTubeForTubeless(t *testing.T) {
	b := newGarage(t)
	p := b.with("corrin-850")
	copied := *b.facts(p).Built.Tyre(plan.RearTyre)
	copied.Size.TubeType = true
	p = p.With(plan.Choice{Slot: plan.RearTyre, Part: &plan.Part{ID: "own-rear", Slot: plan.RearTyre, Name: "Own", Tyre: &copied}})
	air, said := b.findings(p)["holds-no-air"]
	require.True(t, said)
	assert.Empty(t, air.Remedies())
}

// TestTapeInFront is worse than behind, and neither "holds no air".
func TestTapeInFront(t *testing.T) {
	b := newGarage(t)
	taped := func(w plan.Slot) map[string]study.Finding {
		part := &plan.Part{ID: "own-tape", Slot: w, Name: "Tape", Filling: &plan.Filling{Kind: tyre.RimTape}}
		return b.findings(b.with("holt-650").With(plan.Choice{Slot: w, Part: part}))
	}
	for slot, state := range map[plan.Slot]verdict.State{plan.FrontTube: verdict.Over, plan.RearTube: verdict.Watch} {
		assert.Equal(t, state, taped(slot)["taped-rim"].State, slot)
		assert.NotContains(t, taped(slot), "holds-no-air", slot)
	}
}

// TestGroundUnderBothEnds: a road tread in front is spoken of as one behind is, and rain
// decides where dry ground would not.
func TestGroundUnderBothEnds(t *testing.T) {
	b := newGarage(t)
	muddy := func(weather plan.Weather, mud string, parts ...string) map[string]study.Finding {
		p := b.with("holt-650", parts...)
		p.Brief.Weather = weather
		ground(t, p, map[terrain.Kind]string{terrain.Mud: mud, terrain.Track: "60"})
		return b.findings(p)
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
	b := newGarage(t)
	said := func(weather plan.Weather, road string) bool {
		p := b.with("holt-650", "hackle-140-80-18")
		p.Brief.Weather = weather
		ground(t, p, map[terrain.Kind]string{terrain.Paved: road, terrain.Track: "50"})
		_, said := b.findings(p)["rear-wet-grip"]
		return said
	}
	assert.True(t, said(plan.Wet, "50"))
	assert.False(t, said(plan.Warm, "50"))
	assert.False(t, said(plan.Wet, "30"))
}
