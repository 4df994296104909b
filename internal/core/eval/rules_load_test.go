package eval_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// packed sets what the travel loadout carries.
func packed(t *testing.T, loads ...plan.Load) func(p *plan.Plan) {
	return func(p *plan.Plan) {
		p.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		p.Loadouts[1].Loads = loads
	}
}

func thing(t *testing.T, kg, litres string, in plan.Slot, side plan.Side, place load.Place) plan.Load {
	l := plan.Load{Name: "Thing", Place: place, Bag: in, Side: side}
	enter(t, &l.Mass, kg, "kg")
	enter(t, &l.Volume, litres, "L")
	return l
}

func loadRows(t *testing.T, b *garage) map[string]row {
	const holt = "holt-650"
	in := func(kg, litres string, slot plan.Slot, side plan.Side) func(p *plan.Plan) {
		return packed(t, thing(t, kg, litres, slot, side, load.Panniers))
	}
	at := func(kg string, place load.Place) func(p *plan.Plan) {
		return packed(t, thing(t, kg, "1", "", "", place))
	}
	cruise := func(kmh string) func(p *plan.Plan) {
		return func(p *plan.Plan) { enter(t, &p.Brief.Cruise, kmh, "km/h") }
	}
	tight := func(p *plan.Plan) {
		ground(t, p, map[terrain.Kind]string{terrain.SingleTrack: "20", terrain.Paved: "80"})
	}
	withPillion := func(p *plan.Plan) {
		p.Loadouts = append([]plan.Loadout{}, p.Loadouts...)
		enter(t, &p.Loadouts[1].Pillion, "60", "kg")
	}
	ships := func(on, tie string) func(p *plan.Plan) {
		return func(p *plan.Plan) { p.Brief.Ships, p.Brief.TieDown = on, tie }
	}
	homeMade := func(p *plan.Plan) { p.Lines[0].Source = plan.HomeMade }
	return map[string]row{
		"rack-overload":       {verdict.Stop, b.changing(holt, at("12", load.Tail)), b.changing(holt, at("12", load.Tail), "rear-rack-wrap-h"), plan.RearRack},
		"bag-overload":        {verdict.Stop, b.changing(holt, in("25", "5", plan.SideBags, plan.Left), "bags-rackless-38"), b.changing(holt, in("20", "5", plan.SideBags, plan.Left), "bags-rackless-38"), ""},
		"bag-overfull":        {verdict.Over, b.changing(holt, in("5", "40", plan.SideBags, plan.Left), "bags-rackless-38"), b.changing(holt, in("5", "30", plan.SideBags, plan.Left), "bags-rackless-38"), ""},
		"bag-speed":           {verdict.Watch, b.changing(holt, cruise("135"), "bags-rackless-38"), b.changing(holt, cruise("110"), "bags-rackless-38"), ""},
		"sides-uneven":        {verdict.Watch, b.changing(holt, in("6", "5", plan.SideBags, plan.Left), "bags-rackless-38"), b.changing(holt, in("1.5", "5", plan.SideBags, plan.Left), "bags-rackless-38"), ""},
		"front-light":         {verdict.Watch, b.changing(holt, at("45", load.TopBox)), b.changing(holt, at("10", load.Engine)), ""},
		"high-behind":         {verdict.Watch, b.changing(holt, at("8.5", load.Tail), "rear-rack-h"), b.changing(holt, at("5", load.Tail), "rear-rack-h"), ""},
		"bag-not-there":       {verdict.Watch, b.changing(holt, in("5", "5", plan.TankBag, "")), b.changing(holt, in("3", "5", plan.TankBag, ""), "tank-bag-9"), ""},
		"bags-by-the-pipe":    {verdict.Watch, b.as(holt, "bags-rackless-38"), b.as(holt, "bags-soft-2x22", "side-rack-h"), plan.SideRack},
		"hard-boxes-trap":     {verdict.Watch, b.changing(holt, tight, "boxes-2x36", "side-rack-h"), b.changing(holt, tight, "bags-rackless-26"), ""},
		"rack-keeps-the-seat": {verdict.Watch, b.as(holt, "rear-rack-wrap-h"), b.as(holt, "rear-rack-h"), ""},
		"rack-takes-the-pegs": {verdict.Over, b.changing(holt, withPillion, "side-rack-h"), b.as(holt, "side-rack-h"), ""},
		"home-made-carrier":   {verdict.Watch, b.changing(holt, homeMade, "rear-rack-h"), b.as(holt, "rear-rack-h"), ""},
		"tail-lamp-hidden":    {verdict.Watch, b.as(holt, "roll-40"), b.as(holt, "tank-bag-9"), ""},
		"too-heavy-to-ship":   {verdict.Over, b.changing(holt, func(p *plan.Plan) { enter(t, &p.Brief.ShipMost, "150", "kg") }), b.changing(holt, func(p *plan.Plan) { enter(t, &p.Brief.ShipMost, "200", "kg") }), ""},
		"ships-too-late":      {verdict.Over, b.changing(holt, ships("2027-06-01", "yokes")), b.changing(holt, ships("2027-05-01", "yokes")), ""},
		"nowhere-to-tie":      {verdict.Watch, b.changing(holt, ships("2027-05-01", "")), b.changing(holt, ships("2027-05-01", "yokes")), ""},
		"load-takes":          {verdict.Watch, b.as(holt), b.changing(holt, at("5", load.Engine)), ""},
	}
}

// TestBagsTakeTheirLoadAlong: a load sits where its bag sits, and at its own place
// when the bag is off.
func TestBagsTakeTheirLoadAlong(t *testing.T) {
	b := newGarage(t)
	loads := packed(t, thing(t, "5", "4", plan.ToolTube, "", load.Tail))
	without, with := b.with("holt-650"), b.with("holt-650", "tool-tube-5")
	loads(without)
	loads(with)
	off, on := b.facts(without), b.facts(with)
	assert.Greater(t, on.Axles.Kg.Front, off.Axles.Kg.Front, "from behind the seat to before the engine")
	assert.InDelta(t, 5, off.Bags.RackKg, 1e-9)
	assert.Zero(t, on.Bags.RackKg)
	assert.InDelta(t, 5, on.Bags.On[0].Kg, 1e-9)
	assert.InDelta(t, 5.0/6, facts.Bag{Kg: 5, LimitKg: 6, Litres: 1, LimitL: 10}.Share(), 1e-12)
}

// TestRollBagOnTheSeat does not load the rack, what is in it neither; with a pillion there is
// no seat for it.
func TestRollBagOnTheSeat(t *testing.T) {
	b := newGarage(t)
	p := b.with("holt-650", "roll-40")
	p.Loadouts[1].Loads = []plan.Load{packedThing(t, 6, plan.TailBag, plan.Middle, load.Tail), packedThing(t, 2, "", plan.Middle, load.Tail)}
	assert.InDelta(t, 2, b.facts(p).Bags.RackKg, 1e-9)
	enter(t, &p.Loadouts[1].Pillion, "60", "kg")
	assert.InDelta(t, 8.9, b.facts(p).Bags.RackKg, 1e-9, "2 and 6 kg, and the bag's 0.9")
}
