// Package account is what a rider's name and password have to be.
package account

import (
	"errors"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/cases"
	"golang.org/x/text/runes"
	"golang.org/x/text/transform"
	"golang.org/x/text/unicode/norm"
)

// MaxName is how many characters a name has at most.
const MaxName = 60

// CleanName is a name as it is kept: composed, its ends trimmed. The error says what to do.
func CleanName(typed string) (string, error) {
	name := norm.NFC.String(strings.Join(strings.Fields(typed), " "))
	switch {
	case !utf8.ValidString(typed):
		return "", errors.New("that is not text: type it again")
	case name == "":
		return "", errors.New("choose a name to sign in with")
	case utf8.RuneCountInString(name) > MaxName:
		return "", errors.New("a name has at most 60 characters")
	case strings.ContainsFunc(name, unseen):
		return "", errors.New("a name is made of characters that can be seen: there is one in it that cannot")
	case Fold(name) == "":
		return "", errors.New("a name needs a letter or a digit")
	}
	return name, nil
}

// unseen characters make two names look alike, or turn the line that they stand in: control
// characters, those that set directions, those without width.
func unseen(r rune) bool {
	return unicode.In(r, unicode.Cc, unicode.Cf, unicode.Cs, unicode.Co, unicode.Zl, unicode.Zp) || !unicode.IsGraphic(r)
}

// Fold is what names are compared by, wherever they are: the same in all compositions,
// widths and cases, without accents and other marks that have no width of their own.
func Fold(name string) string {
	bare := transform.Chain(norm.NFKD, runes.Remove(runes.In(unicode.Mn)), runes.Remove(runes.In(unicode.Cf)), cases.Fold(), norm.NFKC)
	folded, _, err := transform.String(bare, name)
	if err != nil {
		return ""
	}
	if !strings.ContainsFunc(folded, func(r rune) bool { return unicode.IsLetter(r) || unicode.IsNumber(r) || unicode.IsSymbol(r) }) {
		return ""
	}
	return strings.Join(strings.Fields(folded), " ")
}
