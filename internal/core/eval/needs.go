package eval

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/need"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/verdict"
)

var needsFormula = sheet.Formula{Text: "needs = what the brief asks for and neither bike nor parts give", Origin: sheet.Practice}

// needs counts what the brief asks for and is short. It rests on the other figures.
func (r *run) needs() Figure {
	c := r.gauge("needs")
	list, known := need.List(r.facts)
	if !known {
		c.lacks("trip distance and ground (Brief)")
	}
	short := 0
	var names []string
	for _, n := range list {
		if n.Met() {
			continue
		}
		short++
		if c.working != nil {
			names = append(names, fmt.Sprintf("%s: %s", n.Name, n.Short))
		}
	}
	c.is(float64(short))
	if c.working != nil {
		c.working.Step(needsFormula, computed("needs", float64(short), ""), computed("asked for by the brief", float64(len(list)), ""))
		c.working.Note("Not met: " + strings.Join(names, "; ") + ".")
	}
	return c.atMost(sheet.Value{Name: "limit", Number: 0}, 1, verdict.Over)
}
