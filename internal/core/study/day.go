package study

import (
	"slices"

	"valiantmule/internal/core/cause"
)

// dayOrder is the order in which a loaded bike is set: what changes its height before what
// follows from that [practice].
var dayOrder = []cause.ID{cause.Springs, cause.Level, cause.Gearing, cause.Light, cause.Stand, cause.Wiring}

// OfTheDay are the findings that are set when the bike is loaded, in the order in which that is
// done.
func OfTheDay(findings []Finding) []Finding {
	list := standing(findings, "day")
	slices.SortStableFunc(list, func(a, b Finding) int {
		return slices.Index(dayOrder, a.Cause) - slices.Index(dayOrder, b.Cause)
	})
	return list
}
