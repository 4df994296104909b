package web_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/browser/browsertest"
	"valiantmule/internal/core/calc"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
)

func TestMain(m *testing.M) {
	code := mariadbtest.Main(m)
	browsertest.Stop()
	os.Exit(code)
}

var ctx = context.Background()

// site is the pages on a database with the demo data.
type site struct {
	*httptest.Server
	store   *store.Store
	handler http.Handler
}

func newSite(tb testing.TB) *site { return siteOf(tb, web.Options{}) }

// siteOf is a site with more options than its store.
func siteOf(tb testing.TB, o web.Options) *site {
	tb.Helper()
	st, err := store.Open(mariadbtest.DSN(tb))
	require.NoError(tb, err)
	tb.Cleanup(func() { st.Close() })
	require.NoError(tb, st.Migrate(ctx))
	require.NoError(tb, demo.Load(ctx, st))
	o.Store, o.Log, o.DemoRider = st, slog.New(slog.DiscardHandler), demo.Rider
	handler, err := web.New(o)
	require.NoError(tb, err)
	s := &site{httptest.NewServer(handler), st, handler}
	tb.Cleanup(s.Close)
	return s
}

// visitor is a browser without a screen.
type visitor struct {
	tb     testing.TB
	site   *site
	client *http.Client
}

