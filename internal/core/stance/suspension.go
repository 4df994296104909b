package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Spring is a coil, or the two of a fork together: so many N/mm, and from so much of
// compression on a second rate where it has a knee. Without one SecondNmm is 0 or NaN.
type Spring struct{ Nmm, SecondNmm, KneeMM float64 }

func (s Spring) kinked() bool { return s.SecondNmm > 0 && s.KneeMM >= 0 }

// ForceN is the force of the spring pressed together by so much, mm.
func (s Spring) ForceN(compressedMM float64) float64 {
	if s.kinked() && compressedMM > s.KneeMM {
		return s.Nmm*s.KneeMM + s.SecondNmm*(compressedMM-s.KneeMM)
	}
	return s.Nmm * compressedMM
}

// CompressedMM is how far a force presses the spring together: [Spring.ForceN] solved.
func (s Spring) CompressedMM(forceN float64) float64 {
	if knee := s.Nmm * s.KneeMM; s.kinked() && forceN > knee {
		return s.KneeMM + (forceN-knee)/s.SecondNmm
	}
	return forceN / s.Nmm
}

// Times is the spring with its rates scaled and its knee where it was.
func (s Spring) Times(factor float64) Spring {
	s.Nmm *= factor
	s.SecondNmm *= factor
	return s
}

// AtmosphereKPa is the standard atmosphere [pub: ISO 2533].
const AtmosphereKPa = 101.325

// Air is what both legs of a fork hold above their oil. An unknown bore is no air that
// counts.
type Air struct {
	BoreMM float64 // of the tube that the air stands in
	GapMM  float64 // from the oil up to the cap, fork pressed together, no springs in it
	KPa    float64 // over the atmosphere, wheel hanging; 0 without valves
}

func (a Air) counts() bool { return a.BoreMM > 0 }

// Exponents n of p·Vⁿ = const, the two ends between which a fork's air lies: taken slowly
// it keeps its temperature, in a blow it keeps its heat [pub: ideal gas; 1.4 is dry air's].
const (
	Slow  = 1.0
	Quick = 1.4
)

// AirFormula is the formula of [Air.ForceN].
var AirFormula = sheet.Formula{
	Text:   "F = 2·A·(p₀ × ((gap + T) / (gap + T − s))ⁿ − p_atm), p₀ absolute, A = π·d²/4",
	Origin: sheet.Published, Source: "polytropic change of an ideal gas; n = 1 for sag, which is taken slowly",
}

// ForceN is the force of both legs with so much of the travel used, mm. The pressure holds
// from the first millimetre on, as preload does; a small gap firms the end. Where nobody
// knows the gap the pressure is taken to stay.
func (a Air) ForceN(travelMM, usedMM, n float64) float64 {
	if !a.counts() {
		return 0
	}
	squeezed := 1.0
	if a.GapMM > 0 {
		squeezed = (a.GapMM + travelMM) / (a.GapMM + travelMM - usedMM)
		if n != Slow {
			squeezed = math.Pow(squeezed, n)
		}
	}
	return a.areaMM2() * perKPa * ((AtmosphereKPa+a.kPa())*squeezed - AtmosphereKPa)
}

// areaMM2 is that of both legs.
func (a Air) areaMM2() float64 { return math.Pi / 2 * a.BoreMM * a.BoreMM }

const perKPa = 1e-3 // N/mm² in a kPa

func (a Air) kPa() float64 {
	if math.IsNaN(a.KPa) {
		return 0
	}
	return a.KPa
}

// End is one wheel's suspension as it is set.
type End struct {
	Spring    Spring
	Air       Air
	Ratio     float64 // spring travel over wheel travel; 1 for a fork, along its leg
	PreloadMM float64 // of the spring, wheel hanging
	TravelMM  float64 // of the wheel; along the leg of a fork
	Along     float64 // share of the weight that acts along the travel: cos ε for a fork, 1 behind
}

// ForkSagFormula is the formula of [End.SagMM] for a fork.
var ForkSagFormula = sheet.Formula{Text: "s = W × cos ε / k − p along the leg, held to 0…travel; W = m × g", Origin: sheet.Computed}

// ForceN is what the end bears along its travel with so much of it used slowly, mm.
func (e *End) ForceN(usedMM float64) float64 { return e.forceN(usedMM, Slow) }

// BumpN is what it bears in a blow at the end of its travel.
func (e *End) BumpN() float64 { return e.forceN(e.TravelMM, Quick) }

func (e *End) forceN(usedMM, n float64) float64 {
	return e.Ratio*e.Spring.ForceN(e.PreloadMM+e.Ratio*usedMM) + e.Air.ForceN(e.TravelMM, usedMM, n)
}

// SagMM is how much of the travel a sprung mass uses, kg: [SagMM] for a spring of one rate
// without air, and the same balance of forces for any other. A mass or a spring that is
// not known gives NaN.
func (e *End) SagMM(massKg float64) float64 {
	force := massKg * unit.StandardGravity * e.Along
	sag := e.balance(e.Spring.Nmm, e.PreloadMM, force)
	if s := e.Spring; s.kinked() && e.PreloadMM+e.Ratio*sag > s.KneeMM {
		sag = e.balance(s.SecondNmm, e.PreloadMM-s.KneeMM+s.Nmm/s.SecondNmm*s.KneeMM, force)
	}
	return min(max(sag, 0), e.TravelMM)
}

// balance is where a spring of one rate, with the air, bears a force. With air it is the
// root of k·(p + H − u) + A·(p₀·H/u − p_atm) = F for u = H − s, H = gap + T.
func (e *End) balance(nmm, preloadMM, forceN float64) float64 {
	bears := e.Air.ForceN(e.TravelMM, 0, Slow)
	if !e.Air.counts() || !(e.Air.GapMM > 0) {
		return ((forceN-bears)/(nmm*e.Ratio) - preloadMM) / e.Ratio
	}
	k, h := nmm*e.Ratio*e.Ratio, e.Air.GapMM+e.TravelMM
	atmosphere := e.Air.areaMM2() * perKPa * AtmosphereKPa
	b := k*(preloadMM/e.Ratio+h) - atmosphere - forceN
	u := (b + math.Sqrt(b*b+4*k*(bears+atmosphere)*h)) / (2 * k)
	return h - u
}

// PreloadFormula is the formula of [End.PreloadFor].
var PreloadFormula = sheet.Formula{Text: "p = W / (k × R) − s × R", Origin: sheet.Computed}

// PreloadFor is the preload with which a sprung mass uses so much of the travel, mm; below
// zero where even a spring without preload is too stiff for that.
func (e *End) PreloadFor(massKg, sagMM float64) float64 {
	force := massKg*unit.StandardGravity*e.Along - e.Air.ForceN(e.TravelMM, sagMM, Slow)
	return e.Spring.CompressedMM(force/e.Ratio) - e.Ratio*sagMM
}

// RateFor is the rate of a spring of one rate that gives a sag at a preload, N/mm.
func (e *End) RateFor(massKg, sagMM, preloadMM float64) float64 {
	force := massKg*unit.StandardGravity*e.Along - e.Air.ForceN(e.TravelMM, sagMM, Slow)
	return force / (e.Ratio * (e.Ratio*sagMM + preloadMM))
}

// With is the end at another preload.
func (e End) With(preloadMM float64) End {
	e.PreloadMM = preloadMM
	return e
}
