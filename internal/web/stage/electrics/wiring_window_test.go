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

// TestWiring: a box by preview takes what is there on its channels; a fuse above its wire is
// seen in the drawing at once, an absurd one stays by its field; what is kept is kept.
func TestWiring(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "wiring?loadout=travel")
	w.Click(`a.option[href*="box-6"]`)
	w.Bench("Box of six channels, 10 A each")
	w.Until(`document.querySelectorAll('#oneline .one-spare').length === 4`)
	w.Fill(`[name="area.grips"]`, "0.5")
	w.Fill(`[name="fuse.grips"]`, "10")
	w.Until(`document.querySelector('#oneline .one-wire.is-bad') !== null`)
	w.Until(`document.querySelector('.bench [data-finding="fuse-over-wire"]') !== null`)
	w.Fill(`[name="fuse.grips"]`, "900")
	w.Until(`document.querySelector('#f-fuse\\.grips').closest('.has-error') !== null`)
	assert.Equal(t, "900", w.Text(`document.querySelector('[name="fuse.grips"]').value`))
	w.Fill(`[name="fuse.grips"]`, "4")
	w.Until(`document.querySelector('#oneline .one-wire.is-bad') === null`)
	w.Media("print")
	shown := func(selector string) string {
		return `String(document.querySelector('` + selector + `').getClientRects().length > 0)`
	}
	for selector, want := range map[string]string{"#oneline svg": "true", "#oneline table": "true", "form[data-live]": "false", "a.option": "false"} {
		assert.Equal(t, want, w.Text(shown(selector)), "%s on paper", selector)
	}
	w.Media("")
	w.Follow("#save")
	kept := s.Newest(t, demo.Rider)
	require.Len(t, kept.Wired, 1)
	assert.Equal(t, parts.Grips, kept.Wired[0].Slot)
	assert.Equal(t, "0.5 mm²", kept.Wired[0].Area.String())
	assert.Empty(t, kept.Wired[0].Use, "when it is used is still as its sheet says")
	assert.Nil(t, kept.Chosen(parts.PowerBox, "travel"), "a preview is not a choice")
}
