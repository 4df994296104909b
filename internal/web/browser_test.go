package web_test

import (
	"context"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/browser/browsertest"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/format"
	"valiantmule/internal/web"
	"valiantmule/internal/words"
)

// window is a browser's tab on a site; what its console says is a failure.
type window struct {
	t    *testing.T
	tab  context.Context
	site *site
	// expects are parts of what the console may say.
	expects []string
}

// patience bounds one step of a browser test, not a whole one: a slow machine takes
// longer over all of them, but over none so long. Nothing waits by the clock.
const patience = 3 * time.Minute

func (s *site) window(t *testing.T) *window {
	t.Helper()
	tab := browsertest.Tab(t)
	said := make(chan string, 100)
	messages := chromedp.Console(tab)
	go func() {
		defer close(said)
		for m, err := range messages {
			if err != nil {
				return
			}
			said <- m.String()
		}
	}()
	// A refused form or a page that is not there is an answer, not an error of the
	// page.
	w := &window{t: t, tab: tab, site: s, expects: []string{"status of 422", "status of 409", "status of 404"}}
	t.Cleanup(func() {
		for {
			select {
			case m, open := <-said:
				if !open {
					return
				}
				if !slices.ContainsFunc(w.expects, func(part string) bool { return strings.Contains(m, part) }) {
					assert.Fail(t, "the console speaks", m)
				}
			default:
				return
			}
		}
	})
	return w
}

// in is the window of a subtest, which is told what fails.
func (w *window) in(t *testing.T) *window {
	mine := *w
	mine.t = t
	return &mine
}

// step bounds what is done next.
func (w *window) step() (context.Context, context.CancelFunc) {
	return context.WithTimeout(w.tab, patience)
}

func (w *window) do(steps ...chromedp.Action[chromedp.Void]) {
	w.t.Helper()
	for _, s := range steps {
		ctx, cancel := w.step()
		err := chromedp.Do(ctx, s)
		cancel()
		require.NoError(w.t, err)
	}
}

func (w *window) open(path string) { w.t.Helper(); w.do(chromedp.Navigate(w.site.URL + path)) }

// leads does something that leads to another page and waits for it: the page that
// was marked is gone, and the one in its place has loaded.
func (w *window) leads(steps ...chromedp.Action[chromedp.Void]) {
	w.t.Helper()
	w.eval(`(window.marked = true)`)
	w.do(steps...)
	w.until(`!window.marked`)
}

// follow clicks something that leads to another page and waits for it.
func (w *window) follow(selector string) {
	w.t.Helper()
	w.leads(chromedp.Click(chromedp.CSS(selector)))
}

func (w *window) fill(selector, text string) {
	w.t.Helper()
	w.do(chromedp.SetValue(chromedp.CSS(selector), text))
	w.eval(`document.querySelector('` + selector + `').dispatchEvent(new Event('change', {bubbles: true})), true`)
}

// eval does something in the page; the script says true when it could.
func (w *window) eval(script string) {
	w.t.Helper()
	require.True(w.t, ask[bool](w, script), script)
}

func (w *window) text(script string) string {
	w.t.Helper()
	return strings.ReplaceAll(ask[string](w, script), "\u00a0", " ")
}

// ask is what a script comes to in the page.
func ask[T any](w *window, script string, options ...chromedp.EvaluateOption) T {
	w.t.Helper()
	ctx, cancel := w.step()
	defer cancel()
	answer, err := chromedp.Run(ctx, chromedp.Evaluate[T](script, options...))
	require.NoError(w.t, err, script)
	return answer
}

