//go:build !markup

package armour_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestArmour: a place is picked in the drawing, a guard for it is previewed with
// what it leaves open, and chosen.
func TestArmour(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "armour?loadout=travel")
	w.Do(chromedp.Focus(chromedp.CSS(`.risk[href*="place=cases"]`)))
	w.Leads(chromedp.KeyEvent(kb.Enter))
	assert.Equal(t, "Engine cases", w.Text(`document.getElementById('place-title').textContent`))
	strands := w.GaugeIn("#armour", "armour-stranded")
	w.Click(`a.option[href*="bars-low-h"]`)
	w.Bench("Engine bars, low")
	w.Until(`document.querySelector('#armour [data-gauge="armour-stranded"] .gauge-value').textContent !== ` + webtest.Quote(strands))
	w.Until(`document.querySelector('#bench [data-finding="blocked-access"]') !== null`)
	w.Follow("[data-fit]")
	p := s.Newest(t, demo.Rider)
	assert.Equal(t, "bars-low-h", p.Chosen(parts.EngineBars, "travel").ID)
	w.Follow(`.rail a[href*="/armour"]`)
	w.Follow(`#tabs a[href*="/disputes"]`)
	w.Until(`document.querySelectorAll('.side-card').length > 8`)
	w.Click(`.side-card a[href*="skid-plastic-h"]`)
	w.Bench("Skid plate, 10 mm plastic")
	w.Until(`document.querySelector('#bench [data-finding="cannot-both"].is-stop') !== null`)
}
