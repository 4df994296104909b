//go:build !markup

package web_test

import (
	"io/fs"
	"log/slog"
	"net/http/httptest"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/store"
	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
	"valiantmule/internal/web/webtest"
)

// awayPages are the paths of a plan's pages that a device keeps.
func awayPages(plan string) (list []string) {
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			if p.Away {
				list = append(list, plan+"/"+p.ID)
			}
		}
	}
	return list
}

// without is what the console says of a server that is away.
var without = []string{"ERR_CONNECTION_REFUSED", "ERR_CONNECTION_RESET", "ERR_EMPTY_RESPONSE", "ERR_INTERNET_DISCONNECTED", "status of 503", "Failed to fetch"}

// signIn as the demo's rider, in a window of whatever browser.
func signIn(w *webtest.Window) {
	w.T.Helper()
	w.Expects = append(w.Expects, without...)
	w.Do(chromedp.EmulateViewport(390, 844))
	w.Open("/sign-in")
	w.Follow("#demo")
}

// TestOffTheNetwork: what was opened once opens again with the server away and the browser started
// anew, drawn and alive; ten entries from two tabs are there once each when the server is back, in
// the order in which they were written.
func TestOffTheNetwork(t *testing.T) {
	s := webtest.New(t)
	_, plan := s.Demo(t)
	restart := s.Lasting(t)
	w := restart()
	signIn(w)
	paths := append(awayPages(plan), "/buying", "/device")
	require.GreaterOrEqual(t, len(paths), 10)
	for _, path := range paths {
		w.Open(path)
		w.UntilKept(path)
	}
	w.Follow(`form.theme .to-garage`) // what is sent by a form takes nothing away
	w.UntilKept(paths...)
	before := len(s.Newest(t, demo.Rider).Readings)

	back := s.Away(t)
	w = restart()
	w.Expects = append(w.Expects, without...)
	w.Open("/")
	w.Until(`document.querySelector('main h1').textContent === 'On this device'`)
	for _, path := range paths {
		w.Open(path + "?loadout=travel")
		w.Until(`document.documentElement.dataset.kept && !document.getElementById('device').hidden`)
		assert.Equal(t, "flex", w.Text(`getComputedStyle(document.querySelector('.masthead')).display`), "%s is not drawn", path)
		w.Until(`document.querySelector('main h1').textContent !== '' && window.Alpine !== undefined`)
	}
	w.Open(plan + "/contact?loadout=travel")
	assert.Contains(t, w.Text(`document.body.textContent`), "not on this device")
	w.Follow(`a[href="/device"]`)
	w.Until(`[...document.querySelectorAll('[data-kept-at]')].filter((e) => e.classList.contains('is-kept')).length >= 9`)

	w.Open(plan + "/packing?loadout=travel")
	w.Follow("#save")
	assert.Contains(t, w.Text(`document.body.textContent`), "has not arrived")
	w.Back(`document.querySelector('#save') !== null`)

	other := w.Another()
	other.Expects = append(other.Expects, without...)
	w.Open(plan + "/log?loadout=travel")
	other.Open(plan + "/log?loadout=travel")
	for i := range 5 {
		for j, tab := range []*webtest.Window{w, other} {
			tab.Fill("#f-distance", strconv.Itoa(100+2*i+j))
			tab.Click("#add")
			tab.UntilWaiting(2*i + j + 1)
		}
	}
	for _, tab := range []*webtest.Window{w, other} {
		tab.Until(`document.querySelector('main .unsent').textContent.startsWith('10 days') && document.getElementById('device').textContent.includes('10 things wait')`)
	}
	w = restart()
	w.Expects = append(w.Expects, without...)
	w.Open(plan + "/card?loadout=travel")
	w.Until(`document.getElementById('device').textContent.includes('10 things wait')`)
	other = w.Another()
	other.Expects = append(other.Expects, without...)
	other.Open(plan + "/log?loadout=travel")
	back()
	w.UntilWaiting(0)
	added := s.Newest(t, demo.Rider).Readings[before:]
	var km []float64
	for _, r := range added {
		if r.Kind == logbook.DayRidden {
			km = append(km, r.Day().Distance.In("km"))
		}
	}
	assert.Equal(t, []float64{100, 101, 102, 103, 104, 105, 106, 107, 108, 109}, km, "once each, in their order, from a page that is not the log's too")
	other.Until(`document.querySelectorAll('.days-ridden li').length === 10`)
}

