package study

import (
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/verdict"
)

// Before says which of two findings is looked at first, negative for a: a rating that is passed;
// what helps before the first kilometre or not at all; then by what it would cost the trip, the
// worse, what costs nothing to settle, and the order of causes [practice]. It looks at no third, so
// that one more finding never lifts a lesser above a worse.
func Before(a, b Finding) int {
	for _, by := range [...]int{
		first(a.State == verdict.Stop, b.State == verdict.Stop),
		first(a.Early, b.Early),
		int(a.Class - b.Class),
		b.State.Rank() - a.State.Rank(),
		first(a.Free, b.Free),
		a.Cause.Rank() - b.Cause.Rank(),
	} {
		if by != 0 {
			return by
		}
	}
	return 0
}

// InOrder are findings in the order in which they are looked at.
func InOrder(findings []Finding) []Finding {
	list := slices.Clone(findings)
	slices.SortStableFunc(list, Before)
	return list
}

// first puts what holds before what does not.
func first(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return -1
	}
	return 1
}

// Why says in a line by what a finding stands where it does.
func (f Finding) Why() string {
	why := f.Class.String()
	switch {
	case f.State == verdict.Stop:
		why = "a rating is passed, or it does not fit"
	case f.Early:
		why = "before the first kilometre or not at all"
	}
	if f.Free {
		why += ", nothing to buy"
	}
	return why
}

// Card is one decision: the first of what comes of one cause, or of what pulls one setting from
// both sides, and what else does.
type Card struct {
	Lead Finding
	More []Finding
	Pull cause.Setting // that they pull from both sides, "" for none
}

// Cards are the decisions, the first first.
func Cards(findings []Finding) []Card {
	list := InOrder(Loud(findings))
	torn := contested(list)
	var cards []Card
	for _, f := range list {
		var pull cause.Setting
		if slices.Contains(torn, f.Pulls.Setting) {
			pull = f.Pulls.Setting
		}
		at := slices.IndexFunc(cards, func(c Card) bool {
			return c.Pull == pull && (pull != "" || c.Lead.Cause == f.Cause)
		})
		if at < 0 {
			cards = append(cards, Card{Lead: f, Pull: pull})
		} else {
			cards[at].More = append(cards[at].More, f)
		}
	}
	return cards
}

// All are the card's findings.
func (c Card) All() []Finding { return append([]Finding{c.Lead}, c.More...) }

// contested are the settings that findings pull up and down.
func contested(findings []Finding) []cause.Setting {
	var torn []cause.Setting
	for _, f := range findings {
		p := f.Pulls
		if p.Up && slices.ContainsFunc(findings, func(o Finding) bool { return o.Pulls == cause.Less(p.Setting) }) {
			torn = append(torn, p.Setting)
		}
	}
	return torn
}
