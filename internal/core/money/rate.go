package money

import (
	"fmt"
	"strings"

	"github.com/bojanz/currency"
)

// Rate is what one unit of a currency costs in another, kept as it was typed.
// The zero Rate is a missing one.
type Rate struct{ text string }

// ParseRate reads a positive decimal number, "0.92" or "0,92".
func ParseRate(text string) (Rate, error) {
	text = strings.TrimSpace(text)
	digits := strings.Trim(text, "0123456789.,") == "" && strings.Trim(text, "0.,") != ""
	if !digits || strings.Count(text, ".")+strings.Count(text, ",") > 1 || len(text) > 20 {
		return Rate{}, fmt.Errorf("rate %q: want a positive number, e.g. 0.92", text)
	}
	return Rate{text}, nil
}

// Known reports whether there is a rate.
func (r Rate) Known() bool { return r.text != "" }

// String is the rate as typed.
func (r Rate) String() string { return r.text }

// IsZero lets encoders leave a missing rate out.
func (r Rate) IsZero() bool { return !r.Known() }

// MarshalText writes the rate as typed.
func (r Rate) MarshalText() ([]byte, error) { return []byte(r.text), nil }

// UnmarshalText reads what MarshalText wrote.
func (r *Rate) UnmarshalText(b []byte) error {
	read, err := ParseRate(string(b))
	if err != nil {
		return err
	}
	*r = read
	return nil
}

// In is the amount in another currency at a rate, rounded half away from zero to
// its minor units.
func (a Amount) In(code string, r Rate) (Amount, error) {
	c, err := currency.NewAmountFromInt64(a.minor, a.code)
	if err != nil {
		return Amount{}, fmt.Errorf("%s: %w", a, err)
	}
	converted, err := c.Convert(code, strings.Replace(r.text, ",", ".", 1))
	if err != nil {
		return Amount{}, fmt.Errorf("%s at %s: %w", a, r, err)
	}
	minor, err := converted.Round().Int64()
	if err != nil || minor > maxMinor || minor < -maxMinor {
		return Amount{}, fmt.Errorf("%s at %s: beyond what is counted here", a, r)
	}
	return Amount{minor, code}, nil
}
