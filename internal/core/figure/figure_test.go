package figure_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/golden"
)

func TestTable(t *testing.T) {
	require.NoError(t, figure.Check(figure.All()))
	for _, r := range figure.All() {
		found, ok := figure.Of(r.ID)
		assert.True(t, ok)
		assert.Equal(t, r, found)
		assert.Equal(t, r.Gauge, r.LimitName != "", "%s: a gauge has a limit, and it has a name", r.ID)
	}
	_, ok := figure.Of("luck")
	assert.False(t, ok)
	all := figure.All()
	all[0] = nil
	assert.NotNil(t, figure.All()[0], "a list of one's own")
}

// TestShortNames: a gauge has one of its own, of at most eight letters.
func TestShortNames(t *testing.T) {
	gauge := func(id, short string) *figure.Row {
		return &figure.Row{ID: figure.ID(id), Name: "Luck", Short: short, Stage: figure.Load, Gauge: true}
	}
	require.NoError(t, figure.Check([]*figure.Row{gauge("luck", "Luck"), gauge("fate", "Eight ok")}))
	for _, rows := range [][]*figure.Row{{gauge("luck", "")}, {gauge("luck", "Good luck")}, {gauge("luck", "Luck"), gauge("fate", "Luck")}} {
		assert.Error(t, figure.Check(rows))
	}
}

// TestGoldenDocs keeps docs/figures.md the table's.
func TestGoldenDocs(t *testing.T) {
	var b strings.Builder
	b.WriteString("# Figures\n\nWritten by the test of internal/core/figure from its table; [adding.md](adding.md) says how to add one.\nThe gauges of `mule check` are in this order in each loadout.\n\n| id | name | unit | settled in | its limit |\n|---|---|---|---|---|\n")
	for _, r := range figure.All() {
		kind := r.LimitName
		if r.Gauge {
			kind = "gauge: " + kind
		}
		if r.Half > 0 {
			kind += fmt.Sprintf(", watch within %g", r.Half)
		}
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s | %s |\n", r.ID, r.Name, strings.Replace(r.Unit, figure.Money, "minor units", 1), r.Stage, kind)
	}
	golden.HeldAt(t, "../../../docs/figures.md", b.String())
}
