package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/studytest"
)

// Every rule is made to speak by a change and to fall silent by another. The
// rows are HANDBOOK 16's for the rear tyre, the front/rear mix and sprockets.

// TestRemedyHelps takes each remedy of the demo's findings and of every rear
// tyre's: what it was offered for is gone, or stands no worse.
func TestRemedyHelps(t *testing.T) {
	b := studytest.New(t)
	tried := 0
	for _, part := range b.Shelf {
		if part.Slot != parts.RearTyre || part.Tyre().Size.RimIn != 18 {
			continue
		}
		p := b.With("holt-650", part.ID)
		for id, finding := range b.Findings(p) {
			for _, remedy := range finding.Remedies() {
				after, still := b.Findings(p.With(remedy.Choices...))[id]
				assert.True(t, !still || after.State.Rank() <= finding.State.Rank(), "%s on %s: %q leaves %q", id, part.ID, remedy.Label, after.State)
				tried++
			}
		}
	}
	assert.Greater(t, tried, 5)
}

// TestMissingNumbersKeepRulesSilent: a blank bike says what is missing in its
// gauges; no rule guesses.
func TestMissingNumbersKeepRulesSilent(t *testing.T) {
	b := studytest.New(t)
	p := b.Standard("holt-650")
	p.Bike = &plan.Bike{ID: "own", Name: "Own"}
	p.Brief.Distance, p.Brief.Day = unit.Length{}, unit.Duration{}
	studytest.Packed()(p) // a bag that is not on is no number
	assert.Empty(t, b.Findings(p))
	p.Bike = nil
	assert.Empty(t, b.Findings(p))
}
