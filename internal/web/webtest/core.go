package webtest

import (
	"strings"
	"testing"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"

	"github.com/stretchr/testify/require"
)

// Core is what a gauge should show of a plan loaded to travel.
func Core(t *testing.T, p *plan.Plan, id figure.ID) string {
	t.Helper()
	return CoreIn(t, p, "travel", id)
}

// CoreIn is the same of any loadout.
func CoreIn(t *testing.T, p *plan.Plan, loadout string, id figure.ID) string {
	t.Helper()
	report, err := eval.EvaluateLoadout(p, nil, loadout, "2026-11-26")
	require.NoError(t, err)
	f, ok := report.Figure(id)
	require.True(t, ok)
	return strings.ReplaceAll(words.Units(nil).Value(f), "\u00a0", " ")
}
