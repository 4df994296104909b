package eval

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

var needsFormula = sheet.Formula{Text: "needs = what the brief asks for and neither bike nor parts give", Origin: sheet.Practice}

// ask is what the brief asks of the bike; known is false when it does not say how
// far and on what ground.
func (pr *Program) ask(f *facts.All) (needs []study.Need, known bool) {
	if f.Risks == nil {
		return nil, false
	}
	needs = make([]study.Need, 0, len(pr.needs))
	for i := range pr.needs {
		rule := &pr.needs[i]
		if n, ok := rule.Ask(f); ok {
			n.ID, n.Name, n.Stage = rule.ID, rule.Name, rule.Stage
			needs = append(needs, n)
		}
	}
	return needs, true
}

// countNeeds counts what the brief asks for and is short. It rests on all facts.
func (pr *Program) countNeeds(r *study.Run) {
	c := r.Figure(figure.Needs)
	list, known := pr.ask(r.All)
	if !known {
		c.Lacks("trip distance and ground (Brief)")
	}
	short := 0
	for _, n := range list {
		if !n.Met {
			short++
		}
	}
	c.Is(float64(short))
	if c.Sheet != nil {
		var names []string
		for _, n := range list {
			if !n.Met {
				names = append(names, fmt.Sprintf("%s: %s", n.Name, n.Tell().Short))
			}
		}
		c.Sheet.Step(needsFormula, study.Computed("needs", float64(short), ""), study.Computed("asked for by the brief", float64(len(list)), ""))
		c.Sheet.Note("Not met: " + strings.Join(names, "; ") + ".")
	}
	c.AtMost(sheet.Value{Name: "limit", Number: 0}, 1, verdict.Over)
}
