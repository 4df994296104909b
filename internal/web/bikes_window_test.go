//go:build !markup

package web_test

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

// TestTwoTripsWithOneBike by hand: a second trip is begun, a reading is written down in it and
// seen in the first once that is brought up to date; what both have changed is asked, field by field.
func TestTwoTripsWithOneBike(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "sheet")
	w.Follow(".stands a")
	require.Contains(t, w.Text(`location.pathname`), "/bikes/")
	bike := w.Text(`location.pathname`)
	w.Fill("#f-name", "Over the moor")
	w.Follow("#new-trip")
	other := strings.TrimSuffix(w.Text(`location.pathname`), "/brief")
	require.Contains(t, other, "/plans/")

	w.Open(other + "/weigh")
	assert.Contains(t, w.Text(`document.querySelector('.stands').textContent`), "As it stands")
	w.Open(other + "/sheet")
	w.Fill("#f-seat_height", "878 mm")
	w.Follow("#save")
	w.Open(path + "/tyres")
	assert.Contains(t, w.Text(`document.querySelector('.stands').textContent`), "As planned")
	assert.Contains(t, w.Text(`document.querySelector('.moved').textContent`), "seat height")

	// The plan that is behind writes another thing, and somebody writes that of the bike too.
	w.Open(path + "/sheet")
	w.Fill("#f-clearance", "241 mm")
	w.Follow("#save")
	w.Open(bike + "/sheet")
	w.Fill("#f-clearance", "243 mm")
	w.Follow("#save")
	w.Open(path + "/moved")
	assert.Contains(t, w.Text(`document.querySelector('.is-both').textContent`), "which is it?")
	w.Do(chromedp.Click(chromedp.CSS(`input[name="keep.bike/clearance"][value="plan"]`)))
	w.Follow("#take-over")
	w.Open(path + "/sheet")
	assert.Equal(t, "241 mm", w.Text(`document.querySelector('#f-clearance').value`))
	assert.Equal(t, "878 mm", w.Text(`document.querySelector('#f-seat_height').value`))
	assert.Empty(t, w.Text(`[...document.querySelectorAll('.moved')].map((e) => e.textContent).join('')`))
	w.Open(bike + "/sheet")
	assert.Equal(t, "241 mm", w.Text(`document.querySelector('#f-clearance').value`), "what the rider kept is the bike's")
}

// TestBeforeBuyingByThumb: on a phone, ten answers, a tap on the walk around it, and what to offer;
// an answer that is given off the network is there when that is back.
func TestBeforeBuyingByThumb(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "brief")
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED")
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	w.Open("/garage")
	w.Follow("#before-buying")
	w.Fill("#f-name", "Marrow 400")
	w.Eval(`(document.querySelector('#f-class').value = 'dual-sport', true)`)
	w.Fill("#f-displacement", "398 cc")
	w.Fill("#f-asking", "2950 EUR")
	w.Follow("#keep")
	at := w.Text(`location.pathname`)
	require.Contains(t, at, "/buying")
	offer := w.Text(`document.querySelector('#offer').textContent`)
	assert.Contains(t, offer, "€")
	w.Until(`document.documentElement.scrollWidth <= 390`)
	w.Open(strings.TrimSuffix(at, "/buying") + "/baseline")
	back := s.Away(t)
	w.Do(chromedp.ScrollIntoView(chromedp.CSS(`#check-head-bearings`)), chromedp.Click(chromedp.CSS(`#check-head-bearings .verdict-do`)))
	w.Until(`!document.querySelector('main .unsent').hidden`)
	back()
	w.Until(`document.querySelector('main .unsent').hidden && document.querySelector('#check-head-bearings.is-answered') !== null`)
	w.Open(at)
	assert.Contains(t, w.Text(`document.querySelector('main').textContent`), "1 looked at")
	w.Follow("#bought")
	assert.NotContains(t, w.Text(`location.pathname`), "buying")
}
