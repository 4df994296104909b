package guess

import (
	"slices"
	"strings"

	"valiantmule/internal/core/plan"
)

// tied are the kinds that have an anchor.
var tied = func() map[Kind]bool {
	kinds := map[Kind]bool{}
	for _, r := range rows {
		kinds[r.Kind] = kinds[r.Kind] || r.Anchor
	}
	return kinds
}()

// Moves are guesses as they go wrong: each by itself, and those of a kind together, unless it
// has an anchor which is known: then nothing ties the others.
func Moves(guesses []Guess) [][]Guess {
	anchored := map[Kind]bool{}
	for i := range guesses {
		g := &guesses[i]
		anchored[g.Kind] = anchored[g.Kind] || g.Anchor
	}
	var list [][]Guess
	at := map[Kind]int{}
	for _, g := range guesses {
		if g.Kind == "" || tied[g.Kind] && !anchored[g.Kind] {
			list = append(list, []Guess{g})
			continue
		}
		if _, together := at[g.Kind]; !together {
			at[g.Kind] = len(list)
			list = append(list, nil)
		}
		list[at[g.Kind]] = append(list[at[g.Kind]], g)
	}
	return list
}

// Stirs reports whether a guess is itself moved where some are moved together.
func (g *Guess) Stirs(together []Guess) bool { return g.end(together, 1) != 0 }

// end is how far a guess is moved where some are moved together.
func (g *Guess) end(together []Guess, at float64) float64 {
	if g.Kind != "" && tied[g.Kind] && !slices.ContainsFunc(together, func(o Guess) bool { return o.Anchor }) {
		return at * g.Loose
	}
	return at * g.Joint
}

// Moved is a plan that [Fill] has made with some of its guesses at an end of their bands: −1
// is the low one, 1 the high one.
func Moved(filled *plan.Plan, guesses []Guess, at float64) *plan.Plan {
	s := &Subject{Brief: &filled.Brief, Loadouts: filled.Loadouts}
	if slices.ContainsFunc(guesses, func(g Guess) bool { return !strings.HasPrefix(g.At, "brief/") }) {
		s.Bike = filled.Bike
	}
	s = s.copied()
	for i := range guesses {
		if end := guesses[i].end(guesses, at); end != 0 {
			guesses[i].put(s, end)
		}
	}
	return s.in(filled)
}
