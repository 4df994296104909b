package armour_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/studytest"
)

// TestLowBikesStrike: the same bike with less room under it holes its sump more often, and
// a bike with room to spare gains no more than the table gives.
func TestLowBikesStrike(t *testing.T) {
	b := studytest.New(t)
	sump := func(clearance string) float64 {
		p := b.Changing("holt-650", func(p *plan.Plan) {
			studytest.Enter(t, &p.Bike.Clearance, clearance, "mm")
		})()
		for _, r := range b.Facts(p).Risks {
			if r.Place.Place == guard.Sump {
				return r.Bare.Stranded
			}
		}
		return math.NaN()
	}
	assert.Greater(t, sump("160"), 1.5*sump("235"))
	assert.Less(t, sump("235"), sump("210"))
	assert.Equal(t, sump("600"), sump("900"))
}

// TestArmourFigures: guards lower what is to be feared and never raise it, and the
// figures are the sums of the places.
func TestArmourFigures(t *testing.T) {
	p, shelf := studytest.Demo(t)
	bare := *p
	bare.Lines = nil
	stranded, days := studytest.Value(t, &bare, "armour-stranded"), studytest.Value(t, &bare, "armour-days")
	for _, part := range shelf {
		if part.Guard() == nil {
			continue
		}
		weightless := *part // what it weighs sinks the bike a little, nearer to what it strikes
		weightless.Mass, weightless.Replaces = unit.Mass{}, unit.Mass{}
		studytest.Enter(t, &weightless.Mass, "0", "kg")
		studytest.Enter(t, &weightless.Replaces, "0", "kg")
		with := bare.With(plan.Choice{Slot: part.Slot, Part: &weightless})
		assert.LessOrEqual(t, studytest.Value(t, with, "armour-stranded"), stranded+1e-9, part.ID)
		assert.LessOrEqual(t, studytest.Value(t, with, "armour-days"), days+1e-9, part.ID)
	}
	r := studytest.Report(t, p)
	stays, sum := 1.0, 0.0
	for _, risk := range r.Facts.Risks {
		stays *= 1 - risk.Left.Stranded
		sum += risk.Left.Days
	}
	assert.InDelta(t, 100*(1-stays), studytest.Value(t, p, "armour-stranded"), 1e-9)
	assert.InDelta(t, sum, studytest.Value(t, p, "armour-days"), 1e-9)
	assert.InDelta(t, 0, studytest.Value(t, &bare, "armour-cover"), 1e-9)
	nowhere := *p
	nowhere.Brief.Terrain = nil
	f, _ := studytest.Report(t, &nowhere).Figure("armour-stranded")
	assert.False(t, f.Known, "nobody has said where")
}
