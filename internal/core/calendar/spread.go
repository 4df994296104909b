package calendar

import "math"

// Spread is how long something takes: at least, likely, at most; in the unit of whoever asks.
type Spread struct{ Low, Likely, High float64 }

// Just is a duration that is known.
func Just(v float64) Spread { return Spread{v, v, v} }

// Certain reports whether it has no width.
func (s Spread) Certain() bool { return s.High <= s.Low }

// Times is the spread so many times as long.
func (s Spread) Times(f float64) Spread { return Spread{s.Low * f, s.Likely * f, s.High * f} }

// Plus is one after the other, both at their best, likely and worst.
func (s Spread) Plus(o Spread) Spread {
	return Spread{s.Low + o.Low, s.Likely + o.Likely, s.High + o.High}
}

// Mean of PERT's three estimates: (low + 4 likely + high) / 6 [pub: Malcolm, Roseboom, Clark,
// Fazar, Operations Research 7 (1959)].
func (s Spread) Mean() float64 { return (s.Low + 4*s.Likely + s.High) / 6 }

// Deviation by the same: (high − low) / 6.
func (s Spread) Deviation() float64 { return (s.High - s.Low) / 6 }

// Quantile of the triangle over the three numbers: what it takes at most in a share u of all
// cases, u in 0…1 [pub: Kotz and van Dorp, Beyond Beta, ch. 1]. It grows with each of them.
func (s Spread) Quantile(u float64) float64 {
	width := s.High - s.Low
	if width <= 0 {
		return s.Likely
	}
	if left := s.Likely - s.Low; u*width < left {
		return s.Low + math.Sqrt(u*width*left)
	}
	return s.High - math.Sqrt((1-u)*width*(s.High-s.Likely))
}
