// Package studytest tests a study where it stands, on whole plans: a [Garage] of bikes
// and parts, [Rows] that make every rule speak and fall silent, and [Golden] that holds
// what the study finds of a dozen trips.
package studytest

import (
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/demo"
)

// Today is the day on which the tests look.
const Today = "2026-11-26"

// Garage is the demo's bikes and shelf.
type Garage struct {
	Shelf plan.Shelf
	Bikes map[string]*plan.Bike

	t testing.TB
}

// New is a garage for one test.
func New(t testing.TB) *Garage {
	b := &Garage{t: t, Bikes: map[string]*plan.Bike{}}
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	for _, bike := range bikes {
		b.Bikes[bike.ID] = bike
	}
	b.Shelf, err = demo.Parts()
	require.NoError(t, err)
	return b
}

// Standard is the demo's trip on a bike as it came, with nothing chosen and nothing guessed: what
// a study makes of a number that is missing shows where nothing stands in for it.
func (b *Garage) Standard(bike string) *plan.Plan {
	p, err := demo.Plan()
	require.NoError(b.t, err)
	require.Contains(b.t, b.Bikes, bike)
	copied := *b.Bikes[bike]
	readings := p.Readings
	p = p.Riding(&copied)
	p.Lines, p.Guesses, p.Readings = nil, 0, readings
	return p
}

// Part is a part of the shelf.
func (b *Garage) Part(id string) plan.Choice {
	for _, p := range b.Shelf {
		if p.ID == id {
			return plan.Choice{Slot: p.Slot, Part: p}
		}
	}
	require.Fail(b.t, "no part", id)
	return plan.Choice{}
}

// With is the demo's trip on a bike with parts of the shelf and nothing else.
func (b *Garage) With(bike string, parts ...string) *plan.Plan {
	p := b.Standard(bike)
	for _, id := range parts {
		p = p.With(b.Part(id))
	}
	return p
}

// Changing makes such a plan with a change.
func (b *Garage) Changing(bike string, change func(p *plan.Plan), parts ...string) func() *plan.Plan {
	return func() *plan.Plan { p := b.With(bike, parts...); change(p); return p }
}

// As makes such a plan as it is.
func (b *Garage) As(bike string, parts ...string) func() *plan.Plan {
	return b.Changing(bike, func(*plan.Plan) {}, parts...)
}

// Count is the plan with an unlisted sprocket or chain of n teeth or links.
func (b *Garage) Count(p *plan.Plan, slot parts.Slot, n int) *plan.Plan {
	return p.With(plan.Choice{Slot: slot, Part: plan.Unlisted(p.Bike, slot, n)})
}

// Report is the report of the travel loadout.
func (b *Garage) Report(p *plan.Plan) *eval.LoadoutReport {
	b.t.Helper()
	report, err := eval.EvaluateLoadout(p, b.Shelf, "travel", Today)
	require.NoError(b.t, err)
	return report
}

// Findings are its findings, by rule.
func (b *Garage) Findings(p *plan.Plan) map[string]study.Finding {
	b.t.Helper()
	found := map[string]study.Finding{}
	for _, f := range b.Report(p).Findings {
		found[f.ID] = f
	}
	return found
}

// Facts are what is known behind it.
func (b *Garage) Facts(p *plan.Plan) *facts.All { b.t.Helper(); return b.Report(p).Facts }

// Needs are what its brief asks, by need.
func (b *Garage) Needs(p *plan.Plan) map[string]study.Need {
	b.t.Helper()
	list, known := b.Report(p).Needs()
	require.True(b.t, known)
	asked := map[string]study.Need{}
	for _, n := range list {
		asked[n.ID] = n
	}
	return asked
}

// Demo is the demo rider's plan, with nothing guessed, and the shelf.
func Demo(t testing.TB) (*plan.Plan, plan.Shelf) {
	t.Helper()
	p, err := demo.Plan()
	require.NoError(t, err)
	p.Guesses = 0
	shelf, err := demo.Parts()
	require.NoError(t, err)
	return p, shelf
}

