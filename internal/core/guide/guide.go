// Package guide leads from what a bike does, or what hurts its rider, to one question or
// measurement, and from there to one change at a time. Riders start from a symptom and not
// from a number.
//
// The paths are data: each ends in a measurement, a setting that is left better, a part to
// look at, or in somebody who does it for a living. The package knows nothing of plans; what
// a change comes to on this bike is worked out by whoever shows it.
package guide

import (
	"fmt"

	"valiantmule/internal/core/figure"
)

// Kind is what a step asks for.
type Kind string

// The kinds.
const (
	Ask        Kind = "ask"        // a question
	Measure    Kind = "measure"    // a page on which something is measured
	Change     Kind = "change"     // of one setting, then ridden
	Part       Kind = "part"       // to look at, by preview
	Specialist Kind = "specialist" // who does it for a living
)

// Setting is what a change changes.
type Setting string

// The settings. Preloads, the fork in its clamps: mm. Clicks are counted from fully in, so
// that fewer damp more. ByHand is done at the bike and held by no plan.
const (
	FrontPreload     Setting = "front_preload"
	RearPreload      Setting = "rear_preload"
	ForkThrough      Setting = "fork_through"
	ForkCompression  Setting = "fork_compression"
	ForkRebound      Setting = "fork_rebound"
	ShockCompression Setting = "shock_compression"
	ShockRebound     Setting = "shock_rebound"
	Forward          Setting = "sits"
	ByHand           Setting = "by_hand"
)

// Settings lists them.
func Settings() []Setting {
	return []Setting{FrontPreload, RearPreload, ForkThrough, ForkCompression, ForkRebound, ShockCompression, ShockRebound, Forward, ByHand}
}

// The answers to a change, and to a part that is in.
const (
	Set    = "set" // it is done, and not ridden yet
	Better = "better"
	Same   = "same"
	Worse  = "worse"
	Begin  = "begin" // anew, from the first step
)

// Answer is one way on from a question or a measurement.
type Answer struct{ ID, Words, To string }

// Step is one thing to find out or to do.
type Step struct {
	ID    string
	Kind  Kind
	Words string // what to do, in one sentence
	Why   string
	// Figures of the plan that tell whether it is worth it.
	Figures []figure.ID

	Answers []Answer // of a question or a measurement
	Page    string   // of a measurement
	Setting Setting  // of a change
	By      float64  // in the setting's unit
	Slot    string   // of a part
	// Where a change leads that left it as it was or made it worse, which is then taken
	// back; and a part that is in and did not help. "" ends there.
	Same, Worse string
}

// Guide is the way from one symptom.
type Guide struct {
	ID, Name string
	Says     string // how a rider puts it
	First    string
	Steps    []Step
}

// Step of an id; ok is false when there is none.
func (g *Guide) Step(id string) (*Step, bool) {
	for i := range g.Steps {
		if g.Steps[i].ID == id {
			return &g.Steps[i], true
		}
	}
	return nil, false
}

// Find is a guide by its id among some.
func Find(list []Guide, id string) (*Guide, bool) {
	for i := range list {
		if list[i].ID == id {
			return &list[i], true
		}
	}
	return nil, false
}

// To is where an answer leads; ends says that the path ends there, settled or not, and ok
// that the step takes such an answer.
func (s *Step) To(answer string) (next string, ends, ok bool) {
	switch s.Kind {
	case Ask, Measure:
		for _, a := range s.Answers {
			if a.ID == answer {
				return a.To, a.To == "", true
			}
		}
	case Change:
		switch answer {
		case Set:
			return s.ID, false, true
		case Better:
			return "", true, true
		case Same:
			return s.Same, s.Same == "", true
		case Worse:
			return s.Worse, s.Worse == "", true
		}
	case Part:
		if answer == Same && s.Same != "" {
			return s.Same, false, true
		}
	}
	return "", false, false
}

// Taken is one step that somebody took.
type Taken struct{ Step, Answer string }

// Stand is where a guide has come to.
type Stand struct {
	Step    *Step // nil where it has ended
	Pending bool  // the step's change is set, and not ridden yet
	Last    *Step // the step before, nil at the beginning
	Answer  string
}

// Walk is where the steps taken lead, from the beginning or from where it was begun anew.
// What does not follow is left out.
func (g *Guide) Walk(taken []Taken) Stand {
	at := Stand{}
	at.Step, _ = g.Step(g.First)
	for _, t := range taken {
		if t.Answer == Begin {
			first, _ := g.Step(g.First)
			at = Stand{Step: first}
			continue
		}
		if at.Step == nil || at.Step.ID != t.Step {
			continue
		}
		next, ends, ok := at.Step.To(t.Answer)
		if !ok {
			continue
		}
		last := at.Step
		at = Stand{Last: last, Answer: t.Answer, Pending: t.Answer == Set}
		if !ends {
			at.Step, _ = g.Step(next)
		}
	}
	return at
}

// Check finds what is wrong with guides: a step twice, one that leads nowhere there is, one
// that asks for nothing, a way round in a circle.
func Check(list []Guide) error {
	ids := map[string]bool{}
	for i := range list {
		g := &list[i]
		if ids[g.ID] {
			return fmt.Errorf("guide %q is there twice", g.ID)
		}
		ids[g.ID] = true
		if err := g.check(g.First, nil); err != nil {
			return fmt.Errorf("guide %q: %w", g.ID, err)
		}
	}
	return nil
}

// check walks every way from a step on.
func (g *Guide) check(id string, way []string) error {
	s, ok := g.Step(id)
	if !ok {
		return fmt.Errorf("there is no step %q", id)
	}
	for _, before := range way {
		if before == id {
			return fmt.Errorf("step %q leads back to itself", id)
		}
	}
	way = append(way[:len(way):len(way)], id)
	for _, answer := range s.answers() {
		next, ends, ok := s.To(answer)
		switch {
		case !ok:
			return fmt.Errorf("step %q does not take %q", id, answer)
		case ends && s.Kind == Ask:
			return fmt.Errorf("step %q ends in a question", id)
		case ends:
		default:
			if err := g.check(next, way); err != nil {
				return err
			}
		}
	}
	return s.whole()
}

// answers are those that a step takes, but for that it is set.
func (s *Step) answers() []string {
	switch s.Kind {
	case Ask, Measure:
		list := make([]string, len(s.Answers))
		for i, a := range s.Answers {
			list[i] = a.ID
		}
		return list
	case Change:
		return []string{Better, Same, Worse}
	case Part:
		if s.Same != "" {
			return []string{Same}
		}
	}
	return nil
}

// whole tells whether a step has what its kind is of.
func (s *Step) whole() error {
	whole := s.Words != ""
	switch s.Kind {
	case Ask:
		whole = whole && len(s.Answers) > 1
	case Measure:
		whole = whole && s.Page != ""
	case Change:
		whole = whole && s.Setting != "" && (s.By != 0) == (s.Setting != ByHand && s.Setting != Forward)
	case Part:
		whole = whole && s.Slot != ""
	case Specialist:
	default:
		whole = false
	}
	if !whole {
		return fmt.Errorf("step %q lacks something of its kind, %q", s.ID, s.Kind)
	}
	return nil
}
