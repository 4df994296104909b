//go:build !markup

package web_test

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web"
	"valiantmule/internal/web/webtest"
)

// farDown are the pages whose heading or first drawing may stand lower, each with the reason; no
// more than three.
var farDown = map[string]string{}

// headMost is where a page's heading begins at the latest, px, and drawnLeast how much of its first
// drawing is in view where that is less than two thirds of it.
const (
	headMost   = 150
	drawnLeast = 400
)

// TestHeadRoom: at 1280×800, with the bench beside it, every page's heading is in sight at once and
// most of its first drawing.
func TestHeadRoom(t *testing.T) {
	require.LessOrEqual(t, len(farDown), 3)
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	path := demoPlan(w)
	type room struct{ Head, Drawn, Of float64 }
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			w.Open(path + p.ID)
			at := webtest.Ask[room](w, `(() => {
				const box = (e) => e.getBoundingClientRect();
				const drawing = [...document.querySelectorAll('main svg')].find((e) => box(e).height > 80);
				return {
					Head: box(document.querySelector('main h1')).top,
					Drawn: drawing ? Math.min(innerHeight, box(drawing).bottom) - box(drawing).top : 0,
					Of: drawing ? box(drawing).height : 0,
				};
			})()`)
			if farDown[p.ID] == "" {
				assert.LessOrEqual(t, at.Head, float64(headMost), "%s: its heading", p.ID)
				assert.GreaterOrEqual(t, at.Drawn, min(at.Of*2/3, drawnLeast), "%s: its first drawing", p.ID)
			}
		}
	}
}

// demoPlan opens the demo's first plan and tells where its pages are.
func demoPlan(w *webtest.Window) string {
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Follow(".plan-card h2 a")
	return w.Text(`location.pathname.replace(/[^/]*$/, '')`)
}

// shown are the gauges of the strip of which more than a point can be seen, and how each stands there.
const shown = `Object.fromEntries([...document.querySelectorAll('#strip .gauge')].filter((g) => g.offsetHeight > 2)
	.map((g) => [g.dataset.gauge, [...g.classList].find((c) => c.startsWith('as-'))]))`

// TestStrip: one row of what the page settles and what speaks; all of it by a key and by a click;
// what an option moves comes forward, also of those that are quiet.
func TestStrip(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	path := demoPlan(w)
	w.Open(path + "gearing")
	height := func() float64 { return webtest.Ask[float64](w, `document.querySelector('#strip').offsetHeight`) }
	closed := height()
	assert.Less(t, closed, 60.0, "one row")
	strip := webtest.Ask[map[string]string](w, shown)
	assert.Equal(t, "as-large", strip["cruise-rpm"], "the page's own, though it is well")
	assert.Equal(t, "as-large", strip["crawl-speed"])
	assert.NotContains(t, strip, "axle-front", "well, and of another page")
	assert.NotContains(t, strip, "charge-margin")
	order := webtest.Ask[[]string](w, `[...document.querySelectorAll('#strip .gauge')].map((g) => g.dataset.gauge)`)
	assert.Len(t, order, 17, "all are there for a screen reader, once and in order")
	assert.Equal(t, []string{"cost", "loaded-mass"}, order[:2])
	assert.Contains(t, w.Text(`document.querySelector('#strip [data-gauge="axle-front"]').textContent`), "Front axle", "by its whole name")
	small := `[...document.querySelectorAll('#strip .as-mark, #strip summary')].filter((e) => e.offsetHeight > 0 && (e.offsetHeight < 24 || e.offsetWidth < 24)).length`
	assert.Zero(t, webtest.Ask[int](w, small), "targets")

	w.Do(chromedp.KeyEvent("v"))
	w.Until(`Object.keys(` + shown + `).length === 17`)
	assert.Greater(t, height(), closed)
	w.Do(chromedp.KeyEvent("v"))
	w.Until(`document.querySelector('#strip').offsetHeight < 60`)
	w.Do(chromedp.Click(chromedp.CSS(`#strip summary`)))
	w.Until(`Object.keys(` + shown + `).length === 17`)
	w.Do(chromedp.Click(chromedp.CSS(`#strip summary`)))
	w.Until(`document.querySelector('#strip').offsetHeight < 60`)
	w.Eval(`(document.querySelector('#strip [data-gauge="axle-front"]').focus({focusVisible: true}), true)`)
	w.Until(`document.querySelector('#strip [data-gauge="axle-front"]').offsetHeight > 20`) // what has the focus is seen

	w.Open(path + "tyres")
	w.Click(`a.option[href*="lanner-120-80-18"]`)
	w.Bench("Lanner 120/80-18")
	w.Until(`document.querySelector('#strip [data-gauge="charge-margin"]').classList.contains('as-moved')`)
	moved := webtest.Ask[[]string](w, `[...document.querySelectorAll('#bench [data-moves]')].map((r) => r.dataset.moves)`)
	strip = webtest.Ask[map[string]string](w, shown)
	for _, id := range moved {
		assert.Equal(t, "as-moved", strip[id], id)
	}
	assert.Contains(t, w.Text(`document.querySelector('#strip [data-gauge="cost"] .gauge-then').textContent`), w.Text(`document.querySelector('#bench [data-moves="cost"] .now').firstChild.textContent`))
	w.Do(chromedp.KeyEvent(kb.Escape))
	w.Bench("Open points")
	w.Until(`!document.querySelector('#strip .as-moved')`)
}

// TestStripHoldsMoreGauges: with 24 of them, all speaking, it is one row still, from 1000 px on.
func TestStripHoldsMoreGauges(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	path := demoPlan(w)
	for _, width := range []int64{1000, 1280} {
		w.Do(chromedp.EmulateViewport(width, 800))
		w.Open(path + "stance")
		w.Eval(`(() => {
			const list = document.querySelector('#strip .gauges'), like = list.querySelector('.as-mark');
			list.querySelectorAll('.as-quiet').forEach((g) => g.classList.replace('as-quiet', 'as-mark'));
			for (let i = list.querySelectorAll('.gauge').length; i < 24; i++) {
				const more = like.cloneNode(true);
				more.dataset.gauge = 'throwaway-' + i;
				list.append(more);
			}
			return true;
		})()`)
		assert.Less(t, webtest.Ask[float64](w, `document.querySelector('#strip').offsetHeight`), 60.0)
		assert.LessOrEqual(t, webtest.Ask[int64](w, `document.documentElement.scrollWidth`), width)
		last := `document.querySelector('#strip .gauge:last-child')`
		w.Eval(`(` + last + `.focus(), true)`)
		w.Until(`(() => { const a = ` + last + `.getBoundingClientRect(), b = document.querySelector('#strip .gauges').getBoundingClientRect(); return a.left >= b.left - 1 && a.right <= b.right + 1; })()`)
		w.Do(chromedp.KeyEvent("v"))
		w.Until(`document.querySelectorAll('#strip .gauge').length === Object.keys(` + shown + `).length`)
		assert.LessOrEqual(t, webtest.Ask[int64](w, `document.documentElement.scrollWidth`), width)
	}
	w.Do(chromedp.EmulateViewport(390, 844))
	w.Open(path + "stance")
	assert.Empty(t, webtest.Ask[map[string]string](w, shown), "a line, there")
	assert.Equal(t, 3, strings.Count(w.Text(`document.querySelector('#strip summary').innerHTML`), "strip-worst is-"))
}
