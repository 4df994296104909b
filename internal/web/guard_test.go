package web_test

import (
	"bytes"
	"context"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/mariadb/mariadbtest"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestHeaders that every kind of answer has, and those of https alone.
func TestHeaders(t *testing.T) {
	proxy := netip.MustParsePrefix("127.0.0.0/8")
	s := webtest.Of(t, web.Options{Proxies: []netip.Prefix{proxy}, HSTS: true})
	v, plan := s.Demo(t)
	for _, path := range []string{"/", "/sign-in", "/garage", "/worker.js", "/device", plan + "/brief", plan + "/export", "/livez", "/healthz", "/nowhere", "/calculators/wire?amps=lots"} {
		for _, proto := range []string{"http", "https"} {
			r := v.Request("GET", path, nil)
			r.Header.Set("X-Forwarded-Proto", proto)
			_, _, header := v.Do(r)
			for name, want := range map[string]string{
				"X-Content-Type-Options": "nosniff", "Referrer-Policy": "same-origin", "Cross-Origin-Opener-Policy": "same-origin", "Cross-Origin-Resource-Policy": "same-origin",
			} {
				assert.Equal(t, want, header.Get(name), "%s of %s", name, path)
			}
			assert.Contains(t, header.Get("Content-Security-Policy"), "default-src 'self'", path)
			assert.Contains(t, header.Get("Content-Security-Policy"), "frame-ancestors 'none'", path)
			assert.Equal(t, proto == "https", header.Get("Strict-Transport-Security") != "", path)
		}
	}
	for proto, secure := range map[string]bool{"http": false, "https": true} {
		for _, path := range []string{"/sign-in/demo", "/theme"} {
			stranger := s.Visitor(t)
			r := stranger.Request("POST", path, strings.NewReader("theme=garage"))
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set("X-Forwarded-Proto", proto)
			_, _, header := stranger.Do(r)
			require.NotEmpty(t, header.Values("Set-Cookie"))
			for _, cookie := range header.Values("Set-Cookie") {
				assert.Equal(t, secure, strings.Contains(cookie, "Secure"), "%s by %s: %s", path, proto, cookie)
				assert.Equal(t, secure, strings.HasPrefix(cookie, "__Host-"), "no other host sets it")
				assert.NotContains(t, cookie, "Domain")
				assert.Contains(t, cookie, "Path=/")
				assert.Equal(t, !strings.Contains(cookie, "who="), strings.Contains(cookie, "HttpOnly"), "pages read who it is, and nothing that opens anything")
				assert.Contains(t, cookie, "SameSite=Lax")
			}
		}
	}
}

// TestForwarded: a proxy is believed, a stranger who says the same is not, and of what a
// rider wrote before the proxy nothing counts.
func TestForwarded(t *testing.T) {
	var log bytes.Buffer
	s := webtest.Of(t, web.Options{Proxies: []netip.Prefix{netip.MustParsePrefix("10.1.0.0/16")}, Log: slog.New(slog.NewTextHandler(&log, nil))})
	for _, c := range []struct{ peer, chain, address string }{
		{"10.1.2.3:4000", "192.0.2.1", "192.0.2.1"},
		{"10.1.2.3:4000", "203.0.113.66, 192.0.2.1", "192.0.2.1"},
		{"10.1.2.3:4000", "192.0.2.1, 10.1.9.9", "192.0.2.1"},
		{"10.1.2.3:4000", "nonsense", "10.1.2.3"},
		{"10.1.2.3:4000", "", "10.1.2.3"},
		{"198.51.100.4:4000", "192.0.2.1", "198.51.100.4"},
		{"[2001:db8::7]:4000", "192.0.2.1", "2001:db8::7"},
	} {
		log.Reset()
		r := httptest.NewRequest("POST", "/sign-in", strings.NewReader("name=Nobody+"+url.QueryEscape(c.peer+c.chain)+"&password=wrong"))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.RemoteAddr = c.peer
		r.Header.Set("X-Forwarded-For", c.chain)
		s.Handler.ServeHTTP(httptest.NewRecorder(), r)
		assert.Contains(t, log.String(), "address="+c.address+" ", "%s by %s", c.chain, c.peer)
	}
}

// TestLog has a line a request, by level, without what riders type, and the code of an
// error that its page shows; what is slow is told with its queries.
func TestLog(t *testing.T) {
	var log bytes.Buffer
	s := webtest.Of(t, web.Options{Slow: time.Nanosecond, Log: slog.New(slog.NewTextHandler(&log, &slog.HandlerOptions{Level: slog.LevelDebug}))})
	v, plan := s.Demo(t)
	log.Reset()
	v.Page(plan + "/brief?loadout=travel")
	line := log.String()
	assert.Contains(t, line, "path=/plans/{plan}/brief")
	assert.Contains(t, line, "status=200")
	assert.Contains(t, line, "FROM dossiers d JOIN heads")
	assert.NotContains(t, line, strings.TrimPrefix(plan, "/plans/"))
	log.Reset()
	v.Post("/register", url.Values{"name": {"Heron"}, "password": {"correct horse"}})
	assert.NotContains(t, log.String(), "Heron")
	assert.NotContains(t, log.String(), "horse")

	log.Reset()
	_, err := s.Store.DB().Exec(`ALTER TABLE visits RENAME TO gone`)
	require.NoError(t, err)
	status, page, _ := v.Post("/sign-in/demo", nil)
	require.Equal(t, http.StatusInternalServerError, status)
	code := regexp.MustCompile(`<code>([A-Z2-7]+)</code>`).FindStringSubmatch(page)
	require.NotNil(t, code)
	assert.Contains(t, log.String(), "level=ERROR")
	assert.Contains(t, log.String(), "code="+code[1])
	assert.NotContains(t, page, "visits", "what went wrong is for the log")
}

// TestSentTwice: a form that is sent again, because its answer was lost, is one save and
// no conflict; another under its id is one.
func TestSentTwice(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	form := webtest.Form(v.Page(plan + "/brief"))
	require.Len(t, form.Get("save"), 26)
	form.Set("distance", "4321 km")
	before := s.Revisions(t)
	for range 3 {
		status, _, _ := v.Post(plan+"/brief", form)
		assert.Equal(t, http.StatusSeeOther, status)
	}
	assert.Equal(t, before+1, s.Revisions(t))
	form.Set("distance", "1234 km")
	status, page, _ := v.Post(plan+"/brief", form)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, page, "1234 km", "what was typed is still there")
	assert.Equal(t, before+1, s.Revisions(t))
}

