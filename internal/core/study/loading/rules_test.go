package loading_test

import (
	"testing"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
	"valiantmule/internal/studytest"
)

func TestGoldenRules(t *testing.T) {
	b := studytest.New(t)
	in := func(kg, litres string, slot parts.Slot, side plan.Side) func(p *plan.Plan) {
		return studytest.Packed(studytest.Thing(t, kg, litres, slot, side, load.Panniers))
	}
	at := func(kg string, place load.Place) func(p *plan.Plan) {
		return studytest.Packed(studytest.Thing(t, kg, "1", "", "", place))
	}
	cruise := func(kmh string) func(p *plan.Plan) {
		return func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Cruise, kmh, "km/h") }
	}
	tight := func(p *plan.Plan) {
		studytest.Ground(t, p, map[terrain.Kind]string{terrain.SingleTrack: "20", terrain.Paved: "80"})
	}
	withPillion := func(p *plan.Plan) {
		p.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		studytest.Enter(t, &p.Loadouts[1].Pillion, "60", "kg")
	}
	ships := func(on, tie string) func(p *plan.Plan) {
		return func(p *plan.Plan) { p.Brief.Ships, p.Brief.TieDown = on, tie }
	}
	proved := func(p *plan.Plan) {
		part := *p.Lines[0].Part
		parts.Proved.Put(&part, entry.Yes)
		p.Lines[0].Source, p.Lines[0].Part = plan.BoughtUsed, &part
	}
	homeMade := func(p *plan.Plan) { p.Lines[0].Source = plan.HomeMade }
	own := func(slot parts.Slot) func(p *plan.Plan) {
		return func(p *plan.Plan) {
			p.Lines = append(p.Lines, plan.Line{Kind: plan.PartLine, Need: plan.Needed, Part: &parts.Part{ID: "own-unweighed", Slot: slot, Name: "My own"}})
		}
	}
	overloaded := func(p *plan.Plan) { studytest.Enter(t, &p.Brief.Rider, "180", "kg") }
	studytest.Rows(t, b, loading.Study, map[string]studytest.Row{
		"overweight":          studytest.Speaks(verdict.Stop, b.Changing("holt-650", overloaded), b.As("holt-650"), ""),
		"axle-overload":       studytest.Speaks(verdict.Stop, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Loadouts[1].Loads[0].Mass, "60", "kg") }), b.As("holt-650"), ""),
		"rack-overload":       studytest.Speaks(verdict.Stop, b.Changing("holt-650", at("12", load.Tail)), b.Changing("holt-650", at("12", load.Tail), "rear-rack-wrap-h"), parts.RearRack),
		"bag-overload":        studytest.Speaks(verdict.Stop, b.Changing("holt-650", in("25", "5", parts.SideBags, plan.Left), "bags-rackless-38"), b.Changing("holt-650", in("20", "5", parts.SideBags, plan.Left), "bags-rackless-38"), ""),
		"bag-overfull":        studytest.Speaks(verdict.Over, b.Changing("holt-650", in("5", "40", parts.SideBags, plan.Left), "bags-rackless-38"), b.Changing("holt-650", in("5", "30", parts.SideBags, plan.Left), "bags-rackless-38"), ""),
		"bag-speed":           studytest.Speaks(verdict.Watch, b.Changing("holt-650", cruise("135"), "bags-rackless-38"), b.Changing("holt-650", cruise("110"), "bags-rackless-38"), ""),
		"sides-uneven":        studytest.Speaks(verdict.Watch, b.Changing("holt-650", in("6", "5", parts.SideBags, plan.Left), "bags-rackless-38"), b.Changing("holt-650", in("1.5", "5", parts.SideBags, plan.Left), "bags-rackless-38"), ""),
		"front-light":         studytest.Speaks(verdict.Watch, b.Changing("holt-650", at("45", load.TopBox)), b.Changing("holt-650", at("10", load.Engine)), ""),
		"high-behind":         studytest.Speaks(verdict.Watch, b.Changing("holt-650", at("8.5", load.Tail), "rear-rack-h"), b.Changing("holt-650", at("5", load.Tail), "rear-rack-h"), ""),
		"bag-not-there":       studytest.Speaks(verdict.Watch, b.Changing("holt-650", in("5", "5", parts.TankBag, "")), b.Changing("holt-650", in("3", "5", parts.TankBag, ""), "tank-bag-9"), ""),
		"bags-by-the-pipe":    studytest.Speaks(verdict.Watch, b.As("holt-650", "bags-rackless-38"), b.As("holt-650", "bags-soft-2x22", "side-rack-h"), parts.SideRack),
		"hard-boxes-trap":     studytest.Speaks(verdict.Watch, b.Changing("holt-650", tight, "boxes-2x36", "side-rack-h"), b.Changing("holt-650", tight, "bags-rackless-26"), ""),
		"rack-keeps-the-seat": studytest.Speaks(verdict.Watch, b.As("holt-650", "rear-rack-wrap-h"), b.As("holt-650", "rear-rack-h"), ""),
		"rack-takes-the-pegs": studytest.Speaks(verdict.Over, b.Changing("holt-650", withPillion, "side-rack-h"), b.As("holt-650", "side-rack-h"), ""),
		"home-made-carrier":   studytest.Speaks(verdict.Watch, b.Changing("holt-650", homeMade, "rear-rack-h"), b.As("holt-650", "rear-rack-h"), ""),
		"not-ridden-loaded":   studytest.Speaks(verdict.Watch, b.Changing("holt-650", func(p *plan.Plan) { p.Lines[0].Source = plan.BoughtUsed }, "rear-rack-h"), b.Changing("holt-650", proved, "rear-rack-h"), ""),
		"tail-lamp-hidden":    studytest.Speaks(verdict.Watch, b.As("holt-650", "roll-40"), b.As("holt-650", "tank-bag-9"), ""),
		"weigh-first":         studytest.Speaks(verdict.Watch, b.Changing("holt-650", own(parts.TopBox)), b.Changing("holt-650", own(parts.Monitor)), ""),
		"usual-masses":        studytest.Speaks(verdict.Watch, b.Changing("holt-650", own(parts.Monitor)), b.As("holt-650", "box-42"), ""),
		"load-takes":          studytest.Speaks(verdict.Watch, b.As("holt-650"), b.Changing("holt-650", at("5", load.Engine)), ""),
		"too-heavy-to-ship":   studytest.Speaks(verdict.Over, b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.ShipMost, "150", "kg") }), b.Changing("holt-650", func(p *plan.Plan) { studytest.Enter(t, &p.Brief.ShipMost, "200", "kg") }), ""),
		"ships-too-late":      studytest.Speaks(verdict.Over, b.Changing("holt-650", ships("2027-06-01", "yokes")), b.Changing("holt-650", ships("2027-05-01", "yokes")), ""),
		"nowhere-to-tie":      studytest.Speaks(verdict.Watch, b.Changing("holt-650", ships("2027-05-01", "")), b.Changing("holt-650", ships("2027-05-01", "yokes")), ""),
	})
}
