package desk

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestShown: what turns or hides a text is a number where it is read, and stays where it is typed.
func TestShown(t *testing.T) {
	for page, want := range map[string]string{
		"<p>Plan \u202egnir\u202c</p>":                            "<p>Plan [U+202E]gnir[U+202C]</p>",
		"<p>a\x01b\x7fc\u0085</p>":                                "<p>a[U+0001]b[U+007F]c[U+0085]</p>",
		"<input value=\"a\u202eb\" @x='c > d\u200f'>e\u200f":      "<input value=\"a\u202eb\" @x='c > d\u200f'>e[U+200F]",
		"<textarea>a\u202e</textarea><b>\u202e</b>":               "<textarea>a\u202e</textarea><b>[U+202E]</b>",
		"<p>Persian\u200cjoins, 👩\u200d🔧, – … “”\u202f5 kg\n</p>": "<p>Persian\u200cjoins, 👩\u200d🔧, – … “”\u202f5 kg\n</p>",
	} {
		assert.Equal(t, want, string(shown([]byte(page))))
	}
}
