//go:build !markup

package gearing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestChainAndSwap: sprockets, then the chain that they ask for, then a second
// front sprocket for one loadout only.
func TestChainAndSwap(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "gearing?loadout=travel")
	w.Click(`.pair[data-front="15"][data-rear="46"]`)
	w.Bench("Rear sprocket 46 T")
	w.Follow(`#tabs a[href*="/chain"]`)
	w.Bench("Rear sprocket 46 T")
	assert.Equal(t, "2", w.Text(`String(document.querySelectorAll('#chain-run .axle').length)`), "both even counts in the slot")
	w.Click(`#chain-run .option[href*="chain%3Achain-520-112"]`)
	w.Bench("Sealed chain 520, 112 links")
	w.Until(`document.querySelector('#chain-run tr.is-current').textContent.includes('112')`)
	w.Follow("[data-fit]")
	p := s.Newest(t, demo.Rider)
	assert.Equal(t, "rear-h6-46", p.Chosen(parts.RearSprocket, "travel").ID)
	assert.Equal(t, "chain-520-112", p.Chosen(parts.Chain, "travel").ID)

	before := w.Gauge("crawl-speed")
	w.Click(`section[aria-labelledby="swap"] .option[href*="front-h20-13"]`)
	w.Bench("Front sprocket 13 T")
	w.Follow("[data-fit]")
	assert.NotEqual(t, before, w.Gauge("crawl-speed"))
	p = s.Newest(t, demo.Rider)
	assert.Equal(t, "front-h20-13", p.Chosen(parts.FrontSprocket, "travel").ID)
	assert.Equal(t, "front-h20-14", p.Chosen(parts.FrontSprocket, "trail-day").ID, "the other loadout keeps its own")
	w.Open(path + "/gearing?loadout=trail-day")
	assert.Equal(t, webtest.CoreIn(t, p, "trail-day", "crawl-speed"), w.Gauge("crawl-speed"))
}

// TestPull: another ground and another height change what it climbs.
func TestPull(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "pull?loadout=travel")
	says := func() string { return w.Text(`document.querySelector('.page-head p').textContent`) }
	first := says()
	w.Follow(`.chip[href*="ground=sand"]`)
	sand := says()
	assert.NotEqual(t, first, sand)
	assert.Contains(t, sand, "Deep sand")
	w.Follow(`.chip[href*="altitude=4000"]`)
	assert.Contains(t, w.Text(`document.querySelector('.chip[href*="ground=sand"]').getAttribute('aria-current') || ''`), "true", "the ground stays")
	assert.NotEqual(t, sand, says())
	assert.Equal(t, "5", w.Text(`String(document.querySelectorAll('#thrust .ray').length)`), "a curve for each gear")
}
