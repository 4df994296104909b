package web_test

import (
	"net/http"
	"testing"
	"valiantmule/internal/web/webtest"

	"github.com/stretchr/testify/assert"
)

// TestCurrencyOfTheBrowser: a new garage counts in the money of the country that the browser's
// language names [ISO 4217, by CLDR], to be changed; the euro where it names none.
func TestCurrencyOfTheBrowser(t *testing.T) {
	s := webtest.New(t)
	v, _ := s.Demo(t)
	for language, want := range map[string]string{"en-US,en;q=0.9": "USD", "en-GB": "GBP", "de-CH, de;q=0.8": "CHF", "de": "EUR", "": "EUR", ";;;": "EUR", "en;q=0.9, sv-SE;q=0.8": "SEK"} {
		r := v.Request(http.MethodGet, "/garage", nil)
		r.Header.Set("Accept-Language", language)
		_, page, _ := v.Do(r)
		assert.Regexp(t, `id="f-currency"[^>]*value="`+want+`"`, page, language)
	}
}
