package tyres

import (
	"fmt"
	"math"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
	"valiantmule/internal/core/verdict"
)

var tyreLoadFormula = sheet.Formula{
	Text: "tyre load = axle load / rated load × 100", Origin: sheet.Published, Source: tyre.RatingSource,
}

// tyreLoad is the worse of both tyres, over full and empty tank.
func tyreLoad(r *study.Run) {
	c := r.Figure(figure.TyreLoad)
	c.On(figure.FrontLoad, "")
	c.On(figure.RearLoad, "")
	r.TyreLoad.Front, r.TyreLoad.Rear = share(c, &study.FrontWheel), share(c, &study.RearWheel)
	worse, on, half := r.TyreLoad.Front, r.Axles.Kg.Front, r.Axles.HalfKg.Front
	if r.TyreLoad.Rear > worse {
		worse, on, half = r.TyreLoad.Rear, r.Axles.Kg.Rear, r.Axles.HalfKg.Rear
	}
	c.Is(100 * max(r.TyreLoad.Front, r.TyreLoad.Rear))
	c.Spread(100 * worse * half / on)
	if c.Sheet != nil {
		c.Sheet.Note("Rated load holds at the pressure on the sidewall or the bike's placard; a softer tyre carries less.")
	}
	c.AtMost(sheet.Value{Name: "rated load", Number: 100, Unit: "%", Origin: sheet.Published, Note: tyre.RatingSource}, 0.9, verdict.Stop)
	c.Settle(func() []study.Lack { return study.ToWeigh(&r.Masses) })
}

// share of its rated load that a wheel's tyre carries.
func share(c study.Calc, w *study.Wheel) float64 {
	axleKg := w.Of(c.Run.Axles.Kg)
	t := c.Run.Built.Tyre(w.Tyre)
	if t == nil {
		c.Lacks(w.Name + " tyre (Tyres)")
		return math.NaN()
	}
	rated, ok := tyre.MaxLoadKg(t.Size.LoadIndex)
	if !ok {
		c.Lacks("load index of the " + w.Name + " tyre")
		return math.NaN()
	}
	if c.Sheet != nil {
		c.Sheet.Step(tyreLoadFormula, study.Computed(w.Name+" tyre", 100*axleKg/rated, "%"),
			study.Computed(w.Name+" axle, worse of full and empty tank", axleKg, "kg"),
			sheet.Value{Name: fmt.Sprintf("rated load, index %d", t.Size.LoadIndex), Number: rated, Unit: "kg", Origin: sheet.Published, Note: tyre.RatingSource})
	}
	return axleKg / rated
}
