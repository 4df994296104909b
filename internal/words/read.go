package words

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// numbers is the key of the convention among a rider's units.
const numbers = "number"

// Conventions lists the ways of writing numbers, for the rider to choose from.
func Conventions() []entry.Option {
	return []entry.Option{{Value: string(unit.Unsaid), Name: "Asks where it matters"}, {Value: string(unit.Point), Name: "1,250.5"}, {Value: string(unit.Comma), Name: "1.250,5"}}
}

// Numbers is how the rider writes numbers.
func (u Units) Numbers() unit.Convention { return unit.Convention(u[numbers]) }

// Shown is a number of the document, with its unit, as the rider writes it.
func (u Units) Shown(text string) string { return u.Numbers().Shown(text) }

// ShownOf is a field's number as the rider writes it; a code or a list stays as it is.
func (u Units) ShownOf(e entry.Entry) string {
	_, quantity := e.(interface{ Base() float64 })
	_, ratio := e.(*unit.Ratio)
	switch {
	case ratio:
		return u.Numbers().ShownRatio(e.String())
	case quantity:
		return u.Shown(e.String())
	}
	return e.String()
}

// Enter sets a number of the document from what a rider typed, in their convention; a
// bare number is in their unit for a metric one.
func (u Units) Enter(e entry.Entry, text, metric string) error {
	text, err := u.plain(e, text)
	if err != nil {
		return err
	}
	return e.Enter(u.gallons(text), u.Of(metric))
}

func (u Units) plain(e entry.Entry, text string) (string, error) {
	switch e.(type) {
	case *plan.Gears: // blanks stand between its numbers
		return text, nil
	case *unit.Length:
		if _, two := unit.FeetAndInches(text); two {
			return text, nil
		}
	case *unit.Ratio:
		return u.Numbers().PlainRatio(text)
	}
	return u.Numbers().Plain(text)
}

// EnterField is Enter with the range in which the number is believed, said in the
// rider's units.
func (u Units) EnterField(f entry.Field, text string) error {
	if f.Max == f.Min { // a code or a list, not one number
		return f.Entry.Enter(text, u.Of(f.Unit))
	}
	if err := u.Enter(f.Entry, text, f.Unit); err != nil {
		return err
	}
	return u.Says(f.Check())
}

// Says is an error in the rider's units.
func (u Units) Says(err error) error {
	var outside *entry.OutOfRange
	if !errors.As(err, &outside) {
		return err
	}
	low, symbol := u.Convert(outside.Min, outside.Unit)
	high, _ := u.Convert(outside.Max, outside.Unit)
	return fmt.Errorf("%s is outside %s–%s", u.Shown(outside.Text), round(low), join(round(high), symbol))
}

// round writes an end of a range with the digits that matter.
func round(v float64) string {
	switch {
	case v >= 100 || v <= -100 || v == float64(int64(v)):
		return Number(v, 0)
	case v >= 10 || v <= -10:
		return trimmed(v, 1)
	}
	return trimmed(v, 2)
}

// rough writes a measure of a text with two digits, or as many as stand before its point.
func rough(v float64) string {
	switch {
	case v >= 10:
		return Number(v, 0)
	case v >= 1:
		return trimmed(v, 1)
	}
	return trimmed(v, 2)
}

// imperial are units that are larger in the UK, by how they are written for short.
var imperial = map[string]string{"gal": "UK gal", "gallon": "UK gal", "gallons": "UK gal", "mpg": "mpg UK"}

// gallons writes a gallon out as the one that the rider means.
func (u Units) gallons(text string) string {
	number, symbol, found := strings.Cut(text, " ")
	if uk := imperial[strings.ToLower(symbol)]; found && uk != "" && (u["L"] == "UK gal" || u["L/100 km"] == "mpg UK") {
		return number + " " + uk
	}
	return text
}

// signs are those of currencies, where no code stands beside the number.
var signs = []struct{ sign, code string }{{"€", "EUR"}, {"£", "GBP"}, {"¥", "JPY"}, {"$", "USD"}}

// dollars are currencies that are written with the same sign.
var dollars = map[string]bool{"USD": true, "CAD": true, "AUD": true, "NZD": true, "SGD": true, "HKD": true, "MXN": true}

