//go:build !markup

package web_test

import (
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// TestMainJob is the job of the product, by a new rider: account, plan, brief,
// bike, tyre and sprocket by preview and then choice, undo, the working, export,
// import.
func TestMainJob(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/register")
	w.Fill("#f-name", "Rook")
	w.Fill("#f-password", "a long enough one")
	w.Follow("#register") // in the units of the browser's language
	w.Open("/account")
	w.Follow(`button[name="preset"][value="Metric"]`)
	w.Open("/garage")
	w.Fill("#f-name", "Autumn")
	w.Follow("#new-plan")

	// The brief, first with a mistake: it is named, and nothing typed is lost.
	for field, text := range map[string]string{"distance": "3000", "cruise": "100", "walking_pace": "12", "rider": "95", "budget": "900"} {
		w.Fill("#f-"+field, text)
	}
	w.Fill(`[name="share.paved"]`, "50")
	w.Fill(`[name="share.sand"]`, "40")
	w.Until(`document.querySelector('#bench .bench-problem') !== null`)
	w.Follow("#save")
	assert.Equal(t, "3000", w.Text(`document.querySelector('#f-distance').value`))
	assert.Contains(t, w.Text(`document.querySelector('.block.has-error .error').textContent`), "90 %")
	w.Fill(`[name="share.sand"]`, "50")
	w.Follow("#save")
	assert.Equal(t, "3000 km", w.Text(`document.querySelector('#f-distance').value`), "saved with its unit")

	// A bike, looked at and then taken.
	w.Follow(`.rail a[href*="/bike"]`)
	w.Do(chromedp.Click(chromedp.CSS(`[data-bike="holt-650"]`)))
	w.Bench("Holt 650 Drover")
	assert.Equal(t, "?", w.Gauge("cruise-rpm"), "looking takes nothing")
	w.Follow("[data-fit]")
	shelf, err := demo.Parts()
	require.NoError(t, err)
	p := s.Newest(t, "Rook")
	require.Equal(t, webtest.Bike(t, "holt-650"), p.Bike)
	assert.Equal(t, webtest.Core(t, p, "cruise-rpm"), w.Gauge("cruise-rpm"))

	// A tyre, by pointing at its row and then by its button.
	w.Follow(`.rail a[href*="/tyres"]`)
	w.Click(`#w-rear-tyre ~ .table-scroll a.option[href*="bracken-140-80-18"]`)
	w.Bench("Bracken 140/80-18")
	with := p.With(plan.Choice{Slot: parts.RearTyre, Part: shelf.Find(p.Bike, parts.RearTyre, "bracken-140-80-18"), Need: plan.Needed})
	assert.Equal(t, webtest.Core(t, p, "cruise-rpm"), w.Gauge("cruise-rpm"), "on the bench, not in the plan")
	assert.Contains(t, strings.ReplaceAll(w.Text(`document.querySelector('#bench .moves').textContent`), "\u202f", " "), webtest.Core(t, with, "cruise-rpm"))
	w.Until(`document.querySelector('#bench [data-finding="tyre-moves-gearing"]') !== null`)
	w.Follow("[data-fit]")
	assert.Equal(t, with.Lines, s.Newest(t, "Rook").Lines)
	assert.Equal(t, webtest.Core(t, with, "crawl-speed"), w.Gauge("crawl-speed"), "the verdict says what the core says")

	// The remedy of a finding is the next preview; leave it, take another pair by
	// the arrow keys.
	w.Follow(`.rail a[href*="/gearing"]`)
	w.Do(chromedp.Click(chromedp.CSS(`[data-finding="tyre-moves-gearing"] .remedy`)))
	w.Bench("Rear sprocket 45 T")
	w.Do(chromedp.Click(chromedp.CSS("[data-leave]")))
	w.Bench("Open points")
	w.Do(chromedp.Focus(chromedp.CSS(".pair.is-current")), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.Enter))
	w.Bench("Rear sprocket 46 T")
	w.Until(`document.querySelector('#fan .ray-ghost') !== null`)
	w.Follow("[data-fit]")
	geared := with.With(plan.Choice{Slot: parts.RearSprocket, Part: shelf.Find(p.Bike, parts.RearSprocket, "rear-h6-46"), Need: plan.Needed})
	assert.Equal(t, webtest.Core(t, geared, "cruise-rpm"), w.Gauge("cruise-rpm"))
	assert.Equal(t, webtest.Core(t, geared, "cost"), w.Gauge("cost"))

	// Undo, and again.
	w.Follow(`form[action$="/undo"] button`)
	assert.Equal(t, webtest.Core(t, with, "cruise-rpm"), w.Gauge("cruise-rpm"))
	w.Follow(`form[action$="/redo"] button`)
	assert.Equal(t, webtest.Core(t, geared, "cruise-rpm"), w.Gauge("cruise-rpm"))

	// The working of a figure.
	w.Do(chromedp.Click(chromedp.CSS(`.strip [data-gauge="crawl-speed"]`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] .step")))
	assert.Contains(t, w.Text(`document.querySelector('dialog').textContent`), "overall = primary × gear × rear / front")
	w.Do(chromedp.Click(chromedp.CSS("dialog button")))
	w.Until(`!document.querySelector('dialog').open`)

	// Away as a file and back again.
	file := filepath.Join(t.TempDir(), "autumn.json")
	out, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, format.WritePlan(out, s.Newest(t, "Rook")))
	require.NoError(t, out.Close())
	exported := w.Text(`(() => { const r = new XMLHttpRequest(); r.open('GET', document.querySelector('a[href$="/export"]').href, false); r.send(); return r.responseText; })()`)
	written, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, string(written), exported)
	w.Open("/garage")
	w.Do(chromedp.SetUploadFiles(chromedp.CSS("#f-file"), []string{file}), chromedp.SetValue(chromedp.CSS("#f-onto"), "new"))
	w.Follow("#import")
	assert.Equal(t, webtest.Core(t, geared, "cruise-rpm"), w.Gauge("cruise-rpm"))
	w.Follow(`form[action="/sign-out"] button`)
	w.Until(`location.pathname === '/sign-in'`)
}

