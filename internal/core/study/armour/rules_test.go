package armour_test

import (
	"testing"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/armour"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	run := func(km string) func(p *plan.Plan) {
		return func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Odometer, km, "km") }
	}
	studytest.Rows(t, b, armour.Study, map[string]studytest.Row{
		"cannot-both":          studytest.Speaks(verdict.Stop, b.As("holt-650", "skid-plastic-h", "bars-low-h"), b.As("holt-650", "skid-alu-h", "bars-low-h"), parts.SkidPlate),
		"ends-the-ride":        studytest.Speaks(verdict.Watch, b.As("corrin-850"), b.Changing("corrin-850", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Distance, "60", "km") }), parts.SkidPlate),
		"bare-from-new":        studytest.Speaks(verdict.Watch, b.Changing("holt-650", run("40")), b.Changing("holt-650", run("40"), "frame-tube-strips"), parts.FrameGuards),
		"lamp-behind-mudguard": studytest.Speaks(verdict.Watch, b.As("holt-650", "mudguard-high"), b.As("holt-650", "mudguard-high", "lamp-mesh"), parts.LampGuard),
		"guards-at-the-bars":   studytest.Speaks(verdict.Watch, b.As("holt-650", "hands-bar-22"), b.As("holt-650", "hands-open"), ""),
		"blocked-access":       studytest.Speaks(verdict.Watch, b.As("holt-650", "skid-plastic-h"), b.As("holt-650", "skid-alu-h"), ""),
		"blow-into-cases":      studytest.Speaks(verdict.Watch, b.As("averill-720", "skid-thin-a"), b.As("averill-720", "skid-alu-a"), parts.SkidPlate),
		"short-plate-holder":   studytest.Speaks(verdict.Watch, b.As("holt-650", "plate-short"), b.As("holt-650", "plate-hinge"), ""),
	})
}
