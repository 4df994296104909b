package baseline_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

func TestMain(m *testing.M) { webtest.Main(m) }

// TestWalkWithoutANetwork: answers by thumb; the server goes away in the middle,
// what is tapped meanwhile is kept, and is there once when it comes back.
func TestWalkWithoutANetwork(t *testing.T) {
	s := webtest.New(t)
	_, path := s.Demo(t)
	w := s.Window(t)
	w.Expects = append(w.Expects, "ERR_CONNECTION_REFUSED")
	w.Do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile, chromedp.EmulateTouch))
	w.Open("/sign-in")
	w.Follow("#demo")
	w.Open(path + "/baseline?loadout=travel")
	verdict := func(check, verdict string) {
		w.Do(chromedp.ScrollIntoView(chromedp.CSS("#check-"+check)), chromedp.Tap(chromedp.CSS("#check-"+check+" .verdict-"+verdict)))
	}
	answer := func(check string) (plan.Answer, bool) { return s.Newest(t, demo.Rider).Baseline.Answer(check) }
	verdict("frame", "good")
	w.Until(`document.querySelector('#check-frame.is-answered') !== null`)
	a, ok := answer("frame")
	require.True(t, ok)
	assert.Equal(t, baseline.Good, a.Verdict)

	back := s.Away(t)
	verdict("bolts", "blocks")
	w.Until(`!document.getElementById('unsent').hidden`)
	w.Do(chromedp.Click(chromedp.CSS("#check-swingarm .check-more summary")))
	w.Fill(`#check-swingarm [name="note"]`, "clicks")
	verdict("swingarm", "do")
	verdict("swingarm", "watch")
	w.Until(`document.getElementById('unsent').textContent.startsWith('2 answers')`)
	revisions := s.Revisions(t)

	back()
	w.Until(`document.getElementById('unsent').hidden && document.querySelector('#check-swingarm.is-answered') !== null`)
	a, ok = answer("swingarm")
	require.True(t, ok)
	assert.Equal(t, plan.Answer{Check: "swingarm", Verdict: baseline.Watch, Note: "clicks"}, a)
	assert.Equal(t, revisions+2, s.Revisions(t), "each once, and the tap that was thought better of never")
	w.Until(`document.querySelector('#bench [data-finding="blocks-the-trip"]') !== null`)
	w.Do(chromedp.Reload())
	assert.Equal(t, "[]", w.Text(`localStorage.getItem(Object.keys(localStorage).find((k) => k.startsWith('mule-answers')))`))
}

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
	assert.Equal(t, "unknown ?", webtest.Gauge(body, "cost"), "without a price nobody knows the sum")
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

// TestRefusedAnswer: an answer that the server refuses stays on the device, with why, until
// it is answered anew or thrown away.
func TestRefusedAnswer(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "baseline?loadout=travel")
	w.Expects = append(w.Expects, "422")
	revisions := s.Revisions(t)
	w.Do(chromedp.Click(chromedp.CSS("#check-rear-pads .check-more summary")))
	w.Fill(`#check-rear-pads [name="new"]`, "thick") // it has a verdict, so this is an answer
	w.Until(`document.querySelector('#check-rear-pads .not-taken') !== null`)
	w.Do(chromedp.Reload())
	w.Until(`document.querySelector('#check-rear-pads .not-taken') !== null`)
	assert.Equal(t, "thick", w.Text(`document.querySelector('#check-rear-pads [name="new"]').value`))
	assert.Equal(t, "true", w.Text(`String(document.getElementById('unsent').hidden)`), "it is not sent again as it is")
	w.Leads(chromedp.Click(chromedp.CSS("#check-rear-pads .not-taken button")))
	w.Until(`document.querySelector('#check-rear-pads .not-taken') === null`)
	assert.Equal(t, revisions, s.Revisions(t))
}
