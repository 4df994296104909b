//go:build !markup

package ready_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// drag drags a job by its grip above another.
const drag = `((job, over) => {
	const grip = document.querySelector('[data-job="' + job + '"] [data-grip]'), row = document.querySelector('[data-job="' + over + '"]');
	const at = (e, y) => { const b = e.getBoundingClientRect(); return { clientX: b.x + 8, clientY: b.y + y }; };
	const send = (name, target, at) => target.dispatchEvent(new PointerEvent(name, { bubbles: true, cancelable: true, button: 0, pointerId: 1, ...at }));
	grip.setPointerCapture = () => {};
	send('pointerdown', grip, at(grip, 4));
	send('pointermove', row, at(row, 2));
	send('pointerup', row, at(row, 2));
	return true;
})`

// TestByHand: a job is dragged, another moved by a key; what comes of it lies on the bench before it is kept. An order
// slips by a letter, and something meanwhile is taken.
func TestByHand(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "days?loadout=travel")
	w.Eval(drag + `('own/spare-keys', 'right/oil')`)
	w.Bench("Cut a second key, and hide it before Put right: Oil and filter")
	w.Until(`document.querySelector('[data-job]').dataset.job === 'own/spare-keys'`)
	assert.Empty(t, s.Newest(t, demo.Rider).Ready.Order, "not kept yet")
	w.Follow("[data-fit]")
	assert.Equal(t, "own/spare-keys", s.Newest(t, demo.Rider).Ready.Order[0])

	w.Open(path + "/days?loadout=travel")
	w.Do(chromedp.Focus(chromedp.CSS(`[data-job="own/spare-keys"] [data-grip]`)))
	w.Do(chromedp.KeyEvent(kb.ArrowDown))
	w.Until(`document.querySelectorAll('[data-job]')[1].dataset.job === 'own/spare-keys'`)

	w.Open(path + "/ready?loadout=travel")
	_, key := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	w.Do(chromedp.Focus(chromedp.CSS(`input[value="` + key + `"] ~ button`)))
	w.Leads(chromedp.KeyEvent("s"))
	l, _ := line(s.Newest(t, demo.Rider), parts.SkidPlate)
	require.NotNil(t, l.Supply)
	assert.NotEmpty(t, l.Supply.NotBefore, "a week later")

	w.Click(`details:has(#f-leave) > summary`)
	w.Fill("#f-leave", "two weeks")
	w.Follow(".leave-form button")
	w.Follow(`a.chip[href*="interim"][href*="skid-plate"]`)
	w.Bench("Meanwhile: slower over rock, a tin of metal putty in the kit")
	w.Follow("[data-fit]")
	l, _ = line(s.Newest(t, demo.Rider), parts.SkidPlate)
	assert.Equal(t, plan.NotUntil, l.Decision)
}

// TestDaySheetByThumb: a day's sheet on a phone; a job done there is done.
func TestDaySheetByThumb(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "days?loadout=travel")
	w.Do(chromedp.EmulateViewport(390, 800))
	w.Open(path + "/spanner-day?loadout=travel")
	w.Until(`document.documentElement.scrollWidth <= innerWidth`)
	w.Until(`[...document.querySelectorAll('.sheet-job button')].every((b) => b.getBoundingClientRect().height >= 40)`)
	before := w.Text(`document.querySelector('.sheet-job h2').textContent`)
	w.Click(".sheet-job button")
	w.Until(`document.querySelector('.sheet-job h2') === null || document.querySelector('.sheet-job h2').textContent !== ` + webtest.Quote(before))
	answer, ok := s.Newest(t, demo.Rider).Baseline.Answer("oil")
	require.True(t, ok)
	assert.EqualValues(t, "done", answer.Verdict)
}
