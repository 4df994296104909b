package eval_test

import (
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/format"
)

// TestRidersWithNothingOfTheShelf: six riders, each with a bike whose sheet they have and a
// build of their own things of which they know little. Nothing goes blank but what only a
// plate, or a stage that is not built, can tell.
func TestRidersWithNothingOfTheShelf(t *testing.T) {
	files, err := filepath.Glob("testdata/riders/*.json")
	require.NoError(t, err)
	require.Len(t, files, 6)
	for _, path := range files {
		f, err := os.Open(path)
		require.NoError(t, err)
		p, err := format.ReadPlan(f)
		f.Close()
		require.NoError(t, err, path)
		report := eval.Evaluate(p, nil, "2026-11-30")
		usual := report.Usuals()
		assert.NotEmpty(t, usual, path)
		for _, u := range usual {
			assert.NotEmpty(t, u.At, "%s: nobody says where %q is typed", path, u.What)
		}
		t.Logf("%s: %d numbers are usual", path, len(usual))
		for _, l := range report.Loadouts {
			var blank []figure.ID
			for _, g := range l.Gauges {
				if !g.Known {
					blank = append(blank, g.ID)
					t.Log(path, l.ID, g.ID, g.Missing)
				}
			}
			assert.Empty(t, slices.Compact(blank), "%s, %s", path, l.Name)
			for _, g := range l.Gauges {
				for _, what := range g.Missing {
					assert.NotEmpty(t, l.Where(what), "%s, %s: nobody says where %q is typed", path, g.ID, what)
				}
			}
		}
	}
}