// until waits for a condition of the page, and for the page to have loaded: before
// that its script does not listen yet. A poll does not survive the page being
// replaced under it, so it is asked again.
func (w *window) until(condition string) {
	w.t.Helper()
	condition = "document.readyState === 'complete' && (" + condition + ")"
	ctx, cancel := w.step()
	defer cancel()
	for {
		_, err := chromedp.Run(ctx, chromedp.Poll[bool](condition, chromedp.WithPollingTimeout(patience)))
		replaced := err != nil && (strings.Contains(err.Error(), "context with specified id") || strings.Contains(err.Error(), "navigated or closed") || strings.Contains(err.Error(), "context was destroyed"))
		if !replaced || ctx.Err() != nil {
			require.NoError(w.t, err, condition)
			return
		}
	}
}

// bench waits until something lies on the bench.
func (w *window) bench(title string) {
	w.t.Helper()
	w.until(`document.querySelector('#bench h2').textContent.includes(` + quote(title) + `)`)
}

func quote(s string) string { return `"` + strings.ReplaceAll(s, `"`, `\"`) + `"` }

func (w *window) gauge(id string) string {
	w.t.Helper()
	return w.text(`document.querySelector('.strip [data-gauge="` + id + `"] .gauge-value').textContent`)
}

// core is what a gauge should show of a plan loaded to travel.
func core(t *testing.T, p *plan.Plan, id figure.ID) string {
	t.Helper()
	return coreIn(t, p, "travel", id)
}

func coreIn(t *testing.T, p *plan.Plan, loadout string, id figure.ID) string {
	t.Helper()
	report, err := eval.EvaluateLoadout(p, nil, loadout, "2026-11-26")
	require.NoError(t, err)
	f, ok := report.Figure(id)
	require.True(t, ok)
	return strings.ReplaceAll(words.Units(nil).Value(f), "\u00a0", " ")
}

