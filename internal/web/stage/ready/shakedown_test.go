package ready_test

import (
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/web/webtest"
)

// TestShakedown: what is well is done with, what is not becomes a job until it is well; what carries wants load and rough
// ground, and ends the finding that waits for it.
func TestShakedown(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := path + "/shakedown?loadout=travel"
	of := func(look string) string {
		found := regexp.MustCompile(`name="well" value="(` + look + `[^"]*)"`).FindStringSubmatch(v.Page(page))
		require.NotNil(t, found, look)
		return found[1]
	}
	post := func(form url.Values) {
		form.Set("on", "2027-05-02")
		status, body, _ := v.Post(page, form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	id := of("ride/torque/")
	post(url.Values{"wrong": {id}, "note": {"a bolt of the rack was gone"}})
	days := v.Page(path + "/days?loadout=travel")
	assert.Contains(t, days, "Put right: bolts again")
	assert.Contains(t, v.Page(page), "1 is not right")
	post(url.Values{"well": {id}})
	assert.NotContains(t, v.Page(path+"/days?loadout=travel"), "Put right: bolts again")
	assert.Len(t, v.Stored(path).ReadingsOf(logbook.Shaken), 2)

	carries := of("hard/carries/")
	post(url.Values{"well": {carries}})
	assert.Contains(t, v.Page(page), "but not loaded and")
	post(url.Values{"well": {carries}, "loaded": {"on"}, "rough": {"on"}})
	assert.NotContains(t, v.Page(page), "but not loaded and")

	for _, reads := range []string{"volts", "fills"} {
		assert.Contains(t, v.Page(page), path+"/"+reads+"?loadout=travel\">Write it", "what is measured has its form")
	}
	status, body, _ := v.Post(page, url.Values{"on": {"2027-05-02"}, "well": {"ride/torque/nothing"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "not looked at in this plan")
}
