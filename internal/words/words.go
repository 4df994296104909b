// Package words writes figures for people: sensible digits, a thin space in
// thousands, the unit behind the number, a true minus sign.
package words

import (
	"math"
	"strconv"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/study"
)

// thin is a narrow no-break space.
const thin = "\u202f"

// decimals shown per unit; a unit that is not here has none.
var decimals = map[string]int{"km/h": 1, "mph": 1, "°": 1, "": 2, "in": 2, "st": 1, "US gal": 2, "UK gal": 2, "PS": 1, "hp": 1, "bar": 2, "psi": 1, "L/100 km": 1, "km/L": 1, "d": 1, "m²": 2, "N/mm": 1, "kgf/mm": 2, "L": 1, "kg/L": 3, "s": 1, "lx": 1}

// roughFrom is from how many minor units money is shown without them.
const roughFrom = 100_000

// Value is a figure's value with its unit, "?" when it is unknown.
func (u Units) Value(f study.Figure) string {
	if !f.Known {
		return "?"
	}
	if f.ID == figure.SeatReach { // its sign says nothing to whoever stands there
		how := " up"
		if f.Value < 0 {
			how = " to spare"
		}
		return u.quantity(f.Row, math.Abs(f.Value), f.Unit) + how
	}
	return u.quantity(f.Row, f.Value, f.Unit)
}

// date is a day as it is written everywhere here.
func date(v float64) string { return calendar.Day(math.Round(v)).String() }

// DayBeside is a day as it is written beside another: without its year where that is the same.
func (u Units) DayBeside(v, other float64) string {
	day, beside := calendar.Day(math.Round(v)).Time(), calendar.Day(math.Round(other)).Time()
	if day.Year() == beside.Year() {
		return day.Format("2 Jan")
	}
	return day.Format("2 Jan 06")
}

// Told is a figure's value, or what it lacks first: for where no gauge stands beside it.
func (u Units) Told(f study.Figure) string {
	switch {
	case f.Known:
		return u.Value(f)
	case len(f.Missing) == 0:
		return Unknown
	}
	what, _, _ := strings.Cut(f.Missing[0], " (")
	return "needs " + what
}

// Unknown is what stands where a number would, where nobody knows it and nothing says why.
const Unknown = "not known"

// About is a figure's value that rests on usual numbers, with no more digits than those bear.
func (u Units) About(f study.Figure) string {
	if f.Known && f.Digits > 0 && !f.IsSum() {
		row := *f.Row
		row.Digits, f.Row = 0, &row
	}
	return u.Value(f)
}

// Limit is a figure's limit with its unit.
func (u Units) Limit(f study.Figure) string {
	if f.Digits > 0 && !f.IsSum() { // a limit that is a whole number is written as one
		limit, symbol := u.Convert(f.Limit, f.Unit)
		return join(trimmed(limit, f.Digits), symbol)
	}
	if f.Digits < 0 { // it is as somebody typed it, however rough the figure is
		row := *f.Row
		row.Digits = 0
		return u.quantity(&row, f.Limit, f.Unit)
	}
	return u.quantity(f.Row, f.Limit, f.Unit)
}

// Band is a figure's band with its unit, said once.
func (u Units) Band(f study.Figure) string {
	low, high := u.quantity(f.Row, f.Low, f.Unit), u.quantity(f.Row, f.High, f.Unit)
	if _, symbol := u.Convert(f.High, f.Unit); strings.HasSuffix(high, symbol) {
		low = strings.TrimRight(strings.TrimSuffix(low, symbol), " \u00a0"+thin)
	}
	return low + " to " + high
}

// Delta is a change of a figure with its sign and unit, "" when it is too small
// to be shown.
func (u Units) Delta(f study.Figure, delta float64) string {
	row, unit := f.Row, f.Unit
	if f.IsDate() { // how much later, or sooner
		row, unit, delta = nil, "days", math.Round(delta)
	}
	text := u.quantity(row, math.Abs(delta), unit)
	switch {
	case text == u.quantity(row, 0, unit):
		return ""
	case delta < 0:
		return "−" + text
	}
	return "+" + text
}

// Quantity is a number with its unit, with the digits that the unit usually has.
func (u Units) Quantity(v float64, unit string) string { return u.quantity(nil, v, unit) }

// Of is a number of a figure with its unit.
func (u Units) As(id figure.ID, v float64) string {
	row, _ := figure.Of(id)
	return u.quantity(row, v, row.Unit)
}

// quantity is a number with its unit, as a figure's row says where there is one.
func (u Units) quantity(row *figure.Row, v float64, unit string) string {
	if row != nil {
		v *= u.per(row)
	}
	if unit == figure.Date {
		return date(v)
	}
	if money.Valid(unit) {
		amount := money.New(int64(math.Round(v)), unit)
		if math.Abs(v) >= roughFrom {
			return amount.Rough()
		}
		return amount.Display()
	}
	v, unit = u.Convert(v, unit)
	if row != nil && row.Digits < 0 {
		step := math.Pow10(-row.Digits)
		v = step * math.Round(v/step)
	}
	return join(Number(v, digits(row, unit)), unit)
}

// digits behind the point for a number in a unit as it is shown. A figure whose row
// asks for more than its unit usually has keeps more in the rider's unit too.
func digits(row *figure.Row, shown string) int {
	usual := decimals[shown]
	switch {
	case row == nil:
		return usual
	case shown == row.Unit:
		return max(row.Digits, 0)
	case row.Digits > decimals[row.Unit]:
		return max(row.Digits, usual)
	}
	return usual
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
	if unit == figure.Date {
		return date(v)
	}
	if money.Valid(unit) && !math.IsNaN(v) {
		return money.New(int64(math.Round(v)), unit).Display()
	}
	own, symbol := u.Convert(v, unit)
	if symbol != unit { // what was typed in another unit bears no more than four
		return join(significant(own, 4), symbol)
	}
	return join(free(own), symbol)
}

// significant writes a number with so many digits, without trailing zeros.
func significant(v float64, digits int) string {
	if v != 0 && !math.IsNaN(v) && !math.IsInf(v, 0) {
		digits -= 1 + int(math.Floor(math.Log10(math.Abs(v))))
	}
	return trimmed(v, max(0, digits))
}
