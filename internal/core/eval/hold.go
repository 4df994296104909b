package eval

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/guess"
	"valiantmule/internal/core/study"
)

// holdOn keeps as points what holds at all ends: a finding that some guess would silence is
// open, and so is one that rests on a figure which the bands have made unsure. Those that hold
// are as bad as they are at their mildest.
func (p *Program) holdOn(r *LoadoutReport, ends []ended, turns [][]Turn) {
	r.Findings = slices.Clone(r.Findings)
	at := 0
	for i := range p.rules {
		var finding *study.Finding
		if r.spoke[i] {
			finding = &r.Findings[at]
			at++
		}
		for e := range ends {
			says := ends[e].says[i]
			if (says != "") == r.spoke[i] {
				if finding != nil && says.Rank() < finding.State.Rank() {
					finding.State = says
				}
				continue
			}
			if finding != nil {
				finding.Open = true
			}
			turn := Turn{Rule: &p.rules[i]}
			if list := turns[e/2]; !slices.Contains(list, turn) {
				turns[e/2] = append(list, turn)
			}
		}
		if finding != nil && p.softened(&p.rules[i], r) {
			finding.Open = true
		}
	}
}

// short are the needs that are not met.
func (p *Program) short(f *facts.All) map[string]bool {
	needs, _ := p.ask(f)
	short := map[string]bool{}
	for _, n := range needs {
		if !n.Met {
			short[n.ID] = true
		}
	}
	return short
}

// unsure are the guesses that decide whether a need is met, by its id.
func (p *Program) unsure(r *LoadoutReport, moves []move, ends []ended) map[string][]guess.Guess {
	by := map[string][]guess.Guess{}
	now := p.short(r.Facts)
	for i := range p.needs {
		id := p.needs[i].ID
		for k := range moves {
			if ends[2*k].short[id] == now[id] && ends[2*k+1].short[id] == now[id] {
				continue
			}
			for _, g := range moves[k].guesses {
				if g.Stirs(moves[k].guesses) {
					by[id] = append(by[id], g)
				}
			}
		}
	}
	return by
}

// softened reports whether a figure that a rule judges by stands better by its band than by
// the guesses themselves.
func (p *Program) softened(rule *study.Rule, r *LoadoutReport) bool {
	return slices.ContainsFunc(rule.Figures, func(id figure.ID) bool {
		at := p.table.Place[id]
		return r.figures[at].State.Rank() < r.center[at].State.Rank()
	})
}
