package verdict_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/verdict"
)

func TestWorse(t *testing.T) {
	order := []verdict.State{verdict.OK, verdict.Unknown, verdict.Watch, verdict.Over, verdict.Stop}
	for i, a := range order {
		for j, b := range order {
			assert.Equal(t, order[max(i, j)], verdict.Worse(a, b), "%s and %s", a, b)
		}
	}
}
