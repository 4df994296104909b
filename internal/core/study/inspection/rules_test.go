package inspection_test

import (
	"testing"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/inspection"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	found := func(a plan.Answer, parts ...string) func() *plan.Plan {
		return b.Changing("holt-650", func(p *plan.Plan) { *p = *p.Answered(a) }, parts...)
	}
	pads := func(now string) plan.Answer {
		a := plan.Answer{Check: "rear-pads", Verdict: baseline.Watch}
		studytest.Enter(t, &a.New, "5", "mm")
		studytest.Enter(t, &a.Now, now, "mm")
		studytest.Enter(t, &a.Limit, "1", "mm")
		studytest.Enter(t, &a.Run, "9400", "km")
		return a
	}
	chain := plan.Answer{Check: "chain-wear", Verdict: baseline.Do}
	studytest.Rows(t, b, inspection.Study, map[string]studytest.Row{
		"worn-past-limit": studytest.Speaks(verdict.Stop, found(pads("0.9")), found(pads("1.2")), ""),
		"blocks-the-trip": studytest.Speaks(verdict.Over, found(plan.Answer{Check: "frame", Verdict: baseline.Blocks}), found(plan.Answer{Check: "frame", Verdict: baseline.Good}), ""),
		"wear-short":      studytest.Speaks(verdict.Watch, found(pads("2")), found(pads("4")), ""),
		"put-right-first": studytest.Speaks(verdict.Watch, found(chain), found(chain, "chain-520-110"), ""),
	})
}
