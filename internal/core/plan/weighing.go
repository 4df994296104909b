package plan

import (
	"fmt"

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

// Correction is what weighings add to the kerb mass, kg, under each wheel.
type Correction struct {
	FrontKg, RearKg float64
	Weighings       int
}

// Correction is the mean of the weighings of the plan's bike that stand.
func (p *Plan) Correction() Correction {
	var c Correction
	for _, r := range p.ReadingsOf(Weighed) {
		w := r.Weighing
		c.FrontKg += w.Front.In("kg") - w.ExpectedFront.In("kg")
		c.RearKg += w.Rear.In("kg") - w.ExpectedRear.In("kg")
		c.Weighings++
	}
	if c.Weighings > 0 {
		c.FrontKg /= float64(c.Weighings)
		c.RearKg /= float64(c.Weighings)
	}
	return c
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
			return Problem{wheel.name, fmt.Sprintf("the %s wheel gave no reading", wheel.name)}
		case read > 1.7*want:
			return Problem{wheel.name, fmt.Sprintf("%s under the %s wheel, where about %.0f kg were expected: is the scale set to pounds?", wheel.read, wheel.name, want)}
		case read < (1-farOff)*want || read > (1+farOff)*want:
			return Problem{wheel.name, fmt.Sprintf("%s under the %s wheel is more than a quarter off the %.0f kg that were expected: look at the scale, and at what stood on it", wheel.read, wheel.name, want)}
		}
	}
	if w.Left.Known() != w.Right.Known() {
		return Problem{"right", "give both sides or neither"}
	}
	if total := w.Front.In("kg") + w.Rear.In("kg"); w.Left.Known() && (w.Left.In("kg")+w.Right.In("kg") < 0.95*total || w.Left.In("kg")+w.Right.In("kg") > 1.05*total) {
		return Problem{"right", fmt.Sprintf("the sides come to %.0f kg and the wheels to %.0f kg: one of them is wrong", w.Left.In("kg")+w.Right.In("kg"), total)}
	}
	return nil
}
