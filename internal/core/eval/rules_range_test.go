package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/verdict"
)

func rangeRows(t *testing.T, b *garage) map[string]row {
	sure := func(p *plan.Plan) {
		route := *p.Route
		route.Stops = nil
		for _, s := range p.Route.Stops {
			s.Certainty = plan.Sure
			route.Stops = append(route.Stops, s)
		}
		p.Route = &route
	}
	mate := func(km string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			p.Group = []plan.Mate{{Name: "Wren"}}
			enter(t, &p.Group[0].Range, km, "km")
		}
	}
	economy := func(text string) func(p *plan.Plan) {
		return func(p *plan.Plan) { enter(t, &p.Bike.Economy, text, "L/100 km") }
	}
	return map[string]row{
		"range-short":         {verdict.Over, b.as("holt-650"), b.as("holt-650", "tank-25-h"), plan.FuelCans},
		"unsure-pump":         {verdict.Watch, b.as("holt-650"), b.changing("holt-650", sure), ""},
		"smallest-of-group":   {verdict.Watch, b.changing("holt-650", mate("120")), b.changing("holt-650", mate("400")), ""},
		"consumption-off":     {verdict.Watch, b.changing("holt-650", economy("9")), b.changing("holt-650", economy("4.4")), ""},
		"can-not-approved":    {verdict.Over, b.as("holt-650", "cans-water-5"), b.as("holt-650", "cans-3"), plan.FuelCans},
		"tank-plumbing":       {verdict.Watch, b.as("holt-650", "aux-4-5-h"), b.as("holt-650", "bladder-4"), ""},
		"tank-at-the-knees":   {verdict.Watch, b.as("holt-650", "tank-25-h"), b.as("holt-650", "aux-4-5-h"), ""},
		"tank-in-front":       {verdict.Watch, b.as("holt-650", "tank-20-h"), b.as("holt-650"), ""},
		"fuel-behind":         {verdict.Watch, b.as("holt-650", "bladder-7"), b.as("holt-650", "aux-4-5-h"), ""},
		"fuel-by-the-exhaust": {verdict.Watch, b.as("holt-650", "cans-2x3"), b.as("holt-650", "bladder-4"), ""},
	}
}

// TestTheRemedyCloses: what is offered for a leg that is short closes it.
func TestTheRemedyCloses(t *testing.T) {
	b := newGarage(t)
	p := b.standard("holt-650")
	finding := b.findings(p)["range-short"]
	require.Len(t, finding.Remedies(), 1)
	assert.NotContains(t, b.findings(p.With(finding.Remedies()[0].Choices...)), "range-short")
}

// TestClosingAPump makes one leg of two, and what they need adds up.
func TestClosingAPump(t *testing.T) {
	b := newGarage(t)
	p := b.standard("corrin-1180")
	open := b.facts(p).Range.Legs
	closed := *p
	closed.Route = p.Route.Closing(p.Route.Stops[3].ID)
	joined := b.facts(&closed).Range.Legs
	foreseen, ok := b.facts(p).Range.Joined(2)
	require.True(t, ok)
	assert.InDelta(t, joined[2].NeedL, foreseen.NeedL, 1e-9, "what shutting it would do is what it does")
	assert.InDelta(t, joined[2].MarginL, foreseen.MarginL, 1e-9)
	require.Len(t, joined, len(open)-1)
	assert.Equal(t, open[2].From, joined[2].From)
	assert.Equal(t, open[3].To, joined[2].To)
	assert.InDelta(t, open[2].Km+open[3].Km, joined[2].Km, 1e-9)
	assert.InDelta(t, open[2].NeedL+open[3].NeedL, joined[2].NeedL, 1e-9)
	assert.InDelta(t, open[2].UpM+open[3].UpM, joined[2].UpM, 1e-6)
	assert.Greater(t, joined[2].Dry, open[2].Dry)
	require.Len(t, joined[2].Shut, 1)
	assert.Equal(t, p.Route.Stops[3].Name, joined[2].Shut[0].Name)
	assert.Equal(t, p.Route.Stops, closed.Route.Closing(p.Route.Stops[3].ID).Stops, "and opened again it is as it was")
}

// TestShutPump: taking an unsure pump as shut does not settle that it may be.
func TestShutPump(t *testing.T) {
	b := newGarage(t)
	p := *b.standard("holt-650")
	require.Contains(t, b.findings(&p), "unsure-pump")
	for _, s := range p.Route.Stops {
		if s.Certainty != plan.Sure {
			closed := p
			closed.Route = p.Route.Closing(s.ID)
			assert.Contains(t, b.findings(&closed), "unsure-pump", s.Name)
		}
	}
}
