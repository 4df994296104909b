package guide_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guide"
)

func all() []guide.Guide {
	return append(append([]guide.Guide{}, guide.WhatItDoes()...), guide.WhatHurts()...)
}

// TestEveryPath of every guide is walked to its end: a measurement, a setting, a part, or
// somebody who does it for a living; and each begins with a question or a measurement.
func TestEveryPath(t *testing.T) {
	require.NoError(t, guide.Check(all()))
	paths := 0
	for _, g := range all() {
		first, ok := g.Step(g.First)
		require.True(t, ok, g.ID)
		assert.Contains(t, []guide.Kind{guide.Ask, guide.Measure}, first.Kind, "%s begins with something to find out", g.ID)
		reached := map[string]bool{}
		var walk func(taken []guide.Taken)
		walk = func(taken []guide.Taken) {
			at := g.Walk(taken)
			if at.Step == nil {
				assert.NotEqual(t, guide.Ask, at.Last.Kind, "%s %v ends in a question", g.ID, taken)
				paths++
				return
			}
			reached[at.Step.ID] = true
			answers := map[guide.Kind][]string{guide.Change: {guide.Better, guide.Same, guide.Worse}, guide.Part: {guide.Same}}[at.Step.Kind]
			for _, a := range at.Step.Answers {
				answers = append(answers, a.ID)
			}
			led := false
			for _, answer := range answers {
				if _, _, ok := at.Step.To(answer); ok {
					led = true
					walk(append(taken[:len(taken):len(taken)], guide.Taken{Step: at.Step.ID, Answer: answer}))
				}
			}
			if !led {
				assert.Contains(t, []guide.Kind{guide.Part, guide.Specialist, guide.Measure}, at.Step.Kind, "%s %v stops", g.ID, taken)
				paths++
			}
		}
		walk(nil)
		assert.Len(t, reached, len(g.Steps), "%s: every step can be come to", g.ID)
		changes := 0
		for _, s := range g.Steps {
			if s.Kind == guide.Change {
				changes++
			}
			for _, id := range s.Figures {
				_, known := figure.Of(id)
				assert.True(t, known, "%s: %s", g.ID, id)
			}
		}
		assert.Positive(t, changes, "%s: something is free", g.ID)
	}
	assert.Greater(t, paths, 150)
}

// TestWalk: set and not ridden yet stays at its step; better ends; begun anew is the first
// step; what does not follow is left out.
func TestWalk(t *testing.T) {
	g, ok := guide.Find(guide.WhatItDoes(), "wallow")
	require.True(t, ok)
	soft := guide.Taken{Step: "rear-sag", Answer: "soft"}
	at := g.Walk([]guide.Taken{soft, {Step: "preload", Answer: guide.Set}})
	assert.Equal(t, "preload", at.Step.ID)
	assert.True(t, at.Pending)
	at = g.Walk([]guide.Taken{soft, {Step: "preload", Answer: guide.Set}, {Step: "preload", Answer: guide.Better}})
	assert.Nil(t, at.Step)
	assert.Equal(t, guide.Better, at.Answer)
	at = g.Walk([]guide.Taken{soft, {Step: "preload", Answer: guide.Worse}})
	assert.Equal(t, "rebound", at.Step.ID)
	at = g.Walk([]guide.Taken{soft, {Answer: guide.Begin}, {Step: "rebound", Answer: guide.Better}})
	assert.Equal(t, g.First, at.Step.ID)
	assert.Nil(t, at.Last)
}

// TestCheck finds what is wrong with a guide.
func TestCheck(t *testing.T) {
	ask := func(to string) guide.Step {
		return guide.Step{ID: "a", Kind: guide.Ask, Words: "?", Answers: []guide.Answer{{ID: "y", To: to}, {ID: "n", To: "b"}}}
	}
	end := guide.Step{ID: "b", Kind: guide.Specialist, Words: "!"}
	for name, steps := range map[string][]guide.Step{
		"nowhere":  {ask("c"), end},
		"a circle": {ask("a"), end},
		"an end":   {ask(""), end},
		"no first": {end},
		"no slot":  {ask("p"), end, {ID: "p", Kind: guide.Part, Words: "!"}},
	} {
		assert.Error(t, guide.Check([]guide.Guide{{ID: "g", First: "a", Steps: steps}}), name)
	}
	good := guide.Guide{ID: "g", First: "a", Steps: []guide.Step{ask("b"), end}}
	assert.NoError(t, guide.Check([]guide.Guide{good}))
	assert.Error(t, guide.Check([]guide.Guide{good, good}))
}
