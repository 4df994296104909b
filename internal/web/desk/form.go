package desk

import (
	"fmt"
	"net/url"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/words"
)

// blankRows are offered for new lines.
const BlankRows = 2

// Places where luggage goes; the others are for parts.
func Places() []entry.Option {
	var options []entry.Option
	for _, s := range load.Spots() {
		if !slices.Contains([]load.Place{load.FrontWheel, load.RearWheel, load.Rider, load.Tank}, s.Place) {
			options = append(options, entry.Option{Value: string(s.Place), Name: s.Name})
		}
	}
	return options
}

// FormErrors are what is wrong with a form, by field.
type FormErrors map[string]string

// ReasonOf asks why something is so, as it is typed or else as it is stored.
func ReasonOf(form url.Values, key, stored, like string, errs FormErrors) FieldView {
	return FieldView{Key: key, Label: "Why", Value: Typed(form, key, stored), Guess: like, Error: errs[key]}
}

// RefusedReason says why words are no reason to be kept, "" where they are one.
func RefusedReason(why string) string {
	switch {
	case why == "":
		return "Say why, in a few words: it stands beside it, and is printed."
	case len(why) > entry.MaxName:
		return fmt.Sprintf("Is longer than %d bytes.", entry.MaxName)
	}
	return ""
}

// At is the state with the addresses of another.
func (s FormState) At(other FormState) FormState {
	s.Try, s.Save = other.Try, other.Save
	return s
}

// FieldView is one field of a form.
type FieldView struct {
	Key, Label, Unit, Help string
	Value, Error           string
	Origin                 string
	Guess                  string // what stands for it while it is empty, "" for nothing
	List                   *List  // that the field is in a row of, nil for most
	Today                  bool   // it asks for today, on whichever day the page is looked at
}

// FormState is what every stage's form shows beside its fields.
type FormState struct {
	Error     string // of the form as a whole
	Note      string // why it is shown again
	Conflicts []conflictView
	Try, Save string // where a change is tried, and saved
}

// Typed is the value of a field: as it was sent, or else as it is stored.
func Typed(form url.Values, key, stored string) string {
	if form != nil {
		return form.Get(key)
	}
	return stored
}

// FieldOf shows a plan's field in the rider's units, as typed before as kept.
func FieldOf(u words.Units, f entry.Field, form url.Values, errs FormErrors) FieldView {
	return FieldView{Key: f.Key, Label: f.Label, Unit: u.Of(f.Unit), Help: u.Prose(f.Help), Value: Typed(form, f.Key, u.ShownOf(f.Entry)), Error: errs[f.Key]}
}

// Enter sets fields from a form, a bare number in the rider's unit; it returns
// what changed, in words.
func Enter(u words.Units, fields []entry.Field, form url.Values, errs FormErrors) []string {
	var changed []string
	for _, f := range fields {
		was, shown := f.Entry.String(), u.ShownOf(f.Entry)
		text := strings.TrimSpace(form.Get(f.Key))
		if text == shown {
			continue
		}
		if err := u.EnterField(f, text); err != nil {
			errs[f.Key] = err.Error()
			continue
		}
		if f.Entry.String() != was {
			changed = append(changed, ChangedWords(f.Label, was, f.Entry.String()))
		}
	}
	return changed
}

// Sent are the fields that a form has; the others it leaves as they are.
func Sent(fields []entry.Field, form url.Values) []entry.Field {
	return slices.DeleteFunc(fields, func(f entry.Field) bool { return !form.Has(f.Key) })
}

// ChangedWords tell a change of a field in a plan's history.
func ChangedWords(label, was, now string) string {
	switch {
	case was == "":
		return label + " " + now
	case now == "":
		return label + " " + was + " taken out"
	}
	return label + " " + was + " → " + now
}

// Picked sets a choice that a form has, and says what changed, in words; what is none of the
// options is left for validation to refuse.
func Picked[T ~string](into *T, label string, options []entry.Option, form url.Values, key string) []string {
	was, now := *into, T(form.Get(key))
	if !form.Has(key) || now == was {
		return nil
	}
	*into = now
	return []string{ChangedWords(label, entry.NameOf(options, string(was)), entry.NameOf(options, string(now)))}
}

// Problems sorts what validation says under the fields of a form whose part of
// the document starts with prefix; the rest goes under "form".
func Problems(p *plan.Plan, prefix string, errs FormErrors) {
	for _, problem := range p.Validate() {
		key, found := strings.CutPrefix(problem.Path, prefix)
		switch {
		case problem.Path == "name": // the plan's own
			key = "name"
		case !found || strings.ContainsAny(key, ".["):
			key = "form"
		}
		if errs[key] == "" {
			errs[key] = problem.What
			if key == "form" {
				errs[key] = problem.Error()
			}
		}
	}
}

// OptionView is one option of a select.
type OptionView struct {
	Value, Name string
	Selected    bool
}

// Selected is a select's value as a field.
func Selected(key, label string, options []OptionView) FieldView {
	f := FieldView{Key: key, Label: label}
	for _, o := range options {
		if o.Selected {
			f.Value = o.Value
		}
	}
	return f
}

// Checked is a checkbox's value as a field.
func Checked(key, label string, on bool) FieldView {
	f := FieldView{Key: key, Label: label}
	if on {
		f.Value = "on"
	}
	return f
}

// RowKey is the name of a field in row i of a list.
func RowKey(name string, i int) string { return fmt.Sprintf("%s.%d", name, i) }

// OptionsOf a list to choose from; none is what choosing nothing is called, "" where
// something has to be chosen.
func OptionsOf(options []entry.Option, selected, none string) []OptionView {
	var list []OptionView
	if none != "" {
		list = append(list, OptionView{"", none, selected == ""})
	}
	for _, o := range options {
		list = append(list, OptionView{o.Value, o.Name, o.Value == selected})
	}
	return list
}

// RowsOf is how many rows of a list a page shows: those sent, or those stored and
// some blank ones.
func RowsOf(form url.Values, key string, stored int) int {
	if form == nil {
		return stored + BlankRows
	}
	rows := 0
	for form.Has(RowKey(key, rows)) {
		rows++
	}
	return rows
}

// SectionView is a group of fields under a heading.
type SectionView struct {
	Name    string
	Fields  []FieldView
	Missing int  // of its numbers
	Bad     bool // one of them cannot be used
}

// within is a sentence as it stands within another.
func within(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToLower(first)) + text[size:]
}

// Capital is words as a heading.
func Capital(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToUpper(first)) + text[size:]
}

// Sentence is an error as a page says it by itself.
func Sentence(err error) string {
	return Capital(err.Error()) + "."
}
