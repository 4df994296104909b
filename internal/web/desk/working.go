package desk

import (
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/words"
)

// StepView is one line of a working.
type StepView struct {
	Formula, Origin, Source string
	In                      []ValueView
	Out                     ValueView
}

// ValueView is a number of a working and where it came from.
type ValueView struct{ Name, Value, Origin, Note string }

// originWords say how far to trust a number.
var originWords = map[sheet.Origin]string{
	sheet.Measured: "measured", sheet.Published: "published", sheet.Maker: "maker", sheet.Computed: "computed",
	sheet.Rider: "yours", sheet.Practice: "common practice", sheet.Memory: "from memory", sheet.Demo: "demo", sheet.Guessed: "guessed",
}

func valueOf(u words.Units, v sheet.Value) ValueView {
	return ValueView{Name: v.Name, Value: u.Plain(v.Number, v.Unit), Origin: originWords[v.Origin], Note: v.Note}
}

// StepsOf a working in the rider's units.
func StepsOf(u words.Units, working *sheet.Sheet) []StepView {
	steps := make([]StepView, len(working.Steps))
	for i, step := range working.Steps {
		steps[i] = StepView{Formula: u.Prose(step.Formula.Text), Origin: originWords[step.Formula.Origin], Source: step.Formula.Source, Out: valueOf(u, step.Out)}
		for _, in := range step.In {
			steps[i].In = append(steps[i].In, valueOf(u, in))
		}
	}
	return steps
}
