// Package sheet is the working: how a figure came about, step by step, with
// each number put in and where that number came from.
//
// A nil *Sheet takes no notes. Computations are written once, with a sheet that
// is nil unless somebody looks.
package sheet

import "slices"

// An Origin says where a number or a formula comes from, and so how far to trust it.
type Origin string

// The origins, most trusted first.
const (
	Measured  Origin = "measured"  // by the rider, on this bike
	Published Origin = "published" // a standard or text that is named
	Maker     Origin = "maker"     // the maker's plate, manual or data sheet
	Computed  Origin = "computed"  // from the other numbers here
	Rider     Origin = "yours"     // the rider's wish or statement
	Practice  Origin = "practice"  // common practice of the trade, no source
	Memory    Origin = "memory"    // recalled, wide tolerance
	Demo      Origin = "demo"      // invented for the demonstration
	Guessed   Origin = "guess"     // from what kind of bike it is, where nobody has said
)

// Origins are those that a document may name, in order of trust. A guess is made anew each
// time: a document keeps none.
func Origins() []Origin {
	return []Origin{Measured, Published, Maker, Computed, Rider, Practice, Memory, Demo}
}

// IsOrigin reports whether it is one of them, or "" for one that is not known.
func IsOrigin(o Origin) bool { return o == "" || slices.Contains(Origins(), o) }

// A Formula is a rule of computation as it is shown to a rider.
type Formula struct {
	Text   string // in the field's symbols
	Origin Origin
	Source string // the published source, where there is one
}

// A Value is a number in the working, with its unit.
type Value struct {
	Name   string
	Number float64
	Unit   string
	Origin Origin
	Note   string // what the number rests on, e.g. the title of a table
}

// A Step is one application of a formula.
type Step struct {
	Formula Formula
	In      []Value
	Out     Value
}

// A Sheet is the working of one figure.
type Sheet struct {
	Steps []Step
	Notes []string // what was left out, and cautions
}

// Step notes one application of a formula; on a nil sheet it does nothing.
func (s *Sheet) Step(f Formula, out Value, in ...Value) {
	if s == nil {
		return
	}
	out.Origin = Computed
	s.Steps = append(s.Steps, Step{Formula: f, In: in, Out: out})
}

// Note adds a remark; on a nil sheet it does nothing.
func (s *Sheet) Note(text string) {
	if s == nil {
		return
	}
	s.Notes = append(s.Notes, text)
}
