//go:build !markup

package baseline_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

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
	w.Until(`!document.querySelector('main .unsent').hidden`)
	w.Do(chromedp.Click(chromedp.CSS("#check-swingarm .check-more summary")))
	w.Fill(`#check-swingarm [name="note"]`, "clicks")
	verdict("swingarm", "do")
	verdict("swingarm", "watch")
	w.Until(`document.querySelector('main .unsent').textContent.startsWith('2 answers')`)
	revisions := s.Revisions(t)

	back()
	w.Until(`document.querySelector('main .unsent').hidden && document.querySelector('#check-swingarm.is-answered') !== null`)
	a, ok = answer("swingarm")
	require.True(t, ok)
	assert.Equal(t, plan.Answer{Check: "swingarm", Verdict: baseline.Watch, Note: "clicks"}, a)
	assert.Equal(t, revisions+2, s.Revisions(t), "each once, and the tap that was thought better of never")
	w.Until(`document.querySelector('#bench [data-finding="blocks-the-trip"]') !== null`)
	w.UntilWaiting(0)
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
	w.Until(`document.querySelector('main .unsent').hidden`) // it is not sent again as it is
	w.Leads(chromedp.Click(chromedp.CSS("#check-rear-pads .not-taken button")))
	w.Until(`document.querySelector('#check-rear-pads .not-taken') === null`)
	assert.Equal(t, revisions, s.Revisions(t))
}
