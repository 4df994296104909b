//go:build !markup

package bike_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

// TestTwoBikesSideBySide: another bike is laid over the plan's and the brief is
// asked of both.
func TestTwoBikesSideBySide(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "bike")
	require.Equal(t, "1", w.Text(`String(document.querySelectorAll('.side').length)`))
	w.Click(`[data-bike="averill-720"]`)
	w.Bench("Averill 720")
	w.Until(`document.querySelectorAll('.side').length === 2`)
	assert.Equal(t, "3", w.Text(`String(document.querySelectorAll('.asked thead th').length)`), "the questions, and a column for each")
	assert.Contains(t, w.Text(`document.querySelector('.asked').textContent`), "Reaches the next pump?")
	assert.Contains(t, w.Text(`document.querySelector('.asked-money').textContent`), "€")
	w.Click("[data-leave]")
	w.Until(`document.querySelectorAll('.side').length === 1`)
}
