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
	w, path := s.Desktop(t, "fills")
	w.Eval(`(localStorage.setItem('mule-log-` + path + `/fills', JSON.stringify([{ id: 'X', fields: [['id', 'X'], ['litres', '11.5 L'], ['on', '2027-05-01']], refused: 'so' }])), sessionStorage.setItem('focus', '{}'), true)`)
	w.Click(`form[action="/sign-out"] button`)
	w.Until(`document.querySelector('dialog[open] li') !== null`)
	assert.Equal(t, "11.5 L, 2027-05-01", w.Text(`document.querySelector('dialog[open] li').textContent`))
	w.Click(`dialog[open] .form-foot .act:first-child`)
	w.Until(`document.querySelector('dialog[open]') === null`)
	assert.True(t, webtest.Ask[bool](w, `localStorage.length === 1`), "still here, still signed in")
	w.Click(`form[action="/sign-out"] button`)
	w.Until(`document.querySelector('dialog[open] li') !== null`)
	w.Follow(`dialog[open] .form-foot .act-quiet`)
	w.Until(`location.pathname === '/sign-in'`)
	assert.True(t, webtest.Ask[bool](w, `localStorage.length === 0 && sessionStorage.length === 0`))
}

// TestReplacedFormsListenNoMore: each time that a log's form is replaced, what listened for the
// network with it ends.
func TestReplacedFormsListenNoMore(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "fills")
	w.Until(`document.querySelector('[x-data="log"]') !== null`)
	w.Eval(`(() => {
		window.heard = 0;
		const add = window.addEventListener, remove = window.removeEventListener;
		window.addEventListener = function (name, ...rest) { if (name === 'online') window.heard++; return add.call(this, name, ...rest); };
		window.removeEventListener = function (name, ...rest) { if (name === 'online') window.heard--; return remove.call(this, name, ...rest); };
		return true;
	})()`)
	w.Eval(`(() => {
		const form = document.querySelector('[x-data="log"]'), twin = form.cloneNode(true);
		form.replaceWith(twin);
		return true;
	})()`)
	w.Until(`window.heard === 0`)
	w.Eval(`(() => { document.querySelector('[x-data="log"]').replaceWith(document.createElement('p')); return true; })()`)
	w.Until(`window.heard === -1`)
}
