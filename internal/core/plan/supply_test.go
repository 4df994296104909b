package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// TestDaysDecide: a line with a day on which it was ordered is ordered, and one that came is here;
// what is fitted stays so.
func TestDaysDecide(t *testing.T) {
	p := plan.New("days", "EUR")
	p.Lines = []plan.Line{{Kind: plan.PartLine, Need: plan.Needed, Part: &parts.Part{ID: "plate", Slot: parts.SkidPlate, Name: "Plate"}}}
	ordered := p.Supplying(0, func(s *plan.Supply) { s.Ordered = "2026-12-01" })
	assert.Equal(t, plan.Ordered, ordered.Lines[0].Decision)
	came := ordered.Supplying(0, func(s *plan.Supply) { s.Came = "2026-12-04" })
	assert.Equal(t, plan.Owned, came.Lines[0].Decision)
	assert.Empty(t, p.Lines[0].Decision, "the plan before stays")
	p.Lines[0].Decision = plan.OnTheBike
	assert.Equal(t, plan.OnTheBike, p.Supplying(0, func(s *plan.Supply) { s.Came = "2026-12-04" }).Lines[0].Decision)
	p.Lines[0].Decision = ""
	assert.Nil(t, p.Supplying(0, func(s *plan.Supply) { *s = plan.Supply{} }).Lines[0].Supply, "nothing said is nothing kept")
}
