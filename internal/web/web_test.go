package web_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/calc"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/garage"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

var ctx = context.Background()

// TestStripListsTheTable: every gauge of the table is on the strip.
func TestStripListsTheTable(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/brief?loadout=travel")
	for _, row := range figure.Gauges() {
		assert.NotEmpty(t, webtest.Gauge(page, string(row.ID)), row.ID)
	}
	require.NotEmpty(t, eval.Needs())
	needs := v.Page(path + "/needs?loadout=travel")
	links := regexp.MustCompile(`(?s)data-need="[^"]+".*?class="option" href="([^"]+)"`).FindAllStringSubmatch(needs, -1)
	require.NotEmpty(t, links)
	for _, m := range links {
		v.Page(strings.ReplaceAll(m[1], "&amp;", "&"))
	}
}

// routes calls f for every route with the ids of a plan filled in.
func routes(t *testing.T, s *webtest.Site, plan string, f func(method, route, path string)) {
	v, _ := s.Demo(t)
	fill := strings.NewReplacer("/plans/{plan}", plan, "/bikes/{bike}", v.BikeOf(plan), "/parts/{thing}", v.FirstPart(), "{figure}", "cost", "{hash}", "0", "/calculators/{name}", "/calculators/chain", "{name}", "mule.css")
	err := chi.Walk(s.Handler.(chi.Routes), func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		f(method, route, fill.Replace(route))
		return nil
	})
	require.NoError(t, err)
}

func TestEveryRouteNeedsItsRider(t *testing.T) {
	s := webtest.New(t)
	_, plan := s.Demo(t)
	stranger := s.Visitor(t)
	other := s.Visitor(t)
	status, _, _ := other.Post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	require.Equal(t, http.StatusSeeOther, status)
	walked := 0
	routes(t, s, plan, func(method, route, path string) {
		if !strings.HasPrefix(route, "/garage") && !strings.HasPrefix(route, "/plans") && !strings.HasPrefix(route, "/bikes") && !strings.HasPrefix(route, "/parts") && !strings.HasPrefix(route, "/calculators") && route != "/sign-out" && route != "/device" && route != "/buying" && !strings.HasPrefix(route, "/account") {
			return
		}
		walked++
		status, _, header := stranger.Do(stranger.Request(method, path, nil))
		assert.Equal(t, http.StatusSeeOther, status, "%s %s for nobody", method, route)
		assert.Equal(t, "/sign-in", header.Get("Location"))
		if strings.HasPrefix(route, "/plans") || strings.HasPrefix(route, "/bikes") || strings.HasPrefix(route, "/parts/{thing}") {
			status, body, _ := other.Do(other.Request(method, path+"?base=x&try=rear-tyre:", nil))
			assert.Equal(t, http.StatusNotFound, status, "%s %s for another rider", method, route)
			assert.NotContains(t, body, "salt-pan")
		}
	})
	assert.Greater(t, walked, 18)
}

func TestForeignOriginsChangeNothing(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	routes(t, s, plan, func(method, route, path string) {
		if method != http.MethodPost {
			return
		}
		for header, value := range map[string]string{"Sec-Fetch-Site": "cross-site", "Origin": "https://elsewhere.example"} {
			r := v.Request(method, path, nil)
			r.Header.Set(header, value)
			status, _, _ := v.Do(r)
			assert.Equal(t, http.StatusForbidden, status, "%s with %s", route, header)
		}
	})
}

func TestEveryPageKeepsThePolicy(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	routes(t, s, plan, func(method, route, path string) {
		if method != http.MethodGet || strings.HasPrefix(route, "/assets") {
			return
		}
		status, body, header := v.Get(path)
		if route != "/confirm" && route != "/reset" { // a letter leads there
			assert.Less(t, status, 400, route)
		}
		assert.Contains(t, header.Get("Content-Security-Policy"), "default-src 'self'", route)
		assert.NotContains(t, header.Get("Content-Security-Policy"), "unsafe", route)
		assert.Equal(t, "nosniff", header.Get("X-Content-Type-Options"), route)
		assert.NotRegexp(t, `<[^>]* (style|on[a-z]+)=`, body, "%s: nothing inline", route)
		assert.NotRegexp(t, `<script>|NaN|\bInf\b|%!`, body, route)
		head, none, _ := v.Do(v.Request(http.MethodHead, path, nil))
		assert.Equal(t, status, head, "HEAD works where GET does: %s", route)
		assert.Empty(t, none)
	})
}

