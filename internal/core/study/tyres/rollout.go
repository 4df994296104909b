package tyres

import (
	"math"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/tyre"
)

var (
	rollOutFormula = sheet.Formula{Text: "C = one wheel turn along the ground, rider on", Origin: sheet.Measured}
	mixFormula     = sheet.Formula{Text: "mix = ((C_front/C_rear) / (C₀_front/C₀_rear) − 1) × 100", Origin: sheet.Computed}
)

// rollOuts finds how the tyres roll and how tall they are, as built and as they came.
func rollOuts(r *study.Run) {
	w := &r.Wheels
	w.CircumferenceMM.Front, w.DiameterMM.Front = rollOut(r.Figure(figure.FrontCircumference), parts.FrontTyre)
	w.CircumferenceMM.Rear, w.DiameterMM.Rear = rollOut(r.Figure(figure.RearCircumference), parts.RearTyre)
	w.StandardCircumferenceMM.Front, w.StandardDiameterMM.Front = sizes(r.Standard.Tyre(parts.FrontTyre))
	w.StandardCircumferenceMM.Rear, w.StandardDiameterMM.Rear = sizes(r.Standard.Tyre(parts.RearTyre))
	wheelMix(r)
}

// sizes are the circumference and diameter of a tyre, mm; NaN without one.
func sizes(t *parts.Tyre) (circumference, diameter float64) {
	if t == nil {
		return math.NaN(), math.NaN()
	}
	return t.CircumferenceMM(), t.DiameterMM()
}

// rollOut is the rolling circumference of a tyre: measured, or by its code.
func rollOut(c study.Calc, slot parts.Slot) (circumference, diameter float64) {
	defer c.Plain()
	part := c.Run.Built.Part(slot)
	if part == nil || part.Tyre() == nil {
		info, _ := parts.KindOf(slot)
		c.Lacks(info.Name + " (Tyres)")
		return math.NaN(), math.NaN()
	}
	t := part.Tyre()
	c.Is(t.CircumferenceMM())
	if c.Sheet != nil {
		explainRollOut(c, part)
	}
	return sizes(t)
}

func explainRollOut(c study.Calc, part *parts.Part) {
	t := part.Tyre()
	v := sheet.Value{Name: "roll-out", Number: t.CircumferenceMM(), Unit: "mm", Origin: sheet.Computed, Note: t.Size.String()}
	if t.RollOut.Known() {
		v.Origin = part.Origin
		c.Sheet.Step(rollOutFormula, v, v)
		return
	}
	diameter := study.Computed("D", t.Size.OverallDiameterMM(), "mm")
	c.Sheet.Step(tyre.DiameterFormula, diameter,
		sheet.Value{Name: "width", Number: t.Size.SectionMM, Unit: "mm", Origin: sheet.Maker, Note: t.Size.String()},
		sheet.Value{Name: "aspect", Number: t.Size.Aspect, Unit: "%", Origin: sheet.Maker},
		sheet.Value{Name: "rim", Number: t.Size.RimIn, Unit: "in", Origin: sheet.Maker})
	c.Sheet.Step(tyre.RollingFormula, v, sheet.Value{Name: "k", Number: t.Size.RollingFactor(), Origin: sheet.Memory}, diameter)
}

// wheelMix is how the two circumferences stand against one another, and did.
func wheelMix(r *study.Run) {
	c := r.Figure(figure.WheelMix)
	now, was := r.Wheels.CircumferenceMM, r.Wheels.StandardCircumferenceMM
	mix := (now.Front/now.Rear/(was.Front/was.Rear) - 1) * 100
	if math.IsNaN(mix) {
		c.Lacks("both tyres and both standard tyres")
	}
	r.Wheels.MixPercent = mix
	c.Is(mix)
	if c.Sheet != nil {
		c.Sheet.Step(mixFormula, study.Computed("mix", mix, "%"),
			study.Computed("front roll-out", now.Front, "mm"), study.Computed("rear roll-out", now.Rear, "mm"),
			study.Computed("standard front", was.Front, "mm"), study.Computed("standard rear", was.Rear, "mm"))
	}
	c.Plain()
}
