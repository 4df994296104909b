package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
)

// apart is how far two loads are apart, as a share of the greater, for the sags under them
// to tell how soft a spring is.
const apart = 0.1

var tapeFormula = sheet.Formula{Text: "s = s₁ + (W − W₁) × (s₁ − s₀) / (W₁ − W₀), two sags by tape under two loads", Origin: sheet.Measured}

// tape is the line through two sags under two loads, for an end of which nobody knows the
// spring: both measured, or the measured one and the usual free sag of a bike by itself.
// freeKg is what stands on the springs then.
func (s *suspension) tape(r *study.Run, m facts.Measured, freeKg, travelMM float64) facts.Tape {
	t := facts.Tape{Kg: m.Kg, MM: m.MM, PerKg: math.NaN(), OtherKg: math.NaN(), OtherMM: math.NaN(), TravelMM: travelMM}
	other := func(kg, mm, half float64) bool {
		if !(math.Abs(kg-m.Kg) >= apart*math.Max(kg, m.Kg)) || math.IsNaN(mm) {
			return false
		}
		slope := (m.MM - mm) / (m.Kg - kg)
		if !(slope > 0) {
			return false
		}
		t.OtherKg, t.OtherMM, t.PerKg, t.HalfPerKg, t.Usual = kg, mm, slope, half/math.Abs(m.Kg-kg), half > 0
		return true
	}
	for i := len(r.Sat) - 1; i >= 0; i-- {
		end := r.Sat[i].Sag().Of(s.rear)
		if other(end.Sprung.In("kg"), end.RiderMM(), 0) || other(end.FreeSprung.In("kg"), end.FreeMM(), 0) {
			return t
		}
	}
	band := stance.FreeBand(s.rear)
	other(freeKg, band.Middle()*travelMM, (band.High-band.Low)/2*travelMM)
	return t
}

// showTape writes how a sag comes about by tape.
func (s *suspension) showTape(c study.Calc, name string, sprungKg, sagMM float64) {
	t := &c.Run.Springs.Of(s.rear).Tape
	led := sheet.Value{Name: "measured sag s₁", Number: t.MM, Unit: "mm", Origin: sheet.Measured}
	if math.IsNaN(t.PerKg) {
		c.Sheet.Step(measureFormula, study.Computed(name, sagMM, "mm"), led, study.Computed("under", t.Kg, "kg"))
		return
	}
	other := sheet.Value{Name: "s₀", Number: t.OtherMM, Unit: "mm", Origin: sheet.Measured}
	if t.Usual {
		other.Origin, other.Note = sheet.Practice, "the usual free sag of a bike by itself"
	}
	c.Sheet.Step(tapeFormula, study.Computed(name, sagMM, "mm"), study.Computed("sprung W", sprungKg, "kg"), led, study.Computed("under W₁", t.Kg, "kg"), other, study.Computed("under W₀", t.OtherKg, "kg"))
}
