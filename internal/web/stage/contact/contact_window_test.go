//go:build !markup

package contact_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestContact: a higher bar is drawn over the one that is on, and what it needs is
// said; too high for the cables is watch until somebody has looked at full lock.
func TestContact(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "contact?loadout=travel")
	require.Equal(t, "1", w.Text(`String(document.querySelectorAll('#rider svg[role=img] .grip').length)`))
	low := w.GaugeIn("#rider", "bar-short")
	w.Click(`a.option[href*="riser-30-22"]`)
	w.Bench("Risers 30 mm")
	w.Until(`document.querySelectorAll('#rider svg[role=img] .grip').length === 2`)
	assert.NotEqual(t, low, w.GaugeIn("#rider", "bar-short"))
	w.Until(`document.querySelector('#bench [data-finding="cables-short"].is-watch') !== null`)
	w.Click(`a.option[href*="riser-20-22"]`)
	w.Bench("Risers 20 mm")
	w.Follow("[data-fit]")
	assert.Equal(t, "riser-20-22", s.Newest(t, demo.Rider).Chosen(parts.Risers, "travel").ID)
	w.Follow(`#tabs a[href*="/cockpit"]`)
	w.Click(`a.option[href*="nav-phone"]`)
	w.Bench("Your own phone")
	w.Until(`document.querySelector('#bench [data-finding="part-does-not-fit"]') !== null`)
}
