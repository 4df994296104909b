//go:build !markup

package log_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestByThumb: on a phone in a valley two days wait, are sent once each, in order, and are shown.
func TestByThumb(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "log?loadout=travel")
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED")
	w.Open(path + "/log?loadout=travel")
	back := s.Away(t)
	for _, km := range []string{"140", "175"} {
		w.Fill("#f-distance", km)
		w.Fill("#f-broke", "nothing")
		w.Eval(`document.querySelector("#add").click(), true`)
	}
	w.Until(`document.querySelector('.unsent').textContent.startsWith('2 days')`)
	back()
	w.Until(`document.querySelector('.days-ridden') !== null && document.querySelectorAll('.days-ridden li').length === 2`)
	days := s.Newest(t, demo.Rider).ReadingsOf(logbook.DayRidden)
	require.Len(t, days, 2, "exactly two")
	w.Until(`document.querySelector('#ridden') !== null`)
}
