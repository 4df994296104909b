package ready_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/demo"
)

// TestLooks: they follow from what was fitted, each has a name of its own, a reading of another trip is not this one's;
// what carries is proved by a loaded, rough ride on any trip of the bike.
func TestLooks(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	bare := *p
	bare.Lines = nil
	assert.Greater(t, len(ready.Looks(p)), len(ready.Looks(&bare)))
	seen := map[string]bool{}
	var carries *plan.Line
	for _, l := range ready.Looks(p) {
		assert.False(t, seen[l.ID], l.ID)
		seen[l.ID] = true
		assert.NoError(t, (&logbook.Shake{Of: l.ID}).Check())
		for i := range p.Lines {
			if part := p.Lines[i].Part; part != nil && l.Proves && plan.LookAt(plan.Carries, part) == l.ID {
				carries = &p.Lines[i]
			}
		}
	}
	require.NotNil(t, carries, "the demo has something that carries")
	looked := func(trip string, s logbook.Shake) *plan.Plan {
		s.Trip, s.Of = trip, plan.LookAt(plan.Carries, carries.Part)
		q := *p
		q.Readings = append(append([]logbook.Reading(nil), p.Readings...), logbook.Reading{ID: strings.Repeat("L", 26), Kind: logbook.Shaken, On: "2027-05-01", Bike: p.Bike.ID, Read: &s})
		return &q
	}
	held := func(p *plan.Plan) (is, wrong bool) {
		for _, l := range ready.Looks(p) {
			if l.ID == plan.LookAt(plan.Carries, carries.Part) {
				return l.Held(), l.Wrong()
			}
		}
		return false, false
	}
	is, _ := held(looked(p.Trip, logbook.Shake{Loaded: true}))
	assert.False(t, is, "on the road it proves nothing")
	hard := looked(p.Trip, logbook.Shake{Loaded: true, Rough: true})
	is, _ = held(hard)
	assert.True(t, is)
	assert.True(t, hard.RodeLoaded(carries.Part))
	_, wrong := held(looked(p.Trip, logbook.Shake{Loaded: true, Rough: true, Wrong: true}))
	assert.True(t, wrong)
	other := looked(strings.Repeat("T", 26), logbook.Shake{Loaded: true, Rough: true})
	is, _ = held(other)
	assert.False(t, is, "another trip's shakedown")
	assert.True(t, other.RodeLoaded(carries.Part), "of the same bike")
}
