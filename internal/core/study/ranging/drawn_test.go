package ranging_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/golden"
	"valiantmule/internal/studytest"
)

// TestGoldenDrawn holds what the pages of the study draw.
func TestGoldenDrawn(t *testing.T) {
	studytest.Drawn(t, func(text *strings.Builder, f *facts.All) {
		ladder, ok := ranging.FuelLadder(f)
		fmt.Fprintf(text, "ladder %t\n", ok)
		golden.Write(text, "ladder", ladder)
		golden.Write(text, "grounds", ranging.Grounds(f))
		golden.Write(text, "ridden", ranging.Ridden(f))
		for _, blind := range []bool{true, false} {
			litres, spread := ranging.OnTheRoad(f, fuel.Anchored(1.1, blind))
			fmt.Fprintf(text, "on the road %s ± %s\n", golden.Number(litres), golden.Number(spread))
		}
		for i, leg := range f.Range.Legs {
			if joined, ok := f.Range.Joined(i); ok {
				golden.Write(text, fmt.Sprintf("joined after %g km", leg.Km), joined)
			}
		}
		golden.Write(text, "profile", ranging.Profile(f.Plan))
	})
}
