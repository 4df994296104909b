package unit

import (
	"errors"
	"math"
	"strconv"
	"strings"
)

var (
	errNoNumber = errors.New("number missing")
	errTooLarge = errors.New("more than anybody measures")
	errTwoMarks = errors.New("two decimal marks: write thousands without a separator")
)

// most is far beyond every quantity of the trade and far from overflow in any
// unit.
const most = 1e15

// Number reads a decimal number with a point or a comma. Exponents, thousands
// separators, NaN and infinities are refused: nobody measures them.
func Number(text string) (float64, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return 0, errNoNumber
	}
	if strings.Count(text, ",")+strings.Count(text, ".") > 1 {
		return 0, errTwoMarks
	}
	if whole, after, comma := strings.Cut(text, ","); comma && len(after) == 3 && len(whole) <= 3 && strings.TrimLeft(whole, "+-") != "0" {
		return 0, errors.New("a comma before three digits may be thousands: write a point, or no mark")
	}
	if strings.Trim(text, "0123456789.,+-") != "" || !strings.ContainsAny(text, "0123456789") {
		return 0, errors.New("not a plain number")
	}
	v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		return 0, errors.New("not a plain number")
	}
	if math.Abs(v) > most {
		return 0, errTooLarge
	}
	return v, nil
}