// TestDaysLater: a page that was kept some days ago asks for today, not for the day on which it was kept.
func TestDaysLater(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "log?loadout=travel")
	w.Expects = append(w.Expects, without...)
	w.UntilKept(plan + "/log")
	s.Away(t)
	webtest.Call(w, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: `
		const Now = Date, later = 3 * 86400e3;
		Date = class extends Now {
			constructor(...all) { if (all.length) super(...all); else super(Now.now() + later); }
			static now() { return Now.now() + later; }
		};`})
	w.Open(plan + "/log?loadout=travel")
	w.Until(`document.getElementById('f-on').value === new Date(Now.now() + later - new Date().getTimezoneOffset() * 60e3).toISOString().slice(0, 10)`)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.UntilWaiting(1)
	assert.Equal(t, time.Now().AddDate(0, 0, 3).Format(time.DateOnly), w.Text(`document.getElementById('f-on').value`), "the next one too")
}

// TestKeptPagesAreTheirRiders: a copy is shown while its rider is signed in, and otherwise thrown away.
func TestKeptPagesAreTheirRiders(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "log?loadout=travel")
	w.Expects = append(w.Expects, without...)
	w.UntilKept(plan+"/log", "/device")
	webtest.Call(w, network.DeleteCookies, network.DeleteCookiesParams{Name: "who", URL: s.URL})
	s.Away(t)
	w.Open(plan + "/log?loadout=travel")
	w.Until(`location.pathname === '/' && document.body.textContent.includes('does not answer')`)
	assert.Zero(t, webtest.Ask[int](w, `caches.keys().then((names) => names.filter((n) => n.startsWith('pages ')).length)`, chromedp.EvalAwaitPromise))
}

// TestByThumbOffTheNetwork: looks of the shakedown, ticks of the packing list, a job done, an answer of the walk and a
// bike that is looked at wait, stand in sight after the page was opened again, and are there once.
func TestByThumbOffTheNetwork(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "shakedown?loadout=travel")
	w.Expects = append(w.Expects, without...)
	for _, path := range append(awayPages(plan), "/buying") {
		w.Open(path + "?loadout=travel")
		w.UntilKept(path)
	}
	back := s.Away(t)

	w.Open(plan + "/shakedown?loadout=travel")
	w.Eval(`document.querySelector('[name="loaded"]').click(), document.querySelector('[name="rough"]').click(), true`)
	w.Eval(`document.querySelectorAll('.shake-row [name="well"]')[0].click(), true`)
	w.Eval(`document.querySelectorAll('.shake-row [name="well"]')[1].click(), true`)
	w.UntilWaiting(2)
	w.Open(plan + "/shakedown?loadout=travel")
	w.Until(`document.querySelectorAll('.shake-row.is-unsent').length === 2`)

	w.Open(plan + "/packing?loadout=travel")
	w.Eval(`document.querySelector('#tick-11 button').click(), true`)
	w.UntilWaiting(3)
	w.Open(plan + "/packing?loadout=travel")
	w.Until(`document.querySelector('#thing-11.is-unsent button[aria-pressed=true]') !== null`)

	w.Open(plan + "/spanner-day?loadout=travel")
	w.Eval(`document.querySelector('.sheet-job [name="done"]').click(), true`)
	w.UntilWaiting(4)
	job := w.Text(`document.querySelector('.sheet-job h2').firstChild.textContent.trim()`)

	w.Open("/buying")
	for i, name := range []string{"Marrow 400", "Tansy 650"} {
		w.Fill("#f-name", name)
		w.Click("#keep")
		w.UntilWaiting(5 + i)
	}

	packed := s.Newest(t, demo.Rider)
	back()
	w.UntilWaiting(0)
	p := s.Newest(t, demo.Rider)
	looks := p.ReadingsOf(logbook.Shaken)
	require.Len(t, looks, 2)
	assert.True(t, looks[1].Shake().Loaded && looks[1].Shake().Rough, "the ride was said once")
	was, _ := packed.Loadout("travel")
	now, _ := p.Loadout("travel")
	assert.False(t, was.Loads[11].Packed)
	assert.True(t, now.Loads[11].Packed)
	w.Open(plan + "/history")
	assert.Contains(t, w.Text(`document.querySelector('main').textContent`), "Done: "+job)
	rider, err := s.Store.RiderByName(t.Context(), demo.Rider)
	require.NoError(t, err)
	bikes, err := s.Store.GarageBikes(t.Context(), rider.ID)
	require.NoError(t, err)
	for _, name := range []string{"Marrow 400", "Tansy 650"} {
		assert.Len(t, slices.DeleteFunc(slices.Clone(bikes), func(b store.GarageBike) bool { return b.Name != name }), 1, name)
	}
}

