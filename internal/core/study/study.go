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
)

// Study is one subject.
type Study struct {
	Name  string
	Steps []Step
	Rules []Rule
	Needs []NeedRule
}

// Step finds facts and works figures out. It reads what it needs, of what is put in and of
// the groups, and writes the groups that it gives: nothing else, so that eval can order the
// steps, run only those that somebody asks for, and run again only those whose inputs a
// change of the plan has touched.
type Step struct {
	Name    string
	Gives   facts.Set
	Needs   facts.Set
	Figures []figure.ID
	Run     func(*Run)

	OfPlan bool // the same in all loadouts: it is run once for all of them
}
