// Package inspection is the study of what a look at the bike found: what is worn,
// what is due, what blocks the trip.
package inspection

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/study"
)

// Study of the inspection.
var Study = study.Study{Name: "inspection", Rules: rules}

var rules = []study.Rule{
	{ID: "worn-past-limit", Class: cause.Fails, Cause: cause.Found, Stage: figure.Baseline, Reads: facts.InLooked | facts.InParts, Judge: wornPast},
	{ID: "blocks-the-trip", Class: cause.Fails, Cause: cause.Found, Stage: figure.Baseline, Reads: facts.InLooked | facts.InParts, Judge: blocksTrip},
	{ID: "wear-short", Class: cause.Fails, Cause: cause.Found, Stage: figure.Baseline, Reads: facts.InBrief | facts.InLooked | facts.InParts, Judge: wearShort},
	{ID: "put-right-first", Class: cause.Fails, Cause: cause.Found, Stage: figure.Baseline, Reads: facts.LedgerGroup, Judge: dueFirst},
}
