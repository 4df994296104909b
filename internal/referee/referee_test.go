package referee_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/referee"
)

// TestProgram that is not there: skipped by hand, a failure under scripts/test.
func TestProgram(t *testing.T) {
	t.Setenv(referee.All, "")
	skipped := t.Run("by hand", func(t *testing.T) {
		defer func() { assert.True(t, t.Skipped()) }()
		referee.Program(t, "no-such-program-of-anybody", "no-such-package")
		t.Error("went on without it")
	})
	assert.True(t, skipped)
	assert.NotEmpty(t, referee.Program(t, "go", "golang"))
}
