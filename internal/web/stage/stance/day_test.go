package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestSetOnTheDay: what is set when the bike is loaded is a list of its own; what a setting does
// not put right neither stands in it nor stays as it is.
func TestSetOnTheDay(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/day?loadout=travel")
	for _, id := range []string{"swap-slack", "dazzles", "stand-sinks", "live-socket"} {
		assert.Contains(t, page, `data-set="`+id+`"`)
	}
	assert.NotContains(t, page, `data-set="sag-soft-rear"`, "a spring puts that right")
	assert.NotContains(t, page, "Shock preload at")
	other := v.Page(path + "/day?loadout=trail-day")
	assert.NotEqual(t, page, other)
}
