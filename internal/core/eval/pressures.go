package eval

import (
	"fmt"
	"math"

	"valiantmule/internal/core/knock"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/unit"
)

// loadedKg is from how much pillion and luggage the placard's loaded figure
// holds [practice].
const loadedKg = 30.0

// pressures is the card: what each wheel asks for on each surface, in this
// loadout.
func (r *run) pressures() []knock.Pressure {
	mix := r.plan.Brief.Mix()
	surfaces := terrain.Surfaces()
	card := make([]knock.Pressure, len(surfaces))
	for i, s := range surfaces {
		own := r.loadout.Pressure(s.ID)
		card[i] = knock.Pressure{
			Surface: s, Share: s.Share(mix),
			Front: r.pressure(plan.FrontTyre, s, own.Front, nil),
			Rear:  r.pressure(plan.RearTyre, s, own.Rear, nil),
		}
	}
	return card
}

// pressure is one wheel's on a surface. Floors that rest on something missing
// are NaN.
func (r *run) pressure(slot plan.Slot, s terrain.Surface, own unit.Pressure, working *sheet.Sheet) knock.PressureEnd {
	nan := math.NaN()
	e := knock.PressureEnd{Placard: r.placard(slot), Load: nan, Pinch: nan, Bead: nan, Maker: nan, Advice: nan, Own: own.In("kPa"), Carries: nan}
	t := r.built.Tyre(slot)
	if t == nil {
		return e
	}
	axle, tube, lock := r.facts.AxleKg.Front, plan.FrontTube, plan.FrontLock
	if slot == plan.RearTyre {
		axle, tube, lock = r.facts.AxleKg.Rear, plan.RearTube, plan.RearLock
	}
	filling := tyre.Filling("")
	if f := r.built.Filling(tube); f != nil {
		filling = f.Kind
	}
	if filling == tyre.Foam {
		return e // foam has no pressure
	}
	e.Maker = t.MinPressure.In("kPa")
	rated, known := tyre.MaxLoadKg(t.Size.LoadIndex)
	if known {
		e.Load = tyre.LoadFloorKPa(t.RatedAt.In("kPa"), axle, rated)
	}
	hit := tyre.HitFactor(s.Puncture())
	e.Pinch = t.Shape().PinchFloorKPa(axle, hit, tyre.Rock, filling)
	e.Bead = r.bead(slot, lock, filling)
	e.Advice = advice(s, e)
	if known {
		e.Carries = tyre.CarriesKg(t.RatedAt.In("kPa"), e.Taken(), rated)
	}
	if working != nil {
		r.explainPressure(working, s, t, e, axle, rated, hit, filling)
	}
	return e
}

// placard is what the bike's own placard says as it is loaded, NaN when nobody
// has entered it.
func (r *run) placard(slot plan.Slot) float64 {
	b := r.built.Bike
	alone, loaded := b.FrontPressure, b.FrontPressureLoaded
	if slot == plan.RearTyre {
		alone, loaded = b.RearPressure, b.RearPressureLoaded
	}
	if r.facts.CarriedKg >= loadedKg && loaded.Known() {
		return loaded.In("kPa")
	}
	return alone.In("kPa")
}

// bead is the pressure that holds the tyre on its rim; with a rim lock it needs
// none.
func (r *run) bead(slot, lock plan.Slot, filling tyre.Filling) float64 {
	switch {
	case filling.HoldsAir() && r.built.Part(lock) != nil:
		return 0
	case filling.HoldsAir():
		return tyre.SoftKPa
	case r.built.WheelBuild(slot).Tubeless() || filling == tyre.RimTape:
		return tyre.SoftTubelessKPa
	}
	return math.NaN()
}

// advice is the highest of the floors, in steps of 5 kPa; on the road it is the
// placard. A stone's floor alone does not ask for more than the placard: there
// it is a matter of speed.
func advice(s terrain.Surface, e knock.PressureEnd) float64 {
	if s.ID == "road" {
		return max(e.Placard, known(e.Load), known(e.Maker))
	}
	floor := max(e.Load, known(e.Bead), known(e.Maker))
	if pinch := known(e.Pinch); pinch > floor {
		floor = pinch
		if e.Placard < pinch {
			floor = max(e.Placard, e.Load, known(e.Maker))
		}
	}
	return 5 * math.Ceil(floor/5-1e-9)
}

