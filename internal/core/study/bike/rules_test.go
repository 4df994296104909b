package bike_test

import (
	"testing"

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
		"effects-clash":      studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { clash(p) }, "stand-foot-10"), b.As("holt-650", "stand-foot-10"), ""),
	})
}

func clash(p *plan.Plan) {
	part := *p.Lines[0].Part
	part.Effects = append(part.Effects, parts.Effect{Figure: parts.RearTeeth, Op: parts.Set, Value: 50})
	p.Lines[0].Part = &part
}
