// Package study is what every subject's study is made of: steps that find facts and
// work figures out, rules that judge them, and needs that a brief has.
//
// A study is one subject: package study/gearing holds the steps, rules and needs of
// sprockets and chain. It writes the facts that its steps give and reads any that
// they declare; it never imports another study. Package eval orders the steps of
// all of them, as a compiler orders its passes.
package study

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
)

// Study is one subject.
type Study struct {
	Name  string
	Steps []Step
	Rules []Rule
	Needs []NeedRule
}

// Step finds facts and works figures out. It reads what is put in and the groups
// that it needs, and writes the groups that it gives: nothing else, so that eval can
// order the steps and run only those that somebody asks for.
type Step struct {
	Name    string
	Gives   facts.Set
	Needs   facts.Set
	Figures []figure.ID
	Run     func(*Run)

	// Stays, where it is set, says that the step is of the plan and not of a loadout:
	// it is run once for all of them. It reports whether a change of the plan leaves
	// what the step gives as it was, so that previews do not work it out again.
	Stays func(was, now *plan.Plan) bool
}

// OfThePlan is a Stays for what is the same in all loadouts and changes with the
// plan.
func OfThePlan(_, _ *plan.Plan) bool { return false }
