package fit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/fit"
)

// TestTouchDeg as high as far out is half a right angle; lower or further out is sooner.
func TestTouchDeg(t *testing.T) {
	assert.InDelta(t, 45, fit.TouchDeg(280, 280), 1e-9)
	assert.Less(t, fit.TouchDeg(260, 280), 45.0)
	assert.Less(t, fit.TouchDeg(280, 300), 45.0)
}
