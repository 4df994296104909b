package plan

import "fmt"

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

// Enter sets the number from a form, where a bare number is in the unit given,
// and checks its range.
func (f Field) Enter(text, bare string) error {
	if err := f.Entry.Enter(text, bare); err != nil {
		return err
	}
	return f.Check()
}

// Check tells whether the number is one that is believed.
func (f Field) Check() error {
	q, ok := f.Entry.(interface{ In(unit string) float64 })
	if !ok || !f.Entry.Known() {
		return nil
	}
	if v := q.In(f.Unit); !(v >= f.Min && v <= f.Max) {
		return fmt.Errorf("%s is outside %g–%g %s", f.Entry, f.Min, f.Max, f.Unit)
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