// TestMainJob is the job of the product, by a new rider: account, plan, brief,
// bike, tyre and sprocket by preview and then choice, undo, the working, export,
// import.
func TestMainJob(t *testing.T) {
	s := newSite(t)
	w := s.window(t)
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open("/register")
	w.fill("#f-name", "Rook")
	w.fill("#f-password", "a long enough one")
	w.follow("#register")
	w.fill("#f-name", "Autumn")
	w.follow("#new-plan")

	// The brief, first with a mistake: it is named, and nothing typed is lost.
	for field, text := range map[string]string{"distance": "3000", "cruise": "100", "walking_pace": "12", "rider": "95", "budget": "900"} {
		w.fill("#f-"+field, text)
	}
	w.fill(`[name="share.paved"]`, "50")
	w.fill(`[name="share.sand"]`, "40")
	w.until(`document.querySelector('#bench .bench-problem') !== null`)
	w.follow("#save")
	assert.Equal(t, "3000", w.text(`document.querySelector('#f-distance').value`))
	assert.Contains(t, w.text(`document.querySelector('.block.has-error .error').textContent`), "90 %")
	w.fill(`[name="share.sand"]`, "50")
	w.follow("#save")
	assert.Equal(t, "3000 km", w.text(`document.querySelector('#f-distance').value`), "saved with its unit")

	// A bike, looked at and then taken.
	w.follow(`.rail a[href*="/bike"]`)
	w.do(chromedp.Click(chromedp.CSS(`[data-bike="holt-650"]`)))
	w.bench("Holt 650 Drover")
	assert.Equal(t, "?", w.gauge("cruise-rpm"), "looking takes nothing")
	w.follow("[data-fit]")
	shelf, err := demo.Parts()
	require.NoError(t, err)
	p := s.newest(t, "Rook")
	require.Equal(t, bikeOf(t, "holt-650"), p.Bike)
	assert.Equal(t, core(t, p, "cruise-rpm"), w.gauge("cruise-rpm"))

	// A tyre, by pointing at its row and then by its button.
	w.follow(`.rail a[href*="/tyres"]`)
	w.do(chromedp.Click(chromedp.CSS(`a.option[href*="bracken-140-80-18"]`)))
	w.bench("Bracken 140/80-18")
	with := p.With(plan.Choice{Slot: plan.RearTyre, Part: shelf.Find(p.Bike, plan.RearTyre, "bracken-140-80-18"), Need: plan.Needed})
	assert.Equal(t, core(t, p, "cruise-rpm"), w.gauge("cruise-rpm"), "on the bench, not in the plan")
	assert.Contains(t, strings.ReplaceAll(w.text(`document.querySelector('#bench .moves').textContent`), "\u202f", " "), core(t, with, "cruise-rpm"))
	w.until(`document.querySelector('#bench [data-finding="tyre-moves-gearing"]') !== null`)
	w.follow("[data-fit]")
	assert.Equal(t, with.Lines, s.newest(t, "Rook").Lines)
	assert.Equal(t, core(t, with, "crawl-speed"), w.gauge("crawl-speed"), "the verdict says what the core says")

	// The remedy of a finding is the next preview; leave it, take another pair by
	// the arrow keys.
	w.follow(`.rail a[href*="/gearing"]`)
	w.do(chromedp.Click(chromedp.CSS(`[data-finding="tyre-moves-gearing"] .remedy`)))
	w.bench("Rear sprocket 45 T")
	w.do(chromedp.Click(chromedp.CSS("[data-leave]")))
	w.bench("Open points")
	w.do(chromedp.Focus(chromedp.CSS(".pair.is-current")), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.Enter))
	w.bench("Rear sprocket 46 T")
	w.until(`document.querySelector('#fan .ray-ghost') !== null`)
	w.follow("[data-fit]")
	geared := with.With(plan.Choice{Slot: plan.RearSprocket, Part: shelf.Find(p.Bike, plan.RearSprocket, "rear-h6-46"), Need: plan.Needed})
	assert.Equal(t, core(t, geared, "cruise-rpm"), w.gauge("cruise-rpm"))
	assert.Equal(t, core(t, geared, "cost"), w.gauge("cost"))

	// Undo, and again.
	w.follow(`form[action$="/undo"] button`)
	assert.Equal(t, core(t, with, "cruise-rpm"), w.gauge("cruise-rpm"))
	w.follow(`form[action$="/redo"] button`)
	assert.Equal(t, core(t, geared, "cruise-rpm"), w.gauge("cruise-rpm"))

	// The working of a figure.
	w.do(chromedp.Click(chromedp.CSS(`.strip [data-gauge="crawl-speed"]`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] .step")))
	assert.Contains(t, w.text(`document.querySelector('dialog').textContent`), "overall = primary × gear × rear / front")
	w.do(chromedp.Click(chromedp.CSS("dialog button")))
	w.until(`!document.querySelector('dialog').open`)

	// Away as a file and back again.
	file := filepath.Join(t.TempDir(), "autumn.json")
	out, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, format.WritePlan(out, s.newest(t, "Rook")))
	require.NoError(t, out.Close())
	exported := w.text(`(() => { const r = new XMLHttpRequest(); r.open('GET', document.querySelector('a[href$="/export"]').href, false); r.send(); return r.responseText; })()`)
	written, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, string(written), exported)
	w.open("/garage")
	w.do(chromedp.SetUploadFiles(chromedp.CSS("#f-file"), []string{file}))
	w.follow("#import")
	assert.Equal(t, core(t, geared, "cruise-rpm"), w.gauge("cruise-rpm"))
	w.follow(`form[action="/sign-out"] button`)
	w.until(`location.pathname === '/sign-in'`)
}

// bikeOf is a bike of the demo catalogue.
func bikeOf(t *testing.T, id string) *plan.Bike {
	t.Helper()
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	at := slices.IndexFunc(bikes, func(b *plan.Bike) bool { return b.ID == id })
	require.NotEqual(t, -1, at, id)
	return bikes[at]
}

// newest is the plan that a rider changed last, as it is stored.
func (s *site) newest(t *testing.T, name string) *plan.Plan {
	t.Helper()
	rider, err := s.store.RiderByName(ctx, name)
	require.NoError(t, err)
	plans, err := s.store.Plans(ctx, rider.ID)
	require.NoError(t, err)
	return plans[0].Plan
}

