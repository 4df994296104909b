//go:build !markup

package spend_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestDrawer: found by words as they are typed, decided by a key, and searched for
// again.
func TestDrawer(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "drawer?loadout=travel")
	w.Do(chromedp.KeyEvent("/"))
	require.Equal(t, "q", w.Text(`document.activeElement.name`), "the key leads to the search")
	w.Do(chromedp.SetValue(chromedp.CSS("input[type=search]"), "oil cooler"), chromedp.SendKeys(chromedp.CSS("input[type=search]"), " grille"))
	w.Until(`document.querySelectorAll('#drawer-list .option').length === 1`)
	w.Do(chromedp.Focus(chromedp.CSS(`#drawer-list .option`)))
	w.Leads(chromedp.KeyEvent("o"))
	p := s.Newest(t, demo.Rider)
	require.NotNil(t, p.Chosen(parts.CoolerGuard, "travel"))
	assert.Equal(t, plan.Ordered, p.Lines[len(p.Lines)-1].Decision)
	w.Open(path + "/drawer?loadout=travel&q=oil+cooler+grille&fits=on")
	w.Do(chromedp.Focus(chromedp.CSS(`#drawer-list .option`)))
	w.Leads(chromedp.KeyEvent("x"))
	p = s.Newest(t, demo.Rider)
	assert.Nil(t, p.Chosen(parts.CoolerGuard, "travel"))
	assert.Equal(t, plan.Rejected, p.Lines[len(p.Lines)-1].Decision, "kept for its reason")
}
