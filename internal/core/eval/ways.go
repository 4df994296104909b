package eval

import (
	"cmp"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
)

// Way is one way to close the leg that decides: a carrier, a slower cruise, a pump
// opened again. It is a plan like any alternative.
type Way struct {
	Difference
	Choices []plan.Choice // parts to fit; nil for the others
	Cruise  unit.Speed    // to hold instead; missing for the others
	Reopens *plan.Stop    // counted on again

	Closes  bool    // the leg's thirsty end then reaches
	CostMin float64 // more money, minor units
	MassKg  float64 // more loaded
	Hours   float64 // to fit
}

// slowest is the cruise below which slowing down is no way out any more, km/h.
const slowest = 70

// Ways are the ways there are, each held against the plan: those that close the leg
// first, the cheapest of them before the others. There are none where the range
// reaches or is not known.
func (b *Bench) Ways() ([]Way, error) {
	if g, _ := b.report.Figure(figure.Distance); g.State == verdict.OK || g.State == verdict.Unknown {
		return nil, nil
	}
	ways := candidates(b.report.Facts)
	alternatives := make([]Alternative, len(ways))
	for i, w := range ways {
		alternatives[i] = w.Alternative
	}
	differences, err := b.Preview(alternatives...)
	if err != nil {
		return nil, err
	}
	for i := range ways {
		w := &ways[i]
		w.Difference = differences[i]
		after, _ := w.After.Figure(figure.Distance)
		w.Closes = after.State == verdict.OK
		w.CostMin, w.MassKg = w.moves(figure.Cost), w.moves(figure.LoadedMass)
	}
	slices.SortStableFunc(ways, func(a, b Way) int {
		if a.Closes != b.Closes {
			return cmp.Compare(closesFirst(b), closesFirst(a))
		}
		return cmp.Compare(a.CostMin, b.CostMin)
	})
	return ways, nil
}

func closesFirst(w Way) int {
	if w.Closes {
		return 1
	}
	return 0
}

// moves is what the way moves a figure by, 0 when it does not.
func (w *Way) moves(id figure.ID) float64 {
	for _, m := range w.Moves {
		if m.After.ID == id {
			delta, _ := m.Delta()
			return delta
		}
	}
	return 0
}

func candidates(f *facts.All) []Way {
	p := f.Plan
	var ways []Way
	for _, part := range f.Shelf {
		if !parts.Approved.Yes(part) || !f.Built.Fits(part) {
			continue
		}
		if on := f.Built.Part(part.Slot); on != nil && on.ID == part.ID {
			continue
		}
		choices := p.Scoped([]plan.Choice{{Slot: part.Slot, Part: part}}, f.Loadout.ID)
		ways = append(ways, Way{Difference: Difference{Alternative: Alternative{part.Name, p.With(choices...)}}, Choices: choices, Hours: part.Slot.HoursToFit()})
	}
	for _, less := range []float64{10, 20} {
		if cruise, ok := p.Brief.Slower(less); ok && cruise.In("km/h") >= slowest {
			changed := *p
			changed.Brief.Cruise = cruise
			ways = append(ways, Way{Difference: Difference{Alternative: Alternative{"Cruise at " + cruise.String(), &changed}}, Cruise: cruise})
		}
	}
	if p.Route != nil {
		leg, _ := f.Range.Decides()
		for _, s := range leg.Shut {
			changed := *p
			changed.Route = p.Route.Closing(s.ID)
			ways = append(ways, Way{Difference: Difference{Alternative: Alternative{"Count on " + s.Name + " again", &changed}}, Reopens: s})
		}
	}
	return ways
}

// Least is the way that closes the leg at the least of something, nil when none
// closes it.
func Least(ways []Way, of func(Way) float64) *Way {
	var best *Way
	for i, w := range ways {
		if w.Closes && (best == nil || of(w) < of(*best)) {
			best = &ways[i]
		}
	}
	return best
}
