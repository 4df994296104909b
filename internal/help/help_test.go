package help_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/help"
)

// TestLabels: what a word says that it is of, there is: a figure, or a field of a sheet.
func TestLabels(t *testing.T) {
	h, err := help.Read()
	require.NoError(t, err)
	keys := map[string]bool{}
	for _, r := range figure.All() {
		keys[string(r.ID)] = true
	}
	for _, list := range [][]entry.Field{new(plan.Bike).Fields(), new(plan.Brief).Fields(), new(plan.Setting).Fields(), plan.New("x", "EUR").Turned()} {
		for _, f := range list {
			keys[f.Key] = true
		}
	}
	for _, w := range h.Words {
		for _, key := range w.Of {
			assert.True(t, keys[key], "%s: no label %q", w.ID, key)
		}
	}
	assert.Equal(t, "sag", h.Of("sag-rear").ID)
	assert.Nil(t, h.Of("luck"))
}

// TestFaults: what does not fit together is told by its name.
func TestFaults(t *testing.T) {
	for text, says := range map[string]string{
		"[sag] Sag\nHow far.\n[sag] Sag\nAgain.":         `"sag"`,
		"[sag] Sag":                                      `"sag"`,
		"[page brief]\n- One.\nwords: luck":              `"luck"`,
		"[page brief]\nwords:":                           `"brief"`,
		"[page b]\n- 1\n- 2\n- 3\n- 4\n- 5\n- 6":         `"b"`,
		"A line of nobody":                               "line 1",
		"[a] A\nText.\nof: x\n[b] B\nText.\nof: x":       `"x"`,
		"[page b]\n- One.\n[page b]\n- Again, and again": `"b"`,
	} {
		_, err := help.Parse(text)
		assert.ErrorContains(t, err, says, text)
	}
}
