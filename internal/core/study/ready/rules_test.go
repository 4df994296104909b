package ready_test

import (
	"testing"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	leaving := func(on string) func() *plan.Plan {
		return b.Changing("holt-650", func(p *plan.Plan) { p.Brief.Start = on }, "skid-alu-h")
	}
	promised := func(on string) func() *plan.Plan {
		return b.Changing("holt-650", func(p *plan.Plan) {
			p.Lines[0].Decision, p.Lines[0].Supply = plan.Ordered, &plan.Supply{Ordered: "2026-11-01", Promised: on}
		}, "skid-alu-h")
	}
	first := func(list ...plan.Before) func() *plan.Plan {
		return b.Changing("holt-650", func(p *plan.Plan) { p.Ready.Firsts = list }, "skid-alu-h", "hands-bar-22")
	}
	studytest.Rows(t, b, ready.Study, map[string]studytest.Row{
		"start-is-past":    studytest.Speaks(verdict.Watch, leaving("2026-11-01"), leaving("2027-05-14"), ""),
		"cannot-be-there":  studytest.Speaks(verdict.Over, leaving("2026-12-20"), leaving("2027-05-14"), ""),
		"overdue":          studytest.Speaks(verdict.Watch, promised("2026-11-20"), promised("2026-12-20"), ""),
		"waits-for-itself": studytest.Speaks(verdict.Watch, first(plan.Before{Job: "fit/skid-plate.", Then: "fit/hand-guards."}, plan.Before{Job: "fit/hand-guards.", Then: "fit/skid-plate."}), first(plan.Before{Job: "fit/skid-plate.", Then: "fit/hand-guards."}), ""),
	})
}
