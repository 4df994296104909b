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
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

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