// known is a floor, or none where it is not known.
func known(kPa float64) float64 {
	if math.IsNaN(kPa) {
		return 0
	}
	return kPa
}

// PressureWorking is how one wheel's pressure on a surface comes about.
func PressureWorking(p *plan.Plan, loadout string, slot plan.Slot, surface string) (knock.PressureEnd, *sheet.Sheet, error) {
	l, err := p.Loadout(loadout)
	if err != nil {
		return knock.PressureEnd{}, nil, err
	}
	s, ok := terrain.SurfaceOf(surface)
	if !ok || p.Bike == nil || (slot != plan.FrontTyre && slot != plan.RearTyre) {
		return knock.PressureEnd{}, nil, fmt.Errorf("no pressure of %q on %q", slot, surface)
	}
	r := newRun(p, sharedOf(p), nil, l, "", nil)
	r.report()
	working := &sheet.Sheet{}
	own := l.Pressure(surface)
	text := own.Front
	if slot == plan.RearTyre {
		text = own.Rear
	}
	return r.pressure(slot, s, text, working), working, nil
}

var (
	beadFormula = sheet.Formula{Text: "0 with a rim lock, 120 kPa with a tube and none, 130 kPa tubeless", Origin: sheet.Practice}
	roadFormula = sheet.Formula{Text: "the placard for the load, never below what the tyre needs to carry it", Origin: sheet.Maker}
	cardFormula = sheet.Formula{Text: "the highest of load, rim and maker, and of the stone up to the placard; in steps of 5 kPa", Origin: sheet.Practice}
)

func (r *run) explainPressure(w *sheet.Sheet, s terrain.Surface, t *plan.Tyre, e knock.PressureEnd, axle, rated, hit float64, filling tyre.Filling) {
	on := computed("axle, worse of full and empty tank", axle, "kg")
	w.Step(tyre.LoadFloorFormula, computed("to carry the axle", e.Load, "kPa"), on,
		sheet.Value{Name: fmt.Sprintf("rated load, index %d", t.Size.LoadIndex), Number: rated, Unit: "kg", Origin: sheet.Published, Note: tyre.RatingSource},
		sheet.Value{Name: "p_ref, on the sidewall", Number: t.RatedAt.In("kPa"), Unit: "kPa", Origin: sheet.Maker})
	shape := t.Shape()
	w.Step(tyre.PinchFormula, computed("to keep a stone off the rim", e.Pinch, "kPa"), on,
		computed("D", shape.DiameterMM, "mm"), computed("w", shape.WidthMM, "mm"), computed("room to the rim", shape.RoomMM(), "mm"),
		sheet.Value{Name: "r of the stone", Number: tyre.Rock, Unit: "mm", Origin: sheet.Memory},
		sheet.Value{Name: "hit, times the standing load", Number: hit, Origin: sheet.Memory, Note: s.Name},
		sheet.Value{Name: "share of the filling", Number: tyre.PinchShare(filling), Origin: sheet.Practice})
	w.Step(beadFormula, computed("to stay on the rim", e.Bead, "kPa"))
	if s.ID == "road" {
		w.Step(roadFormula, computed("pressure", e.Advice, "kPa"), sheet.Value{Name: "placard", Number: e.Placard, Unit: "kPa", Origin: sheet.Maker}, computed("to carry the axle", e.Load, "kPa"))
	} else {
		w.Step(cardFormula, computed("pressure", e.Advice, "kPa"), sheet.Value{Name: "maker's least", Number: e.Maker, Unit: "kPa", Origin: sheet.Maker},
			sheet.Value{Name: "placard", Number: e.Placard, Unit: "kPa", Origin: sheet.Maker})
	}
	w.Note("Cold pressures. The carcass carries a share that is left out here, more in a stiff tyre. Back up before tarmac; never below a maker's minimum.")
}