// TestOnAPhone: by touch, at 390 px; nothing is wider than the screen.
func TestOnAPhone(t *testing.T) {
	s := newSite(t)
	w := s.window(t)
	w.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
	w.open("/sign-in")
	w.follow("#demo")
	w.follow(".plan-card h2 a")
	for _, st := range web.Stages() {
		w.follow(`.rail a[data-key="` + st.Key + `"]`)
		w.until(`document.documentElement.scrollWidth <= 390`)
	}
	w.follow(`.rail a[href*="/gearing"]`)
	w.until(`document.querySelector('#strip').getBoundingClientRect().bottom <= 120`) // header and strip, one line each
	assert.Equal(t, 3, ask[int](w, `document.querySelectorAll('.strip-worst').length`))
	w.do(chromedp.Click(chromedp.CSS(`.strip-line summary`)), chromedp.WaitVisible(chromedp.CSS(`.strip [data-gauge="cost"]`)))
	w.do(chromedp.Click(chromedp.CSS(`.strip-line summary`)), chromedp.WaitNotVisible(chromedp.CSS(`.strip [data-gauge="cost"]`)))
	w.do(chromedp.Tap(chromedp.CSS(`.pair[data-front="15"][data-rear="47"]`)))
	w.bench("Rear sprocket 47 T")
	w.until(`document.querySelector('#bench').getBoundingClientRect().top < window.innerHeight`)
}

// TestPointing: a mouse over an option lays it on the bench, a click holds it
// there.
func TestPointing(t *testing.T) {
	s := newSite(t)
	w := s.window(t)
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open("/sign-in")
	w.follow("#demo")
	w.follow(".plan-card h2 a")
	w.follow(`.rail a[href*="/tyres"]`)
	point := func(id string) {
		w.eval(`document.querySelector('a.option[href*="` + id + `"]').dispatchEvent(new PointerEvent('pointerover', {bubbles: true, pointerType: 'mouse'})), true`)
	}
	point("wether-130-80-18")
	w.bench("Wether 130/80-18")
	w.do(chromedp.Click(chromedp.CSS(`a.option[href*="lanner-120-80-18"]`)))
	w.bench("Lanner 120/80-18")
	assert.Contains(t, w.text(`location.search`), "lanner-120-80-18", "the address leads back to what lies there")
	point("wether-130-80-18")
	w.do(chromedp.Click(chromedp.CSS(`a.option[href*="scree-120-100-18"]`)))
	w.bench("Scree 120/100-18")
}

// TestKeys: the plan by keys alone.
func TestKeys(t *testing.T) {
	s := newSite(t)
	w := s.window(t)
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open("/sign-in")
	w.follow("#demo")
	w.follow(".plan-card h2 a")
	key := func(keys string) { t.Helper(); w.leads(chromedp.KeyEvent(keys)) }
	stage := func(key string) { t.Helper(); w.do(chromedp.KeyEvent("g")); w.leads(chromedp.KeyEvent(key)) }
	for _, st := range web.Stages() {
		stage(st.Key)
		assert.Contains(t, w.text(`location.pathname`), "/"+string(st.ID))
	}
	w.do(chromedp.KeyEvent("g"), chromedp.KeyEvent("?"), chromedp.WaitVisible(chromedp.CSS("dialog[open] kbd")))
	for _, st := range web.Stages() {
		assert.Contains(t, w.text(`document.querySelector('.keys-stages').textContent`), st.Key+" "+st.Name)
	}
	w.do(chromedp.KeyEvent(kb.Escape))
	w.until(`!document.querySelector('dialog').open`)
	stage("g")
	w.do(chromedp.KeyEvent("/"), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.Enter))
	w.bench("Rear sprocket 44 T")
	w.do(chromedp.KeyEvent(kb.Escape))
	w.bench("Open points")
	w.do(chromedp.KeyEvent("/"), chromedp.KeyEvent(kb.Enter)) // the field keeps its place
	w.bench("Rear sprocket 44 T")
	w.do(chromedp.KeyEvent("b"))
	key(kb.Enter)
	assert.Equal(t, "4695 rpm", w.gauge("cruise-rpm"))
	key("u")
	assert.Equal(t, "4588 rpm", w.gauge("cruise-rpm"))
	key("r")
	assert.Equal(t, "4695 rpm", w.gauge("cruise-rpm"))
	key("l")
	assert.Equal(t, "Trail day", w.text(`document.querySelector('.loadouts [aria-current]').textContent`))
	w.do(chromedp.KeyEvent("?"), chromedp.WaitVisible(chromedp.CSS("dialog[open] kbd")), chromedp.KeyEvent(kb.Escape))
	w.until(`!document.querySelector('dialog').open`)
	stage("b")
	w.do(chromedp.SendKeys(chromedp.CSS("#f-name"), "g u ?"))
	assert.Contains(t, w.text(`document.querySelector('#f-name').value`), "g u ?", "keys rest while one types")
}