// TestOnAPhone: by touch, at 390 px; nothing is wider than the screen.
func TestOnAPhone(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Follow(".plan-card header a")
	for _, st := range web.Stages() {
		w.Follow(`.rail a[data-key="` + st.Key + `"]`)
		w.Until(`document.documentElement.scrollWidth <= 390`)
	}
	w.Follow(`.rail a[href*="/gearing"]`)
	w.Until(`document.querySelector('#strip').getBoundingClientRect().bottom <= 120`) // header and strip, one line each
	assert.Equal(t, 3, webtest.Ask[int](w, `document.querySelectorAll('.strip-worst').length`))
	w.Do(chromedp.Click(chromedp.CSS(`.strip-line summary`)), chromedp.WaitVisible(chromedp.CSS(`.strip [data-gauge="cost"]`)))
	w.Do(chromedp.Click(chromedp.CSS(`.strip-line summary`)), chromedp.WaitNotVisible(chromedp.CSS(`.strip [data-gauge="cost"]`)))
	w.Do(chromedp.Tap(chromedp.CSS(`.pair[data-front="15"][data-rear="47"]`)))
	w.Bench("Rear sprocket 47 T")
	w.Until(`document.querySelector('#bench').getBoundingClientRect().top < window.innerHeight`)
}

// TestPointing: a mouse over an option lays it on the bench, a click holds it
// there.
func TestPointing(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Follow(".plan-card header a")
	w.Follow(`.rail a[href*="/tyres"]`)
	point := func(id string) {
		w.Eval(`document.querySelector('#w-rear-tyre ~ .table-scroll a.option[href*="` + id + `"]').dispatchEvent(new PointerEvent('pointerover', {bubbles: true, pointerType: 'mouse'})), true`)
	}
	point("wether-130-80-18")
	w.Bench("Wether 130/80-18")
	w.Click(`#w-rear-tyre ~ .table-scroll a.option[href*="lanner-120-80-18"]`)
	w.Bench("Lanner 120/80-18")
	assert.Contains(t, w.Text(`location.search`), "lanner-120-80-18", "the address leads back to what lies there")
	point("wether-130-80-18")
	w.Click(`#w-rear-tyre ~ .table-scroll a.option[href*="scree-120-100-18"]`)
	w.Bench("Scree 120/100-18")
}

