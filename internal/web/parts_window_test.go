//go:build !markup

package web_test

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestPartsByThumb: on a phone a rider writes down a second sprocket and a bag set, fits them, moves one over and back,
// sells it, is told why that cannot be taken back, and hands the bike over.
func TestPartsByThumb(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	holt := strings.TrimPrefix(v.BikeOf(path), "/bikes/")
	averill := bikesOf(v)["Averill 720 Parade"]
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(390, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	write := func(kind, name, cost string) string {
		w.Open("/parts")
		w.Eval(`document.querySelector("#f-kind").value = "` + kind + `"; true`)
		w.Follow("#new-part")
		w.Fill("#f-name", name)
		w.Fill("#f-cost", cost)
		w.Follow("#save")
		return w.Text(`location.pathname`)
	}
	to := func(part, place string, fields ...string) {
		w.Open(part)
		w.Eval(`document.querySelector("#f-to").value = "` + place + `"; true`)
		w.Eval(`document.querySelectorAll("details").forEach(d => d.open = true); true`)
		for i := 0; i+1 < len(fields); i += 2 {
			if fields[i] == "#room" {
				w.Click(`input[name="room"]`)
				continue
			}
			w.Fill(fields[i], fields[i+1])
		}
		w.Follow("#move")
	}
	says := func() string { return w.Text(`document.querySelector("main").innerText`) }

	trail, long := write("rear-sprocket", "Trail sprocket", "40 EUR"), write("rear-sprocket", "Long sprocket", "45 EUR")
	bags := write("side-bags", "Second bags", "190 EUR")
	to(trail, "on:"+holt, "#f-at", "23500 km")
	to(long, "on:"+holt, "#f-at", "24000 km")
	assert.Contains(t, says(), "cannot both be the rear sprocket")
	assert.Equal(t, "24000 km", w.Text(`document.querySelector("#f-at").value`))
	w.Click(`input[name="room"]`)
	w.Follow("#move")
	assert.Contains(t, says(), "on the Holt 650 Drover")
	to(bags, "on:"+holt)
	to(long, "on:"+averill, "#f-off", "24200 km", "#f-at", "9000 km")
	w.Fill("#f-off", "9100 km")
	w.Fill("#f-at", "24300 km")
	w.Follow("#back")
	assert.Contains(t, says(), "on the Holt 650 Drover")
	to(long, "sold", "#f-off", "24500 km", "#f-money", "20 EUR", "#f-whom", "a friend")
	to(trail, "on:"+holt, "#f-at", "24500 km")
	w.Open(long)
	w.Follow("#undo-part")
	assert.Contains(t, says(), "Since then")
	assert.Contains(t, says(), "Trail sprocket")

	w.Open("/bikes/" + holt + "/hand-over")
	w.Click(`input[name="keep.` + strings.TrimPrefix(bags, "/parts/") + `"]`)
	w.Fill("#f-whom", "the next one")
	w.Follow("#hand-over")
	assert.Contains(t, says(), "to the next one")
	w.Open("/parts?where=all&q=sprocket")
	assert.Contains(t, says(), "sold to the next one")
	w.Open(bags)
	assert.Contains(t, says(), "at home")
}
