package logbook

import (
	"fmt"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Weighing is what scales read under the wheels, beside what was expected there
// then: the difference stays true when parts change later.
type Weighing struct {
	Name  string    `json:"name"` // as what it stood there: a loadout's name
	Front unit.Mass `json:"front"`
	Rear  unit.Mass `json:"rear"`
	Left  unit.Mass `json:"left,omitzero"`
	Right unit.Mass `json:"right,omitzero"`

	ExpectedFront unit.Mass `json:"expected_front"`
	ExpectedRear  unit.Mass `json:"expected_rear"`
}

// farOff is how far a wheel may be off what was expected before scales, and not the
// bike, are doubted.
const farOff = 0.25

// Check tells whether the weighing is one that is believed; its errors are a [Problem]
// by the field's name.
func (w *Weighing) Check() error {
	for _, wheel := range []struct {
		name            string
		read, expecting unit.Mass
	}{{"front", w.Front, w.ExpectedFront}, {"rear", w.Rear, w.ExpectedRear}} {
		read, want := wheel.read.In("kg"), wheel.expecting.In("kg")
		switch {
		case !wheel.read.Known() || !wheel.expecting.Known():
			return entry.Problem{Path: wheel.name, What: fmt.Sprintf("the %s wheel gave no reading", wheel.name)}
		case read > 1.7*want:
			return entry.Problem{Path: wheel.name, What: fmt.Sprintf("%s under the %s wheel, where about %.0f kg were expected: is the scale set to pounds?", wheel.read, wheel.name, want)}
		case read < (1-farOff)*want || read > (1+farOff)*want:
			return entry.Problem{Path: wheel.name, What: fmt.Sprintf("%s under the %s wheel is more than a quarter off the %.0f kg that were expected: look at the scale, and at what stood on it", wheel.read, wheel.name, want)}
		}
	}
	if w.Left.Known() != w.Right.Known() {
		return entry.Problem{Path: "right", What: "give both sides or neither"}
	}
	if total := w.Front.In("kg") + w.Rear.In("kg"); w.Left.Known() && (w.Left.In("kg")+w.Right.In("kg") < 0.95*total || w.Left.In("kg")+w.Right.In("kg") > 1.05*total) {
		return entry.Problem{Path: "right", What: fmt.Sprintf("the sides come to %.0f kg and the wheels to %.0f kg: one of them is wrong", w.Left.In("kg")+w.Right.In("kg"), total)}
	}
	return nil
}

// Validate notes what else is wrong with it.
func (w *Weighing) Validate(v *entry.Problems, at string) { v.Short(at+".name", w.Name) }

// Words say what it is.
func (w *Weighing) Words() string { return "a weighing" }

// Weighing is what was weighed, nil for another kind of reading.
func (r Reading) Weighing() *Weighing { return content[Weighing](r) }