// TestBack: what a browser has kept of a page is brought up to date on the way back.
func TestBack(t *testing.T) {
	s := siteOf(t, web.Options{Kept: 4 << 20})
	w := s.window(t)
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open("/sign-in")
	w.follow("#demo")
	w.follow(".plan-card h2 a")
	w.follow(`.rail a[href*="/spend"]`)
	was := w.gauge("cost")
	w.follow(`.rail a[href*="/gearing"]`)
	w.do(chromedp.Click(chromedp.CSS(`.pair[data-front="15"][data-rear="47"]`)))
	w.bench("Rear sprocket 47 T")
	w.follow("[data-fit]")
	now := w.gauge("cost")
	require.NotEqual(t, was, now)
	w.eval(`(setTimeout(() => history.go(-2)), true)`)
	// The page that is left is frozen with whatever polls in it, so it is asked from here.
	shown := `location.pathname.endsWith('/spend') && document.querySelector('.strip [data-gauge="cost"] .gauge-value').textContent === ` + quote(now)
	ctx, cancel := w.step()
	defer cancel()
	require.Eventually(t, func() bool {
		is, err := chromedp.Run(ctx, chromedp.Evaluate[bool](shown))
		return err == nil && is
	}, patience, 50*time.Millisecond)
	assert.Contains(t, w.text(`document.querySelector('main').textContent`), "Rear sprocket 47 T", "nothing was typed, so all of it")
}

// tabs is over how many the walk over every screen is spread.
const tabs = 3

// TestEveryScreen walks the routes: each page that can be looked at, and the
// states that a page can be in, is clean for axe-core in both themes, no wider
// than a phone, and silent on the console.
func TestEveryScreen(t *testing.T) {
	s := newSite(t)
	script, err := os.ReadFile("../../third_party/axe-core/axe.min.js")
	require.NoError(t, err)
	axe := string(script)
	_, path := s.demo(t)
	nobody := []screen{{"nobody is signed in", "/sign-in"}, {"an account", "/register"}}
	screens := s.screens(t, path)
	require.Greater(t, len(screens), 20)
	look := func(w *window, at screen) {
		w.do(chromedp.EmulateViewport(1280, 800))
		w.open(at.path)
		w.clean(axe, at.name)
		w.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
		w.until(`document.documentElement.scrollWidth <= 390`)
	}
	idle := make(chan *window, tabs)
	for range tabs {
		w := s.window(t)
		if nobody != nil {
			for _, at := range nobody {
				t.Run(at.name, func(t *testing.T) { look(w.in(t), at) })
			}
			nobody = nil
		}
		w.open("/sign-in")
		w.follow("#demo")
		idle <- w
	}
	t.Run("screens", func(t *testing.T) {
		for _, at := range screens {
			t.Run(at.name, func(t *testing.T) {
				t.Parallel()
				w := <-idle
				defer func() { idle <- w }()
				look(w.in(t), at)
			})
		}
	})
	t.Run("states", func(t *testing.T) { (<-idle).in(t).states(axe, path) })
}

