package entry

import (
	"errors"
	"fmt"
	"regexp"
	"strings"
	"time"
)

// Problem is one thing wrong with a document, at a place in it.
type Problem struct {
	Path string // "brief.distance"
	What string
}

func (p Problem) Error() string { return p.Path + ": " + p.What }

// Limits on what any document says.
const (
	MaxName = 200  // bytes
	MaxNote = 1000 // bytes
	MaxTags = 40
	MaxTag  = 80 // bytes
)

var slug = regexp.MustCompile(`^[a-z0-9][a-z0-9-]{0,63}$`)

// IsSlug reports whether a text is a short id of a–z, 0–9 and -.
func IsSlug(text string) bool { return slug.MatchString(text) }

// Problems gathers what is wrong with a document, in its order.
type Problems struct{ List []Problem }

// That notes a problem unless all is well.
func (v *Problems) That(ok bool, path, format string, args ...any) {
	if !ok {
		v.List = append(v.List, Problem{Cut(path), Cut(fmt.Sprintf(format, args...))})
	}
}

// mostSaid is how long a problem is, whatever it repeats of what was sent.
const mostSaid = 300 // bytes

// Cut is what is said, without the end of what is too long to be read.
func Cut(words string) string {
	if len(words) <= mostSaid {
		return words
	}
	return strings.ToValidUTF8(words[:mostSaid], "") + "…"
}

// CutName is words as long as a name may be.
func CutName(words string) string {
	if len(words) <= MaxName {
		return words
	}
	return strings.ToValidUTF8(words[:MaxName-len("…")], "") + "…"
}

// Check notes an error; one that is a [Problem] lies below the path.
func (v *Problems) Check(path string, err error) {
	var field Problem
	if errors.As(err, &field) {
		path, err = path+"."+field.Path, errors.New(field.What)
	}
	v.That(err == nil, path, "%v", err)
}

// Few makes sure that a list is no longer than any real one.
func (v *Problems) Few(path string, n, most int) {
	v.That(n <= most, path, "are %d, want at most %d", n, most)
}

// Name makes sure of a name.
func (v *Problems) Name(path, name string) {
	v.That(name != "", path, "is missing")
	v.Short(path, name)
}

// Short makes sure that words are no longer than a name.
func (v *Problems) Short(path, words string) {
	v.That(len(words) <= MaxName, path, "is longer than %d bytes", MaxName)
}

// Note makes sure that words are no longer than a note.
func (v *Problems) Note(path, words string) {
	v.That(len(words) <= MaxNote, path, "is longer than %d bytes", MaxNote)
}

// ID makes sure of a short id; what says of what, as in "is not the id of a bike".
func (v *Problems) ID(path, id, what string) {
	v.That(IsSlug(id), path, "%q is not %s", id, what)
}

// Fields checks the bounds of fields below a path.
func (v *Problems) Fields(path string, fields []Field) {
	for _, f := range fields {
		v.Check(path+"."+f.Key, f.Check())
	}
}

// Pick makes sure that a word that may be left out is one of the options.
func (v *Problems) Pick(path, value string, options []Option) {
	v.That(value == "" || Among(options, value), path, "%q is none of %s", value, Values(options))
}

// Tags makes sure of a list of tags.
func (v *Problems) Tags(path string, list []string) {
	v.Few(path, len(list), MaxTags)
	for i, tag := range list {
		v.That(tag != "" && len(tag) <= MaxTag, fmt.Sprintf("%s[%d]", path, i), "want 1–%d bytes", MaxTag)
	}
}

// Date checks one that may be left out.
func (v *Problems) Date(path, on string) {
	_, err := time.Parse(time.DateOnly, on)
	v.That(on == "" || err == nil, path, "%q is not a date like 2027-06-12", on)
}

// At is the place of an element of a list.
func At(i int) string { return fmt.Sprintf("[%d]", i) }

// ValidID reports whether an id is one that a client may make, of a reading, a save or an
// answer: 26 letters and digits of A–Z, 2–7, as crypto/rand.Text makes them.
func ValidID(id string) bool {
	return len(id) == 26 && strings.Trim(id, "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567") == ""
}
