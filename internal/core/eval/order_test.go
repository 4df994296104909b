package eval_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// leading are the ids of the findings that lead cards, in order.
func leading(cards []study.Card) []string {
	list := make([]string, len(cards))
	for i, c := range cards {
		list[i] = c.Lead.ID
	}
	return list
}

// TestOrderOfPoints: ratings first, then by what they would cost the trip, and the same plan the
// same order; one point less leaves the others that lead in theirs.
func TestOrderOfPoints(t *testing.T) {
	g := studytest.New(t)
	for _, s := range studytest.Trips(g)[:80] {
		findings := g.Report(s.Plan).Findings
		cards := study.Cards(findings)
		assert.Equal(t, leading(cards), leading(study.Cards(g.Report(s.Plan).Findings)), s.Name)
		for i := 1; i < len(cards); i++ {
			a, b := cards[i-1].Lead, cards[i].Lead
			assert.LessOrEqual(t, study.Before(a, b), 0, "%s: %s before %s", s.Name, a.ID, b.ID)
			if a.State != verdict.Stop && !a.Early {
				assert.LessOrEqual(t, a.Class, b.Class, "%s: %s before %s", s.Name, a.ID, b.ID)
			}
		}
		for at := range findings {
			less := leading(study.Cards(slices.Delete(slices.Clone(findings), at, at+1)))
			both := []string{}
			for _, id := range leading(cards) {
				if slices.Contains(less, id) {
					both = append(both, id)
				}
			}
			less = slices.DeleteFunc(less, func(id string) bool { return !slices.Contains(both, id) })
			assert.Equal(t, both, less, "%s without %s", s.Name, findings[at].ID)
		}
	}
}

// TestBothSides: a seat that is out of reach and an engine that grounds pull the height from both
// sides: one decision.
func TestBothSides(t *testing.T) {
	g := studytest.New(t)
	at := slices.IndexFunc(studytest.Trips(g), func(s studytest.Scene) bool { return s.Name == "sorrel-320, short rider, a week's load, tracks" })
	cards := study.Cards(g.Report(studytest.Trips(g)[at].Plan).Findings)
	torn := slices.IndexFunc(cards, func(c study.Card) bool { return c.Pull == cause.RideHeight })
	require.GreaterOrEqual(t, torn, 0)
	var of []string
	for _, f := range cards[torn].All() {
		of = append(of, f.ID)
	}
	assert.ElementsMatch(t, []string{"out-of-reach", "room-short"}, of)
}

// TestSetAside: a point that its rider has set aside stands apart and moves no gauge; it comes
// back when its number is worse by a tenth, its state by one, its limit or its part another, and
// not when it is better. A rating that is passed is noted and stays.
func TestSetAside(t *testing.T) {
	g := studytest.New(t)
	p := g.With("holt-650", "hackle-140-80-18")
	find := func(p *plan.Plan, id, loadout string) study.Finding {
		t.Helper()
		r, err := eval.EvaluateLoadout(p, g.Shelf, loadout, studytest.Today)
		require.NoError(t, err)
		at := slices.IndexFunc(r.Findings, func(f study.Finding) bool { return f.ID == id })
		require.GreaterOrEqual(t, at, 0, id)
		return r.Findings[at]
	}
	aside := func(p *plan.Plan, id, loadout string) *plan.Plan {
		t.Helper()
		return p.Waived(plan.Waiver{Finding: id, Loadout: loadout, Why: "I know: I walk those kilometres", On: studytest.Today, Mark: find(p, id, "travel").Mark()})
	}
	gap := func(p *plan.Plan, km string) *plan.Plan {
		changed := *p
		studytest.Enter(t, &changed.Brief.Gap, km, "km")
		return &changed
	}
	p.Route = nil
	p = gap(p, "300")
	set := aside(p, "range-short", "travel")
	require.Empty(t, set.Validate())

	f := find(set, "range-short", "travel")
	assert.Equal(t, "set", f.Aside())
	assert.Equal(t, "I know: I walk those kilometres", f.Waived.Why)
	assert.Equal(t, "", find(set, "range-short", "trail-day").Aside(), "of that loadout only")
	was, now := studytest.Report(t, p), studytest.Report(t, set)
	for i := range was.Gauges {
		assert.Equal(t, was.Gauges[i].State, now.Gauges[i].State, was.Gauges[i].ID)
		assert.Equal(t, was.Gauges[i].Value, now.Gauges[i].Value, was.Gauges[i].ID)
	}
	assert.NotContains(t, leading(study.Cards(now.Findings)), "range-short")

	back := func(of *plan.Plan, id string) string { return find(of, id, "travel").Back }
	assert.Empty(t, back(set, "range-short"))
	assert.NotEmpty(t, back(gap(set, "310"), "range-short"), "another limit")
	worse := *set
	worse.Brief = set.Brief
	studytest.Enter(t, &worse.Brief.Headwind, "60", "km/h")
	assert.NotEmpty(t, back(&worse, "range-short"), "its number is worse by a tenth")
	assert.Empty(t, find(&worse, "range-short", "travel").Aside())
	better := *set
	better.Brief = set.Brief
	studytest.Enter(t, &better.Brief.Headwind, "0", "km/h")
	assert.Empty(t, back(&better, "range-short"), "better is no other")

	tyre := aside(p, "front-rear-mix", "")
	assert.Empty(t, back(tyre, "front-rear-mix"))
	assert.Equal(t, "set", find(tyre, "front-rear-mix", "trail-day").Aside(), "of all loadouts")
	other := tyre.With(g.Part("scree-120-100-18"))
	if r := g.Findings(other); r["front-rear-mix"].ID != "" {
		assert.NotEmpty(t, r["front-rear-mix"].Back, "another part")
	}

	heavy := g.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Rider, "180", "kg") })()
	noted := aside(heavy, "overweight", "")
	f = find(noted, "overweight", "travel")
	assert.NotNil(t, f.Waived)
	assert.Empty(t, f.Aside(), "a rating is never silenced")
	assert.Contains(t, leading(study.Cards(studytest.Report(t, noted).Findings)), "overweight")
}

// TestMarksHold: whatever is said of any trip can be set aside on the spot, and stays so.
func TestMarksHold(t *testing.T) {
	g := studytest.New(t)
	for n, s := range studytest.Trips(g) {
		if n%9 != 0 {
			continue
		}
		p := s.Plan
		for _, f := range g.Report(p).Findings {
			p = p.Waived(plan.Waiver{Finding: f.ID, Why: "I know", Mark: f.Mark()})
		}
		require.Empty(t, p.Validate(), s.Name)
		for _, f := range g.Report(p).Findings {
			assert.NotNil(t, f.Waived, "%s: %s came back: %s", s.Name, f.ID, f.Back)
		}
	}
}
