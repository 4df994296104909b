package words_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/words"
)

func preset(t *testing.T, name string) words.Units {
	t.Helper()
	for _, p := range words.Presets() {
		if p.Name == name {
			return words.ParseUnits(p.Units.String())
		}
	}
	require.Fail(t, "no preset", name)
	return nil
}

// TestAmounts as riders of some countries type them.
func TestAmounts(t *testing.T) {
	us, comma, metric := preset(t, "US"), words.Units{"number": "comma"}, words.Units{}
	for _, c := range []struct {
		u              words.Units
		text, currency string
		want           string
	}{
		{us, "1,250", "USD", "1250.00 USD"}, {us, "$62", "USD", "62.00 USD"}, {us, "$ 1,250.50", "CAD", "1250.50 CAD"}, {us, "€40", "USD", "40.00 EUR"}, {us, "USD 62", "EUR", "62.00 USD"},
		{comma, "1.250,00", "EUR", "1250.00 EUR"}, {comma, "1.250", "EUR", "1250.00 EUR"}, {metric, "1 250", "EUR", "1250.00 EUR"}, {metric, "1'250 CHF", "EUR", "1250.00 CHF"}, {metric, "", "EUR", ""},
	} {
		a, err := c.u.Amount(c.text, c.currency)
		require.NoError(t, err, c.text)
		assert.Equal(t, c.want, a.String(), c.text)
	}
	for _, text := range []string{"1,250", "1.250", "dear", "1,25,0"} {
		_, err := metric.Amount(text, "EUR")
		assert.Error(t, err, text)
	}
	_, err := metric.Amount("1,250", "EUR")
	assert.ErrorContains(t, err, "1250", "asked back with both readings")
	assert.ErrorContains(t, err, "1.250")
}

// TestQuantitiesByTheRider: their gallons, their thousands, their ranges.
func TestQuantitiesByTheRider(t *testing.T) {
	us, uk := preset(t, "US"), preset(t, "UK")
	var v unit.Volume
	require.NoError(t, uk.Enter(&v, "3.1 gal", "L"))
	assert.InDelta(t, 3.1*4.54609, v.In("L"), 1e-9, "the imperial gallon, 4.54609 L")
	require.NoError(t, us.Enter(&v, "3.1 gallons", "L"))
	assert.InDelta(t, 3.1*3.785411784, v.In("L"), 1e-9, "the US gallon, 231 in³ (NIST SP 811)")
	var h unit.Length
	require.NoError(t, us.Enter(&h, "9,500", "m"))
	assert.Equal(t, "9500 ft", h.String())
	require.NoError(t, us.Enter(&h, "9,500 feet", "m"))
	assert.InDelta(t, 9500*0.3048, h.Base(), 1e-9)
	var m unit.Mass
	err := us.EnterField(entry.Field{Key: "rider", Unit: "kg", Min: 35, Max: 250, Entry: &m}, "900")
	assert.EqualError(t, err, "900 lb is outside 77.2–551\u00a0lb")
	var r unit.Ratio
	require.NoError(t, words.Units{}.Enter(&r, "2.533", ""))
	assert.Equal(t, 2.533, r.In(""))
	assert.Equal(t, "2.533", words.Units{}.ShownOf(&r))
	require.NoError(t, m.Enter("1.250 kg", "kg"))
	assert.Equal(t, "1.2500 kg", words.Units{}.Shown(m.String()), "what is shown can be sent back")
	assert.Equal(t, "1,250 kg", words.Units{"number": "comma"}.Shown(m.String()))
	assert.Equal(t, "With boots (18–26\u00a0lb).", us.Prose("With boots (8–12 kg)."))
}

// TestDates as they are written in some countries; one that could be two is asked back.
func TestDates(t *testing.T) {
	for _, c := range []struct {
		u          words.Units
		text, want string
	}{
		{nil, "2026-03-14", "2026-03-14"}, {preset(t, "US"), "3/14/2026", "2026-03-14"}, {preset(t, "US"), "3/4/2026", "2026-03-04"}, {preset(t, "UK"), "4/3/2026", "2026-03-04"},
		{nil, "14.3.2026", "2026-03-14"}, {nil, "3/14/2026", "2026-03-14"}, {nil, "14/3/2026", "2026-03-14"}, {nil, "4/4/2026", "2026-04-04"}, {nil, "", ""}, {nil, "in May", "in May"},
	} {
		got, err := c.u.Date(c.text)
		require.NoError(t, err, c.text)
		assert.Equal(t, c.want, got, c.text)
	}
	_, err := words.Units{}.Date("3/4/2026")
	assert.ErrorContains(t, err, "2026-03-04")
	assert.ErrorContains(t, err, "2026-04-03")
	_, err = words.Units{}.Date("31.2.2026")
	assert.Error(t, err)
}

// TestDayFrom: a day, or how long there is until it.
func TestDayFrom(t *testing.T) {
	var u words.Units
	for text, day := range map[string]string{
		"2027-05-14": "2027-05-14", "14.5.2027": "2027-05-14", "three weeks": "2026-12-22", "in 10 days": "2026-12-11", "a month": "2026-12-31", "1 week": "2026-12-08", "In two Weeks": "2026-12-15",
		"soon": "soon", "0 days": "0 days", "weeks": "weeks", "5000 days": "5000 days", "": "",
	} {
		got, err := u.DayFrom(text, "2026-12-01")
		require.NoError(t, err, text)
		assert.Equal(t, day, strings.ToLower(got), text)
	}
	_, err := u.DayFrom("3/4/2027", "2026-12-01")
	assert.Error(t, err, "it could be two days")
}
