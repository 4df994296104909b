package facts

import "valiantmule/internal/core/plan"

// Contact is how the rider touches the bike.
type Contact struct {
	SeatedHours, StandingHours float64 // a day
	SeatHours                  float64 // that the seat does
	KneeDegrees, SeatOverPegMM float64 // seated
	PegLeanDeg, PegSoonerDeg   float64 // at which a peg touches; than with the standard ones
	BarShortMM, BarRiseMM      float64 // for standing; over standard
	CableSlackMM               float64
}

// Ledger is all that costs money.
type Ledger struct {
	Due    []plan.Line // to be put right first
	Beside []plan.Line // that and what a workshop fits, beside the plan's own lines
}
