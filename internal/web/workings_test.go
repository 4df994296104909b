package web_test

import (
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestWorkingsOfTheBench: a figure that is shown with something on the bench leads to
// the working of that.
func TestWorkingsOfTheBench(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for page, tried := range map[string]struct{ try, figure string }{
		"armour": {"skid-plate:skid-plastic-h", "armour-stranded"}, "contact": {"risers:riser-20-22", "bar-short"}, "load": {"side-bags:boxes-2x36", "rack-load"},
		"range": {"fuel-cans:cans-2x3", "usable-fuel"},
	} {
		shown := v.Page(path + "/" + page + "?loadout=travel&try=" + tried.try)
		_, main, _ := strings.Cut(shown, `<main`)
		link := regexp.MustCompile(`href="(/plans/[^"]*/working/` + tried.figure + `\?[^"]*)"`).FindStringSubmatch(main)
		if assert.NotNil(t, link, page) {
			_, part, _ := strings.Cut(tried.try, ":")
			assert.Contains(t, link[1], part, page)
			status, _, _ := v.Get(strings.ReplaceAll(link[1], "&amp;", "&"))
			assert.Equal(t, http.StatusOK, status, page)
		}
	}
}
