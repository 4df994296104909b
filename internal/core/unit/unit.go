// Package unit holds quantities as riders write them: "26 psi", "1,8 bar", "96 kg".
//
// A [Quantity] keeps the text that was typed and, beside it, the value in the
// SI unit of its dimension, so a document that is read and written again does
// not drift by a digit. The zero Quantity is a missing one, never a zero one.
// Rotation is the one exception to SI: it is held in revolutions per minute,
// the unit of every formula and instrument of the trade.
package unit

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// A Unit is one way of writing a dimension: Factor is the size of one of it in
// the dimension's base unit, Names what a rider may type for it. An inverse unit
// counts the other way round, as miles per gallon do for litres per 100 km.
type Unit struct {
	Symbol  string
	Factor  float64
	Names   []string
	Inverse bool
}

// base is a number of the unit in the dimension's base unit.
func (u *Unit) base(number float64) float64 {
	if u.Inverse {
		return u.Factor / number
	}
	return number * u.Factor
}

// number is base turned round.
func (u *Unit) number(base float64) float64 {
	if u.Inverse {
		return u.Factor / base
	}
	return base / u.Factor
}

// Quantity is a typed amount of the dimension D.
type Quantity[D Dimension] struct {
	text string
	base float64
}

// Known reports whether there is a value.
func (q Quantity[D]) Known() bool { return q.text != "" }

// String is the text as typed, "" when the quantity is missing.
func (q Quantity[D]) String() string { return q.text }

// Base is the value in the base unit of the dimension: kg, m, m/s, m³, W, rpm
// or a plain ratio. It is NaN when the quantity is missing, so a missing number
// that slips into a sum spoils it instead of hiding in it.
func (q Quantity[D]) Base() float64 {
	if !q.Known() {
		return math.NaN()
	}
	return q.base
}

// In is the value in the named unit, NaN when missing.
func (q Quantity[D]) In(symbol string) float64 {
	var d D
	u := named(d.units(), symbol)
	if u == nil {
		_, err := find[D](symbol)
		panic(err)
	}
	return u.number(q.Base())
}

// Units lists the ways of writing the dimension, and Example is one of them.
func (Quantity[D]) Units() []Unit {
	var d D
	return d.units()
}

// Example is how one is written.
func (Quantity[D]) Example() string {
	var d D
	return d.example()
}

// Enter sets the quantity from a form: a bare number takes the unit fallback,
// an empty text makes the quantity missing. On an error nothing changes.
func (q *Quantity[D]) Enter(text, fallback string) error {
	if strings.TrimSpace(text) == "" {
		*q = Quantity[D]{}
		return nil
	}
	read, err := parse[D](text, fallback)
	if err != nil {
		return err
	}
	*q = read
	return nil
}

// Set makes it a number in a unit of its dimension that is not typed, as if somebody had
// typed just that.
func (q *Quantity[D]) Set(number float64, symbol string) {
	var d D
	u := named(d.units(), symbol)
	*q = Quantity[D]{strings.TrimSpace(strconv.FormatFloat(number, 'f', -1, 64) + " " + symbol), u.base(number)}
}

// MarshalText writes the text as typed.
func (q Quantity[D]) MarshalText() ([]byte, error) { return []byte(q.text), nil }

// UnmarshalText reads what MarshalText wrote.
func (q *Quantity[D]) UnmarshalText(b []byte) error {
	read, err := parse[D](string(b), "")
	if err != nil {
		return err
	}
	*q = read
	return nil
}

// IsZero lets encoders leave a missing quantity out.
func (q Quantity[D]) IsZero() bool { return !q.Known() }

func parse[D Dimension](text, fallback string) (Quantity[D], error) {
	var d D
	text = strings.TrimSpace(text)
	if _, isLength := any(d).(length); isLength {
		if metres, ok := FeetAndInches(text); ok {
			return Quantity[D]{text: text, base: metres}, nil
		}
	}
	digits, symbol := split(text)
	number, err := Number(digits)
	switch {
	case err != nil && fallback != "":
		return Quantity[D]{}, fmt.Errorf("%q: %w, want a number in %s, or one with its unit", text, err, fallback)
	case err != nil:
		return Quantity[D]{}, fmt.Errorf("%q: %w, want e.g. %q", text, err, d.example())
	}
	if symbol == "" && fallback != "" {
		symbol = fallback
		text += " " + fallback
	}
	u, err := find[D](symbol)
	if err != nil {
		return Quantity[D]{}, fmt.Errorf("%q: %w", text, err)
	}
	if u.Inverse && number == 0 {
		return Quantity[D]{}, fmt.Errorf("%q: none per unit has no value", text)
	}
	return Quantity[D]{text: strings.TrimSpace(text), base: u.base(number)}, nil
}

// heights are how people say how tall they are: 6'1", 6 ft 1 in, 6′ 1½ is not read.
var heights = regexp.MustCompile(`^(\d{1,2}) ?(?:'|′|ft) ?(?:(\d{1,2}(?:\.\d+)?) ?(?:"|″|''|in)?)?$`)

// FeetAndInches is a length of two units in metres; ok is false for what is none.
func FeetAndInches(text string) (metres float64, ok bool) {
	part := heights.FindStringSubmatch(strings.TrimSpace(text))
	if part == nil || part[2] == "" && !strings.ContainsAny(text, "'′") {
		return 0, false
	}
	feet, _ := strconv.ParseFloat(part[1], 64)
	inches := 0.0
	if part[2] != "" {
		inches, _ = strconv.ParseFloat(part[2], 64)
	}
	return (feet + inches/12) * metresPerFoot, inches < 12
}

// metresPerFoot [pub: NIST SP 811].
const metresPerFoot = 0.3048

// split cuts "26 psi" into its number and its unit.
func split(text string) (number, symbol string) {
	end := strings.IndexFunc(text, func(r rune) bool {
		return !strings.ContainsRune("0123456789.,+-", r)
	})
	if end < 0 {
		return text, ""
	}
	return text[:end], strings.TrimSpace(text[end:])
}

// named is the unit of a symbol or another name for it, nil when there is none.
func named(units []Unit, symbol string) *Unit {
	for i := range units { // as the program writes it
		if units[i].Symbol == symbol {
			return &units[i]
		}
	}
	for i, u := range units {
		if strings.EqualFold(u.Symbol, symbol) || slices.ContainsFunc(u.Names, func(n string) bool { return strings.EqualFold(n, symbol) }) {
			return &units[i]
		}
	}
	return nil
}

func find[D Dimension](symbol string) (Unit, error) {
	var d D
	if u := named(d.units(), symbol); u != nil {
		return *u, nil
	}
	known := make([]string, 0, len(d.units()))
	for _, u := range d.units() {
		if u.Symbol != "" {
			known = append(known, u.Symbol)
		}
	}
	if symbol == "" {
		return Unit{}, fmt.Errorf("unit missing, want one of %s", strings.Join(known, ", "))
	}
	return Unit{}, fmt.Errorf("unknown unit %q, want one of %s", symbol, strings.Join(known, ", "))
}
