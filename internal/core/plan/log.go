package plan

import "valiantmule/internal/core/logbook"

// ReadingsOf are the readings of a kind off the plan's bike that nobody has revoked, the
// oldest first.
func (p *Plan) ReadingsOf(kind logbook.Kind) []logbook.Reading {
	if p.Bike == nil {
		return nil
	}
	return logbook.Standing(p.Readings, kind, p.Bike.ID)
}
