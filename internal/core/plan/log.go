package plan

import (
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/terrain"
)

// ReadingsOf are the readings of a kind off the plan's bike that nobody has revoked, the
// oldest first.
func (p *Plan) ReadingsOf(kind logbook.Kind) []logbook.Reading {
	if p.Bike == nil {
		return nil
	}
	return logbook.Standing(p.Readings, kind, p.Bike.ID)
}

// Refuelled are the fills of the plan's bike, with days of trips on which none was written down.
func (p *Plan) Refuelled() []logbook.Reading {
	return logbook.Refuelled(p.ReadingsOf(logbook.FillReading), p.ReadingsOf(logbook.DayRidden))
}

// Mixed is the ground of a day: as it was said, else as the brief has it.
func (p *Plan) Mixed(d *logbook.Day) terrain.Mix {
	return terrain.MixOfStretches(d.Ground).Or(p.Brief.Mix())
}