// Amount reads money in the rider's convention: "1,250", "$62", "62 USD"; a bare number
// is in the given currency. Empty is missing.
func (u Units) Amount(text, currency string) (money.Amount, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return money.Amount{}, nil
	}
	code := currency
	for _, s := range signs {
		if !strings.Contains(text, s.sign) {
			continue
		}
		text = strings.TrimSpace(strings.Replace(text, s.sign, "", 1))
		if code = s.code; s.sign == "$" && dollars[currency] {
			code = currency
		}
		break
	}
	if first, rest, ok := strings.Cut(text, " "); ok && money.Valid(strings.ToUpper(first)) {
		text = rest + " " + first
	}
	plain, err := u.Numbers().Plain(text)
	if err != nil {
		return money.Amount{}, err
	}
	return money.Parse(plain, code)
}

// Rate reads a rate of exchange in the rider's convention.
func (u Units) Rate(text string) (money.Rate, error) {
	plain, err := u.Numbers().PlainRatio(text)
	if err != nil {
		return money.Rate{}, err
	}
	return money.ParseRate(plain)
}

// Count reads a whole number, 0 where nothing is typed.
func (u Units) Count(text string) (int, error) {
	if strings.TrimSpace(text) == "" {
		return 0, nil
	}
	plain, err := u.Numbers().Plain(text)
	if err != nil {
		return 0, err
	}
	n, err := strconv.Atoi(plain)
	if err != nil {
		return 0, fmt.Errorf("%q is not a whole number", text)
	}
	return n, nil
}

var slashed = regexp.MustCompile(`^(\d{1,2})([/.\-])(\d{1,2})[/.\-](\d{4})$`)

// Date reads a day as documents hold it, "2026-03-14": so, as 14.3.2026, or with strokes in
// the order of the rider's country. One that could be two days is asked back. What is no
// date is left as it is, for the document to refuse.
func (u Units) Date(text string) (string, error) {
	text = strings.TrimSpace(text)
	m := slashed.FindStringSubmatch(text)
	if m == nil {
		return text, nil
	}
	first, _ := strconv.Atoi(m[1])
	second, _ := strconv.Atoi(m[3])
	american := u["L"] == "US gal"
	british := u.Numbers() == unit.Point && !american || u.Numbers() == unit.Comma
	day, month := first, second
	switch {
	case m[2] == ".", first > 12:
	case second > 12, american:
		day, month = second, first
	case !british && first != second:
		return text, fmt.Errorf("%q could be %s-%02d-%02d or %s-%02d-%02d: write one of them", text, m[4], first, second, m[4], second, first)
	}
	iso := fmt.Sprintf("%s-%02d-%02d", m[4], month, day)
	if _, err := time.Parse(time.DateOnly, iso); err != nil {
		return text, fmt.Errorf("%q is no day of a calendar", text)
	}
	return iso, nil
}

var measured = regexp.MustCompile(`(\d+(?:\.\d+)?)(?:–(\d+(?:\.\d+)?))? (mm²|mm|kg|km/h|km|kPa|kW|Nm|L|m)(?:\b|$)`)

// Prose is a help or a note in the rider's units: its measures are rounded as whoever
// wrote them rounded.
func (u Units) Prose(text string) string {
	if len(u) == 0 {
		return text
	}
	return measured.ReplaceAllStringFunc(text, func(quantity string) string {
		m := measured.FindStringSubmatch(quantity)
		low, _ := strconv.ParseFloat(m[1], 64)
		own, symbol := u.Convert(low, m[3])
		if symbol == m[3] {
			return quantity
		}
		words := rough(own)
		if m[2] != "" {
			high, _ := strconv.ParseFloat(m[2], 64)
			own, _ = u.Convert(high, m[3])
			words += "–" + rough(own)
		}
		return join(words, symbol)
	})
}

// counts are numbers as they are said.
var counts = []string{"zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

// spans are how many days their words are.
var spans = map[string]int{"day": 1, "d": 1, "week": 7, "wk": 7, "month": 30}

// mostAhead is how many days ahead anybody plans.
const mostAhead = 1000

// DayFrom reads a day as [Units.Date] does, or how long there is until it, counted from another:
// "three weeks", "in 10 days". What is neither is left as it is, for the document to refuse.
func (u Units) DayFrom(text, today string) (string, error) {
	day, err := u.Date(text)
	if err != nil {
		return day, err
	}
	from, ok := calendar.ParseDay(today)
	first, unit, _ := strings.Cut(strings.TrimPrefix(strings.ToLower(day), "in "), " ")
	n := slices.Index(counts, first)
	if typed, err := strconv.Atoi(first); err == nil {
		n = typed
	} else if first == "a" || first == "an" {
		n = 1
	}
	days := n * spans[strings.TrimSuffix(strings.TrimSpace(unit), "s")]
	if !ok || days <= 0 || days > mostAhead {
		return day, nil
	}
	return (from + calendar.Day(days)).String(), nil
}
