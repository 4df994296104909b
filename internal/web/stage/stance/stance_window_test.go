//go:build !markup

package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestSag: a spring by preview, then preload by slider and by number on top of it, live; what
// is kept is the loadout's.
func TestSag(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "stance?loadout=travel")
	before := w.GaugeIn("#travel", "sag-rear")
	w.Click(`a.option[href*="shock-spring-h-78"]`)
	w.Bench("Shock spring 78 N/mm")
	w.Until(`document.querySelectorAll('#travel .sag-tried').length === 2`) // the column's and the key's
	sprung := w.GaugeIn("#travel", "sag-rear")
	assert.NotEqual(t, before, sprung)
	w.Eval(`(() => { const s = document.querySelector('input[data-for="f-rear_preload"]'); s.value = 16; s.dispatchEvent(new Event('input', {bubbles: true})); return true; })()`)
	w.Bench("Shock spring 78 N/mm, set as typed")
	assert.Equal(t, "16 mm", w.Text(`document.querySelector('#f-rear_preload').value`))
	softer := w.GaugeIn("#travel", "sag-rear")
	assert.NotEqual(t, sprung, softer)
	w.Fill("#f-rear_preload", "30")
	w.Until(`document.querySelector('#travel [data-gauge="sag-rear"] .gauge-value').textContent !== ` + webtest.Quote(softer))
	w.Fill("#f-rear_preload", "a lot")
	w.Until(`document.querySelector('.slider.has-error .error') !== null`)
	assert.Equal(t, "a lot", w.Text(`document.querySelector('#f-rear_preload').value`))
	w.Fill("#f-rear_preload", "26")
	w.Until(`document.querySelector('.slider.has-error') === null`)
	w.Follow("#save")
	p := s.Newest(t, demo.Rider)
	travel, err := p.Loadout("travel")
	require.NoError(t, err)
	assert.Equal(t, "26 mm", travel.Setting.RearPreload.String())
	day, err := p.Loadout("trail-day")
	require.NoError(t, err)
	assert.False(t, day.Setting.RearPreload.Known(), "the other loadout is set by itself")
	assert.Nil(t, p.Chosen(parts.ShockSpring, "travel"), "a preview is not a choice")
}

// TestHeight: links are seen to lower the bike and flatten its head, the fork through its
// clamps takes that back, and the rider stands up.
func TestHeight(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "height?loadout=travel")
	trail := w.GaugeIn("#turned", "trail")
	w.Click(`a.option[href*="links-low-40"]`)
	w.Bench("Lowering links, 40 mm")
	w.Until(`document.querySelector('#turned [data-gauge="trail"] .gauge-value').textContent !== ` + webtest.Quote(trail))
	lowered := w.GaugeIn("#turned", "trail")
	w.Until(`document.querySelector('#bench [data-finding="links-lower"]') !== null`)
	w.Fill("#f-fork_through", "20")
	w.Until(`document.querySelector('#turned [data-gauge="trail"] .gauge-value').textContent !== ` + webtest.Quote(lowered))
	legs := w.Text(`document.querySelector('#turned .rider-part').getAttribute('d')`)
	w.Eval(`document.querySelector('#turned a.chip[href*="rider=standing"]').click(), true`)
	w.Until(`document.querySelector('#turned .rider-part').getAttribute('d') !== ` + webtest.Quote(legs))
	w.Follow("#save")
	assert.Equal(t, "20 mm", s.Newest(t, demo.Rider).ForkThrough.String())
}
