package baseline_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestAnswers without a script: a limit passed, what is wrong beside its field,
// and the cost in the plan.
func TestAnswers(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	post := func(fields url.Values) (int, string) {
		status, body, header := v.Post(path+"/baseline/answer?loadout=travel", fields)
		if status == http.StatusSeeOther {
			body = v.Page(header.Get("Location"))
		}
		return status, body
	}
	status, body := post(url.Values{"check": {"rear-pads"}, "verdict": {"do"}, "now": {"thin"}, "limit": {"1"}, "cost": {"32"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="thin"`)
	assert.Contains(t, body, `class="error"`)
	status, body = post(url.Values{"check": {"rear-pads"}, "verdict": {"do"}, "now": {"0.9"}, "limit": {"1"}, "cost": {"32"}})
	require.Equal(t, http.StatusSeeOther, status)
	assert.Contains(t, body, `data-finding="worn-past-limit"`)
	assert.Equal(t, "over €1,707", webtest.Gauge(body, "cost"), "1675 and the pads")
	_, body = post(url.Values{"check": {"rear-bearings"}, "verdict": {"do"}})
	assert.Equal(t, "over €1,707", webtest.Gauge(body, "cost"), "without a price it is the least that it comes to")
	for _, check := range []string{"coolant", "shaft-drive", "sunroof", ""} {
		status, _ = post(url.Values{"check": {check}, "verdict": {"good"}})
		assert.Equal(t, http.StatusNotFound, status, "%q is no check of this bike", check)
	}
	status, _ = post(url.Values{"check": {"ride"}, "verdict": {"fine"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

// TestRecord: what is undone costs, and facts are kept; another bike has neither.
func TestRecord(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	record := webtest.Form(v.Page(path + "/record?loadout=travel"))
	record.Set("cost.0", "24")
	record.Set("fact.3", "Main fuse")
	record.Set("value.3", "20 A")
	record.Set("on.3", "yesterday")
	status, body, _ := v.Post(path+"/record", record)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="yesterday"`)
	record.Set("on.3", "2026-11-21")
	status, _, header := v.Post(path+"/record", record)
	require.Equal(t, http.StatusSeeOther, status)
	saved := v.Page(header.Get("Location"))
	assert.Equal(t, "over €1,699", webtest.Gauge(saved, "cost"))
	assert.Contains(t, saved, "Main fuse")
	grips := s.Newest(t, demo.Rider).Build("travel").Part(parts.Grips)
	require.NotNil(t, grips)
	assert.Equal(t, "60 %", grips.Electric().Duty.String(), "what a row does not ask of a part that was found stays")
	v.Post(path+"/choose", url.Values{"base": {webtest.Base(saved)}, "bike": {"fennick-300"}})
	assert.True(t, s.Newest(t, demo.Rider).Baseline.IsZero(), "what was found on one bike is not true of another")
}
