package study_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/chains"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/golden"
	"valiantmule/internal/studytest"
)

func TestChainFor(t *testing.T) {
	b := studytest.New(t)
	report, err := eval.EvaluateLoadout(b.Standard("holt-650"), b.Shelf, "travel", studytest.Today)
	require.NoError(t, err)
	pair := report.Facts.Drive.Pair
	links, shift, ok := chains.For(report.Facts, pair)
	require.True(t, ok)
	assert.Equal(t, 110, links, "the chain that is on stays")
	assert.InDelta(t, 0, shift, 1e-9)
	pair.Rear = 51
	links, shift, ok = chains.For(report.Facts, pair)
	require.True(t, ok)
	assert.Equal(t, 114, links)
	assert.Less(t, math.Abs(shift), 16.0)
}

// TestAWishPassedByLessThanIsKnown is watch, and over from there on; what a plate rates is never
// passed by a little.
func TestAWishPassedByLessThanIsKnown(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650")
	pace := studytest.Value(t, p, figure.CrawlSpeed)
	state := func(id figure.ID) verdict.State {
		f, ok := studytest.Report(t, p).Figure(id)
		require.True(t, ok)
		return f.State
	}
	for by, want := range map[float64]verdict.State{0.1: verdict.Watch, 0.5: verdict.Over} {
		studytest.Enter(t, &p.Brief.WalkingPace, fmt.Sprintf("%.4f", pace-by), "km/h")
		assert.Equal(t, want, state(figure.CrawlSpeed), by)
	}
	reach := studytest.Value(t, p, figure.SeatReach)
	for by, want := range map[float64]verdict.State{6: verdict.Watch, 16: verdict.Over} {
		studytest.Enter(t, &p.Brief.ReachWish, fmt.Sprintf("%.2f", reach-by), "mm")
		assert.Equal(t, want, state(figure.SeatReach), by)
	}
	mass := studytest.Value(t, p, figure.LoadedMass)
	studytest.Enter(t, &p.Bike.Permitted, fmt.Sprintf("%.2f", mass-0.2), "kg")
	assert.Equal(t, verdict.Stop, state(figure.LoadedMass))
}

// TestGolden holds the ways out that the rules of all studies offer, and the figures with
// their limits.
func TestGolden(t *testing.T) {
	b := studytest.New(t)
	var text strings.Builder
	for _, scene := range studytest.Scenes(b) {
		for _, l := range eval.Evaluate(scene.Plan, b.Shelf, studytest.Today).Loadouts {
			fmt.Fprintf(&text, "# %s, %s: %s\n", scene.Name, l.Name, l.Worst())
			for _, f := range slices.Concat(l.Gauges, l.Others) {
				fmt.Fprintf(&text, "%s %s %s of %s, %s to %s, or %s\n", f.ID, f.State, golden.Number(f.Value), golden.Number(f.Limit), golden.Number(f.Low), golden.Number(f.High), golden.Number(f.Or(7)))
			}
			for _, f := range l.Findings {
				for _, r := range f.Remedies() {
					fmt.Fprintf(&text, "%s offers %q:", f.ID, r.Label)
					for _, c := range r.Choices {
						if c.Part != nil {
							fmt.Fprintf(&text, " %s %s", c.Slot, c.Part.ID)
						}
					}
					text.WriteString("\n")
				}
			}
		}
	}
	golden.Held(t, "golden", text.String())
}