// GapOnly is the demo plan without its route and its fills.
func GapOnly(t testing.TB) *plan.Plan {
	t.Helper()
	p, _ := Demo(t)
	p.Route, p.Readings, p.Group = nil, nil, nil
	bike := *p.Bike
	p.Bike = &bike
	return p
}

// On is the demo's brief and loads on another bike, as it came.
func On(t testing.TB, bike string) *plan.Plan {
	t.Helper()
	p, _ := Demo(t)
	b := New(t).Bikes[bike]
	require.NotNil(t, b, bike)
	return eval.AsItCame(p, b)
}

// Report is the report of a plan's travel loadout, without a shelf.
func Report(t testing.TB, p *plan.Plan) *eval.LoadoutReport {
	t.Helper()
	r, err := eval.EvaluateLoadout(p, nil, "travel", Today)
	require.NoError(t, err)
	return r
}

// Value is a figure of it, which must be known.
func Value(t testing.TB, p *plan.Plan, id figure.ID) float64 {
	t.Helper()
	f, ok := Report(t, p).Figure(id)
	require.True(t, ok, id)
	require.True(t, f.Known, "%s lacks %v", id, f.Missing)
	return f.Value
}

// Enter enters a quantity as a rider types it.
func Enter[Q interface{ Enter(text, unit string) error }](t testing.TB, q Q, text, unit string) {
	t.Helper()
	require.NoError(t, q.Enter(text, unit))
}

// Ground sets the whole trip to shares of kinds, in percent.
func Ground(t testing.TB, p *plan.Plan, shares map[terrain.Kind]string) {
	t.Helper()
	p.Brief.Terrain = nil
	for _, g := range terrain.Grounds() {
		if text, ok := shares[g.Kind]; ok {
			s := terrain.Stretch{Ground: g.Kind}
			Enter(t, &s.Share, text, "%")
			p.Brief.Terrain = append(p.Brief.Terrain, s)
		}
	}
}

// Paved is a trip on nothing but paved roads.
func Paved(t testing.TB) func(p *plan.Plan) {
	return func(p *plan.Plan) { Ground(t, p, map[terrain.Kind]string{terrain.Paved: "100"}) }
}

// Packed sets what the travel loadout carries.
func Packed(loads ...plan.Load) func(p *plan.Plan) {
	return func(p *plan.Plan) {
		p.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		p.Loadouts[1].Loads = loads
	}
}

// Thing is something to pack: its mass, kg, and volume, litres, in a bag or at a place.
func Thing(t testing.TB, kg, litres string, in parts.Slot, side plan.Side, at load.Place) plan.Load {
	t.Helper()
	l := plan.Load{Name: "Thing", Place: at, Bag: in, Side: side}
	Enter(t, &l.Mass, kg, "kg")
	Enter(t, &l.Volume, litres, "L")
	return l
}

// Said puts what somebody found out about fitment on each part that the plan chose.
func Said(fit parts.Fitment) func(*plan.Plan) {
	return OnParts(func(p *parts.Part) { p.Fitment = &fit })
}

// Of makes the bike of a year and the parts for others.
func Of(year int, made parts.Made) func(*plan.Plan) {
	return func(p *plan.Plan) {
		p.Bike.Year = year
		OnParts(func(part *parts.Part) { part.Made = made })(p)
	}
}

// OnParts changes copies of the parts that a plan chose.
func OnParts(change func(*parts.Part)) func(*plan.Plan) {
	return func(p *plan.Plan) {
		for i := range p.Lines {
			part := *p.Lines[i].Part
			change(&part)
			p.Lines[i].Part = &part
		}
	}
}

// Say enters properties of a part, key and text by turns.
func Say(t testing.TB, p *parts.Part, said ...string) *parts.Part {
	t.Helper()
	for i := 0; i < len(said); i += 2 {
		require.NoError(t, p.Say(said[i], said[i+1]))
	}
	return p
}
