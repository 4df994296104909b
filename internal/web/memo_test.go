package web_test

import (
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// asked asks for a page as a browser does that has an answer with a tag.
func asked(v *webtest.Visitor, path, tag string) (status int, body, fresh string) {
	v.TB.Helper()
	r := v.Request(http.MethodGet, path, nil)
	r.Header.Set("If-None-Match", tag)
	status, body, header := v.Do(r)
	return status, body, header.Get("ETag")
}

// TestKeptAnswers: a page that is kept is the one that would be made; whoever has it is
// sent nothing.
func TestKeptAnswers(t *testing.T) {
	kept := webtest.Of(t, web.Options{Kept: 16 << 20})
	v, path := kept.Demo(t)
	pages := 0
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			for _, route := range p.Routes {
				if route.Method != http.MethodGet || route.Path != "/"+p.ID {
					continue
				}
				pages++
				first, header := v.Page(path+route.Path), tag(v, path+route.Path)
				second := v.Page(path + route.Path)
				if route.Live {
					assert.Empty(t, header, route.Path)
					continue
				}
				assert.True(t, first == second, "%s hands out another answer each time: it is live", route.Path)
				require.NotEmpty(t, header, route.Path)
				status, body, _ := asked(v, path+route.Path, `"another", `+header)
				assert.Equal(t, http.StatusNotModified, status, route.Path)
				assert.Empty(t, body, route.Path)
				plain := v.Request(http.MethodGet, path+route.Path, nil)
				plain.Header.Set("Accept-Encoding", "identity")
				_, body, _ = v.Do(plain)
				assert.True(t, first == body, "%s, to one who does not unpack", route.Path)
				status, body, _ = asked(v, path+route.Path, `"another"`)
				assert.Equal(t, http.StatusOK, status)
				assert.True(t, body == first, route.Path)
			}
		}
	}
	assert.Greater(t, pages, 25)
}

func tag(v *webtest.Visitor, path string) string {
	_, _, header := v.Get(path)
	return header.Get("ETag")
}

// TestWhatAnAnswerDependsOn: each thing that changes it makes a fresh page.
func TestWhatAnAnswerDependsOn(t *testing.T) {
	s := webtest.Of(t, web.Options{Kept: 16 << 20})
	v, path := s.Demo(t)
	page := path + "/range?loadout=travel"
	seen := map[string]string{} // tag to what made it
	fresh := func(what string) string {
		t.Helper()
		status, body, header := v.Get(page)
		require.Equal(t, http.StatusOK, status)
		tag := header.Get("ETag")
		require.NotEmpty(t, tag)
		assert.Empty(t, seen[tag], "%s changes the answer", what)
		seen[tag] = what
		_, again, _ := v.Get(page)
		assert.True(t, body == again, what)
		return body
	}
	fresh("the first time")
	page = path + "/range?loadout=" + s.Newest(t, demo.Rider).Loadouts[0].ID
	assert.Contains(t, fresh("the loadout"), `aria-current="true">Trail day`)
	page = path + "/range?loadout=travel&try=fuel-cans:cans-2x3"
	assert.Contains(t, fresh("the bench"), "On the bench")
	page = path + "/range?loadout=travel"
	v.Post("/theme", url.Values{"theme": {"garage"}, "back": {"/"}})
	assert.Contains(t, fresh("the theme"), `data-theme="garage"`)
	v.Post("/account/units", url.Values{"preset": {"US"}, "unit.km": {"mi"}, "unit.L": {"gal"}})
	assert.Contains(t, fresh("the units"), " mi")
	readings := len(v.Stored(path).Readings)
	v.Post(path+"/fills", url.Values{"id": {"AAAAAAAAAAAAAAAAAAAAAAAAAA"}, "on": {"2026-11-20"}, "litres": {"9.6"}, "odometer": {"23150"}, "by": {"gps"}, "on.paved": {"100"}})
	require.Greater(t, len(v.Stored(path).Readings), readings)
	fresh("a reading")
	before := v.Page(page)
	v.Post(path+"/choose", url.Values{"base": {webtest.Base(before)}, "stage": {"range"}, "loadout": {"travel"}, "try": {"fuel-cans:cans-2x3"}})
	after := fresh("the revision")
	assert.NotEqual(t, webtest.Base(before), webtest.Base(after))
	v.Post(path+"/undo", url.Values{"base": {webtest.Base(after)}, "stage": {"range"}})
	assert.Contains(t, fresh("the revision that redo leads to"), "Redo: ")
	require.NoError(t, s.Store.LoadCatalogue(ctx, nil, plan.Shelf{{ID: "new", Slot: parts.FuelCans, Name: "A can of another maker"}}))
	assert.Contains(t, fresh("the shelf"), "A can of another maker")
	whole := v.Page(page)
	part := v.Parts(page, "bench")
	assert.Less(t, len(part), len(whole)/2, "the parts")
	assert.Equal(t, part, v.Parts(page, "bench"))
	assert.True(t, whole == v.Page(page))

	// One that follows from the other plans too.
	page = path + "/bike?loadout=travel"
	fresh("another page")
	v.Post("/garage", url.Values{"name": {"Yet another"}, "currency": {"EUR"}})
	other := v.FirstPlan()
	require.NotEqual(t, path, other)
	fresh("another plan")
	v.Post(other+"/choose", url.Values{"base": {webtest.Base(v.Page(other + "/bike"))}, "stage": {"bike"}, "bike": {"holt-650"}})
	own := `data-bike="own:` + strings.TrimPrefix(v.BikeOf(other), "/bikes/")
	assert.Contains(t, fresh("another plan's bike"), own)
	v.Post(other+"/remove", nil)
	assert.NotContains(t, v.Page(page), own, "gone again")
	page = path + "/range?loadout=travel"

	handler, err := web.New(web.Options{Store: s.Store, Log: slog.New(slog.DiscardHandler), Kept: 16 << 20})
	require.NoError(t, err)
	answer := httptest.NewRecorder()
	handler.ServeHTTP(answer, with(v, page))
	assert.Equal(t, http.StatusOK, answer.Code)
	assert.Empty(t, seen[answer.Header().Get("ETag")], "the program")
}

// with is a request for a page with the visitor's cookies.
func with(v *webtest.Visitor, page string) *http.Request {
	r := httptest.NewRequest(http.MethodGet, page, nil)
	at, err := url.Parse(v.Site.URL)
	require.NoError(v.TB, err)
	for _, cookie := range v.Client.Jar.Cookies(at) {
		r.AddCookie(cookie)
	}
	return r
}

// TestNobodyElseSeesWhatIsKept.
func TestNobodyElseSeesWhatIsKept(t *testing.T) {
	s := webtest.Of(t, web.Options{Kept: 16 << 20})
	v, path := s.Demo(t)
	tag := tag(v, path+"/range")
	other := s.Visitor(t)
	other.Post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	status, _, _ := asked(other, path+"/range", tag)
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = asked(s.Visitor(t), path+"/range", tag)
	assert.Equal(t, http.StatusSeeOther, status)
	_, _, header := v.Get(path + "/range")
	assert.Equal(t, "private, no-cache", header.Get("Cache-Control"))
	assert.Contains(t, header.Values("Vary"), desk.PartsHeader)
	status, _, header = v.Get(path + "/range?try=fuel-cans:no-such")
	assert.Equal(t, http.StatusNotFound, status)
	assert.Empty(t, header.Get("ETag"), "a failure is not kept")
	assert.NotContains(t, strings.ToLower(header.Get("Cache-Control")), "private")
}
