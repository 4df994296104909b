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
	var text strings.Builder
	studytest.Known(t, func(name string, f *facts.All) {
		fmt.Fprintf(&text, "# %s\n", name)
		if f.Built == nil {
			return
		}
		wheels, known := loading.ExpectedWheels(f)
		fmt.Fprintf(&text, "%t ", known)
		golden.Write(&text, "wheels", wheels)
		packing := loading.Repack(f)
		golden.Write(&text, "packing", packing.Packing)
		golden.Write(&text, "moves", packing.Moves)
	})
	golden.Held(t, "drawn", text.String())
}
