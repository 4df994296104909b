package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/instead"
	"valiantmule/internal/core/parts"
)

// TestWays: each answers rules that there are, beside slots that there are, and says what it takes.
func TestInstead(t *testing.T) {
	rules := map[string]bool{}
	for _, r := range eval.Rules() {
		rules[r.ID] = true
	}
	seen := map[string]bool{}
	for _, w := range instead.Ways() {
		assert.False(t, seen[w.ID], w.ID)
		seen[w.ID] = true
		assert.NotEmpty(t, w.Name+w.Does, w.ID)
		assert.NotEmpty(t, w.Answers, w.ID)
		assert.NotEmpty(t, w.Beside, w.ID)
		for _, id := range w.Answers {
			assert.True(t, rules[id], "%s answers the rule %q, which there is not", w.ID, id)
		}
		for _, slot := range w.Beside {
			_, ok := parts.KindOf(slot)
			assert.True(t, ok, "%s stands beside %q", w.ID, slot)
			assert.Contains(t, instead.Beside(slot), w)
		}
		if w.Kind == instead.Lesson {
			assert.Positive(t, w.Euros, "a lesson is paid for")
		}
	}
	_, ok := instead.Of("luck")
	assert.False(t, ok)
}
