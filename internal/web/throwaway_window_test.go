//go:build !markup

package web_test

import (
	"net/http"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestAnotherStage: one value in the list is all that a stage takes.
func TestAnotherStage(t *testing.T) {
	s := webtest.Of(t, web.Options{Stages: append(web.Stages(), throwaway())})
	v, plan := s.Demo(t)
	assert.Contains(t, v.Page(plan+"/throwaway"), "<h1>left by the gate</h1>")
	assert.Regexp(t, `<a href="[^"]*/throwaway[^"]*" data-key="w"`, v.Page(plan+"/spend"), "the rail")
	assert.Regexp(t, `Next: <a href="[^"]*/throwaway`, v.Page(plan+"/log"), "after the last page there was")
	assert.Contains(t, v.Page("/help"), "<kbd>w</kbd> Throwaway")
	all := screens(t, s, plan)
	at := slices.IndexFunc(all, func(at screen) bool { return at.path == plan+"/throwaway" })
	require.NotEqual(t, -1, at, "the walk over every screen")
	w, _ := s.Desktop(t, "throwaway")
	look(w, axeCore(t), all[at])
	stranger := s.Visitor(t)
	status, _, _ := stranger.Get(plan + "/throwaway")
	assert.Equal(t, http.StatusSeeOther, status, "nobody sees it who is not signed in")
}
