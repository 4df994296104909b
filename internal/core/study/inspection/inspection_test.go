package inspection_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/studytest"
)

// TestBaselineCounts: what is due costs money and hours; without a price the sum
// is the least that it comes to; what the plan replaces anyway is not paid twice; hands are free.
func TestBaselineCounts(t *testing.T) {
	p, shelf := studytest.Demo(t)
	before := studytest.Value(t, p, "cost")
	pads := plan.Answer{Check: "rear-pads", Verdict: baseline.Do}
	require.NoError(t, pads.Cost.UnmarshalText([]byte("32 EUR")))
	assert.InDelta(t, before+3200, studytest.Value(t, p.Answered(pads), "cost"), 1e-9)
	free := p.Answered(plan.Answer{Check: "bar-roll", Verdict: baseline.Do})
	assert.InDelta(t, before, studytest.Value(t, free, "cost"), 1e-9)
	cost, _ := studytest.Report(t, p.Answered(plan.Answer{Check: "rear-bearings", Verdict: baseline.Blocks})).Figure("cost")
	assert.InDelta(t, before, cost.Value, 1e-9, "the least that it comes to")
	assert.Contains(t, cost.Missing[0], "Rear wheel bearings")

	chain := plan.Answer{Check: "chain-wear", Verdict: baseline.Do}
	require.NoError(t, chain.Cost.UnmarshalText([]byte("95 EUR")))
	worn := p.Answered(chain)
	assert.InDelta(t, before+9500, studytest.Value(t, worn, "cost"), 1e-9)
	part := shelf.Find(p.Bike, parts.Chain, "chain-520-110")
	replaced := worn.With(plan.Choice{Slot: parts.Chain, Part: part})
	assert.InDelta(t, before+float64(part.Price.Minor()), studytest.Value(t, replaced, "cost"), 1e-9, "a chain that is bought is not mended")
	assert.True(t, p.Riding(p.Bike).Baseline.IsZero())
}