func (s *site) visitor(tb testing.TB) *visitor {
	jar, err := cookiejar.New(nil)
	require.NoError(tb, err)
	return &visitor{tb, s, &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

// demo is a visitor who looks at the demo plan; plan is its path.
func (s *site) demo(tb testing.TB) (v *visitor, plan string) {
	v = s.visitor(tb)
	v.post("/sign-in/demo", nil)
	return v, v.firstPlan()
}

func (v *visitor) firstPlan() string {
	page := v.page("/garage")
	return regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(page)
}

func (v *visitor) do(r *http.Request) (int, string, http.Header) {
	v.tb.Helper()
	answer, err := v.client.Do(r)
	require.NoError(v.tb, err)
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	require.NoError(v.tb, err)
	return answer.StatusCode, string(body), answer.Header
}

func (v *visitor) request(method, path string, body io.Reader) *http.Request {
	v.tb.Helper()
	r, err := http.NewRequest(method, v.site.URL+path, body)
	require.NoError(v.tb, err)
	return r
}

func (v *visitor) get(path string) (int, string, http.Header) {
	v.tb.Helper()
	return v.do(v.request(http.MethodGet, path, nil))
}

// page gets a page that must be there.
func (v *visitor) page(path string) string {
	v.tb.Helper()
	status, body, _ := v.get(path)
	require.Equal(v.tb, http.StatusOK, status, path)
	return body
}

func (v *visitor) post(path string, form url.Values) (int, string, http.Header) {
	v.tb.Helper()
	r := v.request(http.MethodPost, path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return v.do(r)
}

// form reads the fields of a stage's form as a browser would send them.
func form(page string) url.Values {
	values := url.Values{}
	_, body, _ := strings.Cut(page, `class="stage-form"`)
	body, _, _ = strings.Cut(body, "</form>")
	for _, m := range regexp.MustCompile(`<input[^>]*>`).FindAllString(body, -1) {
		if strings.Contains(m, "checkbox") && !strings.Contains(m, "checked") {
			continue
		}
		values.Set(attribute(m, "name"), attribute(m, "value"))
	}
	for _, m := range regexp.MustCompile(`(?s)<select[^>]*name="([^"]*)"[^>]*>(.*?)</select>`).FindAllStringSubmatch(body, -1) {
		chosen := regexp.MustCompile(`value="([^"]*)" selected`).FindStringSubmatch(m[2])
		if chosen == nil {
			chosen = regexp.MustCompile(`value="([^"]*)"`).FindStringSubmatch(m[2])
		}
		values.Set(m[1], chosen[1])
	}
	return values
}

func attribute(tag, name string) string {
	m := regexp.MustCompile(`\s` + name + `="([^"]*)"`).FindStringSubmatch(tag)
	if m == nil {
		return ""
	}
	return strings.NewReplacer("&amp;", "&", "&#34;", `"`, "&#43;", "+", "&lt;", "<", "&gt;", ">").Replace(m[1])
}

func base(page string) string {
	return regexp.MustCompile(`name="base" value="([^"]*)"`).FindStringSubmatch(page)[1]
}

// gauge is a gauge's state and shown value in the verdict strip.
func gauge(page, id string) string {
	m := regexp.MustCompile(`(?s)data-gauge="` + id + `" data-state="([^"]*)".*?gauge-value">([^<]*)<`).FindStringSubmatch(page)
	if m == nil {
		return ""
	}
	return m[1] + " " + strings.ReplaceAll(m[2], "\u00a0", " ")
}

// TestStripListsTheTable: every gauge of the table is on the strip, or named among
// those that wait.
func TestStripListsTheTable(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	page := v.page(path + "/brief?loadout=travel")
	for _, row := range figure.Gauges() {
		if len(row.Lacks) > 0 {
			assert.Contains(t, page, "<b>"+row.Name+"</b>", row.ID)
			continue
		}
		assert.NotEmpty(t, gauge(page, string(row.ID)), row.ID)
	}
	require.NotEmpty(t, eval.Needs())
	needs := v.page(path + "/needs?loadout=travel")
	links := regexp.MustCompile(`(?s)data-need="[^"]+".*?class="option" href="([^"]+)"`).FindAllStringSubmatch(needs, -1)
	require.NotEmpty(t, links)
	for _, m := range links {
		v.page(strings.ReplaceAll(m[1], "&amp;", "&"))
	}
}

// routes calls f for every route with the ids of a plan filled in.
func routes(t *testing.T, s *site, plan string, f func(method, route, path string)) {
	fill := strings.NewReplacer("/plans/{plan}", plan, "{figure}", "cost", "{hash}", "0", "/calculators/{name}", "/calculators/chain", "{name}", "mule.css")
	err := chi.Walk(s.handler.(chi.Routes), func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		f(method, route, fill.Replace(route))
		return nil
	})
	require.NoError(t, err)
}

func TestEveryRouteNeedsItsRider(t *testing.T) {
	s := newSite(t)
	_, plan := s.demo(t)
	stranger := s.visitor(t)
	other := s.visitor(t)
	status, _, _ := other.post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	require.Equal(t, http.StatusSeeOther, status)
	walked := 0
	routes(t, s, plan, func(method, route, path string) {
		if !strings.HasPrefix(route, "/garage") && !strings.HasPrefix(route, "/plans") && !strings.HasPrefix(route, "/calculators") && route != "/sign-out" && !strings.HasPrefix(route, "/account") {
			return
		}
		walked++
		status, _, header := stranger.do(stranger.request(method, path, nil))
		assert.Equal(t, http.StatusSeeOther, status, "%s %s for nobody", method, route)
		assert.Equal(t, "/sign-in", header.Get("Location"))
		if strings.HasPrefix(route, "/plans") {
			status, body, _ := other.do(other.request(method, path+"?base=x&try=rear-tyre:", nil))
			assert.Equal(t, http.StatusNotFound, status, "%s %s for another rider", method, route)
			assert.NotContains(t, body, "salt-pan")
		}
	})
	assert.Greater(t, walked, 18)
}

func TestForeignOriginsChangeNothing(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	routes(t, s, plan, func(method, route, path string) {
		if method != http.MethodPost {
			return
		}
		for header, value := range map[string]string{"Sec-Fetch-Site": "cross-site", "Origin": "https://elsewhere.example"} {
			r := v.request(method, path, nil)
			r.Header.Set(header, value)
			status, _, _ := v.do(r)
			assert.Equal(t, http.StatusForbidden, status, "%s with %s", route, header)
		}
	})
}

func TestEveryPageKeepsThePolicy(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	routes(t, s, plan, func(method, route, path string) {
		if method != http.MethodGet || strings.HasPrefix(route, "/assets") {
			return
		}
		status, body, header := v.get(path)
		assert.Less(t, status, 400, route)
		assert.Contains(t, header.Get("Content-Security-Policy"), "default-src 'self'", route)
		assert.NotContains(t, header.Get("Content-Security-Policy"), "unsafe", route)
		assert.Equal(t, "nosniff", header.Get("X-Content-Type-Options"), route)
		assert.NotRegexp(t, `<[^>]* (style|on[a-z]+)=`, body, "%s: nothing inline", route)
		assert.NotRegexp(t, `<script>|NaN|\bInf\b|%!`, body, route)
		head, none, _ := v.do(v.request(http.MethodHead, path, nil))
		assert.Equal(t, status, head, "HEAD works where GET does: %s", route)
		assert.Empty(t, none)
	})
}

func TestAssets(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	page := v.page("/sign-in")
	paths := regexp.MustCompile(`/assets/[^"]+`).FindAllString(page, -1)
	require.NotEmpty(t, paths)
	// What a first visit brings, compressed, with the fonts that the style names.
	first := zipped(t, page)
	prefix := paths[0][:strings.LastIndex(paths[0], "/")+1]
	for _, font := range []string{"barlow-semi-condensed-latin-400-normal.woff2", "barlow-semi-condensed-latin-600-normal.woff2", "barlow-condensed-latin-600-normal.woff2"} {
		paths = append(paths, prefix+font)
	}
	for _, path := range paths {
		status, body, header := v.get(path)
		require.Equal(t, http.StatusOK, status, path)
		assert.Contains(t, header.Get("Cache-Control"), "immutable", path)
		assert.NotEmpty(t, header.Get("Content-Type"), path)
		first += zipped(t, body)
	}
	assert.Less(t, first, 160_000, "bytes of a first load")
	status, _, _ := v.get("/assets/0000/mule.css")
	assert.Equal(t, http.StatusNotFound, status, "another version's path")

	r := v.request(http.MethodGet, paths[0], nil)
	r.Header.Set("Accept-Encoding", "gzip")
	answer, err := v.client.Do(r)
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Contains(t, []string{"gzip", ""}, answer.Header.Get("Content-Encoding"))

	v, plan := s.demo(t)
	full := []string{"bike?bike=averill-720", "tyres?all=1&beside=wether-130-80-18&beside=fathom-140-80-18&beside=hackle-140-80-18&beside=lanner-120-80-18"}
	for _, page := range append(full, pageIDs()...) {
		assert.Less(t, zipped(t, v.page(plan+"/"+page)), 40_000, "bytes of %s", page)
	}
}

// pageIDs are the pages of all stages.
func pageIDs() (ids []string) {
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			ids = append(ids, p.ID)
		}
	}
	return ids
}

