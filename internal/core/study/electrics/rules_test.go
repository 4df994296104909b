package electrics_test

import (
	"testing"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/electrics"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	dark := func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Night, "100", "%") }
	weak := func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Alternator, "165", "W") }
	hot := func(p *plan.Plan) {
		studytest.Enter(t, &p.Bike.Alternator, "180", "W")
		studytest.Enter(t, &p.Bike.AlternatorRPM, "3000", "rpm")
	}
	strong := func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Alternator, "600", "W") }
	small := func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Cranks, "70", "A") }
	night := func(p *plan.Plan) { studytest.Enter(t, &p.Brief.NightCruise, "70", "km/h") }
	light := func(p *plan.Plan) { studytest.Packed()(p); studytest.Enter(t, &p.Bike.LampAim, "2", "°") }
	wired := func(p *plan.Plan) {
		dark(p)
		p.Wired = []plan.Wired{{Slot: plan.AuxLamps, Feed: plan.FeedAlways, Use: plan.AtNight}}
	}
	studytest.Rows(t, b, electrics.Study, map[string]studytest.Row{
		"charge-short":   studytest.Speaks(verdict.Over, b.Changing("holt-650", dark, "aux-halogen"), b.As("holt-650"), plan.AuxLamps),
		"charge-thin":    studytest.Speaks(verdict.Watch, b.As("holt-650"), b.Changing("holt-650", strong), ""),
		"idle-drains":    studytest.Speaks(verdict.Watch, b.Changing("holt-650", weak), b.Changing("holt-650", strong), ""),
		"alternator-hot": studytest.Speaks(verdict.Watch, b.Changing("holt-650", hot, "camera-bar"), b.As("holt-650"), ""),
		"parked-drain":   studytest.Speaks(verdict.Watch, b.As("holt-650", "socket-usb-live"), b.As("holt-650", "socket-usb"), ""),
		"battery-cranks": studytest.Speaks(verdict.Watch, b.Changing("holt-650", small), b.Changing("holt-650", small, "battery-large"), ""),
		"lithium-cold":   studytest.Speaks(verdict.Watch, b.As("holt-650", "battery-lithium"), b.As("holt-650", "battery-large"), ""),
		"night-too-fast": studytest.Speaks(verdict.Over, b.Changing("holt-650", night), b.As("holt-650"), plan.AuxLamps),
		"dazzles":        studytest.Speaks(verdict.Watch, b.As("corrin-850"), b.Changing("corrin-850", light), ""),
		"bare-lumens":    studytest.Speaks(verdict.Watch, b.As("holt-650", "aux-lumens"), b.As("holt-650", "aux-spot"), ""),
		"lamps-and-law":  studytest.Speaks(verdict.Watch, b.As("holt-650", "aux-spot"), b.As("holt-650"), ""),
		"no-relay":       studytest.Speaks(verdict.Watch, b.Changing("holt-650", wired, "aux-spot"), b.Changing("holt-650", dark, "aux-spot"), ""),
	})
}
