//go:build !markup

package web_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/web/webtest"
)

// TestAnErrorInARowThatGrew stands in that row, and goes when it is mended.
func TestAnErrorInARowThatGrew(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "packing")
	rows := webtest.Ask[int](w, `document.querySelectorAll('.row-pack').length`)
	w.Open(path + "/packing")
	last := func(field string) string {
		return `document.querySelector('.rows').lastElementChild.querySelector('[name^="` + field + `."]')`
	}
	for range 3 {
		w.Eval(`(() => { const f = ` + last("item") + `; f.value = 'Spoke key'; f.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	}
	w.Until(`document.querySelectorAll('.row-pack').length > ` + "0")
	assert.Greater(t, webtest.Ask[int](w, `document.querySelectorAll('.row-pack').length`), rows)
	row := `document.querySelectorAll('.row-pack')[document.querySelectorAll('.row-pack').length - 3]`
	put := func(text string) {
		w.Eval(`(() => { const f = ` + row + `.querySelector('[name^="mass."]'); f.value = ` + webtest.Quote(text) + `; f.dispatchEvent(new Event('change', {bubbles: true})); return true; })()`)
	}
	put("heavy")
	w.Until(row + `.matches('.has-error') && ` + row + `.querySelector('.error').textContent !== ''`)
	put("1 kg")
	w.Until(`!document.querySelector('.row-pack.has-error, .row-pack .error')`)
}
