// Package entry is what a document's forms and its validation have in common: a number or
// a word, how it is asked for, and what of it is believed.
//
// An [Entry] keeps what was typed. A [Field] says in which unit and between which bounds a
// number is believed, a [Pick] out of which words one is chosen; whoever shows, reads or
// validates a document walks the same ones. The package knows no trade.
package entry

import (
	"fmt"
	"slices"
	"strings"
)

// Entry is something that a rider enters: a quantity, a count, a list of gears.
type Entry interface {
	String() string
	Known() bool
	Enter(text, fallback string) error
}

// Field is one number of the document: how it is asked for, its usual unit, and
// between which values it is believed.
type Field struct {
	Key, Label, Unit string
	Min, Max         float64 // in Unit
	Help             string
	Entry            Entry
}

// Section is a group of fields under a heading.
type Section struct {
	Name   string
	Fields []Field
}

// FieldsOf are the fields of all sections.
func FieldsOf(sections []Section) []Field {
	var all []Field
	for _, s := range sections {
		all = append(all, s.Fields...)
	}
	return all
}

// OutOfRange is a number that nobody believes, with the range in which one is.
type OutOfRange struct {
	Text     string
	Min, Max float64
	Unit     string
}

func (e *OutOfRange) Error() string {
	return strings.TrimSpace(fmt.Sprintf("%s is outside %g–%g %s", e.Text, e.Min, e.Max, e.Unit))
}

// Only are the fields of a list that have one of the keys.
func Only(fields []Field, keys ...string) (list []Field) {
	for _, f := range fields {
		if slices.Contains(keys, f.Key) {
			list = append(list, f)
		}
	}
	return list
}

// FieldIn is the field of a key, ok is false where there is none.
func FieldIn(fields []Field, key string) (f Field, ok bool) {
	for _, f := range fields {
		if f.Key == key {
			return f, true
		}
	}
	return Field{}, false
}

// Labels are the labels of fields as they stand alone: one that goes on from the field before,
// "… at", with that one's.
func Labels(fields []Field) map[string]string {
	labels, before := make(map[string]string, len(fields)), ""
	for _, f := range fields {
		label := f.Label
		if more, follows := strings.CutPrefix(label, "… "); follows {
			label = before + " " + more
		} else {
			before = label
		}
		labels[f.Key] = label
	}
	return labels
}

// Check tells whether the number is one that is believed.
func (f Field) Check() error {
	q, ok := f.Entry.(interface{ In(unit string) float64 })
	if !ok || !f.Entry.Known() {
		return nil
	}
	if v := q.In(f.Unit); !(v >= f.Min && v <= f.Max) {
		return &OutOfRange{f.Entry.String(), f.Min, f.Max, f.Unit}
	}
	return nil
}

// Text is words of a form, with where they are kept.
type Text struct {
	Key, Label, Help string
	Words            *string
}

// Ask is a field in one line, as tables of them are written.
func Ask(key, label, unit string, least, most float64, help string, entry Entry) Field {
	return Field{key, label, unit, least, most, help, entry}
}
