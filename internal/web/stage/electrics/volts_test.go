package electrics_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/web/webtest"
)

// TestVolts: a weak reading leads over the sheet, on every page; sent twice it is one; revoked
// it leads no more.
func TestVolts(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	before := webtest.Gauge(v.Page(path+"/electrics?loadout=travel"), "charge-margin")
	form := url.Values{"id": {"VOLTSAAAAAAAAAAAAAAAAAAAAA"}, "on": {"2026-11-20"}, "idle_v": {"12.9"}, "riding_v": {"13,9"}, "all_on_v": {"13.0"}}
	for range 2 {
		status, body, _ := v.Post(path+"/volts?loadout=travel", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	kept := v.Stored(path).ReadingsOf(logbook.VoltsRead)
	require.Len(t, kept, 2, "beside the demo's own")
	assert.Equal(t, form.Get("id"), kept[1].ID)
	assert.Equal(t, "192.0 W", kept[1].Volts().AllOnW.String(), "what was on then, as the plan had it: the bike and its grips")
	page := v.Page(path + "/volts?loadout=travel&kept=" + kept[1].ID)
	assert.Contains(t, page, "leads")
	assert.True(t, utf8.ValidString(page) && !strings.ContainsRune(page, utf8.RuneError))
	assert.Contains(t, page, "nothing to spare")
	after := webtest.Gauge(v.Page(path+"/electrics?loadout=travel"), "charge-margin")
	assert.NotEqual(t, before, after)
	status, _, _ := v.Post(path+"/volts/revoke?loadout=travel", url.Values{"of": {kept[1].ID}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, before, webtest.Gauge(v.Page(path+"/electrics?loadout=travel"), "charge-margin"))
}

// TestVoltsWrong: each fault by its field, with what was typed, and nothing in the log.
func TestVoltsWrong(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	for name, form := range map[string]url.Values{
		"nothing": {"on": {"2026-11-20"}}, "no volts": {"on": {"2026-11-20"}, "idle_v": {"many"}}, "mains": {"on": {"2026-11-20"}, "idle_v": {"230"}},
		"more with everything on": {"on": {"2026-11-20"}, "riding_v": {"13.2"}, "all_on_v": {"14.4"}}, "a day that is none": {"on": {"2026-02-31"}, "idle_v": {"14"}},
	} {
		for _, field := range []string{"idle_v", "riding_v", "all_on_v"} { // as a browser sends them
			form.Set(field, form.Get(field))
		}
		status, body, _ := v.Post(path+"/volts?loadout=travel", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.True(t, strings.Contains(body, `class="error"`), name)
		if typed := form.Get("idle_v"); typed != "" {
			assert.Contains(t, body, `value="`+typed+`"`, name)
		}
	}
	assert.Len(t, v.Stored(path).ReadingsOf(logbook.VoltsRead), 1, "the demo's own")
}
