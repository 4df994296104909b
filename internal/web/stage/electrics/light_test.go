package electrics_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

// TestLooks: a tick keeps its day, an untick takes it out, and a form without the list, as the
// sliders send it by themselves, leaves it.
func TestLooks(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	send := func(form url.Values) {
		t.Helper()
		form.Set("base", webtest.Base(v.Page(path+"/light?loadout=travel")))
		status, body, _ := v.Post(path+"/light?loadout=travel", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	send(url.Values{"looks": {"1"}, "look.horn": {"on"}, "look.marks": {"on"}, "look.rockets": {"on"}})
	require.Len(t, v.Stored(path).Seen, 2)
	first, _ := v.Stored(path).SeenOf("horn")
	send(url.Values{"reacts": {"1.5"}})
	assert.Len(t, v.Stored(path).Seen, 2)
	assert.Equal(t, "1.5 s", v.Stored(path).Brief.Reacts.String())
	send(url.Values{"looks": {"1"}, "look.horn": {"on"}})
	again, ok := v.Stored(path).SeenOf("horn")
	assert.True(t, ok)
	assert.Equal(t, first, again)
	assert.Len(t, v.Stored(path).Seen, 1)
}

// TestDazzling: loaded so that the beam points up, the page says to re-aim it.
func TestDazzling(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	_, page, _ := v.Post(path+"/light/try?loadout=travel", url.Values{"lamp_aim": {"0.3"}, "base": {"x"}})
	assert.Contains(t, page, "it dazzles")
	assert.Contains(t, page, "side-eyes is-blind")
	assert.Contains(t, page, `data-finding="dazzles"`)
}
