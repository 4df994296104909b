package stance_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

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

// TestForward: sitting forward takes sag off the rear, at once, for nothing.
func TestForward(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/stance?loadout=travel")
	assert.Regexp(t, `over [45]\d %`, webtest.Gauge(page, "sag-rear"))
	form := url.Values{"base": {webtest.Base(page)}, "sits": {"forward"}, "springs_for": {"road"}, "front_preload": {""}, "rear_preload": {""}, "loadout": {"travel"}}
	status, _, _ := v.Post(path+"/stance?loadout=travel", form)
	require.Equal(t, http.StatusSeeOther, status)
	p := v.Stored(path)
	travel, err := p.Loadout("travel")
	require.NoError(t, err)
	assert.Equal(t, plan.SitsForward, travel.Sits)
	assert.EqualValues(t, "road", p.Brief.SpringsFor)
	after := v.Page(path + "/stance?loadout=travel")
	assert.NotEqual(t, webtest.Gauge(page, "sag-rear"), webtest.Gauge(after, "sag-rear"))
	assert.NotEqual(t, webtest.Gauge(page, "axle-rear"), webtest.Gauge(after, "axle-rear"))
	for key, wrong := range map[string]string{"sits": "on the bars", "springs_for": "the moon"} {
		bad := url.Values{"base": {webtest.Base(after)}, "sits": {""}, "springs_for": {""}, "loadout": {"travel"}}
		bad.Set(key, wrong)
		status, _, _ = v.Post(path+"/stance?loadout=travel", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, key)
	}
}

// TestMeasuredSag is shown with what it corrects, and can be taken back.
func TestMeasuredSag(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/stance?loadout=travel")
	assert.Contains(t, page, "Rear sag measured, you alone")
	status, _, _ := v.Post(path+"/stance/measured", url.Values{"base": {webtest.Base(page)}, "end": {"rear"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.False(t, v.Stored(path).Bike.RearSag.Known())
	assert.NotContains(t, v.Page(path+"/stance?loadout=travel"), "Rear sag measured")
	status, _, _ = v.Post(path+"/stance/measured", url.Values{"base": {webtest.Base(page)}, "end": {"rear"}})
	assert.Equal(t, http.StatusConflict, status, "a stale page takes nothing")
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

// TestOwnSpring: a rider who owns none of the shelf's parts types their spring in, and the
// page counts with it.
func TestOwnSpring(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	values := webtest.Form(v.Page(path + "/part?slot=shock-spring&loadout=travel"))
	require.Contains(t, values, "rate")
	values.Set("name", "Spring from the old shock")
	values.Set("rate", "440 lb/in")
	values.Set("mass", "2.4 kg")
	status, body, _ := v.Post(path+"/part?slot=shock-spring&loadout=travel", values)
	require.Equal(t, http.StatusSeeOther, status, body)
	own := v.Stored(path).Chosen(parts.ShockSpring, "travel")
	require.NotNil(t, own)
	var want unit.Stiffness
	require.NoError(t, want.Enter("440 lb/in", "N/mm"))
	assert.Equal(t, want.In("N/mm"), own.Spring().Rate.In("N/mm"))
	assert.True(t, strings.Contains(v.Page(path+"/stance?loadout=travel"), "77.1"), "in the rider's own units")
}
