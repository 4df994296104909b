// Package money counts in whole minor units of a currency, never in floats.
//
// Which currencies there are and how many decimals they have comes from CLDR,
// through github.com/bojanz/currency.
package money

import (
	"errors"
	"fmt"
	"math"
	"strings"

	"github.com/bojanz/currency"
)

// Amount is a sum of money. The zero Amount is a missing one: nobody has said
// what it costs. A thing that costs nothing has a currency.
type Amount struct {
	minor int64
	code  string
}

// New is minor units (cents, …) of the currency with an ISO 4217 code.
func New(minor int64, code string) Amount { return Amount{minor, code} }

// Parse reads "129 EUR", "129.50 EUR" or "129,50 EUR"; a bare number is in the
// fallback currency, if there is one.
func Parse(text, fallback string) (Amount, error) {
	number, code, found := strings.Cut(strings.TrimSpace(text), " ")
	code = strings.ToUpper(strings.TrimSpace(code))
	if !found {
		code = fallback
	}
	if !Valid(code) {
		return Amount{}, fmt.Errorf("amount %q: currency missing or unknown, want e.g. 129.50 EUR", text)
	}
	a, err := currency.NewAmount(strings.Replace(number, ",", ".", 1), code)
	if err != nil || strings.ContainsAny(number, "eE") {
		return Amount{}, fmt.Errorf("amount %q: not a plain number, want e.g. 129.50 %s", text, code)
	}
	if !a.Equal(a.Round()) {
		digits, _ := currency.GetDigits(code)
		return Amount{}, fmt.Errorf("amount %q: %s has %d decimals", text, code, digits)
	}
	minor, err := a.Round().Int64()
	if err != nil || minor > maxMinor || minor < -maxMinor {
		return Amount{}, fmt.Errorf("amount %q: beyond what is counted here", text)
	}
	return Amount{minor, code}, nil
}

// maxMinor keeps sums of thousands of lines far from overflow.
const maxMinor = 1_000_000_000_000

// Valid reports whether code is a currency of ISO 4217.
func Valid(code string) bool { return code != "" && currency.IsValid(code) }

// Known reports whether there is an amount at all.
func (a Amount) Known() bool { return a.code != "" }

// Minor is the amount in minor units.
func (a Amount) Minor() int64 { return a.minor }

// Minors is how many minor units of a currency make a whole one [ISO 4217].
func Minors(code string) float64 {
	digits, _ := currency.GetDigits(code)
	return math.Pow10(int(digits))
}

// Code is the ISO 4217 code, "" when the amount is missing.
func (a Amount) Code() string { return a.code }

// Decimal is the number with the currency's decimals, "129.50".
func (a Amount) Decimal() string {
	if !a.Known() {
		return ""
	}
	c, err := currency.NewAmountFromInt64(a.minor, a.code)
	if err != nil {
		return ""
	}
	return c.Number()
}

// String is "129.50 EUR", "" when missing.
func (a Amount) String() string {
	if !a.Known() {
		return ""
	}
	return a.Decimal() + " " + a.code
}

// ErrMixed says that amounts of two currencies met without a rate.
var ErrMixed = errors.New("two currencies without a rate")

// Plus adds two amounts of one currency.
func (a Amount) Plus(b Amount) (Amount, error) {
	if a.code != b.code {
		return Amount{}, fmt.Errorf("%s and %s: %w", a, b, ErrMixed)
	}
	return Amount{a.minor + b.minor, a.code}, nil
}

// MarshalText writes "129.50 EUR".
func (a Amount) MarshalText() ([]byte, error) { return []byte(a.String()), nil }

// UnmarshalText reads what MarshalText wrote.
func (a *Amount) UnmarshalText(b []byte) error {
	read, err := Parse(string(b), "")
	if err != nil {
		return err
	}
	*a = read
	return nil
}

// IsZero lets encoders leave a missing amount out.
func (a Amount) IsZero() bool { return !a.Known() }

var formatter, rough = newFormatter(currency.DefaultDigits), newFormatter(0)

func newFormatter(mostDigits uint8) *currency.Formatter {
	f := currency.NewFormatter(currency.NewLocale("en"))
	f.MinDigits, f.MaxDigits = min(f.MinDigits, mostDigits), mostDigits
	return f
}

// Display is the amount as it is shown, "€129.50".
func (a Amount) Display() string { return a.format(formatter) }

// Rough is the amount in whole units of its currency, "€1,714".
func (a Amount) Rough() string { return a.format(rough) }

func (a Amount) format(f *currency.Formatter) string {
	c, err := currency.NewAmountFromInt64(a.minor, a.code)
	if err != nil {
		return "?"
	}
	return f.Format(c)
}
