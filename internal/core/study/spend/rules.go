package spend

import (
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of what goes beyond the rider's tools.

func forTheWorkshop(f *facts.All) (study.Finding, bool) {
	lines := f.Plan.Workshop()
	if len(lines) == 0 {
		return study.Finding{}, false
	}
	names := make([]string, len(lines))
	priced := true
	for i, l := range lines {
		names[i] = strings.TrimPrefix(l.Name, "Fit ")
		priced = priced && l.Amount.Known()
	}
	return study.Found(verdict.Watch, func() study.Words {
		words := study.Words{
			What: study.Say("Beyond the tools that you have: %s.", study.Listed(names)),
			Why:  "What is fitted wrong comes off where it hurts; wiring and structure most of all.",
			Do:   "A workshop, or somebody who does it for a living: ask for the date with the price. Or leave the part.",
		}
		if !priced {
			words.Do += " The brief has no hourly rate, so the cost does not count it."
		}
		return words
	})
}
