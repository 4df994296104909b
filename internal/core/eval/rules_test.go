package eval_test

import (
	"maps"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/demo"
)

// Every rule is made to speak by a change and to fall silent by another. The
// rows are HANDBOOK 16's for the rear tyre, the front/rear mix and sprockets.

type garage struct {
	t     *testing.T
	shelf plan.Shelf
	bikes map[string]*plan.Bike
}

func newGarage(t *testing.T) *garage {
	b := &garage{t: t, bikes: map[string]*plan.Bike{}}
	bikes, err := demo.Bikes()
	require.NoError(t, err)
	for _, bike := range bikes {
		b.bikes[bike.ID] = bike
	}
	b.shelf, err = demo.Parts()
	require.NoError(t, err)
	return b
}

// standard is the demo's trip on a bike as it came, with nothing chosen.
func (b *garage) standard(bike string) *plan.Plan {
	p, err := demo.Plan()
	require.NoError(b.t, err)
	copied := *b.bikes[bike]
	p = p.Riding(&copied)
	p.Lines = nil
	return p
}

func (b *garage) part(id string) plan.Choice {
	for _, p := range b.shelf {
		if p.ID == id {
			return plan.Choice{Slot: p.Slot, Part: p}
		}
	}
	require.Fail(b.t, "no part", id)
	return plan.Choice{}
}

func (b *garage) with(bike string, parts ...string) *plan.Plan {
	p := b.standard(bike)
	for _, id := range parts {
		p = p.With(b.part(id))
	}
	return p
}

func (b *garage) findings(p *plan.Plan) map[string]study.Finding {
	report, err := eval.EvaluateLoadout(p, b.shelf, "travel", today)
	require.NoError(b.t, err)
	found := map[string]study.Finding{}
	for _, f := range report.Findings {
		found[f.ID] = f
	}
	return found
}

func (b *garage) facts(p *plan.Plan) *facts.All {
	report, err := eval.EvaluateLoadout(p, b.shelf, "travel", today)
	require.NoError(b.t, err)
	return report.Facts
}

func (b *garage) count(p *plan.Plan, slot plan.Slot, n int) *plan.Plan {
	return p.With(plan.Choice{Slot: slot, Part: plan.Unlisted(p.Bike, slot, n)})
}

func enter[Q interface{ Enter(text, unit string) error }](t *testing.T, q Q, text, unit string) {
	t.Helper()
	require.NoError(t, q.Enter(text, unit))
}

// row is how a rule is made to speak and to fall silent.
type row struct {
	state        verdict.State
	appears      func() *plan.Plan
	vanishes     func() *plan.Plan
	remedyOffers plan.Slot // a remedy that can be tried, "" for none
}

