package armour_test

import (
	"net/http"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

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

// TestRates: a rider's own rate moves the risks, is kept, and goes back when it is
// emptied.
func TestRates(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	stranded := func() string { return webtest.Gauge(v.Page(path+"/armour?loadout=travel"), "armour-stranded") }
	before := stranded()
	rates := webtest.Form(v.Page(path + "/rates"))
	for typed, want := range map[string]string{"often": "often", "4000": "outside", "-1": "outside"} {
		rates.Set("events.strike.rough-gravel", typed)
		status, body, _ := v.Post(path+"/rates", rates)
		assert.Equal(t, http.StatusUnprocessableEntity, status, typed)
		assert.Contains(t, body, want)
		assert.Contains(t, body, `value="`+typed+`"`)
	}
	rates.Set("events.strike.rough-gravel", "9")
	rates.Set("breaks.sump.strike", "12")
	status, _, header := v.Post(path+"/rates", rates)
	require.Equal(t, http.StatusSeeOther, status)
	assert.NotEqual(t, before, stranded())
	rates = webtest.Form(v.Page(header.Get("Location")))
	assert.Equal(t, "12 %", rates.Get("breaks.sump.strike"))
	rates.Set("events.strike.rough-gravel", "")
	rates.Set("breaks.sump.strike", "")
	v.Post(path+"/rates", rates)
	assert.Equal(t, before, stranded())
	assert.Nil(t, s.Newest(t, demo.Rider).Risk)
}
