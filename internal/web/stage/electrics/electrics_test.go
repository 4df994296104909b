package electrics_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestWiredWrong: a feed that there is not is refused, and nothing is kept.
func TestWiredWrong(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/electrics?loadout=travel&try=camera:camera-bar")
	assert.Contains(t, page, "Heated grips, five steps, as it was found", "a list names what came with the bike")
	status, _, _ := v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "try": {"camera:camera-bar"}, "loadout": {"travel"}, "stage": {"electrics"}})
	require.Equal(t, http.StatusSeeOther, status)
	base := webtest.Base(v.Page(path + "/electrics?loadout=travel"))
	status, _, _ = v.Post(path+"/electrics?loadout=travel", url.Values{"base": {base}, "feed.camera": {"the moon"}, "use.camera": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Empty(t, v.Stored(path).Wired)
}
