package web_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestEveryTurnOnEveryPage: whatever an address lays on the bench, each page shows it, on a
// plan with a bike and on one without; what is laid is the same for the page and its bench.
func TestEveryTurnOnEveryPage(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	_, _, header := v.Post("/garage", url.Values{"name": {"Empty"}, "currency": {"EUR"}})
	empty := strings.TrimSuffix(header.Get("Location"), "/brief")
	for _, id := range webtest.PageIDs() {
		for _, on := range []string{
			path + "/" + id + "?loadout=travel&bike=fennick-300&pump=pump-3&cruise=90%20km/h&try=rear-tyre:wether-130-80-18",
			path + "/" + id + "?loadout=trail-day&bike=own-bike",
			empty + "/" + id + "?bike=holt-650&cruise=90%20km/h",
		} {
			status, page, _ := v.Get(on)
			assert.Equal(t, http.StatusOK, status, on)
			assert.NotRegexp(t, `NaN|%!`, page, on)
		}
	}
	shut := v.Page(path + "/working/range?stage=range&loadout=travel&pump=pump-3")
	assert.NotEqual(t, webtest.Saved(v.Page(path+"/working/range?stage=range&loadout=travel")), webtest.Saved(shut), "a working is that of what lies on the bench")
}
