//go:build !markup

package web_test

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"valiantmule/internal/web/webtest"
	"github.com/stretchr/testify/require"
)

func TestShotZZ(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "part?slot=skid-plate")
	w.Do(chromedp.EmulateViewport(1280, 900))
	shot := func(name string) {
		ctx, done := w.Step()
		defer done()
		png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile("/tmp/"+name+".png", png, 0o600))
	}
	w.Open(path + "/part?slot=skid-plate&loadout=travel")
	shot("p1")
	w.Eval("(window.scrollTo(0, 800), true)")
	shot("p2")
	w.Open(path + "/part?slot=pegs&loadout=travel")
	w.Fill("#f-name", "Wide steel pegs")
	shot("p3")
	w.Follow("#save")
	w.Open(path + "/load?loadout=travel")
	shot("p4")
	w.Open(path + "/contact?loadout=travel&try=pegs:pegs-low")
	shot("p5")
}
