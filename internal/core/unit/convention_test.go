package unit_test

import (
	"errors"
	"math"
	"strconv"
	"strings"
	"testing"
	"unicode"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/unit"
)

// TestPlain: the ways of writing a number after ISO 31-0 (either mark before decimals,
// blanks between thousands) and CLDR's of en, de, fr and de-CH.
func TestPlain(t *testing.T) {
	for _, c := range []struct {
		by         unit.Convention
		text, want string
	}{
		{unit.Point, "1,250", "1250"}, {unit.Point, "9,500 ft", "9500 ft"}, {unit.Point, "1,250.50", "1250.50"}, {unit.Point, "1.250", "1.250"}, {unit.Point, "12,5", "12.5"},
		{unit.Comma, "1.250,00", "1250.00"}, {unit.Comma, "1.250", "1250"}, {unit.Comma, "1,250", "1.250"}, {unit.Comma, "1,250.5", "1250.5"}, {unit.Comma, "2,5 kg", "2.5 kg"},
		{unit.Unsaid, "1 250", "1250"}, {unit.Unsaid, "1'250", "1250"}, {unit.Unsaid, "1\u202f250,5 km", "1250.5 km"}, {unit.Unsaid, "1.250.000", "1250000"}, {unit.Unsaid, "1,250.00", "1250.00"},
		{unit.Unsaid, "0,745", "0.745"}, {unit.Unsaid, "1250,125", "1250.125"}, {unit.Unsaid, "12.25", "12.25"}, {unit.Unsaid, "−4,5 %", "-4.5 %"}, {unit.Unsaid, "96kg", "96 kg"}, {unit.Unsaid, "96 kg", "96 kg"},
		{unit.Unsaid, "lots", " lots"}, {unit.Unsaid, "", ""},
	} {
		got, err := c.by.Plain(c.text)
		require.NoError(t, err, c.text)
		assert.Equal(t, strings.TrimSpace(c.want), strings.TrimSpace(got), "%s by %q", c.text, c.by)
	}
	for _, text := range []string{"1,250", "1.250", "950,000 km", "1.250 EUR"} {
		_, err := unit.Unsaid.Plain(text)
		var both *unit.Ambiguous
		require.True(t, errors.As(err, &both), text)
		assert.NotEqual(t, both.Small, both.Large)
	}
	ratio, err := unit.Unsaid.PlainRatio("2.533")
	require.NoError(t, err)
	assert.Equal(t, "2.533", ratio)
	for _, text := range []string{"1,25,000", "1 2", "12 34", "1.2.3", "1,250,00.5"} {
		_, err := unit.Point.Plain(text)
		assert.Error(t, err, text)
	}
}

// FuzzConvention: whatever is read is read again as it is shown.
func FuzzConvention(f *testing.F) {
	for _, seed := range []string{"1,250.5 kg", "1.250,5", "1 250", "-0,5 L", "1'250'000.25", "2.533"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, c := range []unit.Convention{unit.Unsaid, unit.Point, unit.Comma} {
			plain, err := c.Plain(text)
			if err != nil {
				continue
			}
			number, rest, _ := strings.Cut(plain, " ")
			if rest != "" && !unicode.IsLetter([]rune(rest)[0]) {
				continue // no unit
			}
			v, err := strconv.ParseFloat(number, 64)
			if err != nil || math.Abs(v) > 1e15 {
				continue
			}
			again, err := c.Plain(c.Shown(plain))
			require.NoError(t, err, "%q shown as %q", plain, c.Shown(plain))
			number, _, _ = strings.Cut(again, " ")
			w, err := strconv.ParseFloat(number, 64)
			require.NoError(t, err, again)
			assert.Equal(t, v, w, "%q as %q", plain, c.Shown(plain))
		}
	})
}