func TestAssets(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	page := v.Page("/sign-in")
	paths := regexp.MustCompile(`/assets/[^"]+`).FindAllString(page, -1)
	require.NotEmpty(t, paths)
	// What a first visit brings, compressed, with the fonts that the style names.
	first := zipped(t, page)
	prefix := paths[0][:strings.LastIndex(paths[0], "/")+1]
	for _, font := range []string{"barlow-semi-condensed-latin-400-normal.woff2", "barlow-semi-condensed-latin-600-normal.woff2", "barlow-condensed-latin-600-normal.woff2"} {
		paths = append(paths, prefix+font)
	}
	for _, path := range paths {
		status, body, header := v.Get(path)
		require.Equal(t, http.StatusOK, status, path)
		assert.Contains(t, header.Get("Cache-Control"), "immutable", path)
		assert.NotEmpty(t, header.Get("Content-Type"), path)
		first += zipped(t, body)
	}
	assert.Less(t, first, 160_000, "bytes of a first load")
	status, _, _ := v.Get("/assets/0000/mule.css")
	assert.Equal(t, http.StatusNotFound, status, "another version's path")

	r := v.Request(http.MethodGet, paths[0], nil)
	r.Header.Set("Accept-Encoding", "gzip")
	answer, err := v.Client.Do(r)
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Contains(t, []string{"gzip", ""}, answer.Header.Get("Content-Encoding"))

	v, plan := s.Demo(t)
	full := []string{"bike?bike=averill-720", "tyres?all=1&beside=wether-130-80-18&beside=fathom-140-80-18&beside=hackle-140-80-18&beside=lanner-120-80-18"}
	for _, page := range append(full, webtest.PageIDs()...) {
		assert.Less(t, zipped(t, v.Page(plan+"/"+page)), 40_000, "bytes of %s", page)
	}
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
	s := webtest.New(t)
	v := s.Visitor(t)
	status, body, header := v.Get("/healthz")
	assert.Equal(t, http.StatusOK, status)
	assert.JSONEq(t, `{"status":"up","database":"up"}`, body)
	assert.Equal(t, "application/json", header.Get("Content-Type"))
	require.NoError(t, s.Store.Close())
	status, _, _ = v.Get("/healthz")
	assert.Equal(t, http.StatusServiceUnavailable, status)
	status, body, _ = v.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "without a cookie the database is not asked: %s", body)
}

