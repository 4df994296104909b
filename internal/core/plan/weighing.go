package plan

import (
	"valiantmule/internal/core/logbook"
)

// Correction is what weighings add to the kerb mass, kg, under each wheel.
type Correction struct {
	FrontKg, RearKg float64
	Weighings       int
}

// Correction is the mean of the weighings of the plan's bike that stand.
func (p *Plan) Correction() Correction {
	var c Correction
	for _, r := range p.ReadingsOf(logbook.Weighed) {
		w := r.Weighing()
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
