package money_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/money"
)

func TestParse(t *testing.T) {
	for _, c := range []struct {
		text, fallback string
		minor          int64
		code           string
	}{
		{"129 EUR", "", 12900, "EUR"}, {"129.50 EUR", "", 12950, "EUR"}, {"129,50 eur", "", 12950, "EUR"},
		{"129.5", "GBP", 12950, "GBP"}, {"1500 JPY", "", 1500, "JPY"}, {"1.234 KWD", "", 1234, "KWD"}, {"-20 EUR", "", -2000, "EUR"},
	} {
		a, err := money.Parse(c.text, c.fallback)
		require.NoError(t, err, c.text)
		assert.Equal(t, money.New(c.minor, c.code), a, c.text)
	}
	for _, text := range []string{"", "EUR", "129", "129 QQQ", "12.345 EUR", "15.5 JPY", "1e3 EUR", "1,000.00 EUR", "NaN EUR", "99999999999999 EUR"} {
		_, err := money.Parse(text, "")
		assert.Error(t, err, text)
	}
}

func TestPlus(t *testing.T) {
	sum, err := money.New(110, "EUR").Plus(money.New(220, "EUR"))
	require.NoError(t, err)
	assert.Equal(t, "3.30 EUR", sum.String(), "whole cents, no float")
	_, err = money.New(1, "EUR").Plus(money.New(1, "USD"))
	assert.ErrorIs(t, err, money.ErrMixed)
}

func TestRates(t *testing.T) {
	rate, err := money.ParseRate("0,9235")
	require.NoError(t, err)
	for amount, want := range map[string]string{"100 USD": "92.35 EUR", "0.10 USD": "0.09 EUR", "-1 USD": "-0.92 EUR", "9.75 USD": "9.00 EUR"} {
		a, err := money.Parse(amount, "")
		require.NoError(t, err)
		in, err := a.In("EUR", rate)
		require.NoError(t, err)
		assert.Equal(t, want, in.String(), amount)
	}
	yen, err := money.ParseRate("168.4")
	require.NoError(t, err)
	in, err := money.New(1999, "EUR").In("JPY", yen)
	require.NoError(t, err)
	assert.Equal(t, "3366 JPY", in.String(), "19.99 × 168.4 = 3366.3, and a yen has no parts")
	for _, text := range []string{"", "0", "-1", "1e3", "1,000.5", "rate", "0,0"} {
		_, err := money.ParseRate(text)
		assert.Error(t, err, text)
	}
}

func TestShown(t *testing.T) {
	assert.Equal(t, "€1,714.50", money.New(171450, "EUR").Display())
	assert.Equal(t, "€1,715", money.New(171450, "EUR").Rough())
	assert.Equal(t, "¥1,500", money.New(1500, "JPY").Display())
	assert.False(t, money.Valid(""), "no currency is not a currency")
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{"129.50 EUR", "0,1 USD", "-3 JPY", "9999999999.99 EUR", ".5 EUR", "1.2.3 EUR"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		a, err := money.Parse(text, "EUR")
		if err != nil {
			return
		}
		again, err := money.Parse(a.String(), "")
		require.NoError(t, err, "%q was kept as %q", text, a)
		require.Equal(t, a, again)
	})
}
