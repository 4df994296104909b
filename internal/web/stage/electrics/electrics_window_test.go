//go:build !markup

package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestPower: lamps by preview stand in the drawing, and bulbs that the alternator cannot feed
// by night are over; fitted, they are dragged to the running engine, used at night, and kept.
func TestPower(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "electrics?loadout=travel")
	bare := w.GaugeIn("#supply", "charge-margin")
	w.Click(`a.option[href*="camera-bar"]`)
	w.Bench("Camera on the bar")
	w.Until(`document.querySelector('#supply').textContent.includes('Camera on the bar')`)
	assert.NotEqual(t, bare, w.GaugeIn("#supply", "charge-margin"))
	w.Follow("[data-fit]")
	w.Open(path + "/electrics?loadout=travel")
	w.Eval(`(() => {
		const grip = document.querySelector('[name="feed.camera"]').closest('[data-block]').querySelector('[data-grip]'), lane = document.querySelector('[data-feed="always"]');
		lane.scrollIntoView({ block: 'center', behavior: 'instant' });
		const middle = (e) => { const b = e.getBoundingClientRect(); return { clientX: b.x + b.width / 2, clientY: b.y + b.height / 2 }; };
		const send = (name, target, at) => target.dispatchEvent(new PointerEvent(name, { bubbles: true, cancelable: true, button: 0, pointerId: 1, ...at }));
		send('pointerdown', grip, middle(grip));
		send('pointermove', lane, middle(lane));
		send('pointerup', lane, middle(lane));
		return document.querySelector('[name="feed.camera"]').value === 'always' && lane.querySelector('[data-block]') !== null;
	})()`)
	w.Bench("Wired as typed")
	w.Fill(`[name="use.camera"]`, "stopped")
	w.Until(`document.querySelector('#supply [data-gauge="charge-margin"] .gauge-value').textContent.replace(/\u00a0/g, ' ') === ` + webtest.Quote(bare))
	w.Follow("#save")
	assert.Equal(t, []plan.Wired{{Slot: parts.Camera, Feed: parts.FeedAlways, Use: parts.AtStops}}, s.Newest(t, demo.Rider).Wired)
}
