package studytest

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/golden"
)

// Row is how a rule is made to speak and to fall silent.
type Row struct {
	state             verdict.State
	appears, vanishes func() *plan.Plan
	offers            parts.Slot // a remedy that can be tried, "" for none
}

// Speaks is a row: the state in which a rule speaks of one plan, another of which it is
// silent, and the slot of a remedy that it offers.
func Speaks(state verdict.State, appears, vanishes func() *plan.Plan, offers parts.Slot) Row {
	return Row{state, appears, vanishes, offers}
}

// Rows makes every rule of a study speak by one plan and fall silent by another. A rule
// without a row and a row without a rule fail. What a rule says there in numbers, what it
// offers, and where it would change its mind is held by testdata/rows.
func Rows(t *testing.T, b *Garage, s study.Study, rows map[string]Row) {
	t.Helper()
	var text strings.Builder
	minds := opinions(s)
	for i, r := range s.Rules {
		c, listed := rows[r.ID]
		if !assert.True(t, listed, "%s has no row here", r.ID) {
			continue
		}
		report := b.Report(c.appears())
		at := slices.IndexFunc(report.Findings, func(f study.Finding) bool { return f.ID == r.ID })
		var finding study.Finding
		spoke := at >= 0
		if spoke {
			finding = report.Findings[at]
		}
		if assert.True(t, spoke, "%s appears", r.ID) {
			assert.Equal(t, c.state, finding.State, r.ID)
			words := finding.Tell()
			assert.NotEmpty(t, words.What, r.ID)
			assert.NotEmpty(t, words.Why, r.ID)
			assert.NotEmpty(t, words.Do, r.ID)
			assert.True(t, finding.Aside() == "" || words.Short != "", "%s: what stands aside is a line", r.ID)
			assert.Equal(t, r.Stage, finding.Stage, r.ID)
			assert.NotContains(t, strings.ToLower(string(words.What+words.Why+words.Do)), "safe ", "%s: the app never says safe", r.ID)
			offersSlot(t, r.ID, finding, c.offers)
			fmt.Fprintf(&text, "# %s\n%s%s; %s\n", r.ID, finding.State, quantities(words.What, words.Why, words.Do, words.Short), offered(finding))
			found := map[string]bool{}
			edges(t, report.Facts, minds[i:i+1], found)
			text.WriteString(sorted(found))
		}
		assert.NotContains(t, b.Findings(c.vanishes()), r.ID, "%s vanishes", r.ID)
	}
	assert.Len(t, rows, len(s.Rules), "no row without a rule")
	golden.Held(t, "rows", text.String())
}

func offersSlot(t *testing.T, id string, f study.Finding, slot parts.Slot) {
	if slot == "" {
		return
	}
	if !assert.NotEmpty(t, f.Remedies(), "%s offers a way out", id) {
		return
	}
	var slots []parts.Slot
	for _, remedy := range f.Remedies() {
		for _, c := range remedy.Choices {
			slots = append(slots, c.Slot)
		}
	}
	assert.Contains(t, slots, slot, id)
}
