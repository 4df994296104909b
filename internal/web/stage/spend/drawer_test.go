package spend_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	require.NotNil(t, p.Chosen(plan.CoolerGuard, "travel"))
	assert.Equal(t, plan.Ordered, p.Lines[len(p.Lines)-1].Decision)
	w.Open(path + "/drawer?loadout=travel&q=oil+cooler+grille&fits=on")
	w.Do(chromedp.Focus(chromedp.CSS(`#drawer-list .option`)))
	w.Leads(chromedp.KeyEvent("x"))
	p = s.Newest(t, demo.Rider)
	assert.Nil(t, p.Chosen(plan.CoolerGuard, "travel"))
	assert.Equal(t, plan.Rejected, p.Lines[len(p.Lines)-1].Decision, "kept for its reason")
}

// TestDrawerFilters, and what they say when they cannot be read.
func TestDrawerFilters(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	count := func(query string) int {
		return strings.Count(v.Page(path+"/drawer?loadout=travel&"+query), `class="option"`)
	}
	all := count("q=plate")
	assert.Greater(t, all, count("q=plate&fits=on"), "plates of other bikes do not go on")
	assert.Equal(t, 2, count("q=skid&fits=on"))
	assert.Equal(t, 1, count("q=skid&fits=on&price=150"))
	assert.Equal(t, 1, count("q=skid&fits=on&mass=6+lb"))
	assert.Zero(t, count("q=unicorn"))
	assert.Equal(t, 40, count("q="), "no more at once than can be held against the plan")
	assert.Contains(t, v.Page(path+"/drawer?q=&price=cheap"), `role="alert"`)
	assert.Equal(t, 4, count("q=&slot=socket")+1)
}

// TestOwnPart: entered with what is known of it, undecided until the rider says.
func TestOwnPart(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/drawer?loadout=travel")
	own := url.Values{"base": {webtest.Base(page)}, "name": {""}, "slot": {"rear-tyre"}, "price": {"dear"}, "mass": {"light"}}
	status, body, _ := v.Post(path+"/parts?loadout=travel", own)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, 4, strings.Count(body, `class="error"`), "each by its field")
	assert.Contains(t, body, `value="dear"`)
	own = url.Values{"base": {webtest.Base(page)}, "name": {"Bash plate from the smithy"}, "slot": {"skid-plate"}, "price": {"60"}, "mass": {"4 kg"}}
	status, _, header := v.Post(path+"/parts?loadout=travel", own)
	require.Equal(t, http.StatusSeeOther, status)
	found := v.Page(header.Get("Location"))
	assert.Contains(t, found, "Bash plate from the smithy")
	p := s.Newest(t, demo.Rider)
	last := p.Lines[len(p.Lines)-1]
	assert.Equal(t, plan.Undecided, last.Decision)
	assert.Equal(t, "skid-alu-h", p.Chosen(plan.SkidPlate, "travel").ID, "it is only noted")
	status, _, _ = v.Post(path+"/parts?loadout=travel", own)
	assert.Equal(t, http.StatusConflict, status, "sent again it is stale")
}
