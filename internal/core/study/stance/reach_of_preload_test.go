package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func sagState(t *testing.T, p *plan.Plan, id figure.ID) verdict.State {
	f, _ := studytest.Report(t, p).Figure(id)
	return f.State
}

// TestWhatTheAdjusterReaches is watch with the setting, and over only past its stop; of an
// adjuster whose end nobody knows nothing is taken for granted (HANDBOOK 9).
func TestWhatTheAdjusterReaches(t *testing.T) {
	b := studytest.New(t)
	bags := func(kg string) *plan.Plan {
		return riding(t, b, "80", nil, []plan.Load{studytest.Thing(t, kg, "5", "", "", load.Panniers)})()
	}
	light, heavy := bags("15"), bags("60")
	assert.Equal(t, verdict.Watch, sagState(t, light, figure.SagRear))
	soft, said := b.Findings(light)["sag-soft-rear"]
	assert.True(t, said)
	assert.Contains(t, soft.Tell().Do, "Set it to {")
	assert.Empty(t, soft.Remedies(), "a turn of the adjuster is no spring")
	assert.Equal(t, verdict.Over, sagState(t, heavy, figure.SagRear))
	soft = b.Findings(heavy)["sag-soft-rear"]
	assert.NotEmpty(t, soft.Remedies())
	unknown := *light
	bike := *light.Bike
	studytest.Enter(t, &bike.RearPreMost, "", "mm")
	unknown.Bike = &bike
	assert.Equal(t, verdict.Over, sagState(t, &unknown, figure.SagRear))
}

// TestAsIfSet: a spring that goes in is as the load wants only once somebody has set it so.
func TestAsIfSet(t *testing.T) {
	b := studytest.New(t)
	p := riding(t, b, "120", nil, nil, "shock-spring-f-72")()
	assert.Equal(t, verdict.Watch, sagState(t, p, figure.SagRear))
	set := *p
	set.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
	for i := range set.Loadouts {
		studytest.Enter(t, &set.Loadouts[i].Setting.RearPreload, "15.5", "mm")
	}
	assert.Equal(t, verdict.OK, sagState(t, &set, figure.SagRear))
}

// TestTooStiffIsForYouAlone: bags never make a spring too stiff, the way out is never a stiffer
// one, and it is never said beside too soft.
func TestTooStiffIsForYouAlone(t *testing.T) {
	b := studytest.New(t)
	for _, kg := range []string{"45", "60", "80", "110"} {
		for _, bags := range []string{"1", "25", "50"} {
			p := riding(t, b, kg, nil, []plan.Load{studytest.Thing(t, bags, "5", "", "", load.Panniers)})()
			found, e := b.Findings(p), b.Facts(p).Springs.Rear
			stiff, isStiff := found["spring-too-stiff-rear"]
			_, runsOut := found["preload-runs-out-rear"]
			assert.False(t, isStiff && runsOut, "%s with %s", kg, bags)
			if isStiff {
				assert.GreaterOrEqual(t, e.End.Spring.Nmm, e.WantAloneNmm(), "%s with %s", kg, bags)
				for _, r := range stiff.Remedies() {
					for _, c := range r.Choices {
						assert.Less(t, c.Part.Spring().Rate.In("N/mm"), e.End.Spring.Nmm)
					}
				}
			}
		}
	}
}

// TestSpringOfUnknownRate: a spring that goes in is not the standard one, also while nobody
// knows its rate; one that stays where it was is.
func TestSpringOfUnknownRate(t *testing.T) {
	b := studytest.New(t)
	for _, slot := range []parts.Slot{parts.Shock, parts.ShockSpring} {
		own := &parts.Part{ID: parts.OwnPrefix + "one", Slot: slot, Name: "One from a breaker"}
		p := b.With("holt-650")
		p = p.With(plan.Choice{Slot: slot, Part: own})
		sag, _ := b.Report(p).Figure(figure.SagRear)
		assert.Equal(t, verdict.Unknown, sag.State, slot)
		assert.Contains(t, sag.Missing, "rate of One from a breaker")
		assert.Equal(t, "part/own-one/rate", b.Report(p).Where("rate of One from a breaker"))
	}
	before, _ := b.Report(b.With("holt-650")).Figure(figure.SagRear)
	after, _ := b.Report(b.With("holt-650", "shock-rebuildable")).Figure(figure.SagRear)
	assert.InDelta(t, before.Value, after.Value, 1)
}
