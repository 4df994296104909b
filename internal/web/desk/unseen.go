package desk

import (
	"bytes"
	"fmt"
	"unicode/utf8"
)

// unseen are characters that cannot be seen, and some of which turn the line that they stand
// in: in the name of a plan or a part, of one's own or from a file, they would make it look
// like another. Joiners are none: scripts and signs are written with them.
func unseen(r rune) bool {
	switch {
	case r == '\t', r == '\n', r == '\r':
		return false
	case r < 0x20, r >= 0x7f && r < 0xa0: // control characters
		return true
	case r == 0x061c, r == 0x200e, r == 0x200f, r >= 0x202a && r <= 0x202e, r >= 0x2066 && r <= 0x2069: // directions
		return true
	case r == 0x200b, r == 0x2028, r == 0x2029, r == 0x2060, r == 0xfeff: // without width, or ends of lines
		return true
	}
	return false
}

// mayBeUnseen are the bytes that the characters of [unseen] begin with in UTF-8.
var mayBeUnseen = func() (table [256]bool) {
	for r := range rune(0x10000) {
		if unseen(r) {
			table[string(r)[0]] = true
		}
	}
	return table
}()

// hasUnseen looks for one; nearly every page has none.
func hasUnseen(page []byte) bool {
	for at := 0; at < len(page); at++ {
		if !mayBeUnseen[page[at]] {
			continue
		}
		if r, _ := utf8.DecodeRune(page[at:]); unseen(r) {
			return true
		}
	}
	return false
}

// shown writes a page with what cannot be seen in its text as its number. What stands in a
// field stays as it is: it is sent back.
func shown(page []byte) []byte {
	if !hasUnseen(page) {
		return page
	}
	var out bytes.Buffer
	inTag, quote, field := false, byte(0), false
	for at := 0; at < len(page); {
		c := page[at]
		switch {
		case inTag && quote != 0:
			if c == quote {
				quote = 0
			}
		case inTag && (c == '"' || c == '\''):
			quote = c
		case inTag && c == '>':
			inTag = false
		case !inTag && c == '<':
			inTag, field = true, bytes.HasPrefix(page[at:], []byte("<textarea"))
		}
		r, size := utf8.DecodeRune(page[at:])
		if !inTag && !field && unseen(r) {
			fmt.Fprintf(&out, "[U+%04X]", r)
		} else {
			out.Write(page[at : at+size])
		}
		at += size
	}
	return out.Bytes()
}
