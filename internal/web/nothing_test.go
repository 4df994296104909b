//go:build !markup

package web_test

import (
	"encoding/json"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/web/webtest"
)

// sheet fills a form in at once and leaves its last field.
func sheet(w *webtest.Window, values map[string]string) {
	w.T.Helper()
	told, err := json.Marshal(values)
	require.NoError(w.T, err)
	w.Eval(`(() => {
		const form = document.querySelector('form.stage-form');
		for (const [name, value] of Object.entries(` + string(told) + `)) {
			const field = form.elements[name];
			if (!field) throw new Error('no field ' + name);
			if (field.type === 'checkbox') field.checked = true; else field.value = value;
			if (field.value !== value && field.type !== 'checkbox') throw new Error(name + ' does not take ' + value);
		}
		return true;
	})()`)
}

// TestNothingFromTheShelf plans to the end with what no shelf has: a bike from a blank
// sheet, its own tyres on 16-inch rims with a rear one in front, things that are home-made,
// scrounged, used and lent, in US units and dollars. No page is blind to any of it.
func TestNothingFromTheShelf(t *testing.T) {
	s := webtest.New(t)
	w := s.Window(t)
	w.Do(chromedp.EmulateViewport(1280, 800))
	w.Open("/register")
	w.Fill("#f-name", "Wren")
	w.Fill("#f-password", "a long enough one")
	w.Follow("#register")
	w.Open("/account")
	w.Follow(`button[name="preset"][value="US"]`)
	w.Open("/garage")
	w.Fill("#f-name", "Washboard and pines")
	w.Fill("#f-currency", "USD")
	w.Follow("#new-plan")
	path := w.Text(`location.pathname.replace('/brief', '')`)

	sheet(w, map[string]string{
		"distance": "1,800", "cruise": "60", "walking_pace": "6", "rider": "210", "budget": "1,250", "gap": "120 miles", "day": "5", "inseam": "33", "sole": "1.2 in",
		"altitude": "9,500 ft", "start": "3/14/2027", "share.paved": "60", "share.smooth-gravel": "30", "share.rough-gravel": "10",
	})
	w.Follow("#save")
	w.Open(path + "/bike?bike=own-bike")
	w.Follow("[data-fit]")
	w.Open(path + "/sheet")
	sheet(w, map[string]string{
		"name": "Barn find 400", "year": "1994", "kerb_mass": "390", "kerb_fuel": "90", "kerb_front": "186", "centre_height": "21", "permitted_mass": "790", "front_axle_limit": "330",
		"rear_axle_limit": "530", "wheelbase": "57", "seat_height": "31", "seat_width": "10", "clearance": "7", "displacement": "398", "power": "30", "power_rpm": "7,500", "torque": "25",
		"torque_rpm": "6,000", "clean_rpm": "2,000", "comfort_rpm": "6,500", "max_rpm": "9,500", "top_speed": "92", "tank": "3.6 gal", "unusable": "0.2", "economy": "52", "primary": "2.8",
		"gearbox": "2.6 1.75 1.35 1.1 0.92", "centre": "22.5", "front_rim_diameter": "16", "rear_rim_diameter": "16", "front_rim_width": "2.5", "rear_rim_width": "3", "drag_area": "0.6",
		"bar_height": "42", "bar_diameter": "22.2 mm", "cable_slack": "1", "front_travel": "7", "rear_travel": "7", "peg_height": "12.5", "chain": "520", "final": "chain", "std.front-tyre": "110/90-16 59S", "std.rear-tyre": "130/90-16 67S",
		"std.front-tyre.mass": "9", "std.rear-tyre.mass": "11.5", "std.front-sprocket": "15", "std.rear-sprocket": "45", "std.chain": "104", "fuelling": "carburettor", "cooling": "air",
		"rake": "28", "offset": "1.5", "front_spring": "58", "front_preload": "0.7", "rear_spring": "310", "rear_preload": "0.5", "link_ratio": "0.5",
		"alternator": "200", "own_draw": "90", "headlamp": "9000",
	})
	w.Follow("#save")
	assert.Equal(t, "7500 rpm", w.Text(`document.querySelector("#f-power_rpm").value`), "kept with a point and without marks")

	keep := func(slot string, values map[string]string) {
		t.Helper()
		w.Open(path + "/part?loadout=travel&slot=" + slot)
		sheet(w, values)
		w.Follow("#save")
		w.Until(`location.pathname.endsWith('/drawer')`)
	}
	stranded := func() string {
		w.Open(path + "/armour?loadout=travel")
		return w.GaugeIn("#armour", "armour-stranded")
	}
	bare, reach := stranded(), w.Gauge("seat-reach")
	tyre := map[string]string{"code": "130/90-16 M/C 67H R", "tyre_kind": "dirt-biased", "mass": "12", "rated_at": "36 psi", "min_pressure": "15 psi", "source": "used", "price": "55"}
	for slot, name := range map[string]string{"front-tyre": "Rear knobbly, in front", "rear-tyre": "Rear knobbly"} {
		tyre["name"] = name
		keep(slot, tyre)
	}
	keep("risers", map[string]string{"name": "Bar mount, turned at work", "source": "home-made", "price": "15", "mass": "0.9", "bar_rise": "0.9", "fit": "fits", "needs.bar-22": "on"})
	keep("skid-plate", map[string]string{
		"name": "Plate off a skip", "source": "home-made", "price": "$9.50", "mass": "5", "cover.0": "sump", "stops.0": "50 %", "against.strike.0": "on", "cover.1": "cases", "stops.1": "25 %",
		"against.strike.1": "on", "mount": "frame", "fit": "work", "fit_work": "two tabs welded", "fit_hours": "3",
	})
	keep("seat", map[string]string{"name": "Seat from a breaker", "source": "given", "mass": "8", "replaces": "9.5", "seat_rise": "-1", "comfort": "5", "price": "0"})
	keep("side-rack", map[string]string{"name": "Side rack of bed frame", "source": "home-made", "price": "20", "mass": "7", "carries": "45", "provides.side-rack": "yes", "fit": "fits"})
	keep("side-bags", map[string]string{"name": "Hard cases, ammunition", "source": "used", "price": "60", "mass": "18", "bag_kind": "hard", "litres": "12 gal", "carries": "40", "pair": "yes", "needs.side-rack": "on", "max_speed": "75"})
	keep("rear-rack", map[string]string{"name": "Rear rack of bed frame", "source": "home-made", "price": "12", "mass": "4", "carries": "22", "provides.rear-rack": "yes", "fit": "fits"})
	keep("top-box", map[string]string{"name": "Top box", "source": "lent", "price": "0", "mass": "7.7 kg", "litres": "9.5 gal", "carries": "11", "needs.rear-rack": "on", "bag_kind": "hard"})
	keep("shock", map[string]string{"name": "Shock of a younger one", "source": "used", "price": "80", "mass": "8", "replaces": "9", "made_from": "1996", "made_to": "1999", "rate": "380"})
	keep("fuel-cans", map[string]string{"name": "Two cans in the cases", "source": "used", "price": "18", "mass": "2", "holds": "1 gal", "approved": "yes"})
	keep("grips", map[string]string{"name": "Warm grips of a scooter", "source": "used", "price": "25", "mass": "0.8", "draw": "36", "duty": "60", "use": "cold", "provides.warm-hands": "yes"})
	keep("aux-lamps", map[string]string{"name": "Tractor lamps", "source": "used", "price": "20", "mass": "4", "candela": "18,000", "beam": "20", "lamp_mount": "bars", "draw": "55", "use": "night", "lasts": "3"})
	keep("power-box", map[string]string{"name": "Fuse block of a boat", "source": "used", "price": "12", "mass": "0.6", "channels": "4", "limit": "10", "total": "30"})
	keep("flasher", map[string]string{"name": "Flasher of a car", "source": "used", "price": "3", "mass": "0.1", "relay": "load", "made_for": "42"})

	p := s.Newest(t, "Wren")
	assert.Len(t, p.Owned(), 15)
	assert.Equal(t, "2027-03-14", p.Brief.Start)
	assert.Equal(t, "1250.00 USD", p.Brief.Budget.String())
	report, err := eval.EvaluateLoadout(p, p.WithOwn(nil), "travel", "2026-11-26")
	require.NoError(t, err)
	for _, g := range report.Gauges {
		assert.True(t, g.Known, "%s lacks %v", g.ID, g.Missing)
	}
	assert.NotEqual(t, bare, stranded(), "the plate guards")
	assert.NotEqual(t, reach, w.Gauge("seat-reach"), "the seat lowers")
	cost, _ := report.Figure(figure.Cost)
	assert.InDelta(t, 55+55+15+9.5+20+60+12+80+18+25+20+12+3, cost.Value/100, 1e-9, "what was lent and given costs nothing")
	fuel, _ := report.Figure(figure.UsableFuel)
	assert.InDelta(t, (3.6-0.2+1)*3.785411784, fuel.Value, 1e-6)
	rack, _ := report.Figure(figure.RackLoad)
	assert.InDelta(t, 7.7, rack.Value, 1e-6)
	said := map[string]bool{}
	for _, f := range report.Findings {
		said[f.ID] = true
	}
	for _, id := range []string{"another-year", "fits-with-work", "home-made-carrier", "rear-tyre-in-front", "double-pace"} {
		assert.True(t, said[id], id)
	}
	wiring := &report.Facts.Wiring
	require.Len(t, wiring.Circuits, 2)
	assert.Equal(t, []int{1, 2}, []int{wiring.Circuits[0].Channel, wiring.Circuits[1].Channel})
	assert.Greater(t, report.Facts.Light.AuxCd, 17_000.0)
	assert.Equal(t, 33.0, p.Brief.Inseam.In("in"))
	contact, _ := report.Figure(figure.BarShort)
	without, err := eval.EvaluateLoadout(p.With(plan.Choice{Slot: parts.Risers}), nil, "travel", "2026-11-26")
	require.NoError(t, err)
	short, _ := without.Figure(figure.BarShort)
	assert.InDelta(t, 0.9*25.4, short.Value-contact.Value, 1e-6, "the bar mount lifts the bar")

	for _, id := range webtest.PageIDs() {
		w.Open(path + "/" + id + "?loadout=travel")
		w.Until(`!/NaN|Infinity/.test(document.body.textContent)`)
	}
	w.Open(path + "/tyres?loadout=travel&all=1")
	assert.Contains(t, w.Text(`document.querySelector('main').textContent`), "Rear knobbly, in front")
	w.Open(path + "/load?loadout=travel")
	for _, name := range []string{"Hard cases, ammunition", "Rear rack of bed frame", "Top box"} {
		assert.Contains(t, w.Text(`document.querySelector('main').textContent`), name)
	}
}
