//go:build !markup

package web_test

import (
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// The times of a keystroke-level model, seconds [pub: Card, Moran, Newell, The Psychology of
// Human-Computer Interaction (1983), ch. 8: K 0.28 of an average typist without practice, P 1.1 to
// point, M 1.35 to prepare].
const (
	klmKey     = 0.28
	klmPoint   = 1.1
	klmPrepare = 1.35
)

// minute is a rider's hand with a watch on it.
type minute struct {
	*webtest.Window
	inputs  int
	seconds float64
}

// types a text into a field.
func (m *minute) types(selector, text string) {
	m.T.Helper()
	m.Fill(selector, text)
	m.inputs++
	m.seconds += klmPrepare + klmPoint + klmKey*float64(utf8.RuneCountInString(text))
}

// picks a line of a list: it is opened, and a line is pointed at.
func (m *minute) picks(selector, value string) {
	m.T.Helper()
	m.Fill(selector, value)
	m.inputs++
	m.seconds += klmPrepare + 2*klmPoint
}

// slides a slider: to its knob, and to where it goes.
func (m *minute) slides(selector, value string) {
	m.T.Helper()
	m.Fill(selector, value)
	m.inputs++
	m.seconds += klmPrepare + 2*klmPoint
}

// presses a button.
func (m *minute) presses(selector string) {
	m.T.Helper()
	m.Follow(selector)
	m.seconds += klmPoint
}

// TestVerdictInAMinute: from an empty garage to a first screen with figures takes no more than 15
// inputs and a minute at a person's pace, at a desk and on a phone; three guesses are answered on
// the spot and what they left open closes; and the long way is a step away.
func TestVerdictInAMinute(t *testing.T) {
	s := webtest.New(t)
	axe := axeCore(t)
	for _, on := range []struct {
		name          string
		width, height int
		options       []chromedp.EmulateViewportOption
	}{{"desk", 1280, 800, nil}, {"phone", 390, 844, []chromedp.EmulateViewportOption{chromedp.EmulateMobile}}} {
		t.Run(on.name, func(t *testing.T) {
			w := s.Window(t)
			m := &minute{Window: w}
			w.Do(chromedp.EmulateViewport(int64(on.width), int64(on.height), on.options...))
			w.Open("/register")
			w.Fill("#f-name", "minute "+on.name)
			w.Fill("#f-password", "a long enough one")
			w.Follow("#register")

			m.presses("#in-a-minute")
			w.Until(`document.documentElement.scrollWidth <= innerWidth`)
			clean(w, axe, "the minute's start")
			m.picks("#f-bike", "kind:dual-sport")
			m.types("#f-displacement", "400")
			m.types("#f-rider", "203 lb")
			m.types("#f-stature", "71 in")
			m.types("#f-distance", "1500 mi")
			m.types("#f-gap", "160 mi")
			m.types("#f-start", "2027-06-12")
			m.slides("#f-gravel", "6")
			m.types("#f-budget", "1600")
			m.picks("#f-bothers", "stance")
			m.presses("#start")
			t.Logf("%s: %d inputs, %.0f s", on.name, m.inputs, m.seconds)
			assert.LessOrEqual(t, m.inputs, 15)
			assert.LessOrEqual(t, m.seconds, 60.0)

			lone := w.Text(`[...document.querySelectorAll('.strip .gauge')].filter((g) => g.querySelector('.gauge-value').textContent.trim() === '?').map((g) => g.dataset.gauge).join(' ')`)
			assert.Equal(t, "tyre-load", lone, "only what no guess may stand for")
			clean(w, axe, "what matters")
			w.Until(`document.documentElement.scrollWidth <= innerWidth`)
			w.Until(`document.querySelectorAll('#measure .guess').length === 3`)
			if on.name == "desk" { // a remedy of what matters lies on the bench by pointing at it
				w.Do(chromedp.Click(chromedp.CSS("main .finding ~ .remedy, main .finding .remedy")))
				w.Until(`document.querySelector('#bench.is-empty') === null`)
				clean(w, axe, "what matters, a remedy on the bench")
			}

			w.Follow(`#tabs a[href*="/guesses"]`)
			clean(w, axe, "guesses")
			w.Until(`document.documentElement.scrollWidth <= innerWidth`)
			could := webtest.Ask[int](w, `document.querySelectorAll('#measure .guess').length`)
			for at, answer := range map[string]string{"bike/seat_height": "35.6", "bike/clearance": "10.2", "bike/tank": "2.9"} {
				band := w.Text(`document.querySelector('[data-guess="` + at + `"] .guess-band').textContent`)
				assert.Contains(t, band, " to ", at)
				w.Eval(`(document.querySelectorAll('main details').forEach((d) => d.open = true), true)`) // some change nothing now
				form := `[data-guess="` + at + `"] form `
				w.Fill(form+`[name="value"]`, answer)
				w.Text(`(document.querySelector('` + form + `button').scrollIntoView({block: 'center', behavior: 'instant'}), '')`) // the strip stands over the page's top
				w.Follow(form + "button")
				w.Until(`document.querySelector('[data-guess="` + at + `"]') === null`)
			}
			assert.Less(t, webtest.Ask[int](w, `document.querySelectorAll('#measure .guess').length`), could)
			assert.NotContains(t, w.Text(`(document.querySelector('.strip [data-gauge="seat-reach"] .gauge-needs') || {textContent: ''}).textContent`), "seat height", "another guess leads now")

			// A wrong answer stays where it was typed; the keyboard alone sends the right one.
			field := `[data-guess="bike/wheelbase"] [name="value"]`
			w.Eval(`(document.querySelectorAll('main details').forEach((d) => d.open = true), true)`)
			w.Fill(field, "long")
			w.Text(`(document.querySelector('[data-guess="bike/wheelbase"] button').scrollIntoView({block: 'center', behavior: 'instant'}), '')`)
			w.Follow(`[data-guess="bike/wheelbase"] button`)
			w.Until(`document.querySelector('[data-guess="bike/wheelbase"] .error') !== null`)
			assert.Equal(t, "long", w.Text(`document.querySelector('`+strings.ReplaceAll(field, `'`, `"`)+`').value`))
			w.Eval(`(document.querySelectorAll('main details').forEach((d) => d.open = true), ((f) => { f.focus(); f.select(); })(document.querySelector('` + field + `')), true)`)
			w.Leads(chromedp.KeyEvent("57.5" + kb.Enter))
			w.Until(`document.querySelector('[data-guess="bike/wheelbase"]') === null`)

			// The long way: the sheet has what was answered, and what is still guessed in its fields.
			w.Open(w.Text(`location.pathname.replace('/guesses', '/sheet')`))
			assert.Equal(t, "35.6 in", w.Text(`document.querySelector('#f-seat_height').value`))
			assert.Contains(t, w.Text(`document.querySelector('#f-kerb_mass').placeholder`), "≈")
			clean(w, axe, "the sheet of a bike that is guessed")
		})
	}
}
