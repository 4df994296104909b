package eval_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func waysOf(t *testing.T, p *plan.Plan, shelf plan.Shelf) []eval.Way {
	t.Helper()
	b, err := eval.NewBench(p, shelf, "travel", studytest.Today)
	require.NoError(t, err)
	ways, err := b.Ways()
	require.NoError(t, err)
	return ways
}

// TestWays: each way does what its preview says, and the three that are named close
// the leg at the least money, mass and work.
func TestWays(t *testing.T) {
	p, shelf := studytest.Demo(t)
	ways := waysOf(t, p, shelf)
	require.NotEmpty(t, ways)
	for i, w := range ways {
		f, _ := studytest.Report(t, w.Alternative.Plan).Figure("range")
		assert.Equal(t, w.Closes, f.State == verdict.OK, w.Alternative.Label)
		if i > 0 {
			assert.False(t, w.Closes && !ways[i-1].Closes, "those that close come first")
		}
	}
	cheap := eval.Least(ways, func(w eval.Way) float64 { return w.CostMin })
	light := eval.Least(ways, func(w eval.Way) float64 { return w.MassKg })
	require.NotNil(t, cheap)
	require.NotNil(t, light)
	assert.LessOrEqual(t, cheap.CostMin, light.CostMin)
	assert.LessOrEqual(t, light.MassKg, cheap.MassKg)

	closed := *p
	closed.Route = p.Route.Closing("pump-4", "pump-6")
	ways = waysOf(t, &closed, shelf)
	reopened := 0
	for _, w := range ways {
		if w.Reopens != nil {
			reopened++
		}
	}
	assert.Positive(t, reopened, "a pump on the way that was closed can be counted on again")

	near := studytest.GapOnly(t)
	require.NoError(t, near.Brief.Gap.Enter("60", "km"))
	none := waysOf(t, near, shelf)
	assert.Empty(t, none, "nothing to close")
}

// TestWaysInAnotherCurrency: a price that no rate brings home makes nothing cheap.
func TestWaysInAnotherCurrency(t *testing.T) {
	p, shelf := studytest.Demo(t)
	p.Currency, p.Rates, p.Lines = "USD", nil, nil
	p.Brief.Budget = money.Amount{}
	for _, w := range waysOf(t, p, shelf) {
		if len(w.Choices) > 0 {
			assert.True(t, math.IsNaN(w.CostMin), "%s: %g", w.Alternative.Label, w.CostMin)
		}
	}
	cheap := eval.Least(waysOf(t, p, shelf), func(w eval.Way) float64 { return w.CostMin })
	assert.True(t, cheap == nil || cheap.CostMin >= 0 && len(cheap.Choices) == 0)
}
