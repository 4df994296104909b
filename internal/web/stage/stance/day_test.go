package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestSetOnTheDay: what is set when the bike is loaded is a list of its own; what a setting does
// not put right is set as far as it goes.
func TestSetOnTheDay(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/day?loadout=travel")
	for _, id := range []string{"swap-slack", "dazzles", "stand-sinks", "live-socket"} {
		assert.Contains(t, page, `data-set="`+id+`"`)
	}
	assert.Contains(t, page, "Shock preload to 33", "all there is, until a spring puts it right")
	assert.NotContains(t, page, "Shock preload at")
	other := v.Page(path + "/day?loadout=trail-day")
	assert.NotEqual(t, page, other)
}
