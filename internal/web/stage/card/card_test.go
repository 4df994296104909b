package card_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

var sections = []string{"pressures", "legs", "setting", "buttons", "limp", "sizes", "entered", "limits", "call"}

// choice is the form with every section on, in its usual place.
func choice() url.Values {
	form := url.Values{"who.0": {"Ida"}, "number.0": {"555 0142"}, "blood": {"0+"}}
	for i, id := range sections {
		form.Set("on."+id, "on")
		form.Set("place."+id, fmt.Sprint(i+1))
	}
	return form
}

// TestChosen: the rider's order and what is left out hold; whom to call stands there only when ticked; what is not along is said.
func TestChosen(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	keep := func(form url.Values) {
		form.Set("base", webtest.Base(v.Page(path+"/on-card?loadout=travel")))
		status, body, _ := v.Post(path+"/on-card?loadout=travel", form)
		require.Equal(t, http.StatusSeeOther, status, body)
	}
	form := choice()
	form.Set("place.limp", "1")
	form.Set("place.pressures", "5")
	form.Del("on.legs")
	form.Set("kit.link", "on")
	form.Set("kit.breaker", "on")
	keep(form)
	page := v.Page(path + "/card?loadout=travel")
	assert.Less(t, strings.Index(page, `id="card-limp"`), strings.Index(page, `id="card-pressures"`))
	assert.NotContains(t, page, `id="card-legs"`)
	assert.NotContains(t, page, "555 0142")
	assert.Contains(t, page, "link in, clip against the way")
	assert.Contains(t, page, "Not along: levers")
	form.Set("told", "on")
	form.Del("kit.link")
	keep(form)
	page = v.Page(path + "/card?loadout=travel")
	assert.Contains(t, page, "555 0142")
	assert.Contains(t, page, "Not along: chain link")

	form.Set("number.0", "")
	form.Set("place.limp", "first")
	form.Set("base", webtest.Base(v.Page(path+"/on-card?loadout=travel")))
	status, body, _ := v.Post(path+"/on-card?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "a name and a number")
	assert.Contains(t, body, `value="first"`)
}

// TestButtons: rows of the bike, kept in order; half a row is refused by its place; they stand on the card.
func TestButtons(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	form := url.Values{"does.0": {"Anti-lock off"}, "press.0": {"ABS"}, "hold.0": {"3"}, "when.0": {"standing"}, "key_off.0": {"on"}, "does.1": {"Clutch adjuster"}, "press.1": {"4 in, and 4 back"}, "hold.1": {""}, "when.1": {""}, "key_off.1": {""}}
	form.Set("base", webtest.Base(v.Page(path+"/buttons?loadout=travel")))
	status, body, _ := v.Post(path+"/buttons?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status, body)
	kept := v.Stored(path).Buttons
	require.Len(t, kept, 2)
	assert.InDelta(t, 3, kept[0].Hold.In("s"), 1e-9, "a bare number is seconds")
	page := v.Page(path + "/card?loadout=travel")
	assert.Contains(t, page, "4 in, and 4 back")
	form.Set("press.1", "")
	form.Set("base", webtest.Base(v.Page(path+"/buttons?loadout=travel")))
	status, body, _ = v.Post(path+"/buttons?loadout=travel", form)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, "what is pressed")
	require.Len(t, v.Stored(path).Buttons, 2)
}