// TestKeys: the plan by keys alone.
func TestKeys(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Follow(".plan-card header a")
	key := func(keys string) { t.Helper(); w.Leads(chromedp.KeyEvent(keys)) }
	stage := func(key string) { t.Helper(); w.Do(chromedp.KeyEvent("g")); w.Leads(chromedp.KeyEvent(key)) }
	for _, st := range web.Stages() {
		stage(st.Key)
		assert.Contains(t, w.Text(`location.pathname`), "/"+string(st.ID))
	}
	w.Do(chromedp.KeyEvent("g"), chromedp.KeyEvent("?"), chromedp.WaitVisible(chromedp.CSS("dialog[open] kbd")))
	for _, st := range web.Stages() {
		assert.Contains(t, w.Text(`document.querySelector('.keys-stages').textContent`), st.Key+" "+st.Name)
	}
	w.Do(chromedp.KeyEvent(kb.Escape))
	w.Until(`!document.querySelector('dialog').open`)
	stage("g")
	w.Do(chromedp.KeyEvent("/"), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.Enter))
	w.Bench("Rear sprocket 44 T")
	w.Do(chromedp.KeyEvent(kb.Escape))
	w.Bench("Open points")
	w.Do(chromedp.KeyEvent("/"), chromedp.KeyEvent(kb.Enter)) // the field keeps its place
	w.Bench("Rear sprocket 44 T")
	w.Do(chromedp.KeyEvent("b"))
	key(kb.Enter)
	assert.Equal(t, "4695 rpm", w.Gauge("cruise-rpm"))
	key("u")
	assert.Equal(t, "4588 rpm", w.Gauge("cruise-rpm"))
	key("r")
	assert.Equal(t, "4695 rpm", w.Gauge("cruise-rpm"))
	key("l")
	assert.Equal(t, "Trail day", w.Text(`document.querySelector('.loadouts [aria-current]').textContent`))
	w.Do(chromedp.KeyEvent("?"), chromedp.WaitVisible(chromedp.CSS("dialog[open] kbd")), chromedp.KeyEvent(kb.Escape))
	w.Until(`!document.querySelector('dialog').open`)
	stage("b")
	w.Do(chromedp.SendKeys(chromedp.CSS("#f-name"), "g u ?"))
	assert.Contains(t, w.Text(`document.querySelector('#f-name').value`), "g u ?", "keys rest while one types")
}

// TestBack: what a browser has kept of a page is brought up to date on the way back.
func TestBack(t *testing.T) {
	s := webtest.Of(t, web.Options{Kept: 4 << 20})
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Follow(".plan-card header a")
	w.Follow(`.rail a[href*="/spend"]`)
	was := w.Gauge("cost")
	w.Follow(`.rail a[href*="/gearing"]`)
	w.Do(chromedp.Click(chromedp.CSS(`.pair[data-front="15"][data-rear="47"]`)))
	w.Bench("Rear sprocket 47 T")
	w.Follow("[data-fit]")
	now := w.Gauge("cost")
	require.NotEqual(t, was, now)
	w.Eval(`(setTimeout(() => history.go(-2)), true)`)
	// The page that is left is frozen with whatever polls in it, so it is asked from here.
	shown := `location.pathname.endsWith('/spend') && document.querySelector('.strip [data-gauge="cost"] .gauge-value').textContent === ` + webtest.Quote(now)
	ctx, cancel := w.Step()
	defer cancel()
	require.Eventually(t, func() bool {
		is, err := chromedp.Run(ctx, chromedp.Evaluate[bool](shown))
		return err == nil && is
	}, webtest.Patience, 50*time.Millisecond)
	assert.Contains(t, w.Text(`document.querySelector('main').textContent`), "Rear sprocket 47 T", "nothing was typed, so all of it")
}

// tabs is over how many the walk over every screen is spread.
const tabs = 3

// TestEveryScreen walks the routes: each page that can be looked at, and the
// states that a page can be in, is clean for axe-core in both themes, no wider
// than a phone, and silent on the console.
func TestEveryScreen(t *testing.T) {
	s := webtest.New(t)
	axe := axeCore(t)
	_, path := s.Demo(t)
	nobody := []screen{{"nobody is signed in", "/sign-in"}, {"an account", "/register"}}
	all := screens(t, s, path)
	require.Greater(t, len(all), 20)
	idle := make(chan *webtest.Window, tabs)
	for range tabs {
		w := s.Window(t)
		if nobody != nil {
			for _, at := range nobody {
				t.Run(at.name, func(t *testing.T) { look(w.In(t), axe, at) })
			}
			nobody = nil
		}
		w.Open("/sign-in")
		w.Follow("#demo")
		idle <- w
	}
	t.Run("screens", func(t *testing.T) {
		for _, at := range all {
			t.Run(at.name, func(t *testing.T) {
				t.Parallel()
				w := <-idle
				defer func() { idle <- w }()
				look(w.In(t), axe, at)
			})
		}
	})
	t.Run("states", func(t *testing.T) { states((<-idle).In(t), axe, path) })
}

// screen is a page as it is looked at.
type screen struct{ name, path string }

// axeCore is the script of axe-core.
func axeCore(t *testing.T) string {
	script, err := os.ReadFile("../../third_party/axe-core/axe.min.js")
	require.NoError(t, err)
	return string(script)
}

