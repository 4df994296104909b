package outside_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/load"
	"valiantmule/internal/outside"
)

var truth = load.Wheels{FrontKg: 92.4, RearKg: 101.8, LeftKg: 98, RightKg: 96.2}

func TestWeighbridge(t *testing.T) {
	for seed := range uint64(50) {
		sound, err := outside.Weigh(truth, outside.Sound, seed)
		require.NoError(t, err)
		assert.InDelta(t, truth.FrontKg, sound.FrontKg, 0.8)
		again, _ := outside.Weigh(truth, outside.Sound, seed)
		assert.Equal(t, sound, again, "same seed, same answer")
		pounds, err := outside.Weigh(truth, outside.Pounds, seed)
		require.NoError(t, err)
		assert.InDelta(t, truth.RearKg/0.45359237, pounds.RearKg, 0.8)
		drift, err := outside.Weigh(truth, outside.Drift, seed)
		require.NoError(t, err)
		assert.Greater(t, drift.FrontKg+drift.RearKg, truth.FrontKg+truth.RearKg+2)
		lost, err := outside.Weigh(truth, outside.Dropout, seed)
		if err == nil {
			assert.True(t, math.IsNaN(lost.FrontKg+lost.RearKg+lost.LeftKg+lost.RightKg))
		} else {
			assert.ErrorIs(t, err, outside.ErrNoReading)
		}
	}
}
