package spend_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/baseline"
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// TestForeignPrices: a price in another currency counts at the rate of its day,
// and without one the cost says which rate is missing.
func TestForeignPrices(t *testing.T) {
	p, _ := studytest.Demo(t)
	line := plan.Line{Kind: plan.Gear, Name: "Bag", Need: plan.Needed}
	require.NoError(t, line.Amount.UnmarshalText([]byte("200 USD")))
	p.Lines = append(p.Lines, line)
	cost, _ := studytest.Report(t, p).Figure("cost")
	assert.Equal(t, verdict.Over, cost.State, "the rest alone passes the budget")
	assert.InDelta(t, 167500, cost.Value, 1e-9, "the least that it comes to")
	assert.Contains(t, cost.Missing[0], "rate from USD to EUR")
	p.Brief.Budget = money.New(300000, "EUR")
	cost, _ = studytest.Report(t, p).Figure("cost")
	assert.Equal(t, verdict.Watch, cost.State, "what is not counted never makes it good")
	rate := plan.Rate{From: "USD", On: "2026-11-20"}
	require.NoError(t, rate.Rate.UnmarshalText([]byte("0.92")))
	p.Rates = []plan.Rate{rate}
	assert.InDelta(t, 167500+18400, studytest.Value(t, p, "cost"), 1e-9)
	_, working, err := eval.Explain(p, "travel", "cost", studytest.Today)
	require.NoError(t, err)
	var notes []string
	for _, v := range working.Steps[0].In {
		notes = append(notes, v.Note)
	}
	assert.Contains(t, notes, "200.00 USD at 0.92 on 2026-11-20")
}

// TestBoughtUsed: a worn tyre that stays lasts for what is left of its tread.
func TestBoughtUsed(t *testing.T) {
	p, _ := studytest.Demo(t)
	p.Lines, p.Baseline, p.Ready = nil, plan.Inspection{}, plan.Ready{}
	worn := studytest.Value(t, p, "rear-life")
	require.NoError(t, p.Bike.RearTread.Enter("100", "%"))
	assert.InEpsilon(t, 0.35, worn/studytest.Value(t, p, "rear-life"), 1e-9)
}

// TestSpentStays: a task that is put right keeps what it cost, and what is left to be
// spent carries the contingency.
func TestSpentStays(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Baseline = plan.Inspection{Answers: []plan.Answer{{Check: "rear-pads", Verdict: baseline.Do, Cost: money.New(3200, "EUR")}}}
	assert.Equal(t, 3200.0, studytest.Value(t, p, "cost"))
	assert.Equal(t, 0.0, studytest.Value(t, p, "cost-spent"))
	assert.Equal(t, 320.0, studytest.Value(t, p, "contingency"))
	p.Baseline.Answers[0].Verdict = baseline.Done
	assert.Equal(t, 3200.0, studytest.Value(t, p, "cost"))
	assert.Equal(t, 3200.0, studytest.Value(t, p, "cost-spent"))
	assert.Equal(t, 0.0, studytest.Value(t, p, "contingency"))
	assert.NotContains(t, b.Findings(p), "put-right-first")
}

// TestTaxByPercent of all parts that are in; unknown while one of their prices is.
func TestTaxByPercent(t *testing.T) {
	b := studytest.New(t)
	p := b.With("holt-650", "skid-alu-h")
	p.Baseline = plan.Inspection{}
	before := studytest.Value(t, p, "cost")
	tax := plan.Line{Kind: plan.Tax, Name: "Import", Need: plan.Needed}
	studytest.Enter(t, &tax.Percent, "10", "%")
	p.Lines = append(p.Lines, tax)
	require.Empty(t, p.Validate())
	assert.InDelta(t, 1.1*before, studytest.Value(t, p, "cost"), 1)
	p.Lines[0].Source = plan.BoughtUsed
	f, _ := studytest.Report(t, p).Figure("cost")
	assert.NotEmpty(t, f.Missing, "a tax on what nobody has priced")
}
