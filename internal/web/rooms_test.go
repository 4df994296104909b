package web_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestRoomsHaveNoDoorsBetweenThem: no stage imports another, no study another; the
// core imports nothing of the web.
func TestRoomsHaveNoDoorsBetweenThem(t *testing.T) {
	const module, root = "valiantmule/", "../../"
	seen := 0
	err := fs.WalkDir(os.DirFS(root+"internal"), ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || path.Ext(name) != ".go" || strings.HasSuffix(name, "_test.go") {
			return err
		}
		seen++
		file, err := parser.ParseFile(token.NewFileSet(), root+"internal/"+name, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		room := path.Dir(module + "internal/" + name)
		for _, spec := range file.Imports {
			to, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			for _, siblings := range []string{module + "internal/web/stage/", module + "internal/core/study/"} {
				assert.False(t, strings.HasPrefix(room, siblings) && strings.HasPrefix(to, siblings), "%s imports %s", name, to)
			}
			core := strings.HasPrefix(room, module+"internal/core/")
			assert.False(t, core && strings.HasPrefix(to, module) && !strings.HasPrefix(to, module+"internal/core/"), "%s imports %s", name, to)
			for _, outside := range []string{"net/http", "html/template", "database/sql", "os", "io/fs", "embed"} {
				assert.False(t, core && to == outside, "%s imports %s", name, to)
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, seen, 150)
}

// TestMarkupKnowsNoBrowser: nothing that is built with the tag markup imports the browser's
// protocol.
func TestMarkupKnowsNoBrowser(t *testing.T) {
	windows := 0
	err := fs.WalkDir(os.DirFS("."), ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || path.Ext(name) != ".go" {
			return err
		}
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		if strings.HasPrefix(string(text), "//go:build !markup\n") {
			windows++
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), name, text, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range file.Imports {
			assert.NotContains(t, spec.Path.Value, "chromedp", name)
			assert.NotContains(t, spec.Path.Value, "browsertest", name)
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, windows, 15)
}
