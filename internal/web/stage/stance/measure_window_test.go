//go:build !markup

package stance_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestMeasure in a garage, on a phone, with the network gone in the middle: the session is
// there once, and its verdict with it.
func TestMeasure(t *testing.T) {
	s := webtest.New(t)
	_, path := s.Demo(t)
	w := s.Window(t)
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED", "422")
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/measure?loadout=travel")
	before := len(s.Newest(t, demo.Rider).Readings)

	w.Fill("#f-rear_hanging", "652")
	w.Fill("#f-rear_free_down", "560")
	w.Fill("#f-rear_rider_down", "640") // the two are mixed up
	w.Eval(`document.querySelector("#add").click(), true`)
	w.Until(`!document.querySelector('.refused').hidden && document.querySelector('.refused').textContent.includes('was not taken')`)
	w.Eval(`[...document.querySelectorAll('.refused button')].find((b) => b.textContent === 'Mend it').click(), true`)
	assert.Equal(t, "640", w.Text(`document.getElementById('f-rear_rider_down').value`), "it is back in the form")
	assert.Len(t, s.Newest(t, demo.Rider).Readings, before)

	back := s.Away(t)
	w.Fill("#f-rear_free_down", "628")
	w.Fill("#f-rear_free_up", "634")
	w.Fill("#f-rear_rider_down", "548")
	w.Fill("#f-rear_rider_up", "556")
	w.Eval(`document.querySelector("#add").click(), true`)
	w.Until(`document.querySelector('.unsent').textContent.startsWith('1 session')`)
	back()
	w.Until(`document.querySelector('#kept') !== null && document.querySelector('#kept').textContent.includes('Rear:')`)
	readings := s.Newest(t, demo.Rider).Readings
	require.Len(t, readings, before+1, "exactly one")
	sat := readings[before]
	assert.Equal(t, logbook.SagRead, sat.Kind)
	assert.InDelta(t, 100, sat.Sag().Rear.RiderMM(), 1e-9)
	assert.True(t, sat.Sag().Rear.Sprung.Known() && sat.Sag().Rear.Preload.Known() && sat.Sag().Rear.Spring.Known(), "with what stood on the springs")
	w.Open(path + "/stance?loadout=travel")
	assert.Equal(t, "47 %", w.GaugeIn("#travel", "sag-rear"), "100 of 215 mm: what was measured leads")
}