// TestLostAnswers: where the database goes away in the middle of a save, the page says what
// is true.
func TestLostAnswers(t *testing.T) {
	for fate, want := range map[mariadbtest.Fate]int{mariadbtest.Unheard: http.StatusSeeOther, mariadbtest.Dropped: http.StatusServiceUnavailable} {
		dsn := mariadbtest.DSN(t)
		armed := false
		s := webtest.At(t, mariadbtest.Wire(t, dsn, func(statement string) mariadbtest.Fate {
			if armed && statement == "COMMIT" {
				armed = false
				return fate
			}
			return mariadbtest.Passes
		}), web.Options{Log: slog.New(slog.DiscardHandler)})
		v, plan := s.Demo(t)
		form := webtest.Form(v.Page(plan + "/brief"))
		form.Set("distance", "4321 km")
		before := s.Revisions(t)
		armed = true
		status, page, _ := v.Post(plan+"/brief", form)
		assert.Equal(t, want, status)
		if want == http.StatusServiceUnavailable {
			assert.Contains(t, page, "not kept")
			assert.Equal(t, before, s.Revisions(t))
		}
		status, _, _ = v.Post(plan+"/brief", form)
		assert.Equal(t, http.StatusSeeOther, status, "sent again it is the same save")
		assert.Equal(t, before+1, s.Revisions(t))
	}
}

// TestNotText is refused before it reaches anything.
func TestNotText(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	for _, path := range []string{"/garage", plan + "/brief", "/register", "/sign-in", "/account/password"} {
		status, _, _ := v.Post(path, url.Values{"name": {"A\xff"}, "currency": {"EUR"}, "password": {"correct \xffhorse"}, "old": {"\xfe"}})
		assert.Equal(t, http.StatusBadRequest, status, path)
	}
	for _, path := range []string{"/calculators/chain?front=%ff", plan + "/drawer?q=%C3%28", "/calculators/%ff"} {
		status, _, _ := v.Get(path)
		assert.Equal(t, http.StatusBadRequest, status, path)
	}
}

// TestBrokenOff: who goes away in the middle and still listens gets no empty success.
func TestBrokenOff(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	r := v.Request("GET", plan+"/brief", nil)
	for _, c := range v.Client.Jar.Cookies(r.URL) {
		r.AddCookie(c)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	w := httptest.NewRecorder()
	s.Handler.ServeHTTP(w, r.WithContext(ctx))
	assert.NotEqual(t, http.StatusOK, w.Code)
	assert.NotEmpty(t, w.Body.String())
}

// TestPasswordsAndNames that are none say so by their field, and keep the name.
func TestPasswordsAndNames(t *testing.T) {
	s := webtest.New(t)
	for _, c := range []struct{ name, password, says string }{
		{"Ada", "short", "12 to 72"}, {"Ada", "password1234", "common"}, {"Ada Ada Ada A", "ada ada ada a", "name"}, {"A\u200bda", "correct horse", "cannot"},
	} {
		status, page, _ := s.Visitor(t).Post("/register", url.Values{"name": {c.name}, "password": {c.password}})
		assert.Equal(t, http.StatusUnprocessableEntity, status, c.password)
		assert.Contains(t, page, c.says)
		assert.Contains(t, page, c.name)
		assert.NotContains(t, page, c.password+`"`, "a password is not sent back")
	}
}

// TestLive says that the process is there, and nothing of the database.
func TestLive(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	require.NoError(t, s.Store.Close())
	status, body, _ := v.Get("/livez")
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, body, "up")
	status, _, _ = v.Get("/healthz")
	assert.Equal(t, http.StatusServiceUnavailable, status)
}

