package study

import (
	"slices"

	"valiantmule/internal/core/cause"
)

// Card is what findings of one cause come to: the worst of them, and what else comes of it.
type Card struct {
	Lead Finding
	More []Finding
}

// Cards are the findings that are neither small nor of the day by their causes, the worst
// first.
func Cards(findings []Finding) []Card {
	var cards []Card
	for _, f := range Loud(findings) {
		at := slices.IndexFunc(cards, func(c Card) bool { return c.Lead.Cause == f.Cause })
		switch {
		case at < 0:
			cards = append(cards, Card{Lead: f})
		case f.State.Rank() > cards[at].Lead.State.Rank():
			cards[at].More = append([]Finding{cards[at].Lead}, cards[at].More...)
			cards[at].Lead = f
		default:
			cards[at].More = append(cards[at].More, f)
		}
	}
	slices.SortStableFunc(cards, func(a, b Card) int {
		if by := b.Lead.State.Rank() - a.Lead.State.Rank(); by != 0 {
			return by
		}
		return a.Lead.Cause.Rank() - b.Lead.Cause.Rank()
	})
	return cards
}

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
