package electrics_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/webtest"
)

// TestChannels: what hangs on a channel by hand is kept and drawn there; a channel that there
// is not is refused, and nothing lost.
func TestChannels(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/wiring?loadout=travel&try=power-box:box-4")
	status, _, _ := v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "try": {"power-box:box-4"}, "loadout": {"travel"}, "stage": {"wiring"}})
	require.Equal(t, http.StatusSeeOther, status)
	page = v.Page(path + "/wiring?loadout=travel")
	form := url.Values{"base": {webtest.Base(page)}, "channel.grips": {"4"}, "box_sits": {"tank"}}
	status, _, _ = v.Post(path+"/wiring?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status)
	kept := v.Stored(path)
	assert.Equal(t, plan.Channel("4"), kept.Wired[0].Channel)
	assert.Equal(t, plan.BoxUnderTank, kept.BoxSits)
	page = v.Page(path + "/wiring?loadout=travel")
	assert.Contains(t, page, "seat and tank come off first")
	v.Post("/account/units", url.Values{"preset": {"US"}})
	for typed, mm2 := range map[string]string{"16 AWG": "1.31 mm²", "awg14": "2.08 mm²", "2.5": "2.5 mm²"} { // ASTM B258
		page = v.Page(path + "/wiring?loadout=travel")
		status, _, _ = v.Post(path+"/wiring?loadout=travel", url.Values{"base": {webtest.Base(page)}, "area.grips": {typed}})
		require.Equal(t, http.StatusSeeOther, status, typed)
		assert.Equal(t, mm2, v.Stored(path).Wired[0].Area.String())
	}
	page, kept = v.Page(path+"/wiring?loadout=travel"), v.Stored(path)
	for field, wrong := range map[string]string{"channel.grips": "40", "box_sits": "<script>", "length.grips": "300 m"} {
		form := url.Values{"base": {webtest.Base(page)}, field: {wrong}}
		status, body, _ := v.Post(path+"/wiring?loadout=travel", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status, field)
		assert.NotContains(t, body, "<script>,", field)
	}
	assert.Equal(t, kept.Wired, v.Stored(path).Wired)
}
