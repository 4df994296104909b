package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/studytest"
)

// TestLoadoutsOwnParts: what is fitted for one loadout only is changed there
// only, by a remedy too.
func TestLoadoutsOwnParts(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	c := b.Part("front-h20-14")
	c.Loadout = "travel"
	p = p.With(c)
	slider, ok := b.Findings(p)["chain-slider"]
	require.True(t, ok)
	require.NotEmpty(t, slider.Remedies())
	for _, choice := range slider.Remedies()[0].Choices {
		if choice.Slot == parts.FrontSprocket {
			assert.Equal(t, "travel", choice.Loadout)
		}
	}
	assert.NotContains(t, b.Findings(p.With(slider.Remedies()[0].Choices...)), "chain-slider")
}
