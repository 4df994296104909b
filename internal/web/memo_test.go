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

	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
)

// asked asks for a page as a browser does that has an answer with a tag.
func (v *visitor) asked(path, tag string) (status int, body, fresh string) {
	v.tb.Helper()
	r := v.request(http.MethodGet, path, nil)
	r.Header.Set("If-None-Match", tag)
	status, body, header := v.do(r)
	return status, body, header.Get("ETag")
}

// TestKeptAnswers: a page that is kept is the one that would be made; whoever has it is
// sent nothing.
func TestKeptAnswers(t *testing.T) {
	kept := siteOf(t, web.Options{Kept: 16 << 20})
	v, path := kept.demo(t)
	pages := 0
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			for _, route := range p.Routes {
				if route.Method != http.MethodGet || route.Path != "/"+p.ID {
					continue
				}
				pages++
				first, header := v.page(path+route.Path), v.tag(path+route.Path)
				second := v.page(path + route.Path)
				if route.Live {
					assert.Empty(t, header, route.Path)
					continue
				}
				assert.True(t, first == second, "%s hands out another answer each time: it is live", route.Path)
				require.NotEmpty(t, header, route.Path)
				status, body, _ := v.asked(path+route.Path, `"another", `+header)
				assert.Equal(t, http.StatusNotModified, status, route.Path)
				assert.Empty(t, body, route.Path)
				status, body, _ = v.asked(path+route.Path, `"another"`)
				assert.Equal(t, http.StatusOK, status)
				assert.True(t, body == first, route.Path)
			}
		}
	}
	assert.Greater(t, pages, 25)
}

func (v *visitor) tag(path string) string {
	_, _, header := v.get(path)
	return header.Get("ETag")
}

// TestWhatAnAnswerDependsOn: each thing that changes it makes a fresh page.
func TestWhatAnAnswerDependsOn(t *testing.T) {
	s := siteOf(t, web.Options{Kept: 16 << 20})
	v, path := s.demo(t)
	page := path + "/range?loadout=travel"
	seen := map[string]string{} // tag to what made it
	fresh := func(what string) string {
		t.Helper()
		status, body, header := v.get(page)
		require.Equal(t, http.StatusOK, status)
		tag := header.Get("ETag")
		require.NotEmpty(t, tag)
		assert.Empty(t, seen[tag], "%s changes the answer", what)
		seen[tag] = what
		_, again, _ := v.get(page)
		assert.True(t, body == again, what)
		return body
	}
	fresh("the first time")
	page = path + "/range?loadout=" + s.newest(t, demo.Rider).Loadouts[0].ID
	assert.Contains(t, fresh("the loadout"), `aria-current="true">Trail day`)
	page = path + "/range?loadout=travel&try=fuel-cans:cans-2x3"
	assert.Contains(t, fresh("the bench"), "On the bench")
	page = path + "/range?loadout=travel"
	v.post("/theme", url.Values{"theme": {"garage"}, "back": {"/"}})
	assert.Contains(t, fresh("the theme"), `data-theme="garage"`)
	v.post("/account/units", url.Values{"preset": {"US"}, "unit.km": {"mi"}, "unit.L": {"gal"}})
	assert.Contains(t, fresh("the units"), " mi")
	readings := len(v.stored(path).Readings)
	reading := fill("23150", "9.6")
	reading.Set("id", "AAAAAAAAAAAAAAAAAAAAAAAAAA")
	v.post(path+"/fills", reading)
	require.Greater(t, len(v.stored(path).Readings), readings)
	fresh("a reading")
	before := v.page(page)
	v.post(path+"/choose", url.Values{"base": {base(before)}, "stage": {"range"}, "loadout": {"travel"}, "try": {"fuel-cans:cans-2x3"}})
	after := fresh("the revision")
	assert.NotEqual(t, base(before), base(after))
	v.post(path+"/undo", url.Values{"base": {base(after)}, "stage": {"range"}})
	assert.Contains(t, fresh("the revision that redo leads to"), "Redo: ")
	require.NoError(t, s.store.LoadCatalogue(ctx, nil, plan.Shelf{{ID: "new", Slot: plan.FuelCans, Name: "A can of another maker"}}))
	assert.Contains(t, fresh("the shelf"), "A can of another maker")
	whole := v.page(page)
	part := v.parts(page, "bench")
	assert.Less(t, len(part), len(whole)/2, "the parts")
	assert.Equal(t, part, v.parts(page, "bench"))
	assert.True(t, whole == v.page(page))

	handler, err := web.New(web.Options{Store: s.store, Log: slog.New(slog.DiscardHandler), Kept: 16 << 20})
	require.NoError(t, err)
	answer := httptest.NewRecorder()
	handler.ServeHTTP(answer, v.with(page))
	assert.Equal(t, http.StatusOK, answer.Code)
	assert.Empty(t, seen[answer.Header().Get("ETag")], "the program")
}

// with is a request for a page with the visitor's cookies.
func (v *visitor) with(page string) *http.Request {
	r := httptest.NewRequest(http.MethodGet, page, nil)
	at, err := url.Parse(v.site.URL)
	require.NoError(v.tb, err)
	for _, cookie := range v.client.Jar.Cookies(at) {
		r.AddCookie(cookie)
	}
	return r
}

// TestNobodyElseSeesWhatIsKept.
func TestNobodyElseSeesWhatIsKept(t *testing.T) {
	s := siteOf(t, web.Options{Kept: 16 << 20})
	v, path := s.demo(t)
	tag := v.tag(path + "/range")
	other := s.visitor(t)
	other.post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	status, _, _ := other.asked(path+"/range", tag)
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = s.visitor(t).asked(path+"/range", tag)
	assert.Equal(t, http.StatusSeeOther, status)
	_, _, header := v.get(path + "/range")
	assert.Equal(t, "private, no-cache", header.Get("Cache-Control"))
	assert.Contains(t, header.Values("Vary"), desk.PartsHeader)
	status, _, header = v.get(path + "/range?try=fuel-cans:no-such")
	assert.Equal(t, http.StatusNotFound, status)
	assert.Empty(t, header.Get("ETag"), "a failure is not kept")
	assert.NotContains(t, strings.ToLower(header.Get("Cache-Control")), "private")
}
