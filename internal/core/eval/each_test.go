package eval

import (
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestEach does all of them, each once, and panics where its caller can catch it.
func TestEach(t *testing.T) {
	for _, n := range []int{0, 1, 2, 100} {
		done := make([]atomic.Int32, n)
		each(n, func(i int) { done[i].Add(1) })
		for i := range done {
			assert.EqualValues(t, 1, done[i].Load(), "%d of %d", i, n)
		}
	}
	for _, n := range []int{1, 40} {
		assert.PanicsWithValue(t, "a rule", func() {
			each(n, func(i int) {
				if i == n-1 {
					panic("a rule")
				}
			})
		}, n)
	}
}
