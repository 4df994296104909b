package eval_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// said puts what somebody found out about fitment on each part that the plan chose.
func said(fit plan.Fitment) func(*plan.Plan) {
	return onParts(func(p *plan.Part) { p.Fitment = &fit })
}

// of makes the bike of a year and the parts for others.
func of(year int, made plan.Made) func(*plan.Plan) {
	return func(p *plan.Plan) {
		p.Bike.Year = year
		onParts(func(part *plan.Part) { part.Made = made })(p)
	}
}

// onParts changes copies of the parts that a plan chose.
func onParts(change func(*plan.Part)) func(*plan.Plan) {
	return func(p *plan.Plan) {
		for i := range p.Lines {
			part := *p.Lines[i].Part
			change(&part)
			p.Lines[i].Part = &part
		}
	}
}

// retyped is a part whose sheet was filled in from another's, field by field, as text.
func retyped(t *testing.T, p *plan.Part) *plan.Part {
	t.Helper()
	from, to := plan.DraftOf(p), plan.DraftOf(&plan.Part{ID: "own-copy", Slot: p.Slot, Name: p.Name, Price: p.Price, Place: p.Place, Origin: p.Origin})
	asks := to.Asks()
	for g, group := range from.Asks() {
		for i, f := range group.Fields {
			require.NoError(t, asks[g].Fields[i].Enter(f.Entry.String(), f.Unit), "%s: %s", p.ID, f.Key)
		}
		for i, choice := range group.Picks {
			asks[g].Picks[i].Set(choice.Get())
		}
		for i, c := range group.Checks {
			*asks[g].Checks[i].On = *c.On
		}
		for i, s := range group.Severals {
			asks[g].Severals[i].Set(s.Get())
		}
		for i, words := range group.Texts {
			*asks[g].Texts[i].Words = *words.Words
		}
	}
	*to.Covers() = *from.Covers()
	return to.Done()
}

// TestOwnPartIsAsGoodAsTheShelfs: for every part of every slot, one of the rider's own
// with the same fields gives the same figures, to the last digit, and the same findings.
func TestOwnPartIsAsGoodAsTheShelfs(t *testing.T) {
	b := newGarage(t)
	slots := map[plan.Slot]bool{}
	for _, p := range b.shelf {
		slots[p.Slot] = true
		own := retyped(t, p)
		bike := "holt-650"
		for id, candidate := range b.bikes {
			if b.shelf.CouldFit((&plan.Plan{Bike: candidate}).BuildStandard(), p) && id < bike {
				bike = id
			}
		}
		report := func(part *plan.Part) (figures []study.Figure, findings []string) {
			r, err := eval.EvaluateLoadout(b.standard(bike).With(plan.Choice{Slot: part.Slot, Part: part}), b.shelf, "travel", "2026-11-26")
			require.NoError(t, err)
			for _, f := range r.Findings {
				findings = append(findings, f.ID+" "+string(f.State))
			}
			return slices.Concat(r.Gauges, r.Others), findings
		}
		wantFigures, wantFindings := report(p)
		figures, findings := report(own)
		require.Equal(t, len(wantFigures), len(figures))
		for i, want := range wantFigures {
			assert.Equal(t, fmt.Sprint(want.Value, want.State), fmt.Sprint(figures[i].Value, figures[i].State), "%s of %s", want.ID, p.ID)
		}
		assert.Equal(t, wantFindings, findings, p.ID)
	}
	for _, info := range plan.Slots() {
		assert.True(t, slots[info.Slot], "nothing on the shelf shows what parts of %s have", info.Slot)
	}
}

// TestTags: whatever the shelf's parts provide is asked of their slot, and whatever they
// need somebody can provide and is said in words.
func TestTags(t *testing.T) {
	b := newGarage(t)
	for _, p := range b.shelf {
		for _, tag := range p.Provides {
			found := false
			for _, o := range plan.TagsBy(p.Slot) {
				found = found || o.Value == tag
			}
			assert.True(t, found, "%s provides %s, and parts of %s are not asked for it", p.ID, tag, p.Slot)
		}
		for _, tag := range append(p.Needs, p.Excludes...) {
			assert.NotEqual(t, tag, plan.TagWords(tag), "%s: %s is not in words", p.ID, tag)
		}
	}
}