func TestAccounts(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	status, body, _ := v.Post("/register", url.Values{"name": {"Ada <b>"}, "password": {"short"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="Ada &lt;b&gt;"`, "what was typed stays, escaped")
	assert.NotContains(t, body, "short", "but no password comes back")
	status, _, _ = v.Post("/register", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, v.Page("/garage"), "No plans yet")
	v.Post("/sign-out", nil)
	status, _, _ = v.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status)

	status, body, _ = v.Post("/sign-in", url.Values{"name": {"Ada"}, "password": {"wrong horse"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="Ada"`)
	_, unknown, _ := v.Post("/sign-in", url.Values{"name": {"Eve"}, "password": {"wrong horse"}})
	assert.Equal(t, strings.ReplaceAll(body, "Ada", "Eve"), unknown, "a wrong name and a wrong password read the same")
	status, _, header := v.Post("/sign-in", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, webtest.SessionCookie(header), "HttpOnly")

	status, body, _ = s.Visitor(t).Post("/register", url.Values{"name": {"ada"}, "password": {"another horse"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status, "the name is taken")
	assert.Contains(t, body, `value="ada"`)
}

func TestSignOutEverywhere(t *testing.T) {
	s := webtest.New(t)
	here, there := s.Visitor(t), s.Visitor(t)
	account := url.Values{"name": {"Ada"}, "password": {"correct horse"}}
	here.Post("/register", account)
	there.Post("/sign-in", account)
	require.Contains(t, there.Page("/garage"), "Garage")
	status, _, _ := here.Post("/account/sign-out", nil)
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "the other device is out")
	assert.Contains(t, here.Page("/account/safety?done=sign-out"), "signed out", "this one stays")

	there.Post("/sign-in", account)
	for field, form := range map[string]url.Values{
		"old":   {"old": {"wrong horse"}, "new": {"battery staple"}, "again": {"battery staple"}},
		"new":   {"old": {"correct horse"}, "new": {"short"}, "again": {"short"}},
		"again": {"old": {"correct horse"}, "new": {"battery staple"}, "again": {"battery staples"}},
	} {
		status, body, _ := here.Post("/account/password", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status)
		assert.Regexp(t, `id="h-`+field+`"><span class="error">`, body)
	}
	status, _, _ = here.Post("/account/password", url.Values{"old": {"correct horse"}, "new": {"battery staple"}, "again": {"battery staple"}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.Post("/sign-in", account)
	assert.Equal(t, http.StatusUnprocessableEntity, status, "the old password is gone")
}

// TestOwnUnits: shown, asked for, said and drawn in the rider's units; kept as typed.
func TestOwnUnits(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	status, _, _ := v.Post("/account/units", url.Values{"preset": {"US"}})
	require.Equal(t, http.StatusSeeOther, status)
	page := v.Page(plan + "/gearing?loadout=travel&try=rear-sprocket:rear-h6-47")
	assert.Equal(t, "ok 722.5 lb", webtest.Gauge(page, "loaded-mass"))
	assert.Equal(t, "over 8.0 mph", webtest.Gauge(page, "crawl-speed"))
	assert.Contains(t, page, "Walking pace in first, mph")
	assert.Contains(t, strings.ReplaceAll(page, "\u00a0", " "), "The rear tyre is 0.7 in taller")
	assert.NotContains(t, page, " km/h")
	brief := webtest.Form(v.Page(plan + "/brief"))
	assert.Equal(t, "104 kg", brief.Get("rider"), "kept as typed")
	brief.Set("rider", "230")
	status, _, header := v.Post(plan+"/brief", brief)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "230 lb", webtest.Form(v.Page(header.Get("Location"))).Get("rider"), "a bare number is in the rider's unit")
	v.Post("/account/units", url.Values{"unit.kg": {"st"}, "unit.km/h": {"mph"}, "unit.km": {"parsec"}})
	mixed := v.Page(plan + "/gearing?loadout=travel")
	assert.Regexp(t, `\d+\.\d st$`, webtest.Gauge(mixed, "loaded-mass"), "each quantity is its own choice")
	assert.Regexp(t, `km$`, webtest.Gauge(mixed, "tyre-life"))
	links := regexp.MustCompile(`Pitches, exactly</dt><dd>([^<]*)`)
	metric := links.FindString(v.Page("/calculators/chain?front=15&rear=47&pitch_mm=15.875&centre_mm=635"))
	require.NotEmpty(t, metric)
	assert.Equal(t, metric, links.FindString(v.Page("/calculators/chain?front=15&rear=47&pitch_mm=0,625+in&centre_mm=25+in")), "a calculator takes any unit")
}

// TestGuessing is slowed down, for names that are there and names that are not, and says
// for how long; the owner, who has signed in from elsewhere before, is not held up by it.
func TestGuessing(t *testing.T) {
	var log bytes.Buffer
	s := webtest.Of(t, web.Options{Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")}, Log: slog.New(slog.NewTextHandler(&log, nil))})
	from := func(v *webtest.Visitor, address, name, password string) (int, http.Header) {
		r := v.Request("POST", "/sign-in", strings.NewReader(url.Values{"name": {name}, "password": {password}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", address)
		status, _, header := v.Do(r)
		return status, header
	}
	owner := s.Visitor(t)
	owner.Post("/register", url.Values{"name": {"Ada"}, "password": {"correct horse"}})
	owner.Post("/sign-out", nil)
	status, _ := from(owner, "192.0.2.1", "Ada", "correct horse")
	require.Equal(t, http.StatusSeeOther, status)
	owner.Post("/sign-out", nil)
	for _, name := range []string{"ada", "ＡＤＡ", "Nobody"} {
		v := s.Visitor(t)
		var last int
		var header http.Header
		for range 7 {
			last, header = from(v, "198.51.100.7", name, "wrong horse")
		}
		assert.Equal(t, http.StatusTooManyRequests, last, name)
		wait, err := strconv.Atoi(header.Get("Retry-After"))
		require.NoError(t, err)
		assert.True(t, wait > 0 && wait <= 15*60, "%d s", wait)
	}
	status, _ = from(owner, "192.0.2.1", "ada", "correct horse")
	assert.Equal(t, http.StatusSeeOther, status, "the owner is not locked out")
	_, err := s.Store.DB().Exec(`UPDATE attempts SET ready = expires`) // a guess a moment ago
	require.NoError(t, err)
	status, _ = from(s.Visitor(t), "203.0.113.9", "Ada", "correct horse")
	assert.Equal(t, http.StatusTooManyRequests, status, "from anywhere else it waits")
	assert.Contains(t, log.String(), "sign-in failed")
	assert.NotContains(t, strings.ToLower(log.String()), "ada", "the log tells no name")
	assert.NotContains(t, log.String(), "horse")
}

func TestNoDemoWithoutADemo(t *testing.T) {
	s := webtest.New(t)
	handler, err := web.New(web.Options{Store: s.Store, Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	for _, r := range []*http.Request{httptest.NewRequest("POST", "/sign-in/demo", nil), httptest.NewRequest("GET", "/sign-in", nil)} {
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, r)
		assert.NotContains(t, w.Body.String(), `id="demo"`)
		assert.Equal(t, r.Method == "POST", w.Code == http.StatusNotFound)
	}
}

func TestChooseUndoRedo(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/gearing?loadout=travel&try=rear-sprocket:rear-h6-47")
	assert.Contains(t, page, "Put it in the plan")
	assert.Contains(t, page, `data-finding="rear-tyre-clearance"`, "on this chain the tyre would touch")
	way := regexp.MustCompile(`href="([^"]*)" data-try data-remedy`).FindStringSubmatch(page)
	require.NotNil(t, way, "with a way out as the next preview")
	next := v.Page(strings.ReplaceAll(way[1], "&amp;", "&"))
	assert.Contains(t, next, "Sealed chain 520, 112 links")
	assert.NotContains(t, next, `data-finding="rear-tyre-clearance"`)

	choice := url.Values{"base": {webtest.Base(next)}, "stage": {"gearing"}, "loadout": {"travel"}, "need": {"needed"}, "try": {"rear-sprocket:rear-h6-47", "chain:chain-520-112"}}
	status, _, header := v.Post(plan+"/choose", choice)
	require.Equal(t, http.StatusSeeOther, status)
	chosen := v.Page(header.Get("Location"))
	assert.Equal(t, "watch 11.8 km/h", webtest.Gauge(chosen, "crawl-speed"))
	assert.Equal(t, "watch 5015 rpm", webtest.Gauge(chosen, "cruise-rpm"))

	status, body, _ := v.Post(plan+"/choose", choice)
	assert.Equal(t, http.StatusConflict, status, "the same page sent again is stale")
	assert.Contains(t, body, "rear-sprocket%3Arear-h6-47", "and leads to the same choice on the plan as it is now")

	history := func(base string) url.Values {
		return url.Values{"base": {base}, "stage": {"gearing"}, "loadout": {"travel"}}
	}
	status, _, header = v.Post(plan+"/undo", history(webtest.Base(chosen)))
	require.Equal(t, http.StatusSeeOther, status)
	undone := v.Page(header.Get("Location"))
	assert.Equal(t, "over 12.9 km/h", webtest.Gauge(undone, "crawl-speed"))
	status, _, header = v.Post(plan+"/redo", history(webtest.Base(undone)))
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "watch 11.8 km/h", webtest.Gauge(v.Page(header.Get("Location")), "crawl-speed"))
	status, _, _ = v.Post(plan+"/undo", history(webtest.Base(undone)))
	assert.Equal(t, http.StatusConflict, status)
}

func TestUnknownChoicesAreNotFound(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	for _, query := range []string{"try=rear-tyre:unicorn", "try=roof:box", "try=rear-tyre", "bike=unicorn", "try=rear-sprocket:any-rear-sprocket-999"} {
		stage := "/tyres?"
		if strings.HasPrefix(query, "bike") {
			stage = "/bike?"
		}
		status, _, _ := v.Get(plan + stage + query)
		assert.Equal(t, http.StatusNotFound, status, query)
	}
	status, _, _ := v.Get(plan + "/working/luck")
	assert.Equal(t, http.StatusNotFound, status)
	assert.Contains(t, v.Page(plan+"/tyres?loadout=moon"), `aria-current="true">Travel`, "an unknown loadout is the usual one")
}

// TestTwoTabs: the older one is told, shown both sides field by field, and loses
// nothing: not what was typed in it, nor what the other saved.
func TestTwoTabs(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	old := webtest.Form(v.Page(plan + "/brief"))
	first := webtest.Form(v.Page(plan + "/brief"))
	first.Set("distance", "5000 km")
	first.Set("rider", "99 kg")
	status, _, _ := v.Post(plan+"/brief", first)
	require.Equal(t, http.StatusSeeOther, status)

	old.Set("cruise", "99 km/h")
	old.Set("rider", "101 kg")
	status, body, _ := v.Post(plan+"/brief", old)
	require.Equal(t, http.StatusConflict, status)
	again := webtest.Form(body)
	assert.Equal(t, "99 km/h", again.Get("cruise"), "typed here only")
	assert.Equal(t, "5000 km", again.Get("distance"), "changed there only")
	assert.Equal(t, "101 kg", again.Get("rider"), "changed on both sides: what was typed")
	assert.Regexp(t, `(?s)is-both.*?Rider, dressed.*?104 kg.*?99 kg.*?101 kg`, body, "and both are shown")
	assert.Regexp(t, `(?s)Trip distance.*?4200 km.*?5000 km.*?not touched`, body)
	assert.NotContains(t, body, "Cruise to hold</th>", "what nobody else changed is no matter")

	status, _, header := v.Post(plan+"/brief", again)
	require.Equal(t, http.StatusSeeOther, status)
	saved := webtest.Form(v.Page(header.Get("Location")))
	assert.Equal(t, []string{"99 km/h", "5000 km", "101 kg"}, []string{saved.Get("cruise"), saved.Get("distance"), saved.Get("rider")})

	for _, stage := range []string{"/spend", "/sheet"} {
		old := webtest.Form(v.Page(plan + stage))
		choose := url.Values{"base": {old.Get("base")}, "stage": {"tyres"}, "try": {"rear-sprocket:rear-h6-" + map[string]string{"/spend": "45", "/sheet": "46"}[stage]}}
		status, _, _ = v.Post(plan+"/choose", choose)
		require.Equal(t, http.StatusSeeOther, status)
		old.Set("name.8", "Rim tape")
		old.Set("amount.8", "6 EUR")
		old.Set("tank", "15 L")
		status, body, _ = v.Post(plan+stage, old)
		require.Equal(t, http.StatusConflict, status)
		status, _, _ = v.Post(plan+stage, webtest.Form(body))
		require.Equal(t, http.StatusSeeOther, status)
	}
	spend := v.Page(plan + "/spend")
	assert.Contains(t, spend, "Rim tape")
	assert.Contains(t, spend, "Rear sprocket 46 T", "what was chosen in the other tab stays")
	assert.Equal(t, "15 L", webtest.Form(v.Page(plan+"/sheet")).Get("tank"))
	lost := webtest.Form(v.Page(plan + "/brief"))
	lost.Set("base", "nonsense")
	status, _, _ = v.Post(plan+"/brief", lost)
	assert.Equal(t, http.StatusConflict, status)
}

func TestHistory(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/gearing")
	choose := func(base, try string) string {
		_, _, header := v.Post(plan+"/choose", url.Values{"base": {base}, "stage": {"gearing"}, "try": {try}})
		return v.Page(header.Get("Location"))
	}
	page = choose(webtest.Base(page), "rear-sprocket:rear-h6-46")
	page = choose(webtest.Base(page), "rear-sprocket:rear-h6-48")
	history := strings.NewReplacer("\u00a0", " ", "&#43;", "+").Replace(v.Page(plan + "/history"))
	assert.Contains(t, history, "Rear sprocket 46 → 48", "in words")
	assert.Regexp(t, `history-figures">[^<]*at the cruise \+213 rpm, walking pace −0\.5 km/h`, history, "and in figures")
	assert.Contains(t, history, "Rear sprocket 43 → 46")
	back := regexp.MustCompile(`name="revision" value="([^"]*)"`).FindAllStringSubmatch(history, -1)
	require.Greater(t, len(back), 10, "the demo's own history")
	status, _, _ := v.Post(plan+"/restore", url.Values{"base": {webtest.Base(page)}, "revision": {back[1][1]}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "over 12.9 km/h", webtest.Gauge(v.Page(plan+"/gearing"), "crawl-speed"))
	assert.Contains(t, v.Page(plan+"/history"), "Back to: Parcels, springs and the workshop")
	status, _, _ = v.Post(plan+"/restore", url.Values{"base": {webtest.Base(page)}, "revision": {back[1][1]}})
	assert.Equal(t, http.StatusConflict, status)
}

func TestVariants(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/variants?loadout=travel")
	status, body, _ := v.Post(plan+"/split", url.Values{"base": {webtest.Base(page)}, "name": {" "}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `class="error"`)
	status, _, header := v.Post(plan+"/split", url.Values{"base": {webtest.Base(page)}, "name": {"On the small one"}})
	require.Equal(t, http.StatusSeeOther, status)
	other := regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(header.Get("Location"))
	require.NotEqual(t, plan, other)
	page = v.Page(other + "/bike")
	v.Post(other+"/choose", url.Values{"base": {webtest.Base(page)}, "bike": {"fennick-300"}})
	side := strings.ReplaceAll(v.Page(plan+"/variants?loadout=travel"), "\u00a0", " ")
	assert.Regexp(t, `(?s)The salt-pan loop.*Holt 650 Drover.*On the small one.*Fennick 300 Trail`, side, "another bike is allowed")
	count := regexp.MustCompile(`(\d+) to decide`).FindStringSubmatch(side)
	require.NotNil(t, count)
	assert.Regexp(t, `(?s)To decide.*?<b>`+count[1]+`<`, side, "as many as on the bench")
	assert.Regexp(t, `(?s)To decide.*?is-over"><b>\d+<.*?is-stop"><b>`, side, "what does not fit the other bike is not hidden by its figures")
	assert.Regexp(t, `(?s)Loaded mass.*?327\.7 kg.*?294\.2 kg`, side, "the skid plate of the other bike stays off")
}

func TestExportImport(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	status, file, header := v.Get(path + "/export")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, header.Get("Content-Disposition"), "the-salt-pan-loop.plan.json")
	exported, err := format.ReadPlan(strings.NewReader(file))
	require.NoError(t, err)
	want, err := demo.Plan()
	require.NoError(t, err)
	for i := range exported.Lines { // what is real is a thing of the rider's by now
		assert.Equal(t, garage.IsReal(&want.Lines[i]), exported.Lines[i].Thing != "")
		exported.Lines[i].Thing = ""
	}
	assert.Equal(t, want, exported)

	status, body, _ := v.Upload("/garage/import", "loop.json", []byte(file))
	require.Equal(t, http.StatusUnprocessableEntity, status, "its bike is in the garage already: the same one?")
	assert.Contains(t, body, `class="field has-error"`)
	ids := regexp.MustCompile(`"(thing|id|act)": "[A-Z2-7]{26}"`)
	for _, onto := range []string{"new", strings.TrimPrefix(v.BikeOf(path), "/bikes/")} {
		status, body, _ = v.Upload("/garage/import", "loop.json", []byte(file), "onto", onto)
		require.Equal(t, http.StatusUnprocessableEntity, status, "its parts are in the garage already: the same ones?")
		assert.Contains(t, body, `id="f-parts"`)
		same := map[bool]string{true: "other", false: "same"}[onto == "new"]
		status, _, header = v.Upload("/garage/import", "loop.json", []byte(file), "onto", onto, "parts", same)
		require.Equal(t, http.StatusSeeOther, status)
		again := strings.TrimSuffix(header.Get("Location"), "/brief")
		_, text, _ := v.Get(again + "/export")
		want := file
		if onto == "new" {
			want, text = ids.ReplaceAllString(want, ""), ids.ReplaceAllString(text, "")
		}
		assert.Equal(t, want, text, "export and import is the identity")
		assert.Equal(t, onto == "new", v.BikeOf(again) != v.BikeOf(path))
	}
	plans := strings.Count(v.Page("/garage"), `class="card plan-card"`)
	for name, bad := range map[string]string{"broken": file[:500], "another thing": `{"a":1}`, "empty": ""} {
		status, body, _ := v.Upload("/garage/import", "bad.json", []byte(bad))
		assert.Equal(t, http.StatusUnprocessableEntity, status, name)
		assert.Contains(t, body, "bad.json", name)
	}
	status, _, _ = v.Upload("/garage/import", "large.json", bytes.Repeat([]byte(" "), 6<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
	status, body, _ = v.Post("/garage/import", nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "Choose a plan file first")
	assert.Equal(t, plans, strings.Count(v.Page("/garage"), `class="card plan-card"`), "the bad ones left nothing")
}

func TestNewPlanErrors(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	status, body, _ := v.Post("/garage", url.Values{"name": {""}, "currency": {"money"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="MONEY"`)
	status, body, _ = v.Post("/garage", url.Values{"name": {strings.Repeat("x", 300)}, "currency": {"EUR"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, strings.Repeat("x", 300))
}

func TestTheme(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	assert.NotContains(t, v.Page("/sign-in"), "data-theme=", "the machine's own choice")
	_, _, header := v.Post("/theme", url.Values{"theme": {"garage"}, "back": {"//evil.example/"}})
	assert.Equal(t, "/", header.Get("Location"), "the way back stays here")
	assert.Contains(t, v.Page("/sign-in"), `data-theme="garage"`)
	v.Post("/theme", url.Values{"theme": {"mauve"}})
	assert.Contains(t, v.Page("/sign-in"), `data-theme="garage"`)
}

func TestNoSuchPage(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	for path, want := range map[string]int{"/nowhere": http.StatusNotFound, "/plans/x/nowhere": http.StatusNotFound} {
		status, _, _ := v.Get(path)
		assert.Equal(t, want, status, path)
	}
	status, body, _ := v.Do(v.Request(http.MethodDelete, "/sign-in", nil))
	assert.Equal(t, http.StatusMethodNotAllowed, status)
	assert.Contains(t, body, "<h1>")
}

func TestCalculators(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	id := strings.TrimPrefix(plan, "/plans/")
	for _, c := range calc.All() {
		page := v.Page("/calculators/" + c.Name + "?plan=" + id)
		assert.Contains(t, page, "calc-results", "%s works with the plan's numbers or the example's", c.Name)
	}
	page := v.Page("/calculators/chain?plan=" + id)
	assert.Contains(t, page, `name="centre_mm" value="639"`, "the plan's own centre")
	assert.Contains(t, page, "from the plan")

	bad := v.Page("/calculators/chain?front=15&rear=47&pitch_mm=12,7&centre_mm=near")
	assert.Contains(t, bad, `value="near"`, "what was typed stays")
	assert.Contains(t, bad, `class="error"`)
	assert.NotContains(t, bad, "calc-results")
	assert.Contains(t, v.Page("/calculators/chain?front=15&rear=47&pitch_mm=12,7&centre_mm=600"), "calc-results", "a decimal comma is a decimal mark")
	status, _, _ := v.Get("/calculators/horoscope")
	assert.Equal(t, http.StatusNotFound, status)

	kept := url.Values{"base": {webtest.Base(page)}, "calculator": {"chain"}, "front": {"15"}, "rear": {"47"}, "pitch_mm": {"15.875"}, "centre_mm": {"639"}, "note": {"with the taller tyre"}}
	status, _, header := v.Post(plan+"/calculations", kept)
	require.Equal(t, http.StatusSeeOther, status)
	page = v.Page(header.Get("Location"))
	assert.Contains(t, page, "with the taller tyre")
	_, file, _ := v.Get(plan + "/export")
	assert.Contains(t, file, `"calculator": "chain"`, "it goes away with the plan")
	status, _, _ = v.Post(plan+"/calculations/drop", url.Values{"base": {webtest.Base(page)}, "index": {"7"}})
	assert.Equal(t, http.StatusNotFound, status)
	status, _, _ = v.Post(plan+"/calculations/drop", url.Values{"base": {webtest.Base(page)}, "index": {"0"}})
	assert.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page("/calculators/chain?plan="+id), "with the taller tyre")
}

// TestThrownAway from the garage, and brought back; a stranger can do neither.
func TestThrownAway(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	other := s.Visitor(t)
	other.Post("/register", url.Values{"name": {"Other"}, "password": {"a long enough one"}})
	status, _, _ := other.Post(path+"/remove", nil)
	assert.Equal(t, http.StatusNotFound, status)
	v.Post(path+"/remove", nil)
	status, _, _ = v.Get(path + "/brief")
	assert.Equal(t, http.StatusNotFound, status)
	id := strings.TrimPrefix(path, "/plans/")
	assert.Contains(t, v.Page("/garage"), "Thrown away")
	status, _, _ = other.Post("/garage/recover", url.Values{"plan": {id}})
	assert.Equal(t, http.StatusNotFound, status)
	v.Post("/garage/recover", url.Values{"plan": {id}})
	v.Page(path + "/brief")
}

// TestAnotherBikeForTheBrief starts without this bike and its parts; what differs between
// variants is listed, with where their briefs have drifted apart.
func TestAnotherBikeForTheBrief(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	_, _, header := v.Post(path+"/split", url.Values{"base": {webtest.Base(v.Page(path + "/variants"))}, "name": {"On another"}, "fresh": {"on"}})
	other := regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(header.Get("Location"))
	stored := v.Stored(other)
	assert.Nil(t, stored.Bike)
	assert.Empty(t, stored.Lines)
	assert.Equal(t, v.Stored(path).Loadouts, stored.Loadouts)
	assert.Equal(t, v.Stored(path).Brief, stored.Brief)
	brief := webtest.Form(v.Page(other + "/brief"))
	brief.Set("cruise", "90")
	v.Post(other+"/brief", brief)
	side := v.Page(path + "/variants?loadout=travel")
	assert.Contains(t, side, "Brief: Cruise to hold")
	assert.Contains(t, side, "90 km/h")
	assert.Contains(t, side, `<th scope="row">Skid plate</th>`)
	assert.NotContains(t, side, "Brief: Rider", "what is the same is not listed")
}
