package loading_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/golden"
	"valiantmule/internal/studytest"
)

// TestGoldenDrawn holds what the pages of the study draw.
func TestGoldenDrawn(t *testing.T) {
	studytest.Drawn(t, func(text *strings.Builder, f *facts.All) {
		wheels, known := loading.ExpectedWheels(f, loading.Scaled{Rider: true, Loaded: true, Tank: 1})
		fmt.Fprintf(text, "%t ", known)
		golden.Write(text, "wheels", wheels)
		packing := loading.Repack(f)
		golden.Write(text, "packing", packing.Packing)
		golden.Write(text, "moves", packing.Moves)
	})
}