// TestWhatDoesNotGoOnIsCreditedWithNothing but its price, and all of it is said.
func TestWhatDoesNotGoOnIsCreditedWithNothing(t *testing.T) {
	b := newGarage(t)
	bare := b.standard("holt-650")
	off := b.with("holt-650", "skid-alu-a", "side-rack-f", "rear-h6-47")
	report := func(p *plan.Plan) *eval.LoadoutReport {
		r, err := eval.EvaluateLoadout(p, b.shelf, "travel", "2026-11-26")
		require.NoError(t, err)
		return r
	}
	with, without := report(off), report(b.with("holt-650", "rear-h6-47"))
	for _, f := range slices.Concat(without.Gauges, without.Others) {
		if got, _ := with.Figure(f.ID); f.Stage != figure.Spend && f.Known {
			assert.Equal(t, f.Value, got.Value, f.ID)
		}
	}
	price := func(r *eval.LoadoutReport) float64 { f, _ := r.Figure(figure.Cost); return f.Value }
	assert.Greater(t, price(with), price(without))
	said := string(b.findings(off)["part-does-not-fit"].Tell().What)
	assert.Contains(t, said, "Averill 720")
	assert.Contains(t, said, "Fennick single", "not only the first")

	fits := *b.part("skid-alu-a").Part
	fits.Fitment = &plan.Fitment{Verdict: plan.FitsWithWork}
	assert.NotContains(t, b.findings(bare.With(plan.Choice{Slot: fits.Slot, Part: &fits})), "part-does-not-fit", "whoever tried it knows better")
	own := b.standard("holt-650")
	own.Bike.Provides = nil
	findings := b.findings(own.With(b.part("skid-alu-h")))
	assert.Contains(t, findings, "fitment-unknown", "a sheet that names no frame leaves it open")
	assert.NotContains(t, findings, "part-does-not-fit")
}

// TestTheWholeWay: what a needed thing needs is offered with it, as one choice.
func TestTheWholeWay(t *testing.T) {
	b := newGarage(t)
	way := b.findings(b.with("holt-650", "hands-bar-28"))["part-does-not-fit"].Remedies()
	require.NotEmpty(t, way)
	var slots []plan.Slot
	for _, c := range way[0].Choices {
		slots = append(slots, c.Slot)
	}
	assert.Equal(t, []plan.Slot{plan.Handlebar, plan.Risers, plan.HandGuards}, slots, "the bar, the clamps that it needs, and the guards on top")
	assert.NotContains(t, b.findings(b.with("holt-650").With(way[0].Choices...)), "part-does-not-fit")
}

// TestUnknownIsSaidAndNeverHelps: a part of which nobody knows more than its name puts no
// number that is none into a sentence, and no gauge stands better for it than for the
// bike without.
func TestUnknownIsSaidAndNeverHelps(t *testing.T) {
	b := newGarage(t)
	for _, bike := range []string{"holt-650", "corrin-1180", "sorrel-320"} {
		bare := b.standard(bike)
		without, err := eval.EvaluateLoadout(bare, b.shelf, "travel", "2026-11-26")
		require.NoError(t, err)
		for _, info := range plan.Slots() {
			own := plan.DraftOf(&plan.Part{ID: "own-blank", Slot: info.Slot, Name: "Mine"}).Done()
			p := bare.With(plan.Choice{Slot: info.Slot, Part: own})
			r, err := eval.EvaluateLoadout(p, p.WithOwn(b.shelf), "travel", "2026-11-26")
			require.NoError(t, err)
			for _, f := range r.Findings {
				words := f.Tell()
				assert.NotRegexp(t, `NaN|Inf|%!`, words.What+words.Why+words.Do, "%s of a %s", f.ID, info.Slot)
				f.Remedies()
			}
			needs, _ := r.Needs()
			for _, n := range needs {
				a := n.Tell()
				assert.NotRegexp(t, `NaN|Inf|%!`, a.Because+a.Bare+a.Fitted+a.Short, "%s with a %s", n.ID, info.Slot)
			}
			for i, g := range r.Gauges {
				if was := without.Gauges[i]; was.State != verdict.OK && g.State == verdict.OK {
					assert.Fail(t, "better for what nobody knows", "%s: %s is %s, was %s", info.Slot, g.ID, g.State, was.State)
				}
			}
		}
	}
}
