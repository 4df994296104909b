//go:build !markup

package ranging_test

import (
	"net/url"
	"os"
	"path/filepath"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestRangeInABrowser: bring the route in, shut a pump, put a carrier on by preview,
// and the leg turns ok.
func TestRangeInABrowser(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	_, path := s.Demo(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/route?loadout=travel")
	file := filepath.Join(t.TempDir(), "tour.gpx")
	require.NoError(t, os.WriteFile(file, tour(t), 0o600))
	w.Do(chromedp.SetUploadFiles(chromedp.ID("gpx"), []string{file}))
	w.Eval(`document.querySelector('form[data-upload] button').click(), true`)
	w.Until(`document.querySelectorAll('.key .way-unsaid').length === 1 && document.querySelectorAll('#above .pump').length > 7`)

	// The address is the same before and after, so the page is told apart by a mark.
	save := func() {
		w.Eval(`(window.before = true, document.getElementById('save').focus(), true)`)
		w.Do(chromedp.KeyEvent(kb.Enter))
		w.Until(`!window.before && document.readyState === 'complete'`)
	}
	// Drag across the heights: the stretch is filled in, and the ground tried.
	w.Eval(`(() => {
		const svg = document.querySelector('svg.sections'), box = svg.getBoundingClientRect();
		const at = (share) => ({bubbles: true, button: 0, pointerType: 'pen', pointerId: 1, clientX: box.left + share * box.width, clientY: box.top + 40});
		svg.dispatchEvent(new PointerEvent('pointerdown', at(0.3)));
		svg.dispatchEvent(new PointerEvent('pointermove', at(0.5)));
		svg.dispatchEvent(new PointerEvent('pointerup', at(0.5)));
		return document.activeElement.name === 'ground.0' && parseFloat(document.querySelector('[name="to.0"]').value) > parseFloat(document.querySelector('[name="from.0"]').value) + 100;
	})()`)
	w.Fill(`[name="ground.0"]`, "sand")
	w.Bench("The route as typed")
	w.Until(`document.querySelectorAll('#above .way-sand').length > 0`)
	save()
	assert.Equal(t, "sand", w.Text(`document.querySelector('[name="ground.0"]').value`))
	w.Fill(`[name="ground.0"]`, "")
	save()

	w.Open(path + "/range?loadout=travel")
	legs := `document.querySelectorAll('#ladder .leg-run').length`
	w.Until(legs + ` === 7`)
	w.Eval(`document.querySelector('.rung[aria-label^="Harrow Ford"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true})), true`)
	w.Bench("Harrow Ford shut")
	w.Until(legs + ` === 6`)
	w.Eval(`document.querySelector('#ladder .rung[aria-label^="Harrow Ford"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true})), true`)
	w.Until(legs + ` === 7`)
	short := `document.querySelectorAll('#ladder .leg-short').length`
	w.Until(short + ` > 0`)
	w.Click(`a.option[href*="tank-25-h"]`)
	w.Bench("Tank, 25 L")
	w.Until(short + ` === 0`)
	w.Until(`document.querySelector('.legs .is-current .is-ok') !== null`)
	w.Follow("#bench [data-fit]")
	assert.Equal(t, "ok", w.Text(`document.querySelector('.strip [data-gauge="range"]').dataset.state`))

	w.Eval(`(() => { const s = document.querySelector('input[data-for="f-cruise"]'); s.value = 80; s.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	w.Bench("With this cruise and reserve")
	assert.Equal(t, "80 km/h", w.Text(`document.querySelector('#f-cruise').value`))
}

// TestThreeFillsNarrowTheBand, written down in the browser.
func TestThreeFillsNarrowTheBand(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	v, path := s.Demo(t)
	for _, r := range v.Stored(path).Readings {
		v.Post(path+"/fills/revoke", url.Values{"of": {r.ID}})
	}
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/fills?loadout=travel")
	band := func() (width float64) {
		numbers := webtest.Ask[[]float64](w, `document.querySelectorAll('#teaches')[0].closest('section').querySelectorAll('tbody tr')[1].lastElementChild.textContent.match(/[0-9.]+(?=\s*(?:to|L))/g).map(Number)`)
		require.Len(t, numbers, 2)
		return numbers[1] - numbers[0]
	}
	before := band()
	for i, odometer := range []string{"24000", "24230", "24460", "24700"} {
		w.Fill("#f-on", "2026-11-20")
		w.Fill("#f-odometer", odometer)
		w.Fill("#f-litres", "9.9")
		w.Do(chromedp.Click(chromedp.ID("add")))
		w.Until(`document.querySelectorAll('#log ~ .table-scroll tbody tr').length >= ` + strconv.Itoa(i+1) + ` && document.querySelector('#f-odometer').value === ''`)
	}
	assert.Less(t, band(), before)
	assert.Contains(t, w.Text(`document.querySelector('.page-head p').textContent`), "3 tanks from full to full")
}

// TestFillsWithoutANetwork: two fills that are written down while the server is away are
// both there once when it comes back, in the order in which they were written.
func TestFillsWithoutANetwork(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "fills?loadout=travel")
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED", "422")
	before := len(s.Newest(t, demo.Rider).Readings)
	write := func(litres, odometer string) {
		w.Fill("#f-litres", litres)
		w.Fill("#f-odometer", odometer)
		w.Click("#add")
	}
	write("999", "30000") // no tank holds that
	w.Until(`!document.querySelector('.refused').hidden && document.querySelector('.refused').textContent.includes('999 L') && /L/.test(document.querySelector('.refused').textContent.split('was not taken:')[1])`)
	w.Do(chromedp.Reload())
	w.Until(`!document.querySelector('.refused').hidden`)
	w.Eval(`[...document.querySelectorAll('.refused button')].find((b) => b.textContent === 'Mend it').click(), true`)
	assert.Equal(t, "999", w.Text(`document.getElementById('f-litres').value`), "it is back in the form")
	w.Until(`document.querySelector('.refused').hidden`)
	assert.Len(t, s.Newest(t, demo.Rider).Readings, before)

	back := s.Away(t)
	write("11,5", "30100")
	write("12,5", "30350")
	w.Until(`document.querySelector('.unsent').textContent.startsWith('2 fills')`)
	back()
	w.UntilWaiting(0)
	readings := s.Newest(t, demo.Rider).Readings
	require.Len(t, readings, before+2)
	assert.Equal(t, 11.5, readings[before].Fill().Litres.In("L"))
	assert.Equal(t, 12.5, readings[before+1].Fill().Litres.In("L"))
}
