package web_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
	"valiantmule/internal/web/webtest"
)

// TestWorker is another script with other assets, is asked for each time, and all that it loads is there.
func TestWorker(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	status, script, header := v.Do(v.Request("GET", "/worker.js", nil))
	require.Equal(t, http.StatusOK, status)
	assert.Equal(t, "no-cache", header.Get("Cache-Control"))
	assert.Contains(t, header.Get("Content-Type"), "javascript")
	_, _, page := v.Do(v.Request("GET", "/sign-in", nil))
	assert.Contains(t, script, `const VERSION = "`+page.Get("Mule-Version")+`"`)
	assert.Equal(t, "nobody", page.Get("Mule-Who"))
	files := regexp.MustCompile(`"(/assets/[0-9a-f]+/[^"]+)"`).FindAllStringSubmatch(script, -1)
	require.Greater(t, len(files), 10)
	for _, file := range files {
		status, _, _ := v.Do(v.Request("GET", file[1], nil))
		assert.Equal(t, http.StatusOK, status, file[1])
	}
}

// TestKeptAddresses: what is for use on the way says under which address it may be kept, whatever else the query
// holds; nothing else does.
func TestKeptAddresses(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	at := func(path string) string {
		status, _, header := v.Do(v.Request("GET", path, nil))
		require.Equal(t, http.StatusOK, status, path)
		assert.NotEqual(t, "nobody", header.Get("Mule-Who"))
		return header.Get("Mule-Keep")
	}
	for path, keep := range map[string]string{
		plan + "/card?loadout=travel&kept=X&try=rear-tyre:": plan + "/card?loadout=travel",
		plan + "/spanner-day?date=2027-05-01&loadout=trail": plan + "/spanner-day?date=2027-05-01&loadout=trail",
		plan + "/log":         plan + "/log",
		"/device?x=1":         "/device",
		"/buying":             "/buying",
		plan + "/brief":       "",
		plan + "/packing.csv": "",
		plan + "/days":        "",
	} {
		assert.Equal(t, keep, at(path), path)
	}
}

// TestSentByItsRider: what one rider wrote down is not taken while another is signed in.
func TestSentByItsRider(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	before := len(v.Stored(plan).Readings)
	send := func(who string) (int, string) {
		r := v.Request("POST", plan+"/log?loadout=travel", strings.NewReader(url.Values{"id": {strings.Repeat("A", 26)}, "on": {"2027-05-15"}, "distance": {"140"}, "by": {"gps"}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("Mule-Who", who)
		status, _, header := v.Do(r)
		return status, header.Get("Mule-Who")
	}
	status, who := send("0123456789abcdef")
	assert.Equal(t, http.StatusConflict, status)
	assert.Len(t, v.Stored(plan).Readings, before)
	status, _ = send(who)
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Greater(t, len(v.Stored(plan).Readings), before)
}

// TestSentAgain: what a device sends again, because the answer was lost, is there once and is answered as taken; what was
// looked at meanwhile does not refuse it.
func TestSentAgain(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	id := func(c string) string { return strings.Repeat(c, 26) }
	twice := func(path string, form url.Values, kept string) string {
		var to string
		for range 2 {
			status, body, header := v.Post(path, form)
			require.Equal(t, http.StatusSeeOther, status, body)
			to = header.Get("Location")
			assert.Contains(t, to, "kept="+kept, path)
		}
		return to
	}
	revisions := func() int { return s.Revisions(t) }

	was := revisions()
	thing := regexp.MustCompile(`name="at" value="(\d+)"><input type="hidden" name="name"\s+value="([^"]*)"`).FindStringSubmatch(v.Page(plan + "/packing?loadout=travel"))
	require.NotNil(t, thing)
	tick := url.Values{"id": {id("A")}, "at": {thing[1]}, "name": {thing[2]}, "packed": {"yes"}}
	status, _, _ := v.Post(plan+"/packing/tick?loadout=travel", url.Values{"at": {thing[1]}, "name": {thing[2]}, "packed": {"no"}})
	require.Equal(t, http.StatusSeeOther, status)
	stood := revisions()
	twice(plan+"/packing/tick?loadout=travel", tick, id("A"))
	assert.Equal(t, stood+1, revisions())
	assert.Greater(t, revisions(), was)

	job := regexp.MustCompile(`name="job" value="([^"]+)"`).FindStringSubmatch(v.Page(plan + "/spanner-day?loadout=travel"))
	require.NotNil(t, job)
	stood = revisions()
	twice(plan+"/days/done?loadout=travel", url.Values{"id": {id("B")}, "job": {job[1]}, "date": {"2027-05-01"}}, id("B"))
	assert.Equal(t, stood+1, revisions())
	status, _, _ = v.Post(plan+"/days/done?loadout=travel", url.Values{"id": {id("C")}, "job": {"nothing/of-the-kind"}})
	assert.Equal(t, http.StatusConflict, status)

	look := regexp.MustCompile(`name="well" value="([^"]*)"`).FindStringSubmatch(v.Page(plan + "/shakedown?loadout=travel"))
	twice(plan+"/shakedown?loadout=travel", url.Values{"id": {id("D")}, "on": {"2027-05-02"}, "well": {look[1]}}, id("D"))
	assert.Len(t, v.Stored(plan).ReadingsOf(logbook.Shaken), 1)

	bikes := func() int {
		rider, err := s.Store.RiderByName(t.Context(), demo.Rider)
		require.NoError(t, err)
		list, err := s.Store.GarageBikes(t.Context(), rider.ID)
		require.NoError(t, err)
		return len(list)
	}
	had := bikes()
	at := twice("/buying", url.Values{"id": {id("E")}, "name": {"Marrow 400"}}, id("E"))
	assert.Equal(t, had+1, bikes())
	bike := strings.TrimSuffix(strings.Split(at, "?")[0], "/buying")
	base := webtest.Base(v.Page(bike + "/buying"))
	twice(bike+"/baseline/answer", url.Values{"id": {id("F")}, "check": {"frame"}, "verdict": {"good"}}, id("F"))
	answers := url.Values{"base": {base}, "save": {id("G")}, "name": {"Marrow 400"}, "asking": {"2950"}}
	twice(bike+"/buying", answers, id("G"))
	answers.Set("save", id("H"))
	answers.Set("asking", "2900")
	status, _, _ = v.Post(bike+"/buying", answers)
	assert.Equal(t, http.StatusConflict, status, "what was answered meanwhile is not overwritten")

	other := s.Visitor(t)
	status, _, _ = other.Post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = other.Post("/buying", url.Values{"id": {id("E")}, "name": {"Marrow 400"}})
	assert.Equal(t, http.StatusNotFound, status, "an id of another rider's bike opens nothing")
	rider, err := s.Store.RiderByName(t.Context(), "Other")
	require.NoError(t, err)
	_, err = s.Store.Version(t.Context(), rider.ID, store.OfBike, id("E"))
	assert.ErrorIs(t, err, store.ErrNotFound)
}
