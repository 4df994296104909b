package logbook

import (
	"fmt"
	"math"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Weighing is what scales read under the wheels, beside what was expected there
// then: the difference stays true when parts change later.
type Weighing struct {
	Name  string    `json:"name"` // as what it stood there: a loadout's name
	Front unit.Mass `json:"front,omitzero"`
	Rear  unit.Mass `json:"rear,omitzero"`
	Total unit.Mass `json:"total,omitzero"` // where the wheels were not weighed apart
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
	front, rear := w.ExpectedFront.In("kg"), w.ExpectedRear.In("kg")
	scales := []scale{{"front", "under the front wheel", w.Front, front}, {"rear", "under the rear wheel", w.Rear, rear}}
	if w.Total.Known() {
		if w.Front.Known() || w.Rear.Known() {
			return entry.Problem{Path: "total", What: "give both wheels or the total"}
		}
		scales = []scale{{"total", "in all", w.Total, front + rear}}
	}
	for _, s := range scales {
		if err := s.check(); err != nil {
			return err
		}
	}
	if w.Left.Known() != w.Right.Known() {
		return entry.Problem{Path: "right", What: "give both sides or neither"}
	}
	if total := w.TotalKg(); w.Left.Known() && (w.Left.In("kg")+w.Right.In("kg") < 0.95*total || w.Left.In("kg")+w.Right.In("kg") > 1.05*total) {
		return entry.Problem{Path: "right", What: fmt.Sprintf("the sides come to %.0f kg and the wheels to %.0f kg: one of them is wrong", w.Left.In("kg")+w.Right.In("kg"), total)}
	}
	return nil
}

// scale is one that read something, and what was expected on it, kg.
type scale struct {
	name, where string
	read        unit.Mass
	want        float64
}

func (s scale) check() error {
	read := s.read.In("kg")
	switch {
	case !s.read.Known() || math.IsNaN(s.want):
		return entry.Problem{Path: s.name, What: fmt.Sprintf("%s nothing was read", s.where)}
	case read > 1.7*s.want:
		return entry.Problem{Path: s.name, What: fmt.Sprintf("%s %s, where about %.0f kg were expected: is the scale set to pounds?", s.read, s.where, s.want)}
	case read < (1-farOff)*s.want || read > (1+farOff)*s.want:
		return entry.Problem{Path: s.name, What: fmt.Sprintf("%s %s is more than a quarter off the %.0f kg that were expected: look at the scale, and at what stood on it", s.read, s.where, s.want)}
	}
	return nil
}

// TotalKg is what was read in all, kg.
func (w *Weighing) TotalKg() float64 {
	if w.Total.Known() {
		return w.Total.In("kg")
	}
	return w.Front.In("kg") + w.Rear.In("kg")
}

// OffKg is by how much each wheel carried more than was expected, kg. A total is shared
// between them as what was expected is: where the difference sits nobody knows.
func (w *Weighing) OffKg() (front, rear float64) {
	front, rear = w.ExpectedFront.In("kg"), w.ExpectedRear.In("kg")
	if !w.Total.Known() {
		return w.Front.In("kg") - front, w.Rear.In("kg") - rear
	}
	off := w.Total.In("kg") - front - rear
	return off * front / (front + rear), off * rear / (front + rear)
}

// Validate notes what else is wrong with it.
func (w *Weighing) Validate(v *entry.Problems, at string) { v.Short(at+".name", w.Name) }

// Words say what it is.
func (w *Weighing) Words() string { return "a weighing" }

// Weighing is what was weighed, nil for another kind of reading.
func (r Reading) Weighing() *Weighing { return content[Weighing](r) }
