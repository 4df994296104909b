package eval_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/demo"
	"valiantmule/internal/studytest"
)

// twelve plans: the demo's three, and its trip on each bike of the shelf with a part or two
// that ask for more.
func twelve(t *testing.T) []*plan.Plan {
	t.Helper()
	b := studytest.New(t)
	first, err := demo.Plan()
	require.NoError(t, err)
	others, err := demo.Garages()
	require.NoError(t, err)
	plans := append([]*plan.Plan{first}, others...)
	for _, bike := range []string{"fennick-250", "morrow-400", "fennick-300", "fennick-450", "holt-650", "corrin-850", "corrin-1180", "averill-720", "sorrel-320"} {
		p := b.With(bike, "hands-bar-28", "nav-phone", "socket-plain", "mudguard-high", "indicators-led")
		p.Baseline = plan.Inspection{}
		plans = append(plans, p)
	}
	return plans
}

// TestEveryRemedyHelps: each way out of each finding of twelve plans, tried: the finding is
// gone, or stands lower, or a figure that it is about has moved the right way.
func TestEveryRemedyHelps(t *testing.T) {
	shelf, err := demo.Parts()
	require.NoError(t, err)
	tried := 0
	for _, p := range twelve(t) {
		for _, loadout := range p.Loadouts {
			shelf := p.WithOwn(shelf)
			before, err := eval.EvaluateLoadout(p, shelf, loadout.ID, "2026-11-26")
			require.NoError(t, err)
			for _, finding := range before.Findings {
				for _, remedy := range finding.Remedies() {
					after, err := eval.EvaluateLoadout(p.With(remedy.Choices...), shelf, loadout.ID, "2026-11-26")
					require.NoError(t, err)
					assert.True(t, helps(before, after, finding), "%s, %s: %q for %s\n%s", p.Name+" "+p.Bike.Name, loadout.Name, remedy.Label, finding.ID, finding.Tell().What)
					tried++
				}
			}
		}
	}
	assert.Greater(t, tried, 100)
}

// TestOffersSettle: what is offered to riders who begin settles what it is offered for, or
// lowers it; a guard at least moves the chance that it is all about.
func TestOffersSettle(t *testing.T) {
	b := studytest.New(t)
	tried := 0
	for i, trip := range studytest.Trips(b) {
		if i%3 != 0 { // a third of them has every bike, rider, load and ground
			continue
		}
		before := b.Report(trip.Plan)
		for _, finding := range before.Findings {
			for _, remedy := range finding.Remedies() {
				tried++
				after := b.Report(trip.Plan.With(remedy.Choices...))
				if finding.ID == "ends-the-ride" {
					assert.Greater(t, figureOf(before, "armour-stranded")-figureOf(after, "armour-stranded"), 0.5, "%s: %s", trip.Name, remedy.Label)
					continue
				}
				at := slices.IndexFunc(after.Findings, func(f study.Finding) bool { return f.ID == finding.ID })
				settled := at < 0 || after.Findings[at].State.Rank() < finding.State.Rank() || after.Findings[at].Aside() != "" && finding.Aside() == ""
				assert.True(t, settled, "%s: %s for %s", trip.Name, remedy.Label, finding.ID)
			}
		}
	}
	assert.Greater(t, tried, 400)
}

// about measures what a finding that stays is of, where a remedy may lower it without
// settling it; less is better.
var about = map[string]func(r *eval.LoadoutReport) float64{
	"knees-bent":        func(r *eval.LoadoutReport) float64 { return -figureOf(r, "knee") },
	"bars-low-standing": func(r *eval.LoadoutReport) float64 { return figureOf(r, "bar-short") },
	"ends-the-ride":     func(r *eval.LoadoutReport) float64 { return figureOf(r, "armour-stranded") },
	"range-short":       func(r *eval.LoadoutReport) float64 { return -figureOf(r, "range") },
	"part-does-not-fit": func(r *eval.LoadoutReport) float64 { return float64(len(r.Facts.Built.Off)) },
	"cast-on-rock": func(r *eval.LoadoutReport) (cast float64) {
		for _, s := range []parts.Slot{parts.FrontTyre, parts.RearTyre} {
			if r.Facts.Built.WheelBuild(s) == parts.Cast {
				cast++
			}
		}
		return cast
	},
	"pressure-pinch": func(r *eval.LoadoutReport) (sum float64) {
		for _, p := range r.Facts.Pressures {
			for _, e := range []facts.PressureEnd{p.Front, p.Rear} {
				if by := e.Pinch - e.Taken(); by > 0 {
					sum += by
				}
			}
		}
		return sum
	},
}

func figureOf(r *eval.LoadoutReport, id figure.ID) float64 {
	f, _ := r.Figure(id)
	return f.Value
}

func helps(before, after *eval.LoadoutReport, was study.Finding) bool {
	at := slices.IndexFunc(after.Findings, func(f study.Finding) bool { return f.ID == was.ID })
	if at < 0 || after.Findings[at].State.Rank() < was.State.Rank() {
		return true
	}
	measure, ok := about[was.ID]
	return ok && measure(after) < measure(before)
}
