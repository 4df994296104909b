//go:build !markup

package web_test

import (
	"net/url"
	"testing"

	"github.com/chromedp/chromedp"
	"valiantmule/internal/web/webtest"
)

func TestZZShot(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	v, _ := s.Demo(t)
	bike := v.BikeOf(path)
	_, _, h := v.Post(bike+"/trip", url.Values{"name": {"A week in the fells"}})
	other := h.Get("Location")[:len("/plans/")+26]
	page := v.Page(other + "/sheet")
	_ = page
	form := webtest.Form(page)
	form.Set("kerb_mass", "172 kg")
	form.Set("odometer", "24640 km")
	st, _, _ := v.Post(other+"/sheet", form)
	t.Log(st)
	shot := func(name, url string) {
		w.Open(url)
		webtest.Shot(w, name)
	}
	_ = other
	shot("a1", "/garage")
	shot("a2", bike)
	shot("a3", path+"/record")
	w.Eval(`(window.scrollTo({top: 900, behavior: 'instant'}), true)`)
	webtest.Shot(w, "a4")
	shot("a5", path+"/loadouts")
	shot("a6", path+"/bike?bike=fennick-300")
	w.Do(chromedp.EmulateViewport(390, 844))
	shot("p1", "/garage")
	shot("p2", path+"/sheet")
	shot("p3", bike+"/measure")
	shot("p4", path+"/loadouts")
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open(bike)
	w.Eval(`(document.documentElement.dataset.theme = "garage", true)`)
	webtest.Shot(w, "d1")
}
