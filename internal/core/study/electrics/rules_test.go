package electrics_test

import (
	"testing"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
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
		p.Wired = []plan.Wired{{Slot: parts.AuxLamps, Feed: parts.FeedAlways, Use: parts.AtNight}}
	}
	volts := func(riding, all string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			v := logbook.Volts{}
			studytest.Enter(t, &v.Riding, riding, "V")
			studytest.Enter(t, &v.AllOn, all, "V")
			p.Readings = []logbook.Reading{{ID: "A", Kind: logbook.VoltsRead, Bike: p.Bike.ID, On: studytest.Today, Read: &v}}
		}
	}
	laid := func(area, fuse, length string) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			w := plan.Wired{Slot: parts.VestLead, Use: parts.InCold}
			studytest.Enter(t, &w.Area, area, "mm²")
			studytest.Enter(t, &w.Fuse, fuse, "A")
			studytest.Enter(t, &w.Length, length, "m")
			p.Wired = []plan.Wired{w}
		}
	}
	on := func(vest, grips plan.Channel) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			p.Wired = []plan.Wired{{Slot: parts.VestLead, Channel: vest}, {Slot: parts.Grips, Channel: grips}}
		}
	}
	far := func(p *plan.Plan) {
		w := plan.Wired{Slot: parts.Inflator}
		studytest.Enter(t, &w.Length, "10 m", "m")
		p.Wired = []plan.Wired{w}
	}
	shared := func(p *plan.Plan) {
		p.Wired = []plan.Wired{{Slot: parts.VestLead, Channel: "1"}, {Slot: parts.Grips, Channel: "1"}, {Slot: parts.Horn, Channel: "1"}}
	}
	sits := func(at plan.BoxPlace) func(p *plan.Plan) { return func(p *plan.Plan) { p.BoxSits = at } }
	studytest.Rows(t, b, electrics.Study, map[string]studytest.Row{
		"charge-short":    studytest.Speaks(verdict.Over, b.Changing("holt-650", dark, "aux-halogen"), b.As("holt-650"), parts.AuxLamps),
		"charge-thin":     studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Bike.Alternator, "190", "W") }), b.Changing("holt-650", strong), ""),
		"idle-drains":     studytest.Speaks(verdict.Watch, b.Changing("holt-650", weak), b.Changing("holt-650", strong), ""),
		"alternator-hot":  studytest.Speaks(verdict.Watch, b.Changing("holt-650", hot, "camera-bar"), b.As("holt-650"), ""),
		"parked-drain":    studytest.Speaks(verdict.Watch, b.As("holt-650", "socket-usb-live"), b.As("holt-650", "socket-usb"), ""),
		"battery-cranks":  studytest.Speaks(verdict.Watch, b.Changing("holt-650", small), b.Changing("holt-650", small, "battery-large"), ""),
		"lithium-cold":    studytest.Speaks(verdict.Watch, b.As("holt-650", "battery-lithium"), b.As("holt-650", "battery-large"), ""),
		"night-too-fast":  studytest.Speaks(verdict.Over, b.Changing("holt-650", night), b.As("holt-650"), parts.AuxLamps),
		"dazzles":         studytest.Speaks(verdict.Watch, b.As("corrin-850"), b.Changing("corrin-850", light), ""),
		"bare-lumens":     studytest.Speaks(verdict.Watch, b.As("holt-650", "aux-lumens"), b.As("holt-650", "aux-spot"), ""),
		"lamps-and-law":   studytest.Speaks(verdict.Watch, b.As("holt-650", "aux-spot"), b.As("holt-650"), ""),
		"volts-low":       studytest.Speaks(verdict.Over, b.Changing("holt-650", volts("13.9 V", "12.6 V")), b.Changing("holt-650", volts("14.1 V", "13.7 V")), ""),
		"regulator-high":  studytest.Speaks(verdict.Stop, b.Changing("holt-650", volts("15.2 V", "15.1 V"), "battery-lithium"), b.Changing("holt-650", volts("14.4 V", "14.1 V"), "battery-lithium"), parts.Regulator),
		"fuse-over-wire":  studytest.Speaks(verdict.Stop, b.Changing("holt-650", laid("1 mm2", "15 A", ""), "vest-75"), b.Changing("holt-650", laid("1 mm2", "10 A", ""), "vest-75"), ""),
		"fuse-blows":      studytest.Speaks(verdict.Watch, b.Changing("holt-650", laid("", "5 A", ""), "vest-75"), b.Changing("holt-650", laid("", "7.5 A", ""), "vest-75"), ""),
		"wire-drops":      studytest.Speaks(verdict.Watch, b.Changing("holt-650", laid("0.75 mm2", "", "3 m"), "vest-75"), b.Changing("holt-650", laid("2.5 mm2", "", "3 m"), "vest-75"), ""),
		"no-wire-does":    studytest.Speaks(verdict.Over, b.Changing("holt-650", far, "inflator-120"), b.As("holt-650", "inflator-120"), ""),
		"channel-over":    studytest.Speaks(verdict.Stop, b.Changing("holt-650", on("1", "1"), "vest-75", "grips-heated", "box-4"), b.Changing("holt-650", on("1", "2"), "vest-75", "grips-heated", "box-4"), ""),
		"box-over":        studytest.Speaks(verdict.Stop, b.Changing("holt-650", shared, "vest-75", "grips-heated", "inflator-120", "aux-halogen", "horn-loud", "box-3"), b.As("holt-650", "vest-jacket", "grips-heated", "box-3"), ""),
		"box-full":        studytest.Speaks(verdict.Watch, b.As("holt-650", "vest-75", "grips-heated", "aux-spot", "camera-bar", "box-3"), b.As("holt-650", "vest-75", "grips-heated", "box-6"), ""),
		"box-buried":      studytest.Speaks(verdict.Watch, b.Changing("holt-650", sits(plan.BoxUnderTank), "box-6"), b.Changing("holt-650", sits(plan.BoxAtSide), "box-6"), ""),
		"double-pace":     studytest.Speaks(verdict.Watch, b.As("holt-650", "indicators-led"), b.As("holt-650", "indicators-led", "flasher-clock"), parts.Flashing),
		"leads-that-part": studytest.Speaks(verdict.Watch, b.As("holt-650", "helmet-10"), b.As("holt-650", "helmet-own"), ""),
		"tower-cables":    studytest.Speaks(verdict.Watch, b.As("holt-650", "tower-light", "camera-bar"), b.As("holt-650", "tower-light"), ""),
		"bends-dark":      studytest.Speaks(verdict.Watch, b.Changing("holt-650", dark, "aux-spot"), b.Changing("holt-650", dark, "wide-fork"), parts.WideLamps),
		"no-relay":        studytest.Speaks(verdict.Watch, b.Changing("holt-650", wired, "aux-spot"), b.Changing("holt-650", dark, "aux-spot"), ""),
	})
}
