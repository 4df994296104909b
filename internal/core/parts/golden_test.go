package parts_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/golden"
)

// TestGoldenDrafts: a part taken apart for its form and put together again says the same;
// what is asked of each kind is held in a file.
func TestGoldenDrafts(t *testing.T) {
	shelf, err := demo.Parts()
	require.NoError(t, err)
	for _, part := range shelf {
		done := parts.DraftOf(part).Done()
		assert.Equal(t, part.Has, done.Has, part.ID)
		assert.Equal(t, part.Effects, done.Effects, part.ID)
		assert.Equal(t, part.Fitment, done.Fitment, part.ID)
	}
	var text strings.Builder
	for _, kind := range parts.Kinds() {
		d := parts.DraftOf(&parts.Part{Slot: kind.Slot})
		fmt.Fprintf(&text, "%s guards %t\n", kind.Slot, d.Covers() != nil)
		for _, group := range d.Asks() {
			for _, f := range group.Fields {
				fmt.Fprintf(&text, "%s %s in %s, %g to %g\n", kind.Slot, f.Key, f.Unit, f.Min, f.Max)
			}
			fmt.Fprintf(&text, "%s %s: %d picks, %d texts, %d several\n", kind.Slot, group.Name, len(group.Picks), len(group.Texts), len(group.Severals))
		}
		if f, ok := parts.FoundBy(kind.Slot); ok {
			fmt.Fprintf(&text, "%s found by %s\n", kind.Slot, f.Key)
		}
	}
	golden.Held(t, "drafts", text.String())
}
