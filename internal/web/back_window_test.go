//go:build !markup

package web_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestBackAfterSigningOut: what a browser keeps of pages for the way back is shown to who is
// signed in, at once, and to nobody else, whether it keeps the page or only its text.
func TestBackAfterSigningOut(t *testing.T) {
	s := webtest.New(t)
	_, path := s.Demo(t)
	for name, open := range map[string]func(*testing.T) *webtest.Window{"pages are kept": s.Window, "only their text is": s.Forgetting} {
		t.Run(name, func(t *testing.T) {
			w := open(t)
			w.Do(chromedp.EmulateViewport(1280, 800))
			w.Open("/sign-in")
			w.Follow("#demo")
			w.Open(path + "/brief?loadout=travel")
			w.Eval(`(window.kept = true)`)
			w.Open(path + "/bike?loadout=travel")
			w.Back(`location.pathname.endsWith('/brief') && document.querySelector('.strip') !== null`)
			if name == "pages are kept" {
				assert.True(t, webtest.Ask[bool](w, `window.kept === true`), "for its rider the page is as it was left")
			}
			w.Open(path + "/bike?loadout=travel")
			w.Follow(`form[action="/sign-out"] button`)
			w.Until(`location.pathname === '/sign-in'`)
			for range 2 {
				w.Back(`location.pathname === '/sign-in' && document.querySelector('#f-password') !== null`)
				assert.False(t, webtest.Ask[bool](w, `document.body.textContent.includes('Salt pan') || document.querySelector('.strip') !== null`), "nobody's page")
			}
		})
	}
}

// TestBackWithoutTheServer: a page that is kept goes at once, also where nobody can be asked
// whose it is.
func TestBackWithoutTheServer(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "brief")
	w.Open(path + "/tyres?loadout=travel")
	w.Follow(`form[action="/sign-out"] button`)
	w.Until(`location.pathname === '/sign-in'`)
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED")
	s.Away(t)
	w.Back(`location.pathname !== '/sign-in' && (document.documentElement.hidden || document.querySelector('.strip') === null)`)
}

// TestSigningOutWithSomethingUnsent says what waits on the device, and then leaves nothing there.
func TestSigningOutWithSomethingUnsent(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "fills?loadout=travel")
	w.Fill("#f-on", "2027-05-01")
	w.Fill("#f-litres", "999")
	w.Click("#add") // no tank holds that
	w.Until(`!document.querySelector('.refused').hidden`)
	w.Eval(`(sessionStorage.setItem('focus', '{}'), true)`)
	w.Click(`form[action="/sign-out"] button`)
	w.Until(`document.querySelector('dialog[open] li') !== null`)
	assert.Equal(t, "fill: 2027-05-01, 999 L", w.Text(`document.querySelector('dialog[open] li').textContent`))
	w.Click(`dialog[open] .form-foot .act:first-child`)
	w.Until(`document.querySelector('dialog[open]') === null`)
	assert.Equal(t, 1, w.Waiting(), "still here, still signed in")
	w.Click(`form[action="/sign-out"] button`)
	w.Until(`document.querySelector('dialog[open] li') !== null`)
	w.Follow(`dialog[open] .form-foot .act-quiet`)
	w.Until(`location.pathname === '/sign-in'`)
	assert.True(t, webtest.Ask[bool](w, `localStorage.length === 0 && sessionStorage.length === 0`))
	assert.Zero(t, w.Waiting())
}

// TestReplacedFormsListenNoMore: a form that is replaced, however often, leaves no listener behind,
// and what is written in the one in its place is written once.
func TestReplacedFormsListenNoMore(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "fills?loadout=travel")
	w.Expects = append(w.Expects, without...)
	w.Until(`window.Alpine !== undefined`)
	w.Eval(`(() => {
		window.heard = 0;
		const add = EventTarget.prototype.addEventListener;
		EventTarget.prototype.addEventListener = function (...all) { if (this === window || this === document) window.heard++; return add.apply(this, all); };
		for (let i = 0; i < 5; i++) {
			const form = document.querySelector('form[data-queue]');
			form.replaceWith(form.cloneNode(true));
		}
		return true;
	})()`)
	s.Away(t)
	w.Fill("#f-litres", "11")
	w.Click("#add")
	w.UntilWaiting(1)
	assert.Zero(t, webtest.Ask[int](w, `window.heard`))
}