// TestMended: what the server refuses stays with its reason, and counts on every page, until it is
// mended or thrown away; what is thought better of while mending is lost by nobody.
func TestMended(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "fills?loadout=travel")
	before := len(s.Newest(t, demo.Rider).Readings)
	w.Fill("#f-litres", "999")
	w.Fill("#f-odometer", "30000")
	w.Click("#add")
	w.Until(`!document.querySelector('.refused').hidden`)
	w.Eval(`[...document.querySelectorAll('.refused button')].find((b) => b.textContent === 'Mend it').click(), true`)
	w.Open("/device")
	w.Until(`document.querySelector('#device-waits').textContent.includes('999') && document.getElementById('device').textContent.includes('1 was not taken')`)
	w.Follow(`#device-waits a`)
	w.Until(`!document.querySelector('.refused').hidden`)
	w.Eval(`[...document.querySelectorAll('.refused button')].find((b) => b.textContent === 'Mend it').click(), true`)
	assert.Equal(t, "999", w.Text(`document.getElementById('f-litres').value`))
	w.Until(`document.querySelector('.refused').hidden`) // what is to be clicked has come to rest
	w.Fill("#f-litres", "9,9")
	w.Click("#add")
	w.UntilWaiting(0)
	w.Until(`document.querySelector('.refused').hidden`)
	readings := s.Newest(t, demo.Rider).Readings
	require.Len(t, readings, before+1, plan)
	assert.InDelta(t, 9.9, readings[before].Fill().Litres.In("L"), 1e-9)
}

