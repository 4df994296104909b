package golden_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/golden"
)

// TestDiff tells every line that moved, not only the first.
func TestDiff(t *testing.T) {
	assert.Empty(t, golden.Diff("a\nb", "a\nb"))
	assert.Equal(t, "line 3, under \"# one\"\n-b\n+B\nline 6, under \"# two\"\n+e\n", golden.Diff("# one\na\nb\nc\n# two\nd", "# one\na\nB\nc\n# two\ne\nd"))
}