func TestEveryRuleAppearsAndVanishes(t *testing.T) {
	b := newGarage(t)
	holt := func(parts ...string) func() *plan.Plan {
		return func() *plan.Plan { return b.with("holt-650", parts...) }
	}
	corrin := func(parts ...string) func() *plan.Plan {
		return func() *plan.Plan { return b.with("corrin-850", parts...) }
	}
	fennick := func(parts ...string) func() *plan.Plan {
		return func() *plan.Plan { return b.with("fennick-300", parts...) }
	}
	changed := func(change func(p *plan.Plan), parts ...string) func() *plan.Plan {
		return func() *plan.Plan { p := b.with("holt-650", parts...); change(p); return p }
	}
	overloaded := func(p *plan.Plan) { enter(t, &p.Brief.Rider, "180", "kg") }
	rules := map[string]row{
		"overweight":          {verdict.Stop, changed(overloaded), holt(), ""},
		"tyre-overload":       {verdict.Stop, func() *plan.Plan { p := b.with("corrin-850", "hackle-140-80-18"); heavy(t, p); return p }, corrin(), ""},
		"front-tyre-rim":      {verdict.Stop, corrin("bracken-90-90-21"), corrin("bracken-110-80-19"), ""},
		"rear-tyre-rim":       {verdict.Stop, holt("lanner-150-70r17"), holt("bracken-140-80-18"), ""},
		"rear-tyre-clearance": {verdict.Stop, changed(func(p *plan.Plan) { enter(t, &p.Bike.RearMaxWidth, "130", "mm") }, "bracken-140-80-18"), holt("wether-130-80-18"), plan.RearTyre},
		"front-tyre-speed":    {verdict.Watch, corrin("bracken-110-80-19"), corrin("lanner-110-80r19"), ""},
		"rear-tyre-speed":     {verdict.Watch, corrin("bracken-150-70-17"), corrin("lanner-150-70r17"), ""},
		"rear-tyre-in-front":  {verdict.Over, changed(func(p *plan.Plan) { rearOnly(t, b, p) }), holt(), ""},
		"front-rim-width":     {verdict.Watch, changed(func(p *plan.Plan) { enter(t, &p.Bike.FrontRimWidth, "3.5", "in") }, "bracken-90-90-21"), holt("bracken-90-90-21"), ""},
		"rear-rim-width":      {verdict.Watch, changed(func(p *plan.Plan) { enter(t, &p.Bike.RearRimWidth, "5", "in") }, "bracken-140-80-18"), holt("bracken-140-80-18"), ""},
		"front-rear-mix":      {verdict.Over, fennick("hackle-110-100-18"), fennick("lanner-120-80-18"), ""},
		"tyre-against-ground": {verdict.Watch, changed(roadOnly(t), "hackle-140-80-18"), holt("wether-140-80-18"), plan.RearTyre},
		"part-does-not-fit":   {verdict.Stop, corrin("rear-h6-47"), holt("rear-h6-47"), ""},
		"fitment-unknown":     {verdict.Unknown, changed(said(plan.Fitment{Verdict: plan.FitUnknown}), "skid-alu-h"), holt("skid-alu-h"), ""},
		"another-year":        {verdict.Over, changed(of(2020, plan.Made{From: 2021, To: 2024}), "skid-alu-h"), changed(of(2022, plan.Made{From: 2021, To: 2024}), "skid-alu-h"), ""},
		"fits-with-work":      {verdict.Watch, changed(said(plan.Fitment{Verdict: plan.FitsWithWork}), "skid-alu-h"), changed(said(plan.Fitment{Verdict: plan.Fits}), "skid-alu-h"), ""},
		"effects-clash":       {verdict.Over, changed(func(p *plan.Plan) { clash(p) }, "stand-foot-10"), holt("stand-foot-10"), ""},
		"tyre-moves-gearing":  {verdict.Watch, holt("bracken-140-80-18"), holt("bracken-140-80-18", "rear-h6-45"), plan.RearSprocket},
		"chain-length": {verdict.Stop, func() *plan.Plan { return b.count(b.standard("holt-650"), plan.RearSprocket, 52) }, func() *plan.Plan {
			return b.count(b.count(b.standard("holt-650"), plan.RearSprocket, 52), plan.Chain, 114)
		}, plan.Chain},
		"axle-position":        {verdict.Watch, holt("rear-h6-46"), holt("rear-h6-44"), ""},
		"chain-slider":         {verdict.Watch, holt("front-h20-14"), holt("front-h20-16"), plan.FrontSprocket},
		"small-front-sprocket": {verdict.Watch, holt("front-h20-12"), holt("front-h20-13"), ""},
		"worn-together":        {verdict.Watch, holt("rear-h6-46"), holt("rear-h6-46", "front-h20-15", "chain-520-110"), plan.Chain},
		"speedometer":          {verdict.Over, fennick("scree-120-100-18"), fennick("scree-120-100-18", "speedometer-corrector"), plan.Speedometer},
		"seat-height":          {verdict.Watch, holt("bracken-140-80-18"), holt("wether-130-80-18"), ""},
		"stand-too-short":      {verdict.Watch, holt("bracken-140-80-18"), holt("bracken-140-80-18", "stand-foot-10"), plan.SideStand},
		"rake":                 {verdict.Watch, holt("bracken-140-80-18"), holt("wether-130-80-18"), ""},
	}
	for _, more := range []map[string]row{bikeRows(t, b), baselineRows(t, b), armourRows(t, b), contactRows(t, b), insideRows(t, b), pressureRows(t, b), pullRows(t, b), rangeRows(t, b), loadRows(t, b)} {
		maps.Copy(rules, more)
	}
	for _, r := range eval.Rules() {
		c, listed := rules[r.ID]
		if !assert.True(t, listed, "%s has no row here", r.ID) {
			continue
		}
		finding, spoke := b.findings(c.appears())[r.ID]
		if assert.True(t, spoke, "%s appears", r.ID) {
			assert.Equal(t, c.state, finding.State, r.ID)
			words := finding.Tell()
			assert.NotEmpty(t, words.What, r.ID)
			assert.NotEmpty(t, words.Why, r.ID)
			assert.NotEmpty(t, words.Do, r.ID)
			assert.Equal(t, r.Stage, finding.Stage, r.ID)
			assert.NotContains(t, strings.ToLower(string(words.What+words.Why+words.Do)), "safe ", "%s: the app never says safe", r.ID)
			offersSlot(t, r.ID, finding, c.remedyOffers)
		}
		assert.NotContains(t, b.findings(c.vanishes()), r.ID, "%s vanishes", r.ID)
	}
	assert.Len(t, rules, len(eval.Rules()), "no row without a rule")
}

