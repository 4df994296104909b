package bike_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/bike"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	tight := func(p *plan.Plan) {
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.SingleTrack: "30", terrain.Paved: "70"})
	}
	studytest.Rows(t, b, bike.Study, map[string]studytest.Row{
		"heavy-for-the-ground": studytest.Speaks(verdict.Watch, b.Changing("corrin-850", tight),
			b.Changing("fennick-250", tight), ""),
		"light-for-the-road": studytest.Speaks(verdict.Watch, b.Changing("fennick-250", studytest.Paved(t)), b.Changing("corrin-1180", studytest.Paved(t)), ""),
		"part-does-not-fit":  studytest.Speaks(verdict.Stop, b.As("corrin-850", "rear-h6-47"), b.As("holt-650", "rear-h6-47"), ""),
		"fitment-unknown":    studytest.Speaks(verdict.Unknown, b.Changing("holt-650", studytest.Said(parts.Fitment{Verdict: parts.FitUnknown}), "skid-alu-h"), b.As("holt-650", "skid-alu-h"), ""),
		"another-year":       studytest.Speaks(verdict.Over, b.Changing("holt-650", studytest.Of(2020, parts.Made{From: 2021, To: 2024}), "skid-alu-h"), b.Changing("holt-650", studytest.Of(2022, parts.Made{From: 2021, To: 2024}), "skid-alu-h"), ""),
		"fits-with-work":     studytest.Speaks(verdict.Watch, b.Changing("holt-650", studytest.Said(parts.Fitment{Verdict: parts.FitsWithWork}), "skid-alu-h"), b.Changing("holt-650", studytest.Said(parts.Fitment{Verdict: parts.Fits}), "skid-alu-h"), ""),
		"cannot-be-together": studytest.Speaks(verdict.Over, b.Changing("holt-650", meets(plan.Never, "part:skid-alu-h", "bike:side-stand", false), "skid-alu-h"), b.Changing("holt-650", meets(plan.Never, "part:skid-alu-h", "bike:side-stand", false)), ""),
		"in-the-way":         studytest.Speaks(verdict.Watch, b.Changing("holt-650", meets(plan.Touches, "bike:silencer", "at:heels", false)), b.Changing("holt-650", meets(plan.Touches, "bike:silencer", "at:heels", true)), ""),
		"effects-clash":      studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { clash(p) }, "stand-foot-10"), b.As("holt-650", "stand-foot-10"), ""),
	})
}

func meets(how plan.Meeting, one, other plan.End, mended bool) func(*plan.Plan) {
	return func(p *plan.Plan) { p.Touches = []plan.Touch{{How: how, One: one, Other: other, Mended: mended}} }
}

// TestWhatIsInTheWay is said once, with its measure, and the way out is to leave the part out.
func TestWhatIsInTheWay(t *testing.T) {
	b := studytest.New(t)
	p := b.Changing("holt-650", meets(plan.Adapter, "at:shins", "part:skid-alu-h", false), "skid-alu-h")()
	p.Touches[0].Words = "a longer bolt."
	studytest.Enter(t, &p.Touches[0].Room, "-4", "mm")
	f := b.Findings(p)["in-the-way"]
	assert.Equal(t, "Skid plate, 4 mm aluminium, Holt 650 needs an adapter for your shins, 4 mm are missing: a longer bolt.", f.Tell().What.String())
	if assert.Len(t, f.Remedies(), 1) {
		assert.Contains(t, f.Remedies()[0].Label, "Skid plate")
	}
}

func clash(p *plan.Plan) {
	part := *p.Lines[0].Part
	part.Effects = append(part.Effects, parts.Effect{Figure: parts.RearTeeth, Op: parts.Set, Value: 50})
	p.Lines[0].Part = &part
}
