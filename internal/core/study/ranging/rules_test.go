package ranging_test

import (
	"testing"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
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
			studytest.Enter(t, &p.Group[0].Range, km, "km")
		}
	}
	economy := func(text string) func(p *plan.Plan) {
		return func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Economy, text, "L/100 km") }
	}
	studytest.Rows(t, b, ranging.Study, map[string]studytest.Row{
		"range-short":         studytest.Speaks(verdict.Over, b.As("holt-650"), b.As("holt-650", "tank-25-h"), parts.FuelCans),
		"unsure-pump":         studytest.Speaks(verdict.Watch, b.As("holt-650"), b.Changing("holt-650", sure), ""),
		"smallest-of-group":   studytest.Speaks(verdict.Watch, b.Changing("holt-650", mate("120")), b.Changing("holt-650", mate("400")), ""),
		"consumption-off":     studytest.Speaks(verdict.Watch, b.Changing("holt-650", economy("9")), b.Changing("holt-650", economy("4.4")), ""),
		"can-not-approved":    studytest.Speaks(verdict.Over, b.As("holt-650", "cans-water-5"), b.As("holt-650", "cans-3"), parts.FuelCans),
		"tank-plumbing":       studytest.Speaks(verdict.Watch, b.As("holt-650", "aux-4-5-h"), b.As("holt-650", "bladder-4"), ""),
		"tank-at-the-knees":   studytest.Speaks(verdict.Watch, b.As("holt-650", "tank-25-h"), b.As("holt-650", "aux-4-5-h"), ""),
		"tank-in-front":       studytest.Speaks(verdict.Watch, b.As("holt-650", "tank-20-h"), b.As("holt-650"), ""),
		"fuel-behind":         studytest.Speaks(verdict.Watch, b.As("holt-650", "bladder-7"), b.As("holt-650", "aux-4-5-h"), ""),
		"fuel-by-the-exhaust": studytest.Speaks(verdict.Watch, b.As("holt-650", "cans-2x3"), b.As("holt-650", "bladder-4"), ""),
	})
}
