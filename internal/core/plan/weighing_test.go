package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

func weighed(t *testing.T, id, front, rear string) logbook.Reading {
	w := &logbook.Weighing{Name: "Travel"}
	for _, q := range []struct {
		entry entry.Entry
		text  string
	}{{&w.Front, front}, {&w.Rear, rear}, {&w.ExpectedFront, "130"}, {&w.ExpectedRear, "195"}} {
		require.NoError(t, q.entry.Enter(q.text, "kg"))
	}
	return logbook.Reading{ID: id, Kind: logbook.Weighed, On: "2026-11-20", Bike: "own", Read: w}
}

// TestCorrection is the mean of what the weighings that stand differ by; pounds count
// as the kilograms they are.
func TestCorrection(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = &plan.Bike{ID: "own"}
	assert.Zero(t, p.Correction())
	p.Readings = []logbook.Reading{weighed(t, "A", "131", "199"), weighed(t, "B", "133", "197"), weighed(t, "C", "150", "150"), {Kind: logbook.Revocation, Of: "C"}}
	assert.Equal(t, plan.Correction{FrontKg: 2, RearKg: 3, Weighings: 2}, p.Correction())
	p.Readings = []logbook.Reading{weighed(t, "A", "286.6 lb", "429.9 lb")}
	assert.InDelta(t, 0, p.Correction().FrontKg, 0.01)
}

func TestBelievedWeighings(t *testing.T) {
	for says, w := range map[string]*logbook.Weighing{
		"":                      weighed(t, "A", "128", "201").Weighing(),
		"pounds":                weighed(t, "A", "287", "430").Weighing(),
		"rear wheel nothing":    weighed(t, "A", "130", "").Weighing(),
		"more than a quarter":   weighed(t, "A", "90", "195").Weighing(),
		"the sides come to 280": sided(t, "140", "140"),
		"both sides or neither": sided(t, "160", ""),
	} {
		if says == "" {
			assert.NoError(t, w.Check())
			continue
		}
		assert.ErrorContains(t, w.Check(), says)
	}
	assert.NoError(t, sided(t, "162", "163").Check())
}

func sided(t *testing.T, left, right string) *logbook.Weighing {
	w := weighed(t, "A", "130", "195").Weighing()
	require.NoError(t, w.Left.Enter(left, "kg"))
	require.NoError(t, w.Right.Enter(right, "kg"))
	return w
}

// TestBagsAndPlaces: a load is where its bag is, and where its place is without one.
func TestBagsAndPlaces(t *testing.T) {
	p := plan.New("P", "EUR")
	p.Bike = &plan.Bike{ID: "own", Name: "Own"}
	tube := &parts.Part{ID: "tube", Slot: parts.ToolTube, Name: "Tube"}
	parts.BagKindOf.Put(tube, parts.HardBag)
	require.NoError(t, tube.Say("litres", "5"))
	l := plan.Load{Name: "Tools", Place: "tail", Bag: parts.ToolTube}
	assert.Equal(t, l.Place, l.Sits(p.Build("travel")))
	assert.Nil(t, l.InBag(p.Build("travel")))
	with := p.With(plan.Choice{Slot: tube.Slot, Part: tube})
	require.Empty(t, with.Validate())
	assert.Equal(t, tube, l.InBag(with.Build("travel")))
	assert.EqualValues(t, "engine", l.Sits(with.Build("travel")))

	for name, spoil := range map[string]func(p *plan.Plan){
		"a bag that is none": func(p *plan.Plan) { p.Loadouts[0].Loads = []plan.Load{{Name: "x", Place: "tail", Bag: parts.Seat}} },
		"a third side":       func(p *plan.Plan) { p.Loadouts[0].Loads = []plan.Load{{Name: "x", Place: "tail", Side: "up"}} },
		"another day":        func(p *plan.Plan) { p.Loadouts[0].Loads = []plan.Load{{Name: "x", Place: "tail", When: "never"}} },
		"a lake in a bag":    func(p *plan.Plan) { _ = p.Lines[0].Part.Say("litres", "900") },
		"a rack in the bags": func(p *plan.Plan) { parts.NoPegs.Put(p.Lines[0].Part, entry.Yes) },
		"a date":             func(p *plan.Plan) { p.Brief.Ships = "soon" },
	} {
		part := *tube
		bad := p.With(plan.Choice{Slot: part.Slot, Part: &part})
		bad.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		spoil(bad)
		assert.NotEmpty(t, bad.Validate(), name)
	}
}
