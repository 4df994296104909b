package account

import (
	"errors"
	"sort"
	"strings"
	"unicode"
	"unicode/utf8"

	thirdparty "valiantmule/third_party"
)

// Password lengths: in characters at least, and in bytes at most, for bcrypt reads no
// further.
const (
	MinPassword = 12
	MaxPassword = 72
)

// fewest different characters that a password is made of.
const fewest = 4

// CheckPassword tells why a password is none for the rider of a name; nil when it is one.
func CheckPassword(password, name string) error {
	folded := strings.ToLower(password)
	switch {
	case !utf8.ValidString(password):
		return errors.New("that is not text: type it again")
	case utf8.RuneCountInString(password) < MinPassword || len(password) > MaxPassword:
		return errors.New("a password has 12 to 72 characters; a few plain words make a good one")
	case strings.TrimSpace(password) == "":
		return errors.New("a password is more than spaces")
	case distinct(folded) < fewest:
		return errors.New("the same few characters again and again are guessed first: take a few plain words")
	case Fold(name) != "" && whole(Fold(password), Fold(name)):
		return errors.New("your name is the first thing that is guessed: take something else")
	case common(folded):
		return errors.New("that is on every list of common passwords: take a few plain words that do not belong together")
	}
	return nil
}

// whole tells whether a text is another one, once or more often.
func whole(text, part string) bool { return strings.ReplaceAll(text, part, "") == "" }

func distinct(text string) int {
	seen := map[rune]bool{}
	for _, r := range text {
		seen[r] = true
	}
	return len(seen)
}

// common tells whether a password is on the list, as it is, twice, or with the digits and
// signs that make a short one long enough.
func common(password string) bool {
	bare := strings.TrimRightFunc(password, func(r rune) bool { return !unicode.IsLetter(r) })
	bare = strings.TrimLeftFunc(bare, func(r rune) bool { return !unicode.IsLetter(r) })
	for _, p := range []string{password, password[:len(password)/2], bare, bare[:len(bare)/2]} {
		if listed(p) && (p == bare || p == password || whole(password, p) || whole(bare, p)) {
			return true
		}
	}
	return false
}

// listed looks a password up in the sorted list.
func listed(password string) bool {
	list := thirdparty.CommonPasswords()
	at := sort.Search(len(list), func(i int) bool { return lineAt(list, i) >= password })
	return password != "" && at < len(list) && lineAt(list, at) == password
}

// lineAt is the line that a byte of the list lies in.
func lineAt(list string, at int) string {
	start := strings.LastIndexByte(list[:at], '\n') + 1
	end := strings.IndexByte(list[start:], '\n')
	return list[start : start+end]
}
