package entry

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Count is a whole number above zero. The zero Count is not known.
type Count int

// Known reports whether there is one.
func (c *Count) Known() bool { return *c > 0 }

// In is the number; a count has no unit.
func (c *Count) In(string) float64 { return float64(*c) }

// String is the number, "" without one.
func (c *Count) String() string {
	if *c == 0 {
		return ""
	}
	return strconv.Itoa(int(*c))
}

// Enter reads a whole number; an empty one is not known. On an error nothing changes.
func (c *Count) Enter(text, _ string) error {
	if text = strings.TrimSpace(text); text == "" {
		*c = 0
		return nil
	}
	n, err := strconv.Atoi(text)
	if err != nil || n <= 0 {
		return fmt.Errorf("%q is not a whole number", text)
	}
	*c = Count(n)
	return nil
}

// UnmarshalJSON reads a whole number above zero.
func (c *Count) UnmarshalJSON(data []byte) error {
	n, err := strconv.Atoi(string(data))
	if err != nil || n <= 0 {
		return fmt.Errorf("%s is not a whole number above zero", data)
	}
	*c = Count(n)
	return nil
}

// Word is one of a closed list; "" is not said.
type Word string

// Known reports whether there is one.
func (w *Word) Known() bool { return *w != "" }

// String is the word.
func (w *Word) String() string { return string(*w) }

// Enter sets it. Whether it is of the list is for validation to say.
func (w *Word) Enter(text, _ string) error {
	*w = Word(strings.TrimSpace(text))
	return nil
}

// Words are any number of a closed list.
type Words []string

// Known reports whether there is one.
func (w *Words) Known() bool { return len(*w) > 0 }

// String joins them.
func (w *Words) String() string { return strings.Join(*w, ", ") }

// Enter reads what String wrote.
func (w *Words) Enter(text, _ string) error {
	*w = nil
	for word := range strings.SplitSeq(text, ",") {
		if word = strings.TrimSpace(word); word != "" && !slices.Contains(*w, word) {
			*w = append(*w, word)
		}
	}
	return nil
}

// Said is a yes or a no. The zero Said is neither: nobody has said, which is not a no.
type Said int8

// The two.
const (
	No  Said = -1
	Yes Said = 1
)

// Saids lists them.
func Saids() []Option { return []Option{{"yes", "Yes"}, {"no", "No"}} }

// Known reports whether somebody has said.
func (s *Said) Known() bool { return *s != 0 }

// String is "yes" or "no", "" where nobody has said.
func (s *Said) String() string {
	switch *s {
	case Yes:
		return "yes"
	case No:
		return "no"
	}
	return ""
}

// Enter reads what String wrote.
func (s *Said) Enter(text, _ string) error {
	switch strings.TrimSpace(text) {
	case "":
		*s = 0
	case "yes":
		*s = Yes
	case "no":
		*s = No
	default:
		return fmt.Errorf("%q is neither yes nor no", text)
	}
	return nil
}

// MarshalJSON writes true or false; whoever writes a document leaves an unsaid one out.
func (s Said) MarshalJSON() ([]byte, error) { return strconv.AppendBool(nil, s == Yes), nil }

// UnmarshalJSON reads what MarshalJSON wrote.
func (s *Said) UnmarshalJSON(data []byte) error {
	switch string(data) {
	case "true":
		*s = Yes
	case "false":
		*s = No
	default:
		return fmt.Errorf("%s is neither true nor false", data)
	}
	return nil
}

// Line is words of one's own.
type Line string

// Known reports whether there are any.
func (l *Line) Known() bool { return *l != "" }

// String is the words.
func (l *Line) String() string { return string(*l) }

// Enter sets them.
func (l *Line) Enter(text, _ string) error {
	*l = Line(strings.TrimSpace(text))
	return nil
}
