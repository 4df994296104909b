package baseline_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/golden"
)

// TestGolden holds the list of checks, and what is left of what wears.
func TestGolden(t *testing.T) {
	var text strings.Builder
	for _, c := range baseline.For(func(baseline.Feature) bool { return true }) {
		fmt.Fprintf(&text, "%s in %s, wears %d, on %q, measured by %q\n", c.ID, c.Area, c.Wear, c.Only, c.Measure)
	}
	for _, w := range []baseline.Worn{{NewMM: 5, NowMM: 3, LimitMM: 1, RunKm: 9000}, {NewMM: 5, NowMM: 1, LimitMM: 1, RunKm: 9000}, {NewMM: 5, NowMM: 5, LimitMM: 1, RunKm: 9000}, {NewMM: 317, NowMM: 319, LimitMM: 322, RunKm: 7000}, {NewMM: 317, NowMM: 322, LimitMM: 322, RunKm: 7000}, {NewMM: 4, NowMM: 4.5, LimitMM: 4, RunKm: 500}} {
		fmt.Fprintf(&text, "%v: left %s km, past %t %t %t\n", w, golden.Number(w.LeftKm()), w.Past(baseline.Shrinks), w.Past(baseline.Grows), w.Past(baseline.NoMeasure))
	}
	golden.Held(t, "golden", text.String())
}
