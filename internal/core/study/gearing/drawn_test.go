package gearing_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/golden"
	"valiantmule/internal/studytest"
)

// TestGoldenDrawn holds what the pages of the study draw.
func TestGoldenDrawn(t *testing.T) {
	studytest.Drawn(t, func(text *strings.Builder, f *facts.All) {
		golden.Write(text, "runs", gearing.ChainRuns(f))
		golden.Write(text, "fan", gearing.Fan(f))
		golden.Write(text, "readings", gearing.Readings(f))
		field := gearing.Sprockets(f)
		golden.Write(text, "field", field)
		if len(field.Pairs) == 0 {
			return
		}
		low, high := field.Window()
		fmt.Fprintf(text, "allowed %d, %s to %s, climb %s\n", field.Allowed(), golden.Number(low), golden.Number(high), golden.Number(field.ClimbAt(3)))
		golden.Write(text, "swaps", gearing.Swaps(field, f))
		for _, kind := range []terrain.Kind{terrain.Paved, terrain.Sand, terrain.SingleTrack} {
			ground, _ := terrain.Of(kind)
			chart, ok := gearing.Thrust(f, ground)
			fmt.Fprintf(text, "thrust on %s %t\n", kind, ok)
			golden.Write(text, "thrust", chart)
		}
	})
}