// screen is a page as it is looked at.
type screen struct{ name, path string }

// screens are all that can be looked at by who is signed in: what the routes lead to,
// and states that an address leads to.
func (s *site) screens(t *testing.T, path string) []screen {
	screens := []screen{
		{"a tyre on the bench", path + "/tyres?all=1&try=rear-tyre:lanner-150-70r17"},
		{"a pair on the bench", path + "/gearing?try=rear-sprocket:rear-h6-47"},
		{"a pump shut and a can on the bench", path + "/range?pump=pump-3&try=fuel-cans:cans-2x3"},
		{"boxes on the bench", path + "/load?try=side-bags:boxes-2x36"},
		{"a packing proposed", path + "/packing?propose=on"},
		{"another bike on the bench", path + "/bike?bike=fennick-300"},
		{"a calculator with a mistake", "/calculators/wire?amps=lots"},
		{"a calculator with a plan", "/calculators/axles?plan=" + strings.TrimPrefix(path, "/plans/")},
		{"no such page", "/nowhere"},
	}
	routes(t, s, path, func(method, route, path string) {
		file := strings.Contains(route, "/assets/") || strings.HasSuffix(route, "/export") || strings.Contains(route, ".")
		if method == "GET" && !file && route != "/healthz" && route != "/sign-in" && route != "/register" {
			screens = append(screens, screen{route, path})
		}
	})
	return screens
}

// states are what a page can be in that no address leads to.
func (w *window) states(axe, path string) {
	w.t.Helper()
	w.do(chromedp.EmulateViewport(1280, 800))
	w.open(path + "/brief")
	w.fill("#f-distance", "lots")
	w.follow("#save")
	w.clean(axe, "a form with a mistake")
	w.do(chromedp.Click(chromedp.CSS(`.strip [data-gauge="cost"]`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] .step")))
	w.clean(axe, "the working in its dialog")
	w.open("/register")
	w.follow(`form[action="/sign-out"] button`)
	w.open("/register")
	w.fill("#f-name", "Rook")
	w.fill("#f-password", "a long enough one")
	w.follow("#register")
	w.clean(axe, "an empty garage")
	w.fill("#f-name", "New")
	w.follow("#new-plan")
	for _, st := range web.Stages() {
		w.follow(`.rail a[data-key="` + st.Key + `"]`)
		w.clean(axe, "an empty plan, "+st.Name)
	}
}

// clean runs axe-core by the rules of WCAG 2.2 AA in both themes.
func (w *window) clean(axe, name string) {
	w.t.Helper()
	w.eval(axe + "\n;true")
	for _, theme := range []string{"daylight", "garage"} {
		w.do(chromedp.SetAttributeValue(chromedp.CSS("html"), "data-theme", theme))
		found := ask[string](w, `axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']}).then((r) => r.violations.map((v) => v.id + ': ' + v.nodes.map((n) => n.target.join(' ') + ' ' + n.failureSummary).slice(0, 3).join('; ')).join('\n'))`, chromedp.EvalAwaitPromise)
		assert.Empty(w.t, found, "%s, %s", name, theme)
	}
}

// TestCalculatesWhileTyping, and names what is wrong by its field.
func TestCalculatesWhileTyping(t *testing.T) {
	s := newSite(t)
	w := s.window(t)
	w.open("/sign-in")
	w.follow("#demo")
	w.open("/calculators/wire")
	input := func(text string) {
		w.eval(`(() => { const f = document.querySelector('#f-amps'); f.value = '` + text + `'; f.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	}
	input("60")
	w.until(`document.querySelector('.field.has-error .error') !== null && document.querySelector('.calc-results') === null`)
	input("8")
	w.until(`document.querySelector('.field.has-error') === null && document.querySelector('.calc-results dd').textContent.includes('1.5')`)
	assert.Contains(t, w.text(`location.search`), "amps=8")
}
