package tyres

import (
	"fmt"
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/tyre"
)

// PressureNeeds are the groups that a pressure rests on.
const PressureNeeds = facts.Bike | facts.AxlesGroup | facts.MassesGroup

// pressures is the card: what each wheel asks for on each surface, in this
// loadout.
func pressures(r *study.Run) {
	mix := r.Plan.Brief.Mix()
	surfaces := terrain.Surfaces()
	r.Pressures = make(facts.Card, len(surfaces))
	for i, s := range surfaces {
		r.Pressures[i] = facts.Pressure{
			Surface: s, Share: s.Share(mix),
			Front: Pressure(r.All, &study.FrontWheel, s, nil),
			Rear:  Pressure(r.All, &study.RearWheel, s, nil),
		}
	}
}

// Pressure is one wheel's on a surface, with its working where somebody looks.
// Floors that rest on something missing are NaN. It reads [PressureNeeds].
func Pressure(f *facts.All, w *study.Wheel, s terrain.Surface, working *sheet.Sheet) facts.PressureEnd {
	nan := math.NaN()
	e := facts.PressureEnd{Placard: placard(f, w), Load: nan, Slow: nan, Pinch: nan, Bead: nan, Maker: nan, Advice: nan, Own: own(f, w, s), Carries: nan}
	t := f.Built.Tyre(w.Tyre)
	if t == nil {
		return e
	}
	filling := tyre.Filling("")
	if f := f.Built.Filling(w.Tube); f != nil {
		filling = f.Kind
	}
	if filling == tyre.Foam {
		return e // foam has no pressure
	}
	axle := w.Of(f.Axles.Kg)
	e.Maker = t.MinPressure.In("kPa")
	rated, known := tyre.MaxLoadKg(t.Size.LoadIndex)
	if known {
		e.Load = tyre.LoadFloorKPa(t.RatedAt.In("kPa"), axle, rated)
		e.Slow = e.Load
		if s.FastestKmh() < tyre.SlowKmh {
			e.Slow *= tyre.SlowShare
		}
	}
	hit := tyre.HitFactor(s.Puncture())
	e.Pinch = t.Shape().PinchFloorKPa(axle, hit, tyre.Rock, filling)
	e.Bead = bead(f, w, filling)
	e.Advice = advice(s, e)
	if known {
		e.Carries = tyre.CarriesKg(t.RatedAt.In("kPa"), e.Taken(), rated)
	}
	if working != nil {
		explainPressure(working, s, t, e, axle, rated, hit, filling)
	}
	return e
}

// own is the rider's choice.
func own(f *facts.All, w *study.Wheel, s terrain.Surface) float64 {
	p := f.Loadout.Pressure(s.ID)
	return w.Of(facts.Ends{Front: p.Front.In("kPa"), Rear: p.Rear.In("kPa")})
}

// placard is what the bike's own placard says as it is loaded, NaN when nobody
// has entered it.
func placard(f *facts.All, w *study.Wheel) float64 {
	b := f.Built.Bike
	alone, loaded := b.FrontPressure, b.FrontPressureLoaded
	if w.Tyre == parts.RearTyre {
		alone, loaded = b.RearPressure, b.RearPressureLoaded
	}
	if f.Masses.CarriedKg >= facts.WithLoadKg && loaded.Known() {
		return loaded.In("kPa")
	}
	return alone.In("kPa")
}

// bead is the pressure that holds the tyre on its rim; with a rim lock it needs
// none.
func bead(f *facts.All, w *study.Wheel, filling tyre.Filling) float64 {
	switch {
	case filling.HoldsAir() && f.Built.Part(w.Lock) != nil:
		return 0
	case filling.HoldsAir():
		return tyre.SoftKPa
	case f.Built.WheelBuild(w.Tyre).Tubeless() || filling == tyre.RimTape:
		return tyre.SoftTubelessKPa
	}
	return math.NaN()
}

// advice is the highest of the floors, up to the next step of 5 kPa; on the road it is
// the placard. A stone's floor alone does not ask for more than the placard: there
// it is a matter of speed. Load counts in full where it is slow too, so that who keeps to
// the card may also ride faster than that.
func advice(s terrain.Surface, e facts.PressureEnd) float64 {
	var floor float64
	if s.ID == "road" {
		floor = max(e.Placard, known(e.Load), known(e.Maker))
	} else {
		floor = max(e.Load, known(e.Bead), known(e.Maker))
		stone := known(e.Pinch)
		if e.Placard < stone {
			stone = e.Placard
		}
		floor = max(floor, stone)
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

var (
	beadFormula = sheet.Formula{Text: "0 with a rim lock, 120 kPa with a tube and none, 130 kPa tubeless", Origin: sheet.Practice}
	roadFormula = sheet.Formula{Text: "the placard for the load, never below what the tyre needs to carry it", Origin: sheet.Maker}
	cardFormula = sheet.Formula{Text: "the highest of load, rim and maker, and of the stone up to the placard; in steps of 5 kPa", Origin: sheet.Practice}
)

func explainPressure(w *sheet.Sheet, s terrain.Surface, t *parts.Tyre, e facts.PressureEnd, axle, rated, hit float64, filling tyre.Filling) {
	on := study.Computed("axle, worse of full and empty tank", axle, "kg")
	w.Step(tyre.LoadFloorFormula, study.Computed("to carry the axle", e.Load, "kPa"), on,
		sheet.Value{Name: fmt.Sprintf("rated load, index %d", t.Size.LoadIndex), Number: rated, Unit: "kg", Origin: sheet.Published, Note: tyre.RatingSource},
		sheet.Value{Name: "p_ref, on the sidewall", Number: t.RatedAt.In("kPa"), Unit: "kPa", Origin: sheet.Maker})
	if e.Slow < e.Load {
		w.Step(tyre.SlowLoadFormula, study.Computed("no lower for the axle where it is slow", e.Slow, "kPa"), study.Computed("p, to carry the axle", e.Load, "kPa"))
	}
	shape := t.Shape()
	w.Step(tyre.PinchFormula, study.Computed("to keep a stone off the rim", e.Pinch, "kPa"), on,
		study.Computed("D", shape.DiameterMM, "mm"), study.Computed("w", shape.WidthMM, "mm"), study.Computed("room to the rim", shape.RoomMM(), "mm"),
		sheet.Value{Name: "r of the stone", Number: tyre.Rock, Unit: "mm", Origin: sheet.Memory},
		sheet.Value{Name: "hit, times the standing load", Number: hit, Origin: sheet.Memory, Note: s.Name},
		sheet.Value{Name: "share of the filling", Number: tyre.PinchShare(filling), Origin: sheet.Practice})
	w.Step(beadFormula, study.Computed("to stay on the rim", e.Bead, "kPa"))
	if s.ID == "road" {
		w.Step(roadFormula, study.Computed("pressure", e.Advice, "kPa"), sheet.Value{Name: "placard", Number: e.Placard, Unit: "kPa", Origin: sheet.Maker}, study.Computed("to carry the axle", e.Load, "kPa"))
	} else {
		w.Step(cardFormula, study.Computed("pressure", e.Advice, "kPa"), sheet.Value{Name: "maker's least", Number: e.Maker, Unit: "kPa", Origin: sheet.Maker},
			sheet.Value{Name: "placard", Number: e.Placard, Unit: "kPa", Origin: sheet.Maker})
	}
	w.Note("Cold pressures. A stiff carcass carries more than the average one reckoned with here, a worn one less. Back up before tarmac; never below a maker's minimum.")
}
