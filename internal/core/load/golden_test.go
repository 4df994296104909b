package load_test

import (
	"strings"
	"testing"

	"valiantmule/internal/core/load"
	"valiantmule/internal/golden"
)

// TestGolden holds where things sit on a bike.
func TestGolden(t *testing.T) {
	var text strings.Builder
	for _, p := range load.Spots() {
		golden.Write(&text, string(p.Place), p)
	}
	golden.Held(t, "golden", text.String())
}
