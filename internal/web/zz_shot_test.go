//go:build !markup

package web_test

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/cdproto/emulation"

	"valiantmule/internal/web/webtest"
)

func TestZZShot(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	w, _ := s.Desktop(t, "brief")
	bike := v.BikeOf(plan)
	thing := v.FirstPart()
	pages := map[string]string{"parts": "/parts", "part": thing, "sheet": "/parts/new?kind=rear-tyre", "bike": bike, "over": bike + "/hand-over", "spend": plan + "/spend", "garage": "/garage", "ownpart": plan + "/part?slot=aux-lamps"}
	for name, path := range pages {
		if only := os.Getenv("ONLY"); only != "" && only != name {
			continue
		}
		w.Open(path)
		webtest.Shot(w, name)
		if os.Getenv("PHONE") != "" {
			w.Do(chromedp.EmulateViewport(390, 800))
			w.Eval(`document.documentElement.dataset.theme = "garage"; true`)
			webtest.Shot(w, name+"-phone")
			w.Do(chromedp.EmulateViewport(1280, 800))
		}
	}
	_ = emulation.SetTouchEmulationEnabled
}
