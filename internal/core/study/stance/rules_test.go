package stance_test

import (
	"testing"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/stance"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	studytest.Rows(t, b, stance.Study, map[string]studytest.Row{
		"out-of-reach":    studytest.Speaks(verdict.Over, b.Changing("fennick-450", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Inseam, "700", "mm") }), b.As("sorrel-320"), ""),
		"room-short":      studytest.Speaks(verdict.Over, b.As("sorrel-320"), b.As("morrow-400"), ""),
		"seat-height":     studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "wether-130-80-18"), ""),
		"stand-too-short": studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "bracken-140-80-18", "stand-foot-10"), plan.SideStand),
		"rake":            studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "wether-130-80-18"), ""),
	})
}
