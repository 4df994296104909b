package guard_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/golden"
)

// TestGolden holds every rate, and what they make of a trip on each ground.
func TestGolden(t *testing.T) {
	var text strings.Builder
	text.WriteString("# rates\n")
	for _, k := range guard.Keys() {
		fmt.Fprintf(&text, "%s %s%s, %s to %s\n", k.Key, golden.Number(k.Value), k.Unit, golden.Number(k.Min), golden.Number(k.Max))
	}
	for _, p := range guard.Places() {
		fmt.Fprintf(&text, "repair of %s %v\n", p.Place, p.Loss.Repair)
	}
	for _, s := range guard.Skills() {
		golden.Write(&text, "skill", s)
	}
	for _, g := range terrain.Grounds() {
		fmt.Fprintf(&text, "# %s\n", g.Kind)
		tr := trip(terrain.Only(g.Kind))
		tr.RoomMM, tr.Skill, tr.HelpDays = g.RoomMM-25, guard.Learning, 1.5
		covers := []guard.Cover{{Place: guard.Sump, Hazard: guard.Strike, Share: 0.8}, {Place: guard.Sump, Hazard: guard.Strike, Share: 0.5}, {Place: guard.Levers, Hazard: guard.SlowFall, Share: 0.6}}
		risks := guard.Assess(tr, nil, everything, covers)
		for _, r := range risks {
			fmt.Fprintf(&text, "%s", r.Place.Place)
			for _, th := range r.Threats {
				fmt.Fprintf(&text, " %s %s×%s×%s", th.Hazard, golden.Number(th.Events), golden.Number(th.Breaks), golden.Number(th.Left))
			}
			fmt.Fprintf(&text, "; %v; %v\n", shown(r.Bare), shown(r.Left))
		}
		bare, left := guard.Total(risks)
		fmt.Fprintf(&text, "total %v; %v; %s\n", shown(bare), shown(left), golden.Number(guard.Coverage(bare.Stranded, left.Stranded)))
		tr.Falls = 2
		for i, events := range guard.Events(tr, nil) {
			fmt.Fprintf(&text, "with two falls %s %s\n", guard.Hazards()[i].Hazard, golden.Number(events))
		}
	}
	golden.Held(t, "golden", text.String())
}

func shown(o guard.Outcome) string {
	return strings.Join([]string{golden.Number(o.Broken), golden.Number(o.Stranded), golden.Number(o.Days), golden.Number(o.Repair)}, " ")
}