// TestSpoiltPlan: a stored plan of which something cannot be read opens, says what is left
// out, is exported, and can be mended.
func TestSpoiltPlan(t *testing.T) {
	s := webtest.New(t)
	demo, err := s.Store.RiderByName(t.Context(), demo.Rider)
	require.NoError(t, err)
	ids, err := s.Store.PlanIDs(t.Context(), demo.ID)
	require.NoError(t, err)
	id := ids[0] // before anybody has opened it
	const log = `(SELECT r.bike_id FROM heads h JOIN revisions r ON r.id = h.revision_id WHERE h.dossier_id = ?)`
	spoil := func(query string) {
		t.Helper()
		_, err := s.Store.DB().Exec(query, id)
		require.NoError(t, err)
	}
	spoil(`UPDATE revisions r JOIN heads h ON h.revision_id = r.id SET r.document = JSON_SET(r.document, '$.brief.rider', 'many stone') WHERE h.dossier_id = ?`)
	spoil(`UPDATE readings SET document = JSON_SET(document, '$.id', '7') WHERE log_id = ` + log + ` LIMIT 1`)
	spoil(`UPDATE readings SET document = JSON_SET(document, '$.kind', 'song') WHERE log_id = ` + log + ` ORDER BY id DESC LIMIT 1`)
	v, path := s.Demo(t)
	require.Equal(t, "/plans/"+id, path)
	page := v.Page(path + "/brief")
	assert.Contains(t, page, "brief.rider")
	assert.Regexp(t, `reading \d+: [^<]*, set aside`, page)
	_, err = format.ReadPlan(strings.NewReader(v.Page(path + "/export")))
	require.NoError(t, err)
	form := webtest.Form(page)
	form.Set("rider", "84 kg")
	status, _, _ := v.Post(path+"/brief", form)
	assert.Equal(t, http.StatusSeeOther, status)
	assert.NotContains(t, v.Page(path+"/brief"), "brief.rider")
}

// TestDeletion asks twice, and then nothing of the rider is left, nothing of others gone.
func TestDeletion(t *testing.T) {
	s := webtest.New(t)
	v := s.Visitor(t)
	v.Post("/register", url.Values{"name": {"Heron"}, "password": {"correct horse"}})
	v.Post("/garage", url.Values{"name": {"Loop"}, "currency": {"EUR"}})
	path := v.FirstPlan()
	v.Post(path+"/choose", url.Values{"base": {webtest.Base(v.Page(path + "/bike"))}, "bike": {"fennick-300"}})
	v.Post(path+"/split", url.Values{"name": {"Other"}})
	form := webtest.Form(v.Page(path + "/brief"))
	form.Set("distance", "900 km")
	v.Post(path+"/brief", form)
	rider, err := s.Store.RiderByName(t.Context(), "Heron")
	require.NoError(t, err)
	_, err = s.Store.MakeCodes(t.Context(), rider.ID)
	require.NoError(t, err)
	_, err = s.Store.MakeLink(t.Context(), rider.ID, store.ToAddress, "heron@example.org")
	require.NoError(t, err)
	counts := func() (all []int) {
		for _, table := range []string{"riders", "dossiers", "revisions", "heads", "readings", "tracks", "visits", "logins", "trail", "recovery_codes", "links"} {
			var n int
			require.NoError(t, s.Store.DB().Get(&n, `SELECT COUNT(*) FROM `+table))
			all = append(all, n)
		}
		return all
	}
	before := counts()
	page := v.Page("/account/delete")
	assert.Contains(t, page, "Loop")
	assert.Contains(t, page, "Fennick 300 Trail")
	for _, wrong := range []url.Values{{"name": {"Heron"}}, {"name": {"Heron"}, "password": {"wrong horse"}}, {"name": {"Egret"}, "password": {"correct horse"}}} {
		status, _, _ := v.Post("/account/delete", wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, status)
	}
	assert.Equal(t, before, counts())
	status, _, _ := v.Post("/account/delete", url.Values{"name": {"heron"}, "password": {"correct horse"}})
	require.Equal(t, http.StatusSeeOther, status)
	after := counts()
	assert.Equal(t, before[0]-1, after[0])
	assert.Equal(t, before[1]-3, after[1], "two plans and a bike")
	for i := 6; i < len(after); i++ {
		assert.Less(t, after[i], before[i], i)
	}
	status, _, _ = v.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "signed out")
	other, plan := s.Demo(t)
	assert.Contains(t, other.Page(plan+"/brief"), "brief")
}