// TestServerRenewed: a page that was kept of one version stays whole while the server is another's, what was written in it
// is taken, and the page that is open becomes the new one, with assets of one version alone.
func TestServerRenewed(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "card?loadout=travel")
	w.Expects = append(w.Expects, without...)
	for _, path := range []string{plan + "/card", plan + "/log"} {
		w.Open(path + "?loadout=travel")
		w.UntilKept(path)
	}
	versions := func() []string {
		list := strings.Fields(w.Text(`[...new Set([...document.querySelectorAll('link[href^="/assets/"], script[src^="/assets/"]')].map((e) => (e.getAttribute('href') || e.getAttribute('src')).split('/')[2])
			.concat(performance.getEntriesByType('resource').map((e) => new URL(e.name).pathname).filter((p) => p.startsWith('/assets/')).map((p) => p.split('/')[2])))].join(' ')`))
		slices.Sort(list)
		return list
	}
	old := versions()
	require.Len(t, old, 1)

	back := s.Away(t)
	w.Open(plan + "/log?loadout=travel")
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.UntilWaiting(1)
	stages := slices.Clone(web.Stages())
	at := slices.IndexFunc(stages, func(st desk.Stage) bool { return st.Script == "" })
	stages[at].Script, stages[at].Files = "renewed.js", renewed{stages[at].Files, fstest.MapFS{"static/renewed.js": {Data: []byte("// another version\n")}}}
	handler, err := web.New(web.Options{Store: s.Store, DemoRider: demo.Rider, Stages: stages, Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	s.Handler = handler
	back()
	w.UntilWaiting(0)
	w.Until(`document.querySelectorAll('.days-ridden li').length === 1 && !document.documentElement.dataset.kept`)
	fresh := versions()
	require.Len(t, fresh, 1)
	require.NotEqual(t, old, fresh)

	s.Away(t)
	w.Open(plan + "/card?loadout=travel")
	w.Until(`document.documentElement.dataset.kept !== undefined`)
	assert.Len(t, versions(), 1, "of whichever version, it is one")
	assert.Equal(t, "flex", w.Text(`getComputedStyle(document.querySelector('.masthead')).display`))
}

// renewed is a stage's files with one more.
type renewed struct {
	fs.FS
	more fstest.MapFS
}

func (r renewed) Open(name string) (fs.File, error) {
	if name == "static" || strings.HasPrefix(name, "static/") {
		return r.more.Open(name)
	}
	return r.FS.Open(name)
}

// TestSignedOutByAnotherTab: nothing of the rider's is on the device then, and a tab that is still
// open keeps nothing any more.
func TestSignedOutByAnotherTab(t *testing.T) {
	s := webtest.New(t)
	w := s.Lasting(t)()
	signIn(w)
	_, plan := s.Demo(t)
	w.Open(plan + "/log?loadout=travel")
	w.UntilKept(plan+"/log", "/device")
	other := w.Another()
	other.Open(plan + "/log?loadout=travel")
	other.Fill("#f-distance", "140")
	w.Follow(`form[action="/sign-out"] button`)
	w.Until(`location.pathname === '/sign-in'`)
	other.Click("#add")
	other.Until(`document.querySelector('main .unsent').textContent.includes('signed out')`)
	assert.Equal(t, "140", other.Text(`document.getElementById('f-distance').value`), "what is typed stays")
	assert.Zero(t, w.Waiting())
	left := webtest.Ask[int](w, `caches.keys().then((names) => names.filter((n) => n.startsWith('pages ')).length)`, chromedp.EvalAwaitPromise)
	assert.Zero(t, left, "no page of the rider's is kept")
	s.Away(t)
	w.Open(plan + "/log?loadout=travel")
	assert.NotContains(t, w.Text(`document.documentElement.textContent`), "Write it down")
}

// TestSecondRider on a device whose first was signed out elsewhere: sees no page, no entry and no
// count of theirs, and sends nothing in their place; back again, the first's goes.
func TestSecondRider(t *testing.T) {
	s := webtest.New(t)
	w := s.Lasting(t)()
	signIn(w)
	_, plan := s.Demo(t)
	w.Open(plan + "/log?loadout=travel")
	w.UntilKept(plan+"/log", "/device")
	before := len(s.Newest(t, demo.Rider).Readings)
	back := s.Away(t)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.UntilWaiting(1)
	webtest.Call(w, network.DeleteCookies, network.DeleteCookiesParams{Name: "mule", URL: s.URL})
	w.Open("/sign-in")
	back()
	w.Open("/register")
	w.Fill("#f-name", "Second")
	w.Fill("#f-password", "a long password of theirs")
	w.Follow(`form[action="/register"] button.act`)
	w.Open("/device")
	w.Until(`document.querySelectorAll('[data-kept-at]').length > 0`)
	assert.Equal(t, "true true", w.Text(`document.getElementById('device').hidden + ' ' + document.getElementById('device-waits').hidden`))
	require.Eventually(t, func() bool {
		return webtest.Ask[bool](w, `caches.keys().then((names) => Promise.all(names.filter((n) => n.startsWith('pages ')).map((n) => caches.open(n).then((c) => c.keys()))))
			.then((lists) => lists.flat().every((r) => !new URL(r.url).pathname.startsWith('/plans/')))`, chromedp.EvalAwaitPromise)
	}, webtest.Patience, 20*time.Millisecond, "no page of the first's is kept")
	assert.Equal(t, 1, w.Waiting(), "it waits for its rider")
	assert.Len(t, s.Newest(t, demo.Rider).Readings, before)
	w.Follow(`form[action="/sign-out"] button`)
	require.Equal(t, 1, w.Waiting(), "what is the first's is not the second's to throw away")
	w.Open("/sign-in")
	w.Follow("#demo")
	w.UntilWaiting(0)
	assert.Greater(t, len(s.Newest(t, demo.Rider).Readings), before)
}

// TestNoRoomOnTheDevice: a device that takes nothing more says so; with a server an entry goes at
// once, and without one it stays in its form.
func TestNoRoomOnTheDevice(t *testing.T) {
	s := webtest.New(t)
	_, plan := s.Demo(t)
	room := func(w *webtest.Window, bytes float64) {
		webtest.Call(w, storage.OverrideQuotaForOrigin, storage.OverrideQuotaForOriginParams{Origin: s.URL, QuotaSize: &bytes})
	}
	w := s.Lasting(t)()
	w.Open("/sign-in")
	room(w, 1)
	signIn(w)
	w.Open(plan + "/log?loadout=travel")
	before := len(s.Newest(t, demo.Rider).Readings)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.Until(`document.querySelector('main .unsent').textContent.includes('no room')`)
	assert.Greater(t, len(s.Newest(t, demo.Rider).Readings), before, "it was sent at once")
	s.Away(t)
	w.Fill("#f-distance", "150")
	w.Click("#add")
	w.Until(`document.querySelector('main .unsent').textContent.includes('leave it in the form')`)
	assert.Equal(t, "150", w.Text(`document.getElementById('f-distance').value`))
}

// TestNoRoomForPages: a page that cannot be kept says so.
func TestNoRoomForPages(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "log?loadout=travel")
	w.UntilKept(plan+"/log", "/device")
	webtest.Call(w, storage.OverrideQuotaForOrigin, storage.OverrideQuotaForOriginParams{Origin: s.URL, QuotaSize: new(float64(1))})
	w.Open(plan + "/card?loadout=travel")
	w.Until(`document.getElementById('device').textContent.includes('no room left')`)
}

