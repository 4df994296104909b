package stance_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestClearanceAndItsRule speak with one voice.
func TestClearanceAndItsRule(t *testing.T) {
	b := studytest.New(t)
	for _, c := range []struct {
		over  float64 // of the wish, mm
		state verdict.State
	}{{-2, verdict.Over}, {4, verdict.Watch}, {20, verdict.OK}} {
		p := b.With("holt-650")
		studytest.Enter(t, &p.Bike.Clearance, "100", "mm")
		room := b.Facts(p).Room
		studytest.Enter(t, &p.Bike.Clearance, fmt.Sprintf("%.1f", 100+room.WishMM-room.MM+c.over), "mm")
		gauge, ok := studytest.Report(t, p).Figure(figure.Clearance)
		require.True(t, ok)
		assert.Equal(t, c.state, gauge.State, "%g mm over", c.over)
		finding, said := b.Findings(p)["room-short"]
		assert.Equal(t, c.state != verdict.OK, said)
		if said {
			assert.Equal(t, c.state, finding.State)
		}
	}
}
