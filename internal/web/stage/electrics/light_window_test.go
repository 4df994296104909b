//go:build !markup

package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestLight: speed and ground by slider move the way to standing; past the light it says so;
// lamps by preview push the light out; what is kept is the brief's and the bike's.
func TestLight(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "light?loadout=travel")
	stands := `document.querySelector('#beams .beams-stand').getAttribute('d')`
	before := w.Text(stands)
	slide := func(id, value string) {
		w.Eval(`(() => { const s = document.querySelector('input[data-for="` + id + `"]'); s.value = ` + value + `; s.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	}
	slide("f-night_cruise", "90")
	w.Until(stands + ` !== ` + webtest.Quote(before))
	w.Until(`document.querySelector('#beams .beams-stand.is-beyond') !== null`)
	slide("f-ground", "0")
	w.Until(`document.querySelector('#light-says').textContent.includes('motorway')`)
	assert.Equal(t, "Motorway", w.Text(`document.querySelector('#f-ground').selectedOptions[0].textContent`))
	assert.Equal(t, "Motorway", w.Text(`document.querySelector('[data-for="f-ground"]').getAttribute('aria-valuetext')`))
	w.Click(`a.option[href*="aux-spot"]`)
	w.Until(`document.querySelectorAll('#beams .beams-lamp').length > 2`)
	w.Until(`document.querySelector('#beams .beams-stand.is-beyond') === null`)
	w.Fill("#f-sees_by", "dim")
	w.Until(`document.querySelector('.slider.has-error .error') !== null`)
	w.Fill("#f-sees_by", "5")
	w.Until(`document.querySelector('.slider.has-error') === null`)
	w.Fill("#f-lamp_aim", "1.2")
	w.Eval(`(() => { document.querySelector('[name="look.plate-lamp"]').click(); return true; })()`)
	w.Follow("#save")
	p := s.Newest(t, demo.Rider)
	assert.Equal(t, "90 km/h", p.Brief.NightCruise.String())
	assert.Equal(t, "5 lx", p.Brief.SeesBy.String())
	assert.Equal(t, "1.2 °", p.Bike.LampAim.String())
	require.Len(t, p.Seen, 1)
	assert.Equal(t, "plate-lamp", p.Seen[0].ID)
	assert.Nil(t, p.Chosen(parts.AuxLamps, "travel"))
}
