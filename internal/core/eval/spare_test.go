package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/studytest"
)

// TestSpares: what the money of a part settles that comes off costs no more than it, settles
// something, and stands in order; of what goes on there is none.
func TestSpares(t *testing.T) {
	p, shelf := studytest.Demo(t)
	bench, err := eval.NewBench(p, shelf, "travel", studytest.Today)
	require.NoError(t, err)
	spares := func(c plan.Choice) []eval.Spare {
		t.Helper()
		choices := p.Scoped([]plan.Choice{c}, "travel")
		after, err := bench.Evaluate(p.With(choices...))
		require.NoError(t, err)
		list, err := bench.Spares(after, choices)
		require.NoError(t, err)
		return list
	}
	list := spares(plan.Choice{Slot: parts.SideBags})
	require.NotEmpty(t, list)
	for i, s := range list {
		sum := int64(0)
		for _, c := range s.Choices {
			require.NotNil(t, c.Part)
			assert.NotEqual(t, parts.SideBags, c.Slot)
			sum += c.Part.Price.Minor()
		}
		assert.LessOrEqual(t, sum, p.Chosen(parts.SideBags, "travel").Price.Minor(), s.Alternative.Label)
		assert.NotEmpty(t, study.Loud(s.Vanish), s.Alternative.Label)
		if i > 0 {
			assert.LessOrEqual(t, s.Does(), list[i-1].Does())
		}
	}
	assert.Empty(t, spares(plan.Choice{Slot: parts.SideBags, Part: shelf.Find(p.Bike, parts.SideBags, "boxes-2x36")}))
}
