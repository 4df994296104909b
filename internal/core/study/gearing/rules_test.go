package gearing_test

import (
	"testing"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	trailFront := func(p *plan.Plan) {
		c := b.Part("front-h20-13")
		c.Loadout = "trail-day"
		p.Lines = p.With(c).Lines
	}
	climbing := func(percent string, on terrain.Kind) func(p *plan.Plan) {
		return func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Climb, percent, "%"); p.Brief.ClimbGround = on }
	}
	flat := func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Altitude, "300", "m") }
	studytest.Rows(t, b, gearing.Study, map[string]studytest.Row{
		"tyre-moves-gearing": studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "bracken-140-80-18", "rear-h6-45"), parts.RearSprocket),
		"chain-length": studytest.Speaks(verdict.Stop, func() *plan.Plan { return b.Count(b.Standard("holt-650"), parts.RearSprocket, 52) }, func() *plan.Plan {
			return b.Count(b.Count(b.Standard("holt-650"), parts.RearSprocket, 52), parts.Chain, 114)
		}, parts.Chain),
		"axle-position":        studytest.Speaks(verdict.Watch, b.As("holt-650", "rear-h6-46"), b.As("holt-650", "rear-h6-44"), ""),
		"chain-slider":         studytest.Speaks(verdict.Watch, b.As("holt-650", "front-h20-14"), b.As("holt-650", "front-h20-16"), parts.FrontSprocket),
		"small-front-sprocket": studytest.Speaks(verdict.Watch, b.As("holt-650", "front-h20-12"), b.As("holt-650", "front-h20-13"), ""),
		"worn-together":        studytest.Speaks(verdict.Watch, b.As("holt-650", "rear-h6-46"), b.As("holt-650", "rear-h6-46", "front-h20-15", "chain-520-110"), parts.Chain),
		"swap-slack":           studytest.Speaks(verdict.Watch, b.Changing("holt-650", trailFront), b.As("holt-650", "front-h20-13"), ""),
		"cruise-not-held": studytest.Speaks(verdict.Over, b.Changing("fennick-250", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Cruise, "120", "km/h") }),
			b.Changing("fennick-250", func(p *plan.Plan) {
				studytest.Enter(t, &p.Brief.Cruise, "60", "km/h")
				studytest.Enter(t, &p.Brief.Headwind, "0", "km/h")
			}), ""),
		"climb-short": studytest.Speaks(verdict.Over, b.Changing("fennick-250", climbing("95", terrain.Paved)), b.Changing("fennick-250", climbing("40", terrain.Paved)), ""),
		"climb-spins": studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Climb, "40", "%") }),
			b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Climb, "25", "%") }), ""),
		"carburettor-altitude": studytest.Speaks(verdict.Watch, b.As("morrow-400"), b.Changing("morrow-400", flat), ""),
		"speedometer":          studytest.Speaks(verdict.Over, b.As("fennick-300", "scree-120-100-18"), b.As("fennick-300", "scree-120-100-18", "speedometer-corrector"), parts.Speedometer),
	})
}
