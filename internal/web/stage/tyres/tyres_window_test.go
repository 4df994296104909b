//go:build !markup

package tyres_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestFourTyresSideBySide, and no fifth; what lies on the bench leaves them there.
func TestFourTyresSideBySide(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "tyres?loadout=travel")
	count := func(n string) { w.Until(`document.querySelectorAll('.lineup-table thead th').length === ` + n) }
	for i, id := range []string{"wether-130-80-18", "fathom-140-80-18", "hackle-140-80-18", "lanner-120-80-18"} {
		w.Click(`tr:has(a.option[href*="` + id + `"]) [data-beside]`)
		count(string(rune('1' + i)))
	}
	assert.Equal(t, "4", w.Text(`String(document.querySelectorAll('[data-beside].is-on').length)`))
	assert.Equal(t, "0", w.Text(`String(document.querySelectorAll('[data-beside]:not(.is-on)').length)`), "there is no room for a fifth")
	w.Click(`a.option[href*="scree-120-100-18"]`)
	w.Bench("Scree 120/100-18")
	count("4")
	assert.Contains(t, w.Text(`location.search`), "beside=fathom-140-80-18", "the address leads back to all of it")
	w.Click("[data-clear]")
	w.Until(`document.querySelectorAll('[data-beside].is-on').length === 0`)
}

// TestTubeAndPressure: a tube on the bench changes the card, a pressure below it
// is answered, and both are kept.
func TestTubeAndPressure(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "inside?loadout=travel")
	w.Click(`a.option[href*="tube-ultra-rear-18"]`)
	w.Bench("Ultra-heavy tube")
	floors := `document.querySelector('#contact details').textContent`
	w.Follow(`#tabs a[href*="/pressures"]`)
	w.Bench("Ultra-heavy tube")
	with := w.Text(floors)
	w.Click("[data-leave]")
	w.Until(`!document.querySelector('[data-fit]')`)
	w.Do(chromedp.Reload())
	assert.NotEqual(t, with, w.Text(floors), "the plan's own tube asks for another pressure")

	w.Fill(`[name="rear.rock"]`, "0,9 bar")
	w.Until(`document.querySelector('#bench [data-finding="pressure-pinch"]') !== null`)
	w.Click(`.card-advice[href*="at=soft"][href*="wheel=front"]`)
	w.Until(`document.querySelector('#contact .chip[aria-current][href*="wheel=front"]') !== null`)
	assert.Equal(t, "0,9 bar", w.Text(`document.querySelector('[name="rear.rock"]').value`), "looking at a drawing takes nothing")
	w.Fill(`[name="rear.rock"]`, "lots")
	w.Until(`document.querySelector('.card-cell.has-error .error') !== null`)
	w.Fill(`[name="rear.rock"]`, "1,6 bar")
	w.Until(`document.querySelector('.card-cell.has-error') === null`)
	w.Follow("#save")
	assert.Equal(t, "1.6 bar", w.Text(`document.querySelector('[name="rear.rock"]').value`), "kept, with a point")
	loadout, err := s.Newest(t, demo.Rider).Loadout("travel")
	require.NoError(t, err)
	assert.InDelta(t, 160, loadout.Pressure("rock").Rear.In("kPa"), 1e-9)
}