func zipped(t *testing.T, body string) int {
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	_, err := io.WriteString(w, body)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return b.Len()
}

func TestHealth(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	status, body, header := v.get("/healthz")
	assert.Equal(t, http.StatusOK, status)
	assert.JSONEq(t, `{"status":"up","database":"up"}`, body)
	assert.Equal(t, "application/json", header.Get("Content-Type"))
	require.NoError(t, s.store.Close())
	status, _, _ = v.get("/healthz")
	assert.Equal(t, http.StatusServiceUnavailable, status)
	status, body, _ = v.get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "without a cookie the database is not asked: %s", body)
}

func TestAccounts(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	status, body, _ := v.post("/register", url.Values{"name": {"Ada <b>"}, "password": {"short"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="Ada &lt;b&gt;"`, "what was typed stays, escaped")
	assert.NotContains(t, body, "short", "but no password comes back")
	status, _, _ = v.post("/register", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, v.page("/garage"), "No plans yet")
	v.post("/sign-out", nil)
	status, _, _ = v.get("/garage")
	assert.Equal(t, http.StatusSeeOther, status)

	status, body, _ = v.post("/sign-in", url.Values{"name": {"Ada"}, "password": {"wrong horse"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="Ada"`)
	_, unknown, _ := v.post("/sign-in", url.Values{"name": {"Eve"}, "password": {"wrong horse"}})
	assert.Equal(t, strings.ReplaceAll(body, "Ada", "Eve"), unknown, "a wrong name and a wrong password read the same")
	status, _, header := v.post("/sign-in", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, header.Get("Set-Cookie"), "HttpOnly")

	status, body, _ = s.visitor(t).post("/register", url.Values{"name": {"ada"}, "password": {"another horse"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status, "the name is taken")
	assert.Contains(t, body, `value="ada"`)
}

func TestSignOutEverywhere(t *testing.T) {
	s := newSite(t)
	here, there := s.visitor(t), s.visitor(t)
	account := url.Values{"name": {"Ada"}, "password": {"correct horse"}}
	here.post("/register", account)
	there.post("/sign-in", account)
	require.Contains(t, there.page("/garage"), "Garage")
	status, _, _ := here.post("/account/sign-out", nil)
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "the other device is out")
	assert.Contains(t, here.page("/account?done=sign-out"), "signed out", "this one stays")

	there.post("/sign-in", account)
	for field, form := range map[string]url.Values{
		"old":   {"old": {"wrong horse"}, "new": {"battery staple"}, "again": {"battery staple"}},
		"new":   {"old": {"correct horse"}, "new": {"short"}, "again": {"short"}},
		"again": {"old": {"correct horse"}, "new": {"battery staple"}, "again": {"battery staples"}},
	} {
		status, body, _ := here.post("/account/password", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status)
		assert.Regexp(t, `id="h-`+field+`"><span class="error">`, body)
	}
	status, _, _ = here.post("/account/password", url.Values{"old": {"correct horse"}, "new": {"battery staple"}, "again": {"battery staple"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.get("/garage")
	assert.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.post("/sign-in", account)
	assert.Equal(t, http.StatusUnprocessableEntity, status, "the old password is gone")
}

// TestOwnUnits: shown, asked for, said and drawn in the rider's units; kept as typed.
func TestOwnUnits(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	status, _, _ := v.post("/account/units", url.Values{"preset": {"US"}})
	require.Equal(t, http.StatusSeeOther, status)
	page := v.page(plan + "/gearing?loadout=travel&try=rear-sprocket:rear-h6-47")
	assert.Equal(t, "ok 722.5 lb", gauge(page, "loaded-mass"))
	assert.Equal(t, "over 8.0 mph", gauge(page, "crawl-speed"))
	assert.Contains(t, page, "Walking pace in first, mph")
	assert.Contains(t, strings.ReplaceAll(page, "\u00a0", " "), "The rear tyre is 0.67 in taller")
	assert.NotContains(t, page, " km/h")
	brief := form(v.page(plan + "/brief"))
	assert.Equal(t, "104 kg", brief.Get("rider"), "kept as typed")
	brief.Set("rider", "230")
	status, _, header := v.post(plan+"/brief", brief)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "230 lb", form(v.page(header.Get("Location"))).Get("rider"), "a bare number is in the rider's unit")
	v.post("/account/units", url.Values{"unit.kg": {"st"}, "unit.km/h": {"mph"}, "unit.km": {"parsec"}})
	mixed := v.page(plan + "/gearing?loadout=travel")
	assert.Regexp(t, `\d+\.\d st$`, gauge(mixed, "loaded-mass"), "each quantity is its own choice")
	assert.Regexp(t, `km$`, gauge(mixed, "tyre-life"))
	links := regexp.MustCompile(`Pitches, exactly</dt><dd>([^<]*)`)
	metric := links.FindString(v.page("/calculators/chain?front=15&rear=47&pitch_mm=15.875&centre_mm=635"))
	require.NotEmpty(t, metric)
	assert.Equal(t, metric, links.FindString(v.page("/calculators/chain?front=15&rear=47&pitch_mm=0,625+in&centre_mm=25+in")), "a calculator takes any unit")
}

// TestGuessing is slowed down, for names that are there and names that are not.
func TestGuessing(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	v.post("/register", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	v.post("/sign-out", nil)
	for _, name := range []string{"Ada", "Nobody"} {
		var last int
		for range 11 {
			last, _, _ = v.post("/sign-in", url.Values{"name": {name}, "password": {"wrong horse"}})
		}
		assert.Equal(t, http.StatusTooManyRequests, last, name)
	}
	status, _, _ := v.post("/sign-in", url.Values{"name": {"ada"}, "password": {"correct horse"}})
	assert.Equal(t, http.StatusTooManyRequests, status, "the right one too, for a while")
	other := s.visitor(t)
	other.post("/register", url.Values{"name": {"Eve"}, "password": {"correct horse"}})
	assert.Contains(t, other.page("/garage"), "Garage", "others are not held up")
}

func TestNoDemoWithoutADemo(t *testing.T) {
	s := newSite(t)
	handler, err := web.New(web.Options{Store: s.store, Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	for _, r := range []*http.Request{httptest.NewRequest("POST", "/sign-in/demo", nil), httptest.NewRequest("GET", "/sign-in", nil)} {
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, r)
		assert.NotContains(t, w.Body.String(), `id="demo"`)
		assert.Equal(t, r.Method == "POST", w.Code == http.StatusNotFound)
	}
}

// TestBadBriefKeepsWhatWasTyped, and says by the field what is wrong.
func TestBadBriefKeepsWhatWasTyped(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/brief")
	bad := form(page)
	for key, typed := range map[string]string{
		"distance": "four thousand", "budget": "12.345 EUR", "start": "2027-02-30", "share.sand": "50", "ships": "soon", "pillion": "999 kg", "rider": "<script>",
	} {
		bad.Set(key, typed)
		status, body, _ := v.post(plan+"/brief", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, key)
		assert.Contains(t, body, `value="`+strings.NewReplacer("<", "&lt;", ">", "&gt;").Replace(typed)+`"`, key)
		assert.Contains(t, body, `class="error"`, key)
		bad = form(page)
	}
	assert.Equal(t, page, v.page(plan+"/brief"), "nothing was saved")
}

func TestBriefTriedThenSaved(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/brief")
	typed := form(page)
	typed.Set("rider", "250 lb")
	typed.Set("pillion", "1,2 kg")
	_, tried, _ := v.post(plan+"/brief/try", typed)
	assert.Contains(t, tried, "The brief as typed")
	assert.Equal(t, gauge(page, "loaded-mass"), gauge(tried, "loaded-mass"), "tried is not saved")
	status, _, header := v.post(plan+"/brief", typed)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.page(header.Get("Location"))
	assert.Equal(t, "watch 338.3 kg", gauge(saved, "loaded-mass"), "104 kg gave 327.7; 250 lb are 113.4, and a very small passenger")
	assert.Contains(t, saved, `value="250 lb"`, "kept as typed")
	assert.Contains(t, saved, `value="1,2 kg"`)
	assert.Regexp(t, `title="Undo: [^"]*Rider, dressed 104 kg → 250 lb`, saved)
}

func TestChooseUndoRedo(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/gearing?loadout=travel&try=rear-sprocket:rear-h6-47")
	assert.Contains(t, page, "Put it in the plan")
	assert.Contains(t, page, `data-finding="rear-tyre-clearance"`, "on this chain the tyre would touch")
	way := regexp.MustCompile(`href="([^"]*)" data-try data-remedy`).FindStringSubmatch(page)
	require.NotNil(t, way, "with a way out as the next preview")
	next := v.page(strings.ReplaceAll(way[1], "&amp;", "&"))
	assert.Contains(t, next, "Sealed chain 520, 112 links")
	assert.NotContains(t, next, `data-finding="rear-tyre-clearance"`)

	choice := url.Values{"base": {base(next)}, "stage": {"gearing"}, "loadout": {"travel"}, "need": {"needed"}, "try": {"rear-sprocket:rear-h6-47", "chain:chain-520-112"}}
	status, _, header := v.post(plan+"/choose", choice)
	require.Equal(t, http.StatusSeeOther, status)
	chosen := v.page(header.Get("Location"))
	assert.Equal(t, "watch 11.8 km/h", gauge(chosen, "crawl-speed"))
	assert.Equal(t, "watch 5015 rpm", gauge(chosen, "cruise-rpm"))

	status, body, _ := v.post(plan+"/choose", choice)
	assert.Equal(t, http.StatusConflict, status, "the same page sent again is stale")
	assert.Contains(t, body, "rear-sprocket%3Arear-h6-47", "and leads to the same choice on the plan as it is now")

	history := func(base string) url.Values {
		return url.Values{"base": {base}, "stage": {"gearing"}, "loadout": {"travel"}}
	}
	status, _, header = v.post(plan+"/undo", history(base(chosen)))
	require.Equal(t, http.StatusSeeOther, status)
	undone := v.page(header.Get("Location"))
	assert.Equal(t, "over 12.9 km/h", gauge(undone, "crawl-speed"))
	status, _, header = v.post(plan+"/redo", history(base(undone)))
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "watch 11.8 km/h", gauge(v.page(header.Get("Location")), "crawl-speed"))
	status, _, _ = v.post(plan+"/undo", history(base(undone)))
	assert.Equal(t, http.StatusConflict, status)
}

func TestUnknownChoicesAreNotFound(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	for _, query := range []string{"try=rear-tyre:unicorn", "try=roof:box", "try=rear-tyre", "bike=unicorn", "try=rear-sprocket:any-rear-sprocket-999"} {
		stage := "/tyres?"
		if strings.HasPrefix(query, "bike") {
			stage = "/bike?"
		}
		status, _, _ := v.get(plan + stage + query)
		assert.Equal(t, http.StatusNotFound, status, query)
	}
	status, _, _ := v.get(plan + "/working/luck")
	assert.Equal(t, http.StatusNotFound, status)
	assert.Contains(t, v.page(plan+"/tyres?loadout=moon"), `aria-current="true">Travel`, "an unknown loadout is the usual one")
}

// TestTwoTabs: the older one is told, shown both sides field by field, and loses
// nothing: not what was typed in it, nor what the other saved.
func TestTwoTabs(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	old := form(v.page(plan + "/brief"))
	first := form(v.page(plan + "/brief"))
	first.Set("distance", "5000 km")
	first.Set("rider", "99 kg")
	status, _, _ := v.post(plan+"/brief", first)
	require.Equal(t, http.StatusSeeOther, status)

	old.Set("cruise", "99 km/h")
	old.Set("rider", "101 kg")
	status, body, _ := v.post(plan+"/brief", old)
	require.Equal(t, http.StatusConflict, status)
	again := form(body)
	assert.Equal(t, "99 km/h", again.Get("cruise"), "typed here only")
	assert.Equal(t, "5000 km", again.Get("distance"), "changed there only")
	assert.Equal(t, "101 kg", again.Get("rider"), "changed on both sides: what was typed")
	assert.Regexp(t, `(?s)is-both.*?Rider, dressed.*?104 kg.*?99 kg.*?101 kg`, body, "and both are shown")
	assert.Regexp(t, `(?s)Trip distance.*?4200 km.*?5000 km.*?not touched`, body)
	assert.NotContains(t, body, "Cruise to hold</th>", "what nobody else changed is no matter")

	status, _, header := v.post(plan+"/brief", again)
	require.Equal(t, http.StatusSeeOther, status)
	saved := form(v.page(header.Get("Location")))
	assert.Equal(t, []string{"99 km/h", "5000 km", "101 kg"}, []string{saved.Get("cruise"), saved.Get("distance"), saved.Get("rider")})

	for _, stage := range []string{"/spend", "/sheet"} {
		old := form(v.page(plan + stage))
		choose := url.Values{"base": {old.Get("base")}, "stage": {"tyres"}, "try": {"rear-sprocket:rear-h6-" + map[string]string{"/spend": "45", "/sheet": "46"}[stage]}}
		status, _, _ = v.post(plan+"/choose", choose)
		require.Equal(t, http.StatusSeeOther, status)
		old.Set("name.8", "Rim tape")
		old.Set("amount.8", "6 EUR")
		old.Set("tank", "15 L")
		status, body, _ = v.post(plan+stage, old)
		require.Equal(t, http.StatusConflict, status)
		status, _, _ = v.post(plan+stage, form(body))
		require.Equal(t, http.StatusSeeOther, status)
	}
	spend := v.page(plan + "/spend")
	assert.Contains(t, spend, "Rim tape")
	assert.Contains(t, spend, "Rear sprocket 46 T", "what was chosen in the other tab stays")
	assert.Equal(t, "15 L", form(v.page(plan+"/sheet")).Get("tank"))
	lost := form(v.page(plan + "/brief"))
	lost.Set("base", "nonsense")
	status, _, _ = v.post(plan+"/brief", lost)
	assert.Equal(t, http.StatusConflict, status)
}

func TestHistory(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/gearing")
	choose := func(base, try string) string {
		_, _, header := v.post(plan+"/choose", url.Values{"base": {base}, "stage": {"gearing"}, "try": {try}})
		return v.page(header.Get("Location"))
	}
	page = choose(base(page), "rear-sprocket:rear-h6-46")
	page = choose(base(page), "rear-sprocket:rear-h6-48")
	history := strings.NewReplacer("\u00a0", " ", "&#43;", "+").Replace(v.page(plan + "/history"))
	assert.Contains(t, history, "Rear sprocket 46 → 48", "in words")
	assert.Regexp(t, `history-figures">[^<]*at the cruise \+213 rpm, walking pace −0\.5 km/h`, history, "and in figures")
	assert.Contains(t, history, "Rear sprocket 43 → 46")
	back := regexp.MustCompile(`name="revision" value="([^"]*)"`).FindAllStringSubmatch(history, -1)
	require.Len(t, back, 2)
	status, _, _ := v.post(plan+"/restore", url.Values{"base": {base(page)}, "revision": {back[1][1]}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "over 12.9 km/h", gauge(v.page(plan+"/gearing"), "crawl-speed"))
	assert.Contains(t, v.page(plan+"/history"), "Back to: The demo plan")
	status, _, _ = v.post(plan+"/restore", url.Values{"base": {base(page)}, "revision": {back[1][1]}})
	assert.Equal(t, http.StatusConflict, status)
}

func TestVariants(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/variants?loadout=travel")
	status, body, _ := v.post(plan+"/split", url.Values{"base": {base(page)}, "name": {" "}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `class="error"`)
	status, _, header := v.post(plan+"/split", url.Values{"base": {base(page)}, "name": {"On the small one"}})
	require.Equal(t, http.StatusSeeOther, status)
	other := regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(header.Get("Location"))
	require.NotEqual(t, plan, other)
	page = v.page(other + "/bike")
	v.post(other+"/bike/take", url.Values{"base": {base(page)}, "bike": {"fennick-300"}})
	side := strings.ReplaceAll(v.page(plan+"/variants?loadout=travel"), "\u00a0", " ")
	assert.Regexp(t, `(?s)The salt-pan loop.*Holt 650 Drover.*On the small one.*Fennick 300 Trail`, side, "another bike is allowed")
	assert.Regexp(t, `(?s)Open points.*?is-over"><b>17<.*?is-stop"><b>`, side, "what does not fit the other bike is not hidden by its figures")
	assert.Regexp(t, `(?s)Loaded mass.*?327\.7 kg.*?297\.6 kg`, side)
}

func TestOwnBikeFromABlankSheet(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	v.post("/register", url.Values{"name": {"Own"}, "password": {"a long enough one"}})
	_, _, header := v.post("/garage", url.Values{"name": {"Mine"}, "currency": {"gbp"}})
	plan := strings.TrimSuffix(header.Get("Location"), "/brief")
	page := v.page(plan + "/bike?bike=own-bike")
	status, _, _ := v.post(plan+"/bike/take", url.Values{"base": {base(page)}, "bike": {"own-bike"}})
	require.Equal(t, http.StatusSeeOther, status)
	sheet := form(v.page(plan + "/sheet"))
	for key, typed := range map[string]string{
		"name": "Red one", "primary": "2.1", "gearbox": "2,8 1.8 1.4 1.1 0.9", "clean_rpm": "1800", "comfort_rpm": "5000", "chain": "520", "origin": "maker",
		"std.rear-tyre": "120/80-18 M/C 62S", "std.front-sprocket": "15", "std.rear-sprocket": "43", "std.chain": "110",
	} {
		sheet.Set(key, typed)
	}
	bad := url.Values{}
	for key, list := range sheet {
		bad[key] = list
	}
	bad.Set("std.rear-tyre", "120/80")
	status, body, _ := v.post(plan+"/sheet", bad)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="120/80"`)
	assert.Contains(t, body, "rim diameter missing")
	status, _, header = v.post(plan+"/sheet", sheet)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.page(header.Get("Location"))
	assert.Contains(t, saved, "Red one")
	assert.Regexp(t, `(?s)Primary ratio.*?origin">maker<`, saved, "what was typed says where it came from")
	brief := form(v.page(plan + "/brief"))
	brief.Set("cruise", "62 mph")
	brief.Set("walking_pace", "12")
	v.post(plan+"/brief", brief)
	gearing := v.page(plan + "/gearing")
	assert.Regexp(t, `^ok \d+ rpm`, gauge(gearing, "cruise-rpm"))
	assert.Contains(t, gearing, "any-rear-sprocket-46", "sprockets that no shelf has can be tried")
	assert.Contains(t, gauge(gearing, "loaded-mass"), "unknown")
}

func TestAnotherBikeKeepsItsRemedies(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/bike?bike=fennick-300")
	way := regexp.MustCompile(`href="([^"]*bike=fennick-300[^"]*try=[^"]*)" data-try`).FindStringSubmatch(page)
	require.NotNil(t, way, "a remedy is tried on the bike that lies on the bench")
	next := v.page(strings.ReplaceAll(way[1], "&amp;", "&"))
	assert.Contains(t, next, "Fennick 300 Trail with ")
	take := url.Values{"base": {base(next)}, "bike": {"fennick-300"}, "try": {"rear-tyre:bracken-120-90-18"}}
	status, _, header := v.post(plan+"/bike/take", take)
	require.Equal(t, http.StatusSeeOther, status)
	after := v.page(header.Get("Location"))
	assert.NotContains(t, after, `data-finding="rear-tyre-clearance"`)
	status, _, _ = v.post(plan+"/bike/take", take)
	assert.Equal(t, http.StatusConflict, status)
}

func TestSpend(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	page := v.page(plan + "/spend")
	ledger := form(page)
	ledger.Set("name.7", "Inner tube strips")
	ledger.Set("amount.7", "0")
	ledger.Set("out.0", "on") // springs, 345 of 1675
	ledger.Set("need.1", "wanted")
	status, _, header := v.post(plan+"/spend", ledger)
	require.Equal(t, http.StatusSeeOther, status)
	after := v.page(header.Get("Location"))
	assert.Equal(t, "ok €1,330", gauge(after, "cost"))
	assert.Contains(t, after, "Inner tube strips")
	foreign := form(after)
	foreign.Set("amount.0", "200 USD")
	foreign.Set("rate_from.0", "usd")
	foreign.Set("rate.0", "0,92")
	foreign.Set("rate_on.0", "yesterday")
	status, body, _ := v.post(plan+"/spend", foreign)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `(?s)row-rate has-error.*yesterday.*not a date`, body)
	foreign.Set("rate_on.0", "2026-11-20")
	status, _, header = v.post(plan+"/spend", foreign)
	require.Equal(t, http.StatusSeeOther, status)
	after = v.page(header.Get("Location"))
	assert.Equal(t, "ok €1,375", gauge(after, "cost"), "139 EUR became 184")
	ledger = form(after)
	ledger.Set("amount.0", "about a hundred")
	status, body, _ = v.post(plan+"/spend", ledger)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="about a hundred"`)
}

func TestExportImport(t *testing.T) {
	s := newSite(t)
	v, path := s.demo(t)
	status, file, header := v.get(path + "/export")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, header.Get("Content-Disposition"), "the-salt-pan-loop.plan.json")
	exported, err := format.ReadPlan(strings.NewReader(file))
	require.NoError(t, err)
	want, err := demo.Plan()
	require.NoError(t, err)
	assert.Equal(t, want, exported)

	status, _, header = v.upload("/garage/import", "loop.json", []byte(file))
	require.Equal(t, http.StatusSeeOther, status)
	_, again, _ := v.get(strings.TrimSuffix(header.Get("Location"), "/brief") + "/export")
	assert.Equal(t, file, again)

	for name, bad := range map[string]string{"broken": file[:500], "another thing": `{"a":1}`, "empty": ""} {
		status, body, _ := v.upload("/garage/import", "bad.json", []byte(bad))
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.Contains(t, body, "bad.json", name)
	}
	status, _, _ = v.upload("/garage/import", "large.json", bytes.Repeat([]byte(" "), 6<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
	status, body, _ := v.post("/garage/import", nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "Choose a plan file first")
	assert.Equal(t, 2, strings.Count(v.page("/garage"), `class="card plan-card"`), "the bad ones left nothing")
}

func TestNewPlanErrors(t *testing.T) {
	s := newSite(t)
	v, _ := s.demo(t)
	status, body, _ := v.post("/garage", url.Values{"name": {""}, "currency": {"money"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="MONEY"`)
	status, body, _ = v.post("/garage", url.Values{"name": {strings.Repeat("x", 300)}, "currency": {"EUR"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, strings.Repeat("x", 300))
}

func TestTheme(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	assert.NotContains(t, v.page("/sign-in"), "data-theme=", "the machine's own choice")
	_, _, header := v.post("/theme", url.Values{"theme": {"garage"}, "back": {"//evil.example/"}})
	assert.Equal(t, "/", header.Get("Location"), "the way back stays here")
	assert.Contains(t, v.page("/sign-in"), `data-theme="garage"`)
	v.post("/theme", url.Values{"theme": {"mauve"}})
	assert.Contains(t, v.page("/sign-in"), `data-theme="garage"`)
}

func TestNoSuchPage(t *testing.T) {
	s := newSite(t)
	v := s.visitor(t)
	for path, want := range map[string]int{"/nowhere": http.StatusNotFound, "/plans/x/nowhere": http.StatusNotFound} {
		status, _, _ := v.get(path)
		assert.Equal(t, want, status, path)
	}
	status, body, _ := v.do(v.request(http.MethodDelete, "/sign-in", nil))
	assert.Equal(t, http.StatusMethodNotAllowed, status)
	assert.Contains(t, body, "<h1>")
}

func TestCalculators(t *testing.T) {
	s := newSite(t)
	v, plan := s.demo(t)
	id := strings.TrimPrefix(plan, "/plans/")
	for _, c := range calc.All() {
		page := v.page("/calculators/" + c.Name + "?plan=" + id)
		assert.Contains(t, page, "calc-results", "%s works with the plan's numbers or the example's", c.Name)
	}
	page := v.page("/calculators/chain?plan=" + id)
	assert.Contains(t, page, `name="centre_mm" value="639"`, "the plan's own centre")
	assert.Contains(t, page, "from the plan")

	bad := v.page("/calculators/chain?front=15&rear=47&pitch_mm=12,7&centre_mm=near")
	assert.Contains(t, bad, `value="near"`, "what was typed stays")
	assert.Contains(t, bad, `class="error"`)
	assert.NotContains(t, bad, "calc-results")
	assert.Contains(t, v.page("/calculators/chain?front=15&rear=47&pitch_mm=12,7&centre_mm=600"), "calc-results", "a decimal comma is a decimal mark")
	status, _, _ := v.get("/calculators/horoscope")
	assert.Equal(t, http.StatusNotFound, status)

	kept := url.Values{"base": {base(page)}, "calculator": {"chain"}, "front": {"15"}, "rear": {"47"}, "pitch_mm": {"15.875"}, "centre_mm": {"639"}, "note": {"with the taller tyre"}}
	status, _, header := v.post(plan+"/calculations", kept)
	require.Equal(t, http.StatusSeeOther, status)
	page = v.page(header.Get("Location"))
	assert.Contains(t, page, "with the taller tyre")
	_, file, _ := v.get(plan + "/export")
	assert.Contains(t, file, `"calculator": "chain"`, "it goes away with the plan")
	status, _, _ = v.post(plan+"/calculations/drop", url.Values{"base": {base(page)}, "index": {"7"}})
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = v.post(plan+"/calculations/drop", url.Values{"base": {base(page)}, "index": {"0"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.page("/calculators/chain?plan="+id), "with the taller tyre")
}