func offersSlot(t *testing.T, id string, f study.Finding, slot plan.Slot) {
	if slot == "" {
		return
	}
	if !assert.NotEmpty(t, f.Remedies(), "%s offers a way out", id) {
		return
	}
	var slots []plan.Slot
	for _, remedy := range f.Remedies() {
		for _, c := range remedy.Choices {
			slots = append(slots, c.Slot)
		}
	}
	assert.Contains(t, slots, slot, id)
}

func heavy(t *testing.T, p *plan.Plan) {
	p.Brief.Rider = unit.Mass{}
	enter(t, &p.Brief.Rider, "250", "kg")
	enter(t, &p.Loadouts[1].Loads[0].Mass, "150", "kg")
}

func rearOnly(t *testing.T, b *garage, p *plan.Plan) {
	part := *b.part("hackle-300-21").Part
	copied := *part.Tyre
	require.NoError(t, copied.Size.UnmarshalText([]byte("90/90-21 M/C 54R R")))
	part.Tyre = &copied
	p.Lines = append(p.Lines, plan.Line{Kind: plan.PartLine, Need: plan.Needed, Part: &part})
}

func roadOnly(t *testing.T) func(p *plan.Plan) {
	return func(p *plan.Plan) {
		var all unit.Ratio
		enter(t, &all, "100", "%")
		p.Brief.Terrain = []plan.Stretch{{Ground: terrain.Paved, Share: all}}
	}
}

func clash(p *plan.Plan) {
	part := *p.Lines[0].Part
	part.Effects = append(part.Effects, plan.Effect{Figure: plan.RearTeeth, Op: plan.Set, Value: 50})
	p.Lines[0].Part = &part
}

// TestRemedyHelps takes each remedy of the demo's findings and of every rear
// tyre's: what it was offered for is gone, or stands no worse.
func TestRemedyHelps(t *testing.T) {
	b := newGarage(t)
	tried := 0
	for _, part := range b.shelf {
		if part.Slot != plan.RearTyre || part.Tyre.Size.RimIn != 18 {
			continue
		}
		p := b.with("holt-650", part.ID)
		for id, finding := range b.findings(p) {
			for _, remedy := range finding.Remedies() {
				after, still := b.findings(p.With(remedy.Choices...))[id]
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
	b := newGarage(t)
	p := b.standard("holt-650")
	p.Bike = &plan.Bike{ID: "own", Name: "Own"}
	p.Brief.Distance, p.Brief.Day = unit.Length{}, unit.Duration{}
	packed(t)(p) // a bag that is not on is no number
	assert.Empty(t, b.findings(p))
	p.Bike = nil
	assert.Empty(t, b.findings(p))
}

func TestChainFor(t *testing.T) {
	b := newGarage(t)
	report, err := eval.EvaluateLoadout(b.standard("holt-650"), b.shelf, "travel", today)
	require.NoError(t, err)
	pair := report.Facts.Drive.Pair
	links, shift, ok := study.ChainFor(report.Facts, pair)
	require.True(t, ok)
	assert.Equal(t, 110, links, "the chain that is on stays")
	assert.InDelta(t, 0, shift, 1e-9)
	pair.Rear = 51
	links, shift, ok = study.ChainFor(report.Facts, pair)
	require.True(t, ok)
	assert.Equal(t, 114, links)
	assert.Less(t, math.Abs(shift), 16.0)
}
