package web_test

import (
	"io/fs"
	"os"
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestMarkupIsNoWider than what a reader sees of it at once.
func TestMarkupIsNoWider(t *testing.T) {
	const columns = 160
	pages := 0
	err := fs.WalkDir(os.DirFS("."), ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || path.Ext(name) != ".gohtml" {
			return err
		}
		pages++
		text, err := os.ReadFile(name)
		for i, line := range strings.Split(string(text), "\n") {
			assert.LessOrEqual(t, len(line), columns, "%s:%d", name, i+1)
			assert.Equal(t, strings.TrimRight(line, " \t"), line, "%s:%d ends in blanks", name, i+1)
		}
		return err
	})
	require.NoError(t, err)
	assert.Greater(t, pages, 40)
}
