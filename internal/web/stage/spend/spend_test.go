package spend_test

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

func TestSpend(t *testing.T) {
	s := webtest.New(t)
	v, plan := s.Demo(t)
	page := v.Page(plan + "/spend")
	ledger := webtest.Form(page)
	ledger.Set("name.7", "Inner tube strips")
	ledger.Set("amount.7", "0")
	ledger.Set("out.0", "on") // springs, 345 of 1675
	ledger.Set("need.1", "wanted")
	status, _, header := v.Post(plan+"/spend", ledger)
	require.Equal(t, http.StatusSeeOther, status)
	after := v.Page(header.Get("Location"))
	assert.Equal(t, "ok €1,330", webtest.Gauge(after, "cost"))
	assert.Contains(t, after, "Inner tube strips")
	foreign := webtest.Form(after)
	foreign.Set("amount.0", "200 USD")
	foreign.Set("rate_from.0", "usd")
	foreign.Set("rate.0", "0,92")
	foreign.Set("rate_on.0", "yesterday")
	status, body, _ := v.Post(plan+"/spend", foreign)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Regexp(t, `(?s)row-rate has-error.*yesterday.*not a date`, body)
	foreign.Set("rate_on.0", "2026-11-20")
	status, _, header = v.Post(plan+"/spend", foreign)
	require.Equal(t, http.StatusSeeOther, status)
	after = v.Page(header.Get("Location"))
	assert.Equal(t, "ok €1,375", webtest.Gauge(after, "cost"), "139 EUR became 184")
	ledger = webtest.Form(after)
	ledger.Set("amount.0", "about a hundred")
	status, body, _ = v.Post(plan+"/spend", ledger)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, body, `value="about a hundred"`)
}

// TestUndecidedFromTheBench: an option can be kept without choosing it, or for
// when the old one breaks.
func TestUndecidedFromTheBench(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/tyres?loadout=travel&try=rear-tyre:wether-140-80-18")
	cost := webtest.Gauge(page, "cost")
	for _, decision := range []string{"undecided", "when-it-breaks"} {
		status, _, header := v.Post(path+"/choose", url.Values{"base": {webtest.Base(page)}, "stage": {"tyres"}, "loadout": {"travel"}, "try": {"rear-tyre:wether-140-80-18"}, "need": {"wanted"}, "decision": {decision}})
		require.Equal(t, http.StatusSeeOther, status)
		page = v.Page(header.Get("Location"))
		assert.Equal(t, cost, webtest.Gauge(page, "cost"), "it costs nothing yet")
		p := s.Newest(t, demo.Rider)
		assert.Equal(t, "bracken-140-80-18", p.Chosen(parts.RearTyre, "travel").ID)
		last := p.Lines[len(p.Lines)-1]
		assert.Equal(t, plan.Decision(decision), last.Decision)
		assert.Len(t, p.Lines, 19, "one line, whatever is decided")
	}
}

// TestScope: an option for one loadout only, and back to all.
func TestScope(t *testing.T) {
	s := webtest.New(t)
	v, path := s.Demo(t)
	page := v.Page(path + "/wheels?loadout=travel&try=rear-wheel:wheel-h-17r")
	scope := regexp.MustCompile(`class="scope" href="([^"]*)"`).FindStringSubmatch(page)
	require.NotNil(t, scope)
	only := v.Page(strings.ReplaceAll(scope[1], "&amp;", "&"))
	assert.Contains(t, only, `value="rear-wheel@travel:wheel-h-17r"`)
	_, _, header := v.Post(path+"/choose", url.Values{"base": {webtest.Base(only)}, "stage": {"wheels"}, "loadout": {"travel"}, "try": {"rear-wheel@travel:wheel-h-17r"}})
	page = v.Page(header.Get("Location"))
	p := s.Newest(t, demo.Rider)
	assert.Nil(t, p.Chosen(parts.RearWheel, "trail-day"))
	assert.Equal(t, "wheel-h-17r", p.Chosen(parts.RearWheel, "travel").ID)
	assert.Contains(t, page, "17\u00a0in rim", "the second wheel is described")
	status, _, _ := v.Get(path + "/wheels?try=rear-wheel@winter:wheel-h-17r")
	assert.Equal(t, http.StatusNotFound, status)
}