// look at a screen on a desktop and on a phone.
func look(w *webtest.Window, axe string, at screen) {
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open(at.path)
	clean(w, axe, at.name)
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	w.Until(`document.documentElement.scrollWidth <= 390`)
}

// screens are all that can be looked at by who is signed in: what the routes lead to,
// and states that an address leads to.
func screens(t *testing.T, s *webtest.Site, path string) (all []screen) {
	all = []screen{
		{"a tyre on the bench", path + "/tyres?all=1&try=rear-tyre:lanner-150-70r17"},
		{"a pair on the bench", path + "/gearing?try=rear-sprocket:rear-h6-47"},
		{"a pump shut and a can on the bench", path + "/range?pump=pump-3&try=fuel-cans:cans-2x3"},
		{"boxes on the bench", path + "/load?try=side-bags:boxes-2x36"},
		{"a packing proposed", path + "/packing?propose=on"},
		{"another bike on the bench", path + "/bike?bike=fennick-300"},
		{"a calculator with a mistake", "/calculators/wire?amps=lots"},
		{"a calculator with a plan", "/calculators/axles?plan=" + strings.TrimPrefix(path, "/plans/")},
		{"a part at home, its sheet", "/parts/new?kind=rear-tyre"},
		{"no such page", "/nowhere"},
	}
	routes(t, s, path, func(method, route, path string) {
		file := strings.Contains(route, "/assets/") || strings.HasSuffix(route, "/export") || strings.HasSuffix(route, "/file") || strings.Contains(route, ".")
		if method == "GET" && !file && route != "/healthz" && route != "/livez" && route != "/sign-in" && route != "/register" {
			all = append(all, screen{route, path})
		}
	})
	return all
}

// states are what a page can be in that no address leads to.
func states(w *webtest.Window, axe, path string) {
	w.T.Helper()
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open(path + "/brief")
	w.Fill("#f-distance", "lots")
	w.Follow("#save")
	clean(w, axe, "a form with a mistake")
	w.Do(chromedp.Click(chromedp.CSS(`.strip [data-gauge="cost"]`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] .step")))
	clean(w, axe, "the working in its dialog")
	w.Open("/register")
	w.Follow(`form[action="/sign-out"] button`)
	w.Open("/register")
	w.Fill("#f-name", "Rook")
	w.Fill("#f-password", "a long enough one")
	w.Follow("#register")
	clean(w, axe, "an empty garage")
	w.Fill("#f-name", "New")
	w.Follow("#new-plan")
	for _, st := range web.Stages() {
		w.Follow(`.rail a[data-key="` + st.Key + `"]`)
		clean(w, axe, "an empty plan, "+st.Name)
	}
	w.Site.Visitor(w.T).Post("/sign-in", url.Values{"name": {"Rook"}, "password": {"a long enough one"}})
	look(w, axe, screen{"signed in twice", "/account/safety"})
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Fill("#p-second", "a long enough one")
	w.Follow("#second-on")
	clean(w, axe, "a new second factor")
	w.Open("/account/safety")
	w.Fill("#p-codes", "a long enough one")
	w.Follow("#codes")
	clean(w, axe, "recovery codes")
}

// clean runs axe-core by the rules of WCAG 2.2 AA in both themes.
func clean(w *webtest.Window, axe, name string) {
	w.T.Helper()
	w.Eval(axe + "\n;true")
	for theme, rules := range map[string]string{
		"daylight": `['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']`,
		"garage":   `{type: 'rule', values: ['color-contrast']}`, // the themes differ in their colours alone
	} {
		w.Do(chromedp.SetAttributeValue(chromedp.CSS("html"), "data-theme", theme))
		found := webtest.Ask[string](w, `axe.run({resultTypes: ['violations'], runOnly: `+rules+`}).then((r) => r.violations.map((v) => v.id + ': ' + v.nodes.map((n) => n.target.join(' ') + ' ' + n.failureSummary).slice(0, 3).join('; ')).join('\n'))`, chromedp.EvalAwaitPromise)
		assert.Empty(w.T, found, "%s, %s", name, theme)
	}
}

// TestCalculatesWhileTyping, and names what is wrong by its field.
func TestCalculatesWhileTyping(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open("/calculators/wire")
	input := func(text string) {
		w.Eval(`(() => { const f = document.querySelector('#f-amps'); f.value = '` + text + `'; f.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	}
	input("60")
	w.Until(`document.querySelector('.field.has-error .error') !== null && document.querySelector('.calc-results') === null`)
	input("8")
	w.Until(`document.querySelector('.field.has-error') === null && document.querySelector('.calc-results dd').textContent.includes('1.5')`)
	assert.Contains(t, w.Text(`location.search`), "amps=8")
}
