package terrain_test

import (
	"fmt"
	"strings"
	"testing"

	"valiantmule/internal/core/terrain"
	"valiantmule/internal/golden"
)

// TestGolden holds the table of grounds, and what a mix makes of it.
func TestGolden(t *testing.T) {
	var text strings.Builder
	for _, g := range terrain.Grounds() {
		golden.Write(&text, string(g.Kind), g)
		fmt.Fprintf(&text, "%d, road %t\n", terrain.Index(g.Kind), g.Kind.IsRoad())
	}
	for _, s := range terrain.Surfaces() {
		fmt.Fprintf(&text, "%s %v\n", s.ID, s.Kinds)
	}
	for _, m := range []terrain.Mix{{}, terrain.Only(terrain.Sand), terrain.MixOf(map[terrain.Kind]float64{terrain.Motorway: 0.2, terrain.Paved: 0.3, terrain.Track: 0.4, terrain.Mud: 0.1})} {
		fmt.Fprintf(&text, "said %t, road %s", m.Said(), golden.Number(m.Road()))
		for _, v := range []float64{m.Abrasion(), m.Hours(1000), m.RoadHours(1000), m.Loose(), m.Sum(), m.Within(0.5).Sum(), m.Of(terrain.Track), m.Or(terrain.Only(terrain.Mud)).Loose()} {
			fmt.Fprintf(&text, " %s", golden.Number(v))
		}
		for i := range terrain.Count {
			fmt.Fprintf(&text, " %s", golden.Number(m.At(i)))
		}
		text.WriteString("\n")
	}
	golden.Held(t, "golden", text.String())
}
