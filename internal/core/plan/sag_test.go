package plan_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/studytest"
)

// sat is a rear end measured: hanging, by itself pushed and lifted, with the rider pushed and
// lifted; "" is not measured.
func sat(t *testing.T, hanging, freeDown, freeUp, riderDown, riderUp string) *logbook.Sag {
	s := &logbook.Sag{Name: "Travel"}
	for i, text := range []string{hanging, freeDown, freeUp, riderDown, riderUp} {
		studytest.Enter(t, s.Rear.Fields(true)[i].Entry, text, "mm")
	}
	return s
}

// TestSagOfReadings is from hanging to the middle of both.
func TestSagOfReadings(t *testing.T) {
	s := sat(t, "640", "616", "622", "556", "566")
	require.NoError(t, s.Check())
	assert.InDelta(t, 21, s.Rear.FreeMM(), 1e-9)
	assert.InDelta(t, 79, s.Rear.RiderMM(), 1e-9)
	assert.InDelta(t, 10, s.Rear.StictionMM(), 1e-9)
	alone := sat(t, "640", "", "", "560", "")
	require.NoError(t, alone.Check(), "the rear with the rider on is enough")
	assert.InDelta(t, 80, alone.Rear.RiderMM(), 1e-9)
	assert.True(t, math.IsNaN(alone.Rear.FreeMM()))
	assert.True(t, math.IsNaN(alone.Rear.StictionMM()))
}

// TestSagAskedAgain at its field, where it cannot be.
func TestSagAskedAgain(t *testing.T) {
	for name, c := range map[string]struct {
		s     *logbook.Sag
		field string
	}{
		"less with the rider on": {sat(t, "640", "560", "566", "616", "622"), "rear_rider_down"},
		"more than hanging":      {sat(t, "640", "650", "", "", ""), "rear_free_down"},
		"no hanging":             {sat(t, "", "", "", "560", ""), "rear_hanging"},
		"nothing":                {sat(t, "640", "", "", "", ""), "rear_hanging"},
		"in metres":              {sat(t, "640", "", "", "0.56", ""), "rear_rider_down"},
	} {
		var problem entry.Problem
		require.ErrorAs(t, c.s.Check(), &problem, name)
		assert.Equal(t, c.field, problem.Path, name)
	}
}
