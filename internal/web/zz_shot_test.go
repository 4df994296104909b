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
	_, _, h = v.Post("/buying", url.Values{"name": {"Marrow 400, red"}, "year": {"2016"}, "class": {"dual-sport"}, "displacement": {"398 cc"}, "odometer": {"31200 km"}, "asking": {"3100 EUR"}, "final": {"chain"}, "fuelling": {"carburettor"}})
	look := h.Get("Location")
	t.Log(look)
	shot("askbuying", "/buying")
	shot("buying", look)
	shot("garage", "/garage")
	shot("bike", bike)
	shot("moved", path+"/moved")
	shot("sheet", path+"/sheet")
	shot("bikesheet", bike+"/sheet")
	shot("bikemeasure", bike+"/measure")
	shot("tyres", path+"/tyres")
	w.Do(chromedp.EmulateViewport(390, 844))
	shot("p-buying", look)
	shot("p-bike", bike)
	shot("p-moved", path+"/moved")
	shot("p-garage", "/garage")
}
