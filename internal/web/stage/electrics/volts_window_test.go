//go:build !markup

package electrics_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestVoltsInTheGarage: on a phone without a network a reading waits, is sent once, and says
// what it means.
func TestVoltsInTheGarage(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "volts?loadout=travel")
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED")
	w.Open(path + "/volts?loadout=travel")
	before := len(s.Newest(t, demo.Rider).Readings)
	back := s.Away(t)
	w.Fill("#f-idle_v", "12.6")
	w.Fill("#f-riding_v", "14.0")
	w.Fill("#f-all_on_v", "12.5")
	w.Eval(`document.querySelector("#add").click(), true`)
	w.Until(`document.querySelector('.unsent').textContent.startsWith('1 reading')`)
	back()
	w.Until(`document.querySelector('#kept') !== null && document.querySelector('#kept').textContent.includes('has to go off')`)
	readings := s.Newest(t, demo.Rider).Readings
	require.Len(t, readings, before+1, "exactly one")
	w.Until(`document.querySelector('.bench [data-finding="volts-low"]') !== null`)
}
