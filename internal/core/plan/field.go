package plan

import (
	"fmt"
	"strings"
)

// Entry is a number as a rider enters it: a quantity or a list of gears.
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

// OutOfRange is a number that nobody believes, with the range in which one is.
type OutOfRange struct {
	Text     string
	Min, Max float64
	Unit     string
}

func (e *OutOfRange) Error() string {
	return strings.TrimSpace(fmt.Sprintf("%s is outside %g–%g %s", e.Text, e.Min, e.Max, e.Unit))
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

func fieldsOf(sections []Section) []Field {
	var all []Field
	for _, s := range sections {
		all = append(all, s.Fields...)
	}
	return all
}