// TestNothingKept: a browser that refuses its storage, and one that has thrown it away.
func TestNothingKept(t *testing.T) {
	s := webtest.New(t)
	w, plan := s.Desktop(t, "log?loadout=travel")
	w.Expects = append(w.Expects, without...)
	w.UntilKept(plan + "/log")
	back := s.Away(t)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.UntilWaiting(1)
	w.Open("/sign-in") // of no rider: no page of theirs is open meanwhile
	assert.True(t, webtest.Ask[bool](w, `new Promise((done) => { const asked = indexedDB.deleteDatabase('mule'); asked.onsuccess = () => done(true); })`, chromedp.EvalAwaitPromise))
	w.Open(plan + "/log?loadout=travel")
	w.Until(`document.getElementById('device').textContent.includes('thrown its storage away')`)
	back()

	webtest.Call(w, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: `Object.defineProperty(window, 'indexedDB', { get() { throw new DOMException('no', 'SecurityError'); } })`})
	before := len(s.Newest(t, demo.Rider).Readings)
	w.Open(plan + "/log?loadout=travel")
	w.Until(`document.getElementById('device').textContent.includes('keeps nothing')`)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.Until(`document.querySelector('main .unsent').textContent.includes('sent at once')`)
	assert.Greater(t, len(s.Newest(t, demo.Rider).Readings), before)
}

// TestPlainHTTP: where a browser runs no worker the page says so; what is written waits all the
// same, and signing out clears it.
func TestPlainHTTP(t *testing.T) {
	s := webtest.New(t)
	at, err := url.Parse(s.URL)
	require.NoError(t, err)
	w := s.Lasting(t, chromedp.Flag("host-resolver-rules", "MAP mule.example 127.0.0.1"))()
	w.Site = &webtest.Site{Server: &httptest.Server{URL: "http://mule.example:" + at.Port()}, Store: s.Store}
	w.Expects = append(w.Expects, "Cross-Origin-Opener-Policy")
	signIn(w)
	require.False(t, webtest.Ask[bool](w, `window.isSecureContext`))
	w.Open("/device")
	w.Until(`document.getElementById('device-state').textContent.includes('plain http')`)
	_, plan := s.Demo(t)
	w.Open(plan + "/log?loadout=travel")
	back := s.Away(t)
	w.Fill("#f-distance", "140")
	w.Click("#add")
	w.UntilWaiting(1)
	back()
	w.UntilWaiting(0)
	w.Until(`document.querySelectorAll('.days-ridden li').length === 1`)
	w.Fill("#f-distance", "1e9")
	w.Click("#add")
	w.Until(`!document.querySelector('.refused').hidden`)
	w.Click(`form[action="/sign-out"] button`)
	w.Until(`document.querySelector('dialog[open] li') !== null`)
	w.Follow(`dialog[open] .form-foot .act-quiet`)
	w.Until(`location.pathname === '/sign-in'`)
	assert.Zero(t, w.Waiting())
	assert.True(t, webtest.Ask[bool](w, `localStorage.length === 0 && sessionStorage.length === 0`))
}

// TestInstallable: the browser finds nothing that keeps it from being put on a phone's screen.
func TestInstallable(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "card?loadout=travel")
	w.UntilKept("/device")
	manifest := webtest.Call(w, page.GetAppManifest, page.GetAppManifestParams{})
	assert.Empty(t, manifest.Errors)
	assert.Contains(t, manifest.URL, ".webmanifest")
	for _, e := range webtest.Call(w, page.GetInstallabilityErrors, struct{}{}).InstallabilityErrors {
		assert.Equal(t, "in-incognito", e.ErrorID, "a test's tab is a private one")
	}
}
