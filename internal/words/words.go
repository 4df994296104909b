// Package words writes figures for people: sensible digits, a thin space in
// thousands, the unit behind the number, a true minus sign.
package words

import (
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
)

// thin is a narrow no-break space.
const thin = "\u202f"

// coarse figures are estimates: they are shown to the nearest hundred.
var coarse = map[string]bool{"tyre-life": true, "rear-life": true, "front-life": true}

// decimals shown per unit; a unit that is not here has none.
var decimals = map[string]int{"km/h": 1, "mph": 1, "°": 1, "": 2, "in": 2, "st": 1, "US gal": 2, "UK gal": 2, "PS": 1, "hp": 1, "bar": 2, "psi": 1, "L/100 km": 1, "km/L": 1, "d": 1, "m²": 2, "L": 1, "kg/L": 3}

// finer figures show more digits than their unit's.
var finer = map[string]int{"gear-change": 1, "wheel-mix": 1, "speedometer": 1, "axle-shift": 1, "seat-rise": 1, "seated-hours": 1, "seat-hours": 1, "stand-short": 1, "loaded-mass": 1, "front-unsprung": 1, "rear-unsprung": 1, "left-right": 1, "rack-load": 1, "shipping-mass": 1}

// roughFrom is from how many minor units money is shown without them.
const roughFrom = 100_000

// Value is a figure's value with its unit, "?" when it is unknown.
func (u Units) Value(f eval.Figure) string {
	if !f.Known {
		return "?"
	}
	return u.Quantity(f.ID, f.Value, f.Unit)
}

// Limit is a figure's limit with its unit.
func (u Units) Limit(f eval.Figure) string {
	if f.ID == "loaded-mass" || f.ID == "crawl-speed" {
		limit, symbol := u.Convert(f.Limit, f.Unit)
		return join(trimmed(limit, 1), symbol)
	}
	return u.Quantity(f.ID, f.Limit, f.Unit)
}

// Delta is a change of a figure with its sign and unit, "" when it is too small
// to be shown.
func (u Units) Delta(f eval.Figure, delta float64) string {
	text := u.Quantity(f.ID, math.Abs(delta), f.Unit)
	switch {
	case text == u.Quantity(f.ID, 0, f.Unit):
		return ""
	case delta < 0:
		return "−" + text
	}
	return "+" + text
}

// Quantity is a number of a figure with its unit.
func (u Units) Quantity(id string, v float64, unit string) string {
	if money.Valid(unit) {
		amount := money.New(int64(math.Round(v)), unit)
		if math.Abs(v) >= roughFrom {
			return amount.Rough()
		}
		return amount.Display()
	}
	v, unit = u.Convert(v, unit)
	if coarse[id] {
		v = 100 * math.Round(v/100)
	}
	return join(Number(v, digits(id, unit)), unit)
}

// whole figures are counted, not measured.
var whole = map[string]bool{"hold-gear": true, "needs": true, "chain-links": true}

// digits behind the point that a figure is shown with.
func digits(id, unit string) int {
	if whole[id] {
		return 0
	}
	return max(finer[id], decimals[unit])
}

// Signed is Number with its sign in front, a plus too.
func Signed(v float64, digits int) string {
	text := Number(v, digits)
	if v > 0 && strings.Trim(text, "0.") != "" {
		return "+" + text
	}
	return text
}

// Number writes a number with so many decimals. What is not a number is "?".
func Number(v float64, digits int) string {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return "?"
	}
	text := strconv.FormatFloat(math.Abs(v), 'f', digits, 64)
	whole, fraction, _ := strings.Cut(text, ".")
	for at := len(whole) - 3; at > 0 && len(whole) > 4; at -= 3 {
		whole = whole[:at] + thin + whole[at:]
	}
	if fraction != "" {
		whole += "." + fraction
	}
	if v < 0 && strings.Trim(text, "0.") != "" {
		whole = "−" + whole
	}
	return whole
}

// free writes a number of a working: as many digits as matter.
func free(v float64) string {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return "?"
	}
	digits := 0
	for a := math.Abs(v); digits < 4 && a != 0 && a < 10000; digits++ {
		a *= 10
	}
	return trimmed(v, digits)
}

// trimmed is Number without trailing zeros.
func trimmed(v float64, digits int) string {
	text := Number(v, digits)
	if strings.Contains(text, ".") {
		text = strings.TrimRight(strings.TrimRight(text, "0"), ".")
	}
	return text
}

func join(number, unit string) string {
	switch unit {
	case "":
		return number
	case "°":
		return number + unit
	}
	return number + "\u00a0" + unit
}

// Plain is a number of a working with its unit: money as money, anything else
// with the digits that matter.
func (u Units) Plain(v float64, unit string) string {
	if money.Valid(unit) && !math.IsNaN(v) {
		return money.New(int64(math.Round(v)), unit).Display()
	}
	v, unit = u.Convert(v, unit)
	return join(free(v), unit)
}
