package spend_test

import (
	"testing"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/spend"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	studytest.Rows(t, b, spend.Study, map[string]studytest.Row{
		"for-the-workshop": studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { p.Brief.Spanner = plan.NoSpanner }, "skid-alu-h"),
			b.Changing("holt-650", func(p *plan.Plan) { p.Brief.Spanner = plan.HomeSpanner }, "skid-alu-h"), ""),
	})
}
