//go:build !markup

package web_test

import (
	"strconv"
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
	w, path := s.Desktop(t, "brief")
	type room struct{ Head, Drawn, Of float64 }
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			w.Open(path + "/" + p.ID)
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

// shown are the gauges of the strip of which more than a point can be seen, and how each stands there.
const shown = `Object.fromEntries([...document.querySelectorAll('#strip .gauge')].filter((g) => g.offsetHeight > 2)
	.map((g) => [g.dataset.gauge, [...g.classList].find((c) => c.startsWith('as-'))]))`

// TestStrip: one row of what the page settles and what speaks; all of it by a key and by a click;
// what an option moves comes forward, also of those that are quiet.
func TestStrip(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	w.Open(path + "/gearing")
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

	w.Open(path + "/tyres")
	w.Click(`#w-rear-tyre ~ .table-scroll a.option[href*="lanner-120-80-18"]`)
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
	w, path := s.Desktop(t, "brief")
	for _, width := range []int64{1000, 1280} {
		w.Do(chromedp.EmulateViewport(width, 800))
		w.Open(path + "/stance")
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
	for _, size := range [][2]int64{{390, 844}, {640, 400}} { // a phone, and 1280×800 at 200 %
		w.Do(chromedp.EmulateViewport(size[0], size[1]))
		w.Open(path + "/stance")
		assert.Empty(t, webtest.Ask[map[string]string](w, shown), "a line, there")
		assert.Equal(t, 3, strings.Count(w.Text(`document.querySelector('#strip summary').innerHTML`), "strip-worst is-"))
		assert.LessOrEqual(t, webtest.Ask[int64](w, `document.documentElement.scrollWidth`), size[0])
	}
}

// TestSetAside: a point is set aside on the spot with a reason, stands apart by it, and comes back
// when its number is worse.
func TestSetAside(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	w.Open(path + "/range")
	at := `#bench .point [data-finding="range-short"]`
	w.Do(chromedp.Click(chromedp.CSS(at+` > .set-aside`)), chromedp.WaitVisible(chromedp.CSS(`dialog[open] [name="why.range-short"]`)))
	w.Leads(chromedp.Click(chromedp.CSS("dialog .act:not(.act-quiet)")))
	assert.Contains(t, w.Text(`document.querySelector('[data-error="why.range-short"] .error').textContent`), "Say why", "without a reason nothing is set aside")
	w.Do(chromedp.SendKeys(chromedp.CSS(`[name="why.range-short"]`), "I know: a friend brings a can"))
	w.Leads(chromedp.Click(chromedp.CSS("#aside .act")))
	w.Open(path + "/range")
	assert.Equal(t, 0, webtest.Ask[int](w, `document.querySelectorAll('`+at+`').length`))
	assert.Contains(t, w.Text(`document.querySelector('#bench [data-aside="range-short"]').textContent`), "a friend brings a can")
	assert.Equal(t, "over", w.Text(`document.querySelector('#strip [data-gauge="range"]').dataset.state`), "no gauge moves")

	w.Open(path + "/brief")
	w.Fill("#f-headwind", "70 km/h")
	w.Follow("#save")
	w.Open(path + "/range")
	assert.Contains(t, w.Text(`document.querySelector('`+at+`').textContent`), "worse by a tenth")
}

// TestPointsOfAPage: the bench begins with the page's own points, then those that matter most;
// no more than seven stand open, and each is counted.
func TestPointsOfAPage(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	for page, first := range map[string]string{"tyres": "front-rear-mix", "contact": "seat-for-the-hours", "range": "range-short", "load": "bags-by-the-pipe", "stance": "sag-soft-front"} {
		w.Open(path + "/" + page)
		assert.Equal(t, first, w.Text(`document.querySelector('#bench .point [data-finding]').dataset.finding`), page)
		open := webtest.Ask[int](w, `document.querySelectorAll('#bench .point').length`)
		assert.LessOrEqual(t, open, 7, page)
		folded := webtest.Ask[int](w, `document.querySelectorAll('#bench .point-lines a[data-finding]').length`)
		decide := webtest.Ask[int](w, `parseInt(document.querySelector('#bench h2 .quiet').textContent)`)
		assert.Equal(t, decide, open+folded, page)
		assert.Equal(t, decide, webtest.Ask[int](w, `[...document.querySelectorAll('.rail-count')].reduce((n, c) => n + parseInt(c.textContent), 0)`), page)
	}
}

// TestOptionsFold: beside the plan's part the five that do most stand open, the rest is there by a
// click, and by words.
func TestOptionsFold(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	w.Open(path + "/tyres")
	list := `document.querySelector('#w-rear-tyre').parentNode`
	seen := `[...` + list + `.querySelectorAll('[data-row]')].filter((r) => r.offsetHeight > 0).length`
	all := webtest.Ask[int](w, list+`.querySelectorAll('[data-row]').length`)
	open := webtest.Ask[int](w, seen)
	assert.LessOrEqual(t, open, 7, "standard, the plan's and five")
	assert.Greater(t, all, open)
	assert.Equal(t, 1, webtest.Ask[int](w, `[...`+list+`.querySelectorAll('.is-current')].filter((r) => r.offsetHeight > 0).length`), "the plan's stands open")
	w.Do(chromedp.Click(chromedp.CSS(`#w-rear-tyre ~ .table-scroll .fold-row input`)))
	w.Until(seen + ` > ` + strconv.Itoa(open))
	w.Do(chromedp.SendKeys(chromedp.CSS(`[data-find="w-rear-tyre"]`), "hackle 110"))
	w.Until(seen + ` === 1`)
	assert.Contains(t, w.Text(`[...`+list+`.querySelectorAll('[data-row]')].find((r) => r.offsetHeight > 0).textContent`), "Hackle 110/100-18")
	assert.Contains(t, w.Text(`document.querySelector('#w-tyre-pairs').parentNode.textContent`), "The pair lasts", "both of one pattern are one option")
}

// TestPrint: on paper a page is that page.
func TestPrint(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	for _, page := range []string{"brief", "stance", "range", "points"} {
		w.Open(path + "/" + page)
		assert.LessOrEqual(t, w.Sheets(), 2, page)
	}
	w.Open(path + "/stance")
	w.Media("print")
	assert.Equal(t, 0, webtest.Ask[int](w, `document.querySelector('#bench').offsetHeight + document.querySelector('#tabs').offsetHeight`))
	assert.Len(t, webtest.Ask[map[string]string](w, shown), 17, "all gauges, in lines")
	box := `[...document.querySelectorAll('main input[value=""]')].filter((f) => f.type === 'text' && f.offsetHeight > 0).length`
	assert.Zero(t, webtest.Ask[int](w, box), "boxes to write into")
	w.Media("")
	w.Do(chromedp.Click(chromedp.CSS("#print-boxes")))
	w.Media("print")
	assert.Positive(t, webtest.Ask[int](w, box), "where they are ticked")
	w.Media("")
	w.Do(chromedp.Click(chromedp.CSS("#print-points")))
	w.Media("print")
	assert.Positive(t, webtest.Ask[int](w, `document.querySelector('#bench').offsetHeight`), "where it is ticked")
}

// TestRail: eighteen stages are read as easily as twelve; on a phone the open one is in sight.
func TestRail(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	w.Open(path + "/spend")
	assert.Equal(t, []string{"Know", "Fit", "Settle", "Go"}, webtest.Ask[[]string](w, `[...document.querySelectorAll('.rail-group')].map((g) => g.textContent)`))
	w.Eval(`(() => {
		const list = document.querySelector('.rail ol');
		while (list.children.length < 18) list.append(list.children[1].cloneNode(true)); // one that begins no group
		return true;
	})()`)
	assert.LessOrEqual(t, webtest.Ask[float64](w, `document.querySelector('.rail').scrollHeight`), 800-53.0, "all of them in sight, beneath the strip")
	w.Do(chromedp.EmulateViewport(390, 844))
	w.Open(path + "/spend")
	w.Until(`(() => { const at = document.querySelector('.rail a[aria-current]').getBoundingClientRect(); return at.left >= 0 && at.right <= innerWidth; })()`)
}

// TestHelp: what a page is for in five lines, with its words, by a key; a label leads to its word.
func TestHelp(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			w.Open(path + "/" + p.ID)
			w.Do(chromedp.KeyEvent("?"), chromedp.WaitVisible(chromedp.CSS("dialog[open] #help")))
			lines := webtest.Ask[int](w, `document.querySelectorAll('dialog .help-lines li').length`)
			assert.True(t, lines >= 1 && lines <= 5, "%s: %d lines", p.ID, lines)
			assert.Positive(t, webtest.Ask[int](w, `document.querySelectorAll('dialog .words dt').length`), p.ID)
		}
	}
	w.Open(path + "/stance")
	w.Do(chromedp.Click(chromedp.CSS(`label[for="f-front_preload"] .term`)), chromedp.WaitVisible(chromedp.CSS("dialog[open] #w-preload")))
}
