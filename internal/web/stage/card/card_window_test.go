//go:build !markup

package card_test

import (
	"fmt"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/referee"
	"valiantmule/internal/web/webtest"
)

// TestTrueToSize: the card prints on A5, two sides at most, also with as many rows as it takes; by pdfinfo, which counts sheets and
// measures them (148 × 210 mm are 419.5 × 595.3 points, ISO 216).
func TestTrueToSize(t *testing.T) {
	pdfinfo := referee.Program(t, "pdfinfo", "poppler-utils")
	s := webtest.New(t)
	w, path := s.Desktop(t, "card?loadout=travel")
	sheet := func() (pages string, width, height float64) {
		file := filepath.Join(t.TempDir(), "card.pdf")
		require.NoError(t, os.WriteFile(file, w.Paper(), 0o600))
		out, err := exec.CommandContext(t.Context(), pdfinfo, file).CombinedOutput()
		require.NoError(t, err, "%s", out)
		pages = string(regexp.MustCompile(`Pages:\s+(\d+)`).FindSubmatch(out)[1])
		size := regexp.MustCompile(`Page size:\s+([0-9.]+) x ([0-9.]+)`).FindSubmatch(out)
		_, err = fmt.Sscan(string(size[1])+" "+string(size[2]), &width, &height)
		require.NoError(t, err)
		return pages, width, height
	}
	pages, width, height := sheet()
	assert.Contains(t, []string{"1", "2"}, pages)
	assert.InDelta(t, 419.5, width, 1.5)
	assert.InDelta(t, 595.3, height, 1.5)

	v, _ := s.Demo(t)
	rows := url.Values{"base": {webtest.Base(v.Page(path + "/buttons?loadout=travel"))}}
	for i := range 40 {
		rows.Set(fmt.Sprintf("does.%d", i), fmt.Sprintf("Mode %d", i))
		rows.Set(fmt.Sprintf("press.%d", i), "MODE, then ▼ twice")
	}
	status, body, _ := v.Post(path+"/buttons?loadout=travel", rows)
	require.Equal(t, http.StatusSeeOther, status, body)
	require.Len(t, v.Stored(path).Buttons, 40)
	w.Open(path + "/card?loadout=travel")
	pages, _, _ = sheet()
	assert.Contains(t, []string{"1", "2"}, pages, "with as many buttons as a bike may have")
}
