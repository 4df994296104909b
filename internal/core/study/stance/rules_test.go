package stance_test

import (
	"testing"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/stance"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

// riding makes a plan on the 300 with a rider of so many kg and nothing packed but things.
func riding(t *testing.T, b *studytest.Garage, kg string, change func(p *plan.Plan), things []plan.Load, parts ...string) func() *plan.Plan {
	return b.Changing("fennick-300", func(p *plan.Plan) {
		studytest.Packed(things...)(p)
		studytest.Enter(t, &p.Brief.Rider, kg, "kg")
		if change != nil {
			change(p)
		}
	}, parts...)
}

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	enter := func(q interface{ Enter(text, unit string) error }, text, unit string) {
		studytest.Enter(t, q, text, unit)
	}
	on := func(kg string, at load.Place) []plan.Load {
		return []plan.Load{studytest.Thing(t, kg, "20", "", "", at)}
	}
	usual := riding(t, b, "80", nil, nil)
	preloads := func(front, rear string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			enter(&p.Loadouts[1].Setting.FrontPreload, front, "mm")
			enter(&p.Loadouts[1].Setting.RearPreload, rear, "mm")
		}
	}
	weak := func(p *plan.Plan) {
		enter(&p.Bike.FrontSpring, "4.5", "N/mm")
		p.Bike.FrontPreMost = unit.Length{}
	}
	sags := func(front, rear string) func(p *plan.Plan) {
		return func(p *plan.Plan) { enter(&p.Bike.FrontSag, front, "mm"); enter(&p.Bike.RearSag, rear, "mm") }
	}
	far := func(p *plan.Plan) {
		enter(&p.Bike.RearSpring, "120", "N/mm")
		sags("220", "234")(p)
	}
	air := func(p *plan.Plan) { enter(&p.Loadouts[1].Setting.ForkAir, "60", "kPa") }
	roomy := func(p *plan.Plan) { enter(&p.Brief.RoomWanted, "212", "mm") }
	studytest.Rows(t, b, stance.Study, map[string]studytest.Row{
		"sag-soft-front":         studytest.Speaks(verdict.Over, riding(t, b, "110", nil, on("45", load.TankBag)), usual, parts.ForkSprings),
		"sag-soft-rear":          studytest.Speaks(verdict.Over, riding(t, b, "120", nil, on("20", load.Tail)), usual, parts.ShockSpring),
		"sag-stiff-front":        studytest.Speaks(verdict.Watch, riding(t, b, "45", nil, nil), usual, ""),
		"sag-stiff-rear":         studytest.Speaks(verdict.Watch, riding(t, b, "45", nil, nil), usual, ""),
		"to-set-front":           studytest.Speaks(verdict.Watch, riding(t, b, "120", nil, nil, "fork-springs-f-11"), usual, ""),
		"to-set-rear":            studytest.Speaks(verdict.Watch, riding(t, b, "120", nil, nil, "shock-spring-f-72"), usual, ""),
		"preload-runs-out-front": studytest.Speaks(verdict.Watch, riding(t, b, "80", nil, on("45", load.TankBag)), usual, parts.ForkSprings),
		"preload-runs-out-rear":  studytest.Speaks(verdict.Watch, riding(t, b, "80", nil, on("35", load.Panniers)), usual, parts.ShockSpring),
		"wrong-spring-front":     studytest.Speaks(verdict.Watch, riding(t, b, "120", nil, on("30", load.TankBag)), usual, parts.ForkSprings),
		"wrong-spring-rear":      studytest.Speaks(verdict.Watch, riding(t, b, "120", nil, on("35", load.Panniers)), usual, parts.ShockSpring),
		"spring-too-soft-front":  studytest.Speaks(verdict.Watch, riding(t, b, "80", weak, nil), usual, parts.ForkSprings),
		"spring-too-soft-rear":   studytest.Speaks(verdict.Watch, riding(t, b, "118", nil, nil), usual, parts.ShockSpring),
		"spring-too-stiff-front": studytest.Speaks(verdict.Watch, riding(t, b, "48", nil, on("30", load.TankBag)), usual, ""),
		"spring-too-stiff-rear":  studytest.Speaks(verdict.Watch, riding(t, b, "48", nil, on("20", load.Panniers)), usual, ""),
		"bounces-front":          studytest.Speaks(verdict.Watch, riding(t, b, "48", preloads("0", "0"), nil), riding(t, b, "48", nil, nil), ""),
		"bounces-rear":           studytest.Speaks(verdict.Watch, riding(t, b, "48", preloads("0", "0"), nil), riding(t, b, "48", nil, nil), ""),
		"sag-measured-front":     studytest.Speaks(verdict.Watch, riding(t, b, "80", sags("66", "80"), nil), usual, ""),
		"sag-measured-rear":      studytest.Speaks(verdict.Watch, riding(t, b, "80", sags("66", "80"), nil), usual, ""),
		"sag-doubtful-front":     studytest.Speaks(verdict.Watch, riding(t, b, "80", far, nil), usual, ""),
		"sag-doubtful-rear":      studytest.Speaks(verdict.Watch, riding(t, b, "80", far, nil), usual, ""),
		"one-end-sprung":         studytest.Speaks(verdict.Watch, riding(t, b, "130", nil, nil, "fork-springs-f-12"), usual, parts.ShockSpring),
		"air-without-valves":     studytest.Speaks(verdict.Watch, riding(t, b, "80", air, nil), riding(t, b, "80", air, nil, "fork-caps-valves"), parts.ForkCaps),
		"air-holds":              studytest.Speaks(verdict.Watch, riding(t, b, "80", air, nil, "fork-caps-valves"), usual, ""),
		"oil-first":              studytest.Speaks(verdict.Watch, riding(t, b, "80", nil, nil, "oil-thick"), riding(t, b, "80", nil, nil, "oil-fresh"), ""),
		"damping-follows":        studytest.Speaks(verdict.Watch, riding(t, b, "80", preloads("18", "30"), nil), usual, ""),
		"unit-unproven":          studytest.Speaks(verdict.Watch, riding(t, b, "80", nil, nil, "shock-f-450"), usual, ""),
		"out-of-reach": studytest.Speaks(verdict.Over, b.Changing("fennick-450", func(p *plan.Plan) {
			enter(&p.Brief.Inseam, "700", "mm")
			enter(&p.Brief.ReachWish, "60", "mm")
		}), b.As("sorrel-320"), ""),
		"room-short":      studytest.Speaks(verdict.Watch, b.As("sorrel-320"), b.As("morrow-400"), ""),
		"room-pressed":    studytest.Speaks(verdict.Watch, riding(t, b, "80", roomy, nil, "links-low-25"), riding(t, b, "80", roomy, nil), ""),
		"links-lower":     studytest.Speaks(verdict.Watch, riding(t, b, "80", nil, nil, "links-low-25"), usual, parts.Seat),
		"springs-raise":   studytest.Speaks(verdict.Watch, riding(t, b, "120", nil, nil, "fork-springs-f-11", "shock-spring-f-72"), usual, ""),
		"one-end-raised":  studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "wether-130-80-18"), ""),
		"fork-through":    studytest.Speaks(verdict.Watch, riding(t, b, "80", func(p *plan.Plan) { enter(&p.ForkThrough, "15", "mm") }, nil), usual, ""),
		"seat-height":     studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "wether-130-80-18"), ""),
		"stand-too-short": studytest.Speaks(verdict.Watch, b.As("holt-650", "bracken-140-80-18"), b.As("holt-650", "bracken-140-80-18", "stand-foot-10"), parts.SideStand),
		"stand-too-long":  studytest.Speaks(verdict.Watch, b.As("holt-650", "links-low-40"), b.As("holt-650", "links-low-40", "stand-short-20"), parts.SideStand),
		"stand-leans":     studytest.Speaks(verdict.Watch, riding(t, b, "80", func(p *plan.Plan) { enter(&p.Bike.StandLean, "17", "°") }, nil), usual, ""),
		"stand-sinks":     studytest.Speaks(verdict.Watch, b.As("holt-650"), b.As("holt-650", "stand-plate"), parts.StandPlateSlot),
		"damper-mount":    studytest.Speaks(verdict.Watch, b.As("holt-650", "damper-under"), b.As("holt-650"), ""),
		"back-bent":       studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { enter(&p.Bike.BarHeight, "900", "mm") }), b.As("holt-650"), ""),
		"tall-seat":       studytest.Speaks(verdict.Watch, b.As("holt-650", "seat-tall"), b.As("holt-650"), ""),
	})
}
