package baseline_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
)

func with(features ...baseline.Feature) func(baseline.Feature) bool {
	return func(f baseline.Feature) bool {
		for _, has := range features {
			if has == f {
				return true
			}
		}
		return false
	}
}

func ids(list []baseline.Check) map[string]bool {
	all := map[string]bool{}
	for _, c := range list {
		all[c.ID] = true
	}
	return all
}

// TestFitsTheBike: nobody is asked for a chain on a shaft, or for coolant on fins.
func TestFitsTheBike(t *testing.T) {
	old := ids(baseline.For(with(baseline.Carburettor, baseline.Chain, baseline.Tubes, baseline.Spokes)))
	assert.True(t, old["carburettor"] && old["chain-wear"] && old["front-spokes"] && old["tubes"])
	assert.False(t, old["injection"] || old["coolant"] || old["shaft-drive"] || old["tubeless-rims"])
	shaft := ids(baseline.For(with(baseline.Injection, baseline.LiquidCooled, baseline.Shaft, baseline.Tubeless)))
	assert.True(t, shaft["injection"] && shaft["coolant"] && shaft["shaft-drive"] && shaft["tubeless-rims"])
	assert.False(t, shaft["carburettor"] || shaft["chain-wear"] || shaft["sprockets"] || shaft["rear-spokes"])
}

// TestWalk: every check can be found, says how, and the walk passes each area
// once.
func TestWalk(t *testing.T) {
	order := map[baseline.Area]int{}
	for i, a := range baseline.Areas() {
		order[a.Area] = i
	}
	all := baseline.For(func(baseline.Feature) bool { return true })
	at, seen := 0, map[string]bool{}
	for _, c := range all {
		place, known := order[c.Area]
		require.True(t, known, c.ID)
		assert.GreaterOrEqual(t, place, at, "%s: the walk does not turn back", c.ID)
		at = place
		assert.False(t, seen[c.ID], c.ID)
		seen[c.ID] = true
		assert.NotEmpty(t, c.How, c.ID)
		assert.Equal(t, c.Wear != baseline.NoMeasure, c.Measure != "", c.ID)
		found, ok := baseline.CheckOf(c.ID)
		assert.True(t, ok && found == c, c.ID)
	}
	assert.Equal(t, len(order)-1, at)
	_, ok := baseline.CheckOf("sunroof")
	assert.False(t, ok)
}

// TestWear is worked by hand: pads of 4.5 mm are at 3 after 6000 km and may go to
// 1: 1.5 mm took 6000 km, 2 mm take 8000. A chain of 20 links grows from 317.5 mm
// to 320 in 9000 km and may go to 323: 3 mm more take 10 800.
func TestWear(t *testing.T) {
	assert.InDelta(t, 8000, baseline.Worn{NewMM: 4.5, NowMM: 3, LimitMM: 1, RunKm: 6000}.LeftKm(), 1e-9)
	assert.InDelta(t, 10_800, baseline.Worn{NewMM: 317.5, NowMM: 320, LimitMM: 323, RunKm: 9000}.LeftKm(), 1e-9)
	assert.Zero(t, baseline.Worn{NewMM: 4.5, NowMM: 0.9, LimitMM: 1, RunKm: 6000}.LeftKm())
	assert.True(t, math.IsInf(baseline.Worn{NewMM: 4.5, NowMM: 4.5, LimitMM: 1, RunKm: 100}.LeftKm(), 1), "not worn at all")
	unknown := math.NaN()
	for _, w := range []baseline.Worn{{unknown, 3, 1, 6000}, {4.5, unknown, 1, 6000}, {4.5, 3, unknown, 6000}, {4.5, 3, 1, unknown}} {
		assert.True(t, math.IsNaN(w.LeftKm()), "%+v", w)
	}
	assert.True(t, baseline.Worn{NowMM: 1, LimitMM: 1}.Past(baseline.Shrinks))
	assert.False(t, baseline.Worn{NowMM: 1, LimitMM: unknown}.Past(baseline.Shrinks), "without a limit nothing is past it")
	assert.True(t, baseline.Worn{NowMM: 324, LimitMM: 323}.Past(baseline.Grows))
	last := math.Inf(1)
	for now := 4.4; now > 1; now -= 0.2 {
		left := baseline.Worn{NewMM: 4.5, NowMM: now, LimitMM: 1, RunKm: 6000}.LeftKm()
		assert.Less(t, left, last, "the thinner, the less is left")
		last = left
	}
}
