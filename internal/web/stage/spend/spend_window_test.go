//go:build !markup

package spend_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestLedgerDecisions: what is undecided is bought, what is chosen waits, and the
// totals follow before anything is saved.
func TestLedgerDecisions(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "spend?loadout=travel")
	lock := `[name="decision.rear-lock..lock-light-rear-250"]`
	w.Fill(lock, "ordered")
	w.Until(`document.querySelector('#bench .moves') !== null && document.querySelector('#bench .moves').textContent.includes('€34.00')`)
	w.Fill(`[name="decision.0"]`, "not-until") // springs
	w.Fill(`[name="why.0"]`, "the fork has been opened")
	w.Follow("#save")
	assert.Equal(t, "€1,364", w.Gauge("cost"), "1675 + 34 − 345")
	p := s.Newest(t, demo.Rider)
	assert.Equal(t, "lock-light-rear-250", p.Chosen(parts.RearLock, "travel").ID, "what is ordered is on the bike")
	assert.Contains(t, w.Text(`[...document.querySelectorAll('.line-more summary')].map((e) => e.textContent).join()`), "the fork has been opened")
}
