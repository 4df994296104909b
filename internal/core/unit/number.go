package unit

import (
	"errors"
	"strconv"
	"strings"
)

var (
	errNoNumber = errors.New("number missing")
	errTwoMarks = errors.New("two decimal marks: write thousands without a separator")
)

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
	if strings.Trim(text, "0123456789.,+-") != "" || !strings.ContainsAny(text, "0123456789") {
		return 0, errors.New("not a plain number")
	}
	v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil {
		return 0, errors.New("not a plain number")
	}
	return v, nil
}
