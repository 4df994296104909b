package plan_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
	"valiantmule/internal/golden"
)

// TestGoldenFits holds what of the demo's shelf goes on each of its bikes, and what would
// make the rest go on.
func TestGoldenFits(t *testing.T) {
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	shelf, err := demo.Parts()
	require.NoError(t, err)
	bikes = append(bikes, &plan.Bike{ID: "blank", Name: "Blank"})
	var text strings.Builder
	for _, bike := range bikes {
		p := plan.New("P", "EUR")
		p.Bike = bike
		b := p.Build("")
		fmt.Fprintf(&text, "# %s, shaft %t\n", bike.ID, bike.Shaft())
		for _, part := range shelf {
			fmt.Fprintf(&text, "%s: fits %t, goes %t, could %t", part.ID, b.Fits(part), b.Goes(part), shelf.CouldFit(b, part))
			if !b.Fits(part) && len(part.Needs) > 0 {
				for _, bring := range shelf.Bringing(b, part.Needs[0]) {
					text.WriteString(" by " + bring.ID)
				}
			}
			text.WriteString("\n")
		}
		whole := b
		for _, part := range shelf { // each by itself
			on := p.With(plan.Choice{Slot: part.Slot, Part: part}).Build("")
			line := ""
			for _, off := range on.Off {
				line += fmt.Sprintf(" off %+v", off.Lacks)
			}
			if on.FinalRatio() != whole.FinalRatio() && on.FinalRatio() > 0 {
				line += fmt.Sprintf(" final %s", golden.Number(on.FinalRatio()))
			}
			if part.Carrier() != nil {
				for _, fuel := range on.Fuels {
					line += fmt.Sprintf(" %s L", golden.Number(fuel.HoldsL-fuel.UnusedL))
				}
			}
			if line != "" && bike.ID != "blank" {
				fmt.Fprintf(&text, "with %s:%s\n", part.ID, line)
			}
		}
	}
	golden.Held(t, "fits", text.String())
}

// TestGoldenPlans holds what the demo's plans come to: what is fitted, spent, changed over
// and read.
func TestGoldenPlans(t *testing.T) {
	first, err := demo.Plan()
	require.NoError(t, err)
	more, err := demo.Garages()
	require.NoError(t, err)
	var text strings.Builder
	for _, p := range append([]*plan.Plan{first}, more...) {
		fmt.Fprintf(&text, "# %s\n", p.Name)
		for _, l := range p.Spending() {
			home := p.CostOf(&l)
			fmt.Fprintf(&text, "line %q standing %d costs %s, by its own %s, own hours %s\n", l.Title(), l.Standing(), home, l.Cost(), golden.Number(p.OwnHours(&l)))
		}
		for _, l := range p.Workshop() {
			fmt.Fprintf(&text, "workshop %q\n", l.Title())
		}
		for _, from := range p.Loadouts {
			b := p.Build(from.ID)
			for _, f := range b.Fitted {
				fmt.Fprintf(&text, "%s %s chosen %t on %t\n", f.Slot, f.Part.ID, f.Chosen, f.On)
			}
			for _, item := range from.Loads {
				fmt.Fprintf(&text, "%q sits at %s\n", item.Name, item.Sits(b))
			}
			for _, l := range p.PackedIn(from.ID) {
				fmt.Fprintf(&text, "packed %q\n", l.Title())
			}
			for _, to := range p.Loadouts {
				c := p.Changeover(from.ID, to.ID)
				fmt.Fprintf(&text, "from %s to %s: %d on, %d off, %s min, %d unsaid, %d packed, %d at home\n", from.ID, to.ID, len(c.On), len(c.Off), golden.Number(c.Minutes), c.Unsaid, len(c.Packed), len(c.StayHome))
			}
		}
		golden.Write(&text, "correction", p.Correction())
		for _, interval := range logbook.Intervals(p.ReadingsOf(logbook.FillReading)) {
			golden.Write(&text, "interval", interval)
			fmt.Fprintf(&text, "last %s\n", interval.Last().On)
		}
		mean, low, high, ok := plan.Told(p.Reports)
		fmt.Fprintf(&text, "told %s, %s to %s, %t\n", golden.Number(mean), golden.Number(low), golden.Number(high), ok)
		if r := p.Route; r != nil {
			fmt.Fprintf(&text, "route %s km, %s m up, open %d\n", golden.Number(r.LengthKm()), golden.Number(r.ClimbM()), len(r.Open()))
			for km := 0.0; km < r.LengthKm(); km += r.LengthKm() / 40 {
				fmt.Fprintf(&text, "%s km on %s\n", golden.Number(km), r.GroundAt(km))
			}
			for _, s := range r.Shut(100, 700) {
				fmt.Fprintf(&text, "shut %s\n", s.ID)
			}
		}
		if p.Bike != nil {
			for _, tag := range parts.KnownTags() {
				fmt.Fprintf(&text, "tag %s %s %t\n", tag.Value, parts.TagWords(tag.Value), p.Build("").Provides(tag.Value))
			}
			other := p.WithoutBike()
			fmt.Fprintf(&text, "without its bike %d of %d lines\n", len(other.Lines), len(p.Lines))
		}
	}
	golden.Held(t, "plans", text.String())
}
