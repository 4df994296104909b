package eval

import (
	"cmp"
	"math"
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
	CostMin float64 // more money, minor units; NaN where nobody knows
	MassKg  float64 // more loaded, likewise
	Hours   float64 // to fit
}

// slowest is the cruise below which slowing down is no way out any more, km/h.
const slowest = 70

// Ways are the ways there are, each held against the plan: those that close the leg
// first, the cheapest of them before the others. There are none where the range
// reaches or is not known.
func (b *Bench) Ways() ([]Way, error) {
	if g, _ := b.Report().Figure(figure.Distance); g.State == verdict.OK || g.State == verdict.Unknown {
		return nil, nil
	}
	ways := candidates(b.Report().Facts)
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
		w.CostMin, w.MassKg = w.costs(b.Report()), w.moves(b.Report(), figure.LoadedMass)
	}
	slices.SortStableFunc(ways, func(a, b Way) int {
		if a.Closes != b.Closes {
			return cmp.Compare(closesFirst(b), closesFirst(a))
		}
		return compareKnown(a.CostMin, b.CostMin)
	})
	return ways, nil
}

// compareKnown orders numbers, those that nobody knows last.
func compareKnown(a, b float64) int {
	if math.IsNaN(a) != math.IsNaN(b) {
		return -cmp.Compare(a, b) // cmp has them first
	}
	return cmp.Compare(a, b)
}

func closesFirst(w Way) int {
	if w.Closes {
		return 1
	}
	return 0
}

// moves is what the way moves a figure by, NaN where nobody knows.
func (w *Way) moves(before *LoadoutReport, id figure.ID) float64 {
	was, _ := before.Figure(id)
	now, _ := w.After.Figure(id)
	return now.Or(math.NaN()) - was.Or(math.NaN())
}

// costs is what the way costs more, minor units; NaN where a part of it has no price, or one in
// a currency without a rate.
func (w *Way) costs(before *LoadoutReport) float64 {
	for _, c := range w.Choices {
		if c.Part == nil {
			continue
		}
		if _, _, ok := before.Facts.Plan.Home(c.Part.Price); !ok {
			return math.NaN()
		}
	}
	return w.moves(before, figure.Cost)
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

// Least is the way that closes the leg at the least of something, nil when none closes it, or
// nobody knows of one what it takes.
func Least(ways []Way, of func(Way) float64) *Way {
	var best *Way
	for i, w := range ways {
		if n := of(w); w.Closes && !math.IsNaN(n) && (best == nil || n < of(*best)) {
			best = &ways[i]
		}
	}
	return best
}
