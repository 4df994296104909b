package unit

import (
	"errors"
	"fmt"
	"strings"
	"unicode"
)

// Convention is how a rider writes numbers. Documents hold one way only: digits, and a
// point before decimals.
type Convention string

// The conventions. Where nobody has said, a number that could be read in two ways is
// asked back.
const (
	Unsaid Convention = ""
	Point  Convention = "point" // 1,250.5
	Comma  Convention = "comma" // 1.250,5
)

// Ambiguous is a number that could be one or a thousand times it.
type Ambiguous struct{ Text, Small, Large string }

func (e *Ambiguous) Error() string {
	return fmt.Sprintf("%q could be %s or %s: write %s0, or %s", e.Text, e.Small, e.Large, e.Small, e.Large)
}

// startsInWords reports whether what stands behind a number is no second one.
func startsInWords(rest string) bool {
	at := strings.IndexFunc(rest, func(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) })
	return at < 0 || unicode.IsLetter([]rune(rest[at:])[0])
}

// blanks stand between thousands, and nowhere else in a number.
var blanks = strings.NewReplacer(" ", "'", "\u00a0", "'", "\u202f", "'", "\u2009", "'", "’", "'")

var errGroups = errors.New("thousands come in groups of three digits")

// Plain rewrites the number that a text starts with as documents hold it; what follows it,
// a unit or a currency, stays. Blanks and apostrophes stand between thousands; of two
// different marks the last stands before decimals, one that is repeated between
// thousands; a single mark follows the convention where three digits come after it.
// It does not say whether the number is one: [Number] does.
func (c Convention) Plain(text string) (string, error) { return c.plain(text, false) }

// PlainRatio is Plain of a number that is never in the thousands, such as a gear ratio or
// a rate: where nobody has said, a point stands before its decimals.
func (c Convention) PlainRatio(text string) (string, error) { return c.plain(text, true) }

func (c Convention) plain(text string, small bool) (string, error) {
	text = strings.Replace(strings.TrimSpace(text), "−", "-", 1)
	sign := ""
	if text != "" && (text[0] == '+' || text[0] == '-') {
		sign, text = text[:1], text[1:]
	}
	end := strings.IndexFunc(text, func(r rune) bool { return !strings.ContainsRune("0123456789.,'’ \u00a0\u202f\u2009", r) })
	if end < 0 {
		end = len(text)
	}
	digits, rest := strings.TrimRight(text[:end], " \u00a0\u202f\u2009"), strings.TrimSpace(text[end:])
	number, err := c.number(digits, small)
	if err != nil {
		return text, err
	}
	number = sign + number
	switch {
	case rest == "":
	case !startsInWords(rest):
		return text, fmt.Errorf("%q: two numbers", text)
	default:
		number = strings.TrimSpace(number + " " + rest)
	}
	return number, nil
}

func (c Convention) number(text string, small bool) (string, error) {
	plain := blanks.Replace(text)
	mark, group := "", "'"
	points, commas := strings.Count(plain, "."), strings.Count(plain, ",")
	switch {
	case points > 0 && commas > 0:
		mark, group = ".", ","
		if strings.LastIndex(plain, ",") > strings.LastIndex(plain, ".") {
			mark, group = ",", "."
		}
	case points > 1:
		group = "."
	case commas > 1:
		group = ","
	case points+commas == 1:
		mark = "."
		if commas == 1 {
			mark = ","
		}
		whole, after, _ := strings.Cut(plain, mark)
		if len(after) != 3 || whole == "" || len(whole) > 3 || whole[0] == '0' || strings.Contains(plain, "'") {
			break // no thousands look so
		}
		switch {
		case c == Point && mark == ",", c == Comma && mark == ".":
			mark, group = "", mark
		case c == Unsaid && !(small && mark == "."):
			return "", &Ambiguous{text, whole + "." + after, whole + after}
		}
	}
	whole, after, decimals := plain, "", false
	if mark != "" {
		whole, after, decimals = strings.Cut(plain, mark)
	}
	whole, err := ungrouped(whole, group)
	if err != nil || strings.ContainsAny(after, ".,'") {
		return "", fmt.Errorf("%q: %w", text, errGroups)
	}
	if decimals {
		whole += "." + after
	}
	return whole, nil
}

// ungrouped takes the marks between thousands out.
func ungrouped(whole, mark string) (string, error) {
	groups := strings.FieldsFunc(whole, func(r rune) bool { return r == '\'' || string(r) == mark })
	for i, g := range groups {
		if i > 0 && len(g) != 3 || i == 0 && len(groups) > 1 && len(g) > 3 {
			return "", errGroups
		}
	}
	return strings.Join(groups, ""), nil
}

// Shown writes a number of a document, with what follows it, as [Convention.Plain] of the
// same convention reads it back.
func (c Convention) Shown(text string) string {
	end := strings.IndexFunc(text, func(r rune) bool { return !strings.ContainsRune("0123456789.+-", r) })
	if end < 0 {
		end = len(text)
	}
	var both *Ambiguous
	switch _, err := c.Plain(text); {
	case c == Comma:
		return strings.Replace(text[:end], ".", ",", 1) + text[end:]
	case errors.As(err, &both): // one more digit, and it is not
		return text[:end] + "0" + text[end:]
	}
	return text
}

// ShownRatio is Shown of what [Convention.PlainRatio] reads.
func (c Convention) ShownRatio(text string) string {
	if c == Comma {
		return c.Shown(text)
	}
	return text
}
