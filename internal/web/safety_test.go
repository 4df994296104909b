package web_test

import (
	"log/slog"
	"net/http"
	"net/netip"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/letter"
	"valiantmule/internal/outside"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

const site = "https://mule.example"

// withLetters is a site whose letters come to an outbox; arrived waits for so many.
func withLetters(t *testing.T) (s *webtest.Site, arrived func(n int) []outside.Delivered) {
	t.Helper()
	outbox, err := outside.NewOutbox()
	require.NoError(t, err)
	t.Cleanup(func() { outbox.Close() })
	queue := letter.NewQueue(letter.SMTP{Address: outbox.Address, From: "mule@mule.example"}, slog.New(slog.DiscardHandler))
	t.Cleanup(func() { queue.Close(t.Context()) })
	s = webtest.Of(t, web.Options{Letters: queue, Site: site, Outbox: outbox.Letters})
	return s, func(n int) []outside.Delivered {
		t.Helper()
		require.Eventually(t, func() bool { return len(outbox.Letters()) >= n }, time.Minute, 10*time.Millisecond)
		require.Len(t, outbox.Letters(), n)
		return outbox.Letters()
	}
}

var tokenIn = regexp.MustCompile(`https://mule\.example(/\w+\?token=\w+)`)

// tokenOf is the form of a page that a letter leads to.
func tokenOf(t *testing.T, page string) url.Values {
	t.Helper()
	token := regexp.MustCompile(`name="token" value="(\w+)"`).FindStringSubmatch(page)
	require.NotNil(t, token)
	return url.Values{"token": {token[1]}}
}

// TestForgotten: a rider confirms an address, forgets the password, and comes back by a letter,
// whose link works once; an account without one is told the same and gets nothing.
func TestForgotten(t *testing.T) {
	s, arrived := withLetters(t)
	v, ada := s.Visitor(t), url.Values{"name": {"Ada"}, "password": {"correct horse"}}
	v.Post("/register", ada)
	for field, form := range map[string]url.Values{
		"address": {"address": {"nobody"}, "password": {"correct horse"}}, "hp-address": {"address": {"ada@example.org"}, "password": {"wrong horse"}},
	} {
		status, page, _ := v.Post("/account/address", form)
		assert.Equal(t, http.StatusUnprocessableEntity, status)
		assert.Regexp(t, `id="(h-)?`+field+`"><span class="error">`, page)
		assert.Contains(t, page, form.Get("address"))
	}
	status, _, _ := v.Post("/account/address", url.Values{"address": {"ada@example.org"}, "password": {"correct horse"}})
	require.Equal(t, http.StatusSeeOther, status)
	letters := arrived(1)
	assert.Equal(t, "ada@example.org", letters[0].To)
	confirm := tokenIn.FindStringSubmatch(letters[0].Text)
	require.NotNil(t, confirm, letters[0].Text)
	assert.NotContains(t, v.Page("/account/safety"), "<b>ada@example.org</b>", "not before the link was followed")

	stranger := s.Visitor(t)
	stranger.Post("/forgot", url.Values{"name": {"ada@example.org"}}) // it is nobody's yet
	form := tokenOf(t, stranger.Page(confirm[1]))
	status, _, _ = stranger.Post("/confirm", form)
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = stranger.Post("/confirm", form)
	assert.Equal(t, http.StatusNotFound, status, "once")
	assert.Contains(t, v.Page("/account/safety"), "<b>ada@example.org</b>")

	s.Visitor(t).Post("/register", url.Values{"name": {"Ida"}, "password": {"correct horse"}})
	said := map[string]bool{}
	for _, name := range []string{"Ida", "Nobody", "ADA"} {
		r := stranger.Request(http.MethodPost, "/forgot", strings.NewReader(url.Values{"name": {name}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Host = "evil.example"
		status, page, _ := stranger.Do(r)
		require.Equal(t, http.StatusOK, status)
		said[page] = true
	}
	assert.Len(t, said, 1, "nobody learns which accounts there are")
	letters = arrived(2)
	assert.NotContains(t, letters[0].Text, "evil", "a link leads here, whatever a request says")
	reset := tokenIn.FindStringSubmatch(letters[0].Text)
	require.NotNil(t, reset, letters[0].Text)

	form = tokenOf(t, stranger.Page(reset[1]))
	form.Set("new", "short")
	status, page, _ := stranger.Post("/reset", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	form = tokenOf(t, page)
	form.Set("new", "battery staple")
	form.Set("again", "battery staple")
	status, _, header := stranger.Post("/reset", form)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "/sign-in?done=password", header.Get("Location"), "it signs nobody in")
	status, _, _ = stranger.Post("/reset", form)
	assert.Equal(t, http.StatusNotFound, status, "once")
	status, _, _ = v.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status, "every device is out")
	assert.Contains(t, arrived(3)[0].Subject, "changed", "and the rider is told")
	status, _, _ = v.Post("/sign-in", ada)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	ada.Set("password", "battery staple")
	status, _, _ = v.Post("/sign-in", ada)
	assert.Equal(t, http.StatusSeeOther, status)
	trail := v.Page("/account/safety")
	for _, deed := range []string{"Account opened", "link in a letter", "asked for", "confirmed"} {
		assert.Contains(t, trail, deed)
	}
}

// TestSecondFactorAsked: with one, a password alone opens nothing; a code does, once, and a
// recovery code in its place.
func TestSecondFactorAsked(t *testing.T) {
	s := webtest.New(t)
	v, ada := s.Visitor(t), url.Values{"name": {"Ada"}, "password": {"correct horse"}}
	v.Post("/register", ada)
	status, _, _ := v.Post("/account/second", url.Values{"password": {"wrong horse"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	status, page, _ := v.Post("/account/second", url.Values{"password": {"correct horse"}})
	require.Equal(t, http.StatusOK, status)
	secret := strings.ReplaceAll(regexp.MustCompile(`class="secret">([A-Z2-7-]+)<`).FindStringSubmatch(page)[1], "-", "")
	status, _, _ = v.Post("/account/second/on", url.Values{"code": {"000"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	code, err := totp.GenerateCode(secret, time.Now())
	require.NoError(t, err)
	status, page, _ = v.Post("/account/second/on", url.Values{"code": {code}})
	require.Equal(t, http.StatusOK, status)
	codes := regexp.MustCompile(`<code>([A-Z2-7-]{19})</code>`).FindAllStringSubmatch(page, -1)
	require.Len(t, codes, 10, "a device that is lost must not lock its rider out")

	there := s.Visitor(t)
	status, _, header := there.Post("/sign-in", ada)
	require.Equal(t, http.StatusSeeOther, status)
	require.Equal(t, "/sign-in/second", header.Get("Location"))
	for _, path := range []string{"/garage", "/account", "/account/safety"} {
		_, _, header = there.Get(path)
		assert.Equal(t, "/sign-in", header.Get("Location"), "a password alone opens nothing")
	}
	status, _, _ = there.Post("/sign-in/second", url.Values{"code": {code}})
	assert.Equal(t, http.StatusUnprocessableEntity, status, "that code was taken when it was turned on")
	status, _, header = there.Post("/sign-in/second", url.Values{"code": {strings.ToLower(codes[0][1])}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Equal(t, "/garage", header.Get("Location"))
	assert.Contains(t, there.Page("/account/safety"), "9 left")

	// By a code of time: one that lies ahead is taken too, as clocks differ.
	again := s.Visitor(t)
	again.Post("/sign-in", ada)
	code, err = totp.GenerateCode(secret, time.Now().Add(30*time.Second))
	require.NoError(t, err)
	status, _, _ = again.Post("/sign-in/second", url.Values{"code": {code}})
	assert.Equal(t, http.StatusSeeOther, status)

	stranger := s.Visitor(t)
	_, _, header = stranger.Post("/sign-in/second", url.Values{"code": {codes[1][1]}})
	assert.Equal(t, "/sign-in", header.Get("Location"), "a code alone opens nothing either")
	status, _, header = stranger.Post("/forgot/code", url.Values{"name": {"Ada"}, "code": {codes[2][1]}, "new": {"battery staple"}, "again": {"battery staple"}})
	require.Equal(t, http.StatusSeeOther, status, header)
	_, _, header = stranger.Post("/sign-in", url.Values{"name": {"Ada"}, "password": {"battery staple"}})
	assert.Equal(t, "/sign-in/second", header.Get("Location"), "a new password leaves the second factor on")

	for range 6 {
		status, _, _ = stranger.Post("/sign-in/second", url.Values{"code": {"123456"}})
	}
	assert.Equal(t, http.StatusTooManyRequests, status, "guessing becomes slow")
}

// TestDevices are listed with where they are, and each can be signed out.
func TestDevices(t *testing.T) {
	s := webtest.New(t)
	here, there := s.Visitor(t), s.Visitor(t)
	ada := url.Values{"name": {"Ada"}, "password": {"correct horse"}}
	here.Post("/register", ada)
	there.Post("/sign-in", ada)
	page := here.Page("/account/safety")
	assert.Contains(t, page, "127.0.0.1")
	assert.Contains(t, page, "this one")
	form := regexp.MustCompile(`name="login" value="(\w+)"`).FindAllStringSubmatch(page, -1)
	require.Len(t, form, 1, "the others")
	other := s.Visitor(t)
	other.Post("/register", url.Values{"name": {"Eve"}, "password": {"correct horse"}})
	other.Post("/account/sign-out/one", url.Values{"login": {form[0][1]}})
	assert.Contains(t, there.Page("/garage"), "Garage", "another rider signs nobody out")
	status, _, _ := here.Post("/account/sign-out/one", url.Values{"login": {form[0][1]}})
	require.Equal(t, http.StatusSeeOther, status)
	status, _, _ = there.Get("/garage")
	assert.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, here.Page("/garage"), "Garage")
}

// TestDemonstrationTellsNobody where others of its riders came from, nor signs them out.
func TestDemonstrationTellsNobody(t *testing.T) {
	s := webtest.New(t)
	here, _ := s.Demo(t)
	there, _ := s.Demo(t)
	assert.NotContains(t, here.Page("/account/safety"), "127.0.0.1")
	status, _, _ := here.Post("/account/sign-out", nil)
	assert.Equal(t, http.StatusNotFound, status)
	assert.Contains(t, there.Page("/garage"), "Garage")
}

// TestLeaving clears what the browser keeps, by a header where that is believed.
func TestLeaving(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	status, _, header := v.Post("/sign-out", nil)
	require.Equal(t, http.StatusSeeOther, status)
	assert.Empty(t, header.Get("Clear-Site-Data"), "no browser believes it over http")
	cookies := strings.Join(header.Values("Set-Cookie"), "\n")
	assert.Contains(t, cookies, "who=;")
	assert.Contains(t, cookies, "mule=;")

	// Over https; who has been signed out elsewhere, or by idling, keeps what is not sent yet.
	s = webtest.Of(t, web.Options{Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")}})
	v = s.Visitor(t)
	var session string
	secure := func(method, path string) http.Header {
		r := v.Request(method, path, nil)
		r.Header.Set("X-Forwarded-Proto", "https")
		r.Header.Set("Cookie", session)
		_, _, header := v.Do(r)
		return header
	}
	signedIn := func() {
		session = ""
		session, _, _ = strings.Cut(webtest.SessionCookie(secure(http.MethodPost, "/sign-in/demo")), ";")
		require.Contains(t, session, "__Host-mule=")
	}
	signedIn()
	assert.Equal(t, `"cache", "storage"`, secure(http.MethodPost, "/sign-out").Get("Clear-Site-Data"))
	signedIn()
	_, err := s.Store.DB().Exec(`UPDATE logins SET seen_at = seen_at - INTERVAL 8 DAY`)
	require.NoError(t, err)
	header = secure(http.MethodGet, "/garage")
	assert.Equal(t, "/sign-in", header.Get("Location"))
	assert.Equal(t, `"cache"`, header.Get("Clear-Site-Data"))
}

// TestHosts: names that are not this site's get nothing.
func TestHosts(t *testing.T) {
	s := webtest.Of(t, web.Options{Hosts: []string{"mule.example"}, Contact: "mailto:security@mule.example", Site: site})
	v := s.Visitor(t)
	for host, want := range map[string]int{"mule.example": http.StatusOK, "MULE.example:8443": http.StatusOK, "evil.example": http.StatusMisdirectedRequest, "": http.StatusMisdirectedRequest} {
		for _, path := range []string{"/sign-in", "/.well-known/security.txt"} {
			r := v.Request(http.MethodGet, path, nil)
			r.Host = host
			status, _, _ := v.Do(r)
			assert.Equal(t, want, status, "%s of %q", path, host)
		}
	}
	assert.Contains(t, v.Page("/livez"), "up", "a check of health knows no name")
	r := v.Request(http.MethodGet, "/.well-known/security.txt", nil)
	r.Host = "mule.example"
	_, text, _ := v.Do(r)
	assert.Contains(t, text, "Contact: mailto:security@mule.example\n")
	expires, err := time.Parse(time.RFC3339, regexp.MustCompile(`Expires: (\S+)`).FindStringSubmatch(text)[1])
	require.NoError(t, err)
	assert.True(t, expires.After(time.Now()) && expires.Before(time.Now().AddDate(1, 0, 0)), "less than a year (RFC 9116, section 2.5.5)")
}
