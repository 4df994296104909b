//go:build !markup

package load_test

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestLoadInABrowser: a disc is dragged to another spot, the same is done by keys, and
// a bag is packed on a phone.
func TestLoadInABrowser(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	_, path := s.Demo(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/load?loadout=travel")
	w.Until(`document.querySelectorAll('[data-load]').length > 10`)
	w.Eval(`(() => {
		const svg = document.querySelector('svg.balance'), disc = svg.querySelector('[data-load="14"] circle'), spot = svg.querySelector('[data-spot="place:top-box"]');
		const at = (circle) => new DOMPoint(circle.getAttribute('cx'), circle.getAttribute('cy')).matrixTransform(svg.getScreenCTM());
		const send = (name, target, p) => target.dispatchEvent(new PointerEvent(name, {bubbles: true, button: 0, pointerType: 'pen', pointerId: 1, clientX: p.x, clientY: p.y}));
		send('pointerdown', disc, at(disc));
		send('pointermove', svg, at(spot));
		send('pointerup', svg, at(spot));
		return document.querySelector('[name="where.14"]').value === 'place:top-box';
	})()`)
	w.Bench("With the things moved")
	w.Until(`document.querySelector('#bench [data-finding="rack-overload"]') !== null`)
	w.Fill(`[name="where.14"]`, "place:engine")
	w.Until(`document.querySelector('#bench [data-finding="rack-overload"]') === null`)

	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	w.Open(path + "/packing?loadout=travel")
	assert.Positive(t, w.Asked.Load(), "what was moved and not saved is not left without a question")
	w.Eval(`(document.querySelector('[name="mass.2"]').focus(), true)`)
	w.Leads(chromedp.KeyEvent("\r"))
	assert.Equal(t, "mass.2", w.Text(`document.activeElement.name`))
	w.Follow("#save")
	assert.Equal(t, "save", w.Text(`document.activeElement.id`), "a keyboard goes on where it was")
	before := w.Text(`document.querySelector('.walk-bar b').textContent`)
	w.Click(`#thing-11 button`)
	w.Until(`document.querySelector('.walk-bar b').textContent !== ` + webtest.Quote(before))
	after := w.Text(`document.querySelector('.walk-bar b').textContent`)
	assert.NotEqual(t, before, after)
	assert.True(t, strings.HasPrefix(after, "6 of"))
	assert.Equal(t, "true", w.Text(`document.querySelector('#thing-11 button').getAttribute('aria-pressed')`))
}
