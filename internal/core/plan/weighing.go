package plan

import (
	"slices"

	"valiantmule/internal/core/logbook"
)

// Correction is what weighings add to the kerb mass, kg, under each wheel.
type Correction struct {
	FrontKg, RearKg float64
	Weighings       int
}

// AsFitted is the plan with no other part than those that are on the bike by now.
func (p *Plan) AsFitted() *Plan {
	changed := *p
	changed.Lines = slices.DeleteFunc(slices.Clone(p.Lines), func(l Line) bool { return l.Part != nil && l.Decision != OnTheBike })
	return &changed
}

// Correction is the mean of the weighings of the plan's bike that stand.
func (p *Plan) Correction() Correction {
	var c Correction
	for _, r := range p.ReadingsOf(logbook.Weighed) {
		front, rear := r.Weighing().OffKg()
		c.FrontKg, c.RearKg = c.FrontKg+front, c.RearKg+rear
		c.Weighings++
	}
	if c.Weighings > 0 {
		c.FrontKg /= float64(c.Weighings)
		c.RearKg /= float64(c.Weighings)
	}
	return c
}
