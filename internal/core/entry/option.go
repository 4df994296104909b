package entry

import (
	"slices"
	"strings"
)

// Option is one choice of a closed list.
type Option struct{ Value, Name string }

// NameOf is the name of an option by its value, and the value where there is none.
func NameOf(options []Option, value string) string {
	for _, o := range options {
		if o.Value == value {
			return o.Name
		}
	}
	return value
}

// Among reports whether a value is one of the options.
func Among(options []Option, value string) bool {
	return slices.ContainsFunc(options, func(o Option) bool { return o.Value == value })
}

// Values of options, for what is said of another.
func Values(options []Option) string {
	words := make([]string, len(options))
	for i, o := range options {
		words[i] = o.Value
	}
	return strings.Join(words, ", ")
}

// Pick is a word of the document out of a closed list; "" is not known.
type Pick struct {
	Key, Label string
	Options    []Option
	Get        func() string
	Set        func(value string)
	Unsaid     string // what stands while nothing is picked, "" for no more than that
}

// PickOf is a pick that is kept in value.
func PickOf[S ~string](key, label string, value *S, options ...Option) Pick {
	return Pick{Key: key, Label: label, Options: options, Get: func() string { return string(*value) }, Set: func(v string) { *value = S(v) }}
}

// SaidOf is a pick of yes and no that is kept in value.
func SaidOf(key, label string, value *Said) Pick {
	return Pick{Key: key, Label: label, Options: Saids(), Get: value.String, Set: func(word string) { _ = value.Enter(word, "") }}
}

// Several is any number of words out of a list.
type Several struct {
	Key, Label, Help string
	Options          []Option
	Get              func() []string
	Set              func([]string)
}

// SeveralOf are words that are kept in list.
func SeveralOf[S ~string](key, label, help string, list *[]S, options []Option) Several {
	return Several{key, label, help, options, func() []string {
		var words []string
		for _, s := range *list {
			words = append(words, string(s))
		}
		return words
	}, func(words []string) {
		*list = nil
		for _, w := range words {
			*list = append(*list, S(w))
		}
	}}
}

// Opt is an option by a word of its own type.
func Opt[S ~string](value S, name string) Option { return Option{string(value), name} }
