package study

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
)

// NeedRule is one thing that a brief may ask of a bike; ok is false when it does
// not. It judges no part: it only says whether the brief is answered.
type NeedRule struct {
	ID, Name string
	Stage    figure.Stage // that settles it
	Reads    facts.Set    // what it goes by
	Figures  []figure.ID  // that it goes by
	Ask      func(*facts.All) (n Need, ok bool)
}

// Need is one thing that the brief asks for.
type Need struct {
	ID, Name string
	Stage    figure.Stage
	Met      bool // nothing is short
	Tell     func() Answer
}

// Answer is a need in words.
type Answer struct {
	Because Text // the sentence of the brief
	Bare    Text // what the bike gives as it came
	Fitted  Text // what it gives now
	Short   Text // what is short, "" when it is met
}

// Provided asks for a tag: the need is met by whatever provides it. What is told
// names both what is fitted then and what is short; the one that does not hold is
// left out.
func Provided(f *facts.All, tag string, tell func() Answer) Need {
	met := f.Built.Provides(tag)
	return Need{Met: met, Tell: func() Answer {
		a := tell()
		if met {
			a.Short = ""
		} else {
			a.Fitted = a.Bare
		}
		return a
	}}
}
