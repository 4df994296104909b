package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Quantity names what a measured sag may correct.
type Quantity string

// What it may correct, in the order in which ties are broken.
const (
	Preload Quantity = "preload"
	Ratio   Quantity = "ratio"
	Rate    Quantity = "spring"
)

// Known says where the numbers of an end come from.
type Known struct{ Preload, Ratio, Rate sheet.Origin }

// trust orders origins from the least known on; what is not named counts as the maker's.
func trust(o sheet.Origin) int {
	switch o {
	case sheet.Memory:
		return 0
	case sheet.Demo:
		return 1
	case sheet.Practice:
		return 2
	case sheet.Measured:
		return 4
	}
	return 3
}

// Correction is what a measured sag made of a number.
type Correction struct {
	Of       Quantity // "" where nothing was corrected
	Was, Now float64
}

// Believed ranges of what is corrected: preload mm; ratio; a rate against what it was.
const (
	preloadMost          = 80.0
	ratioLeast, ratioMax = 0.2, 1.3
	rateLeast, rateMost  = 0.6, 1.7
)

// Corrected is the end such that a sprung mass uses as much of its travel as was measured:
// what is known least gives way, as long as what it would have to be is believed. ok is
// false when no number can be blamed: then the measurement is to be looked at.
func (e End) Corrected(massKg, sagMM float64, by Known) (corrected End, c Correction, ok bool) {
	order := []Quantity{Preload, Ratio, Rate}
	if e.Along < 1 { // a fork has no lever
		order = []Quantity{Preload, Rate}
	}
	trusted := map[Quantity]int{Preload: trust(by.Preload), Ratio: trust(by.Ratio), Rate: trust(by.Rate)}
	for len(order) > 0 {
		least := 0
		for i, q := range order {
			if trusted[q] < trusted[order[least]] {
				least = i
			}
		}
		if corrected, c, ok = e.giving(order[least], massKg, sagMM); ok {
			return corrected, c, true
		}
		order = append(order[:least:least], order[least+1:]...)
	}
	return e, Correction{}, false
}

// giving solves for one of the numbers.
func (e End) giving(q Quantity, massKg, sagMM float64) (corrected End, c Correction, ok bool) {
	force := massKg * unit.StandardGravity * e.Along
	switch q {
	case Preload:
		c = Correction{q, e.PreloadMM, e.PreloadFor(massKg, sagMM)}
		e.PreloadMM = c.Now
		ok = c.Now >= 0 && c.Now <= preloadMost
	case Ratio:
		c = Correction{Of: q, Was: e.Ratio}
		c.Now = solve(ratioLeast, ratioMax, func(r float64) float64 {
			tried := e
			tried.Ratio = r
			return tried.ForceN(sagMM) - force
		})
		e.Ratio = c.Now
		ok = c.Now > ratioLeast+1e-6 && c.Now < ratioMax-1e-6
	case Rate:
		without := e.Air.ForceN(e.TravelMM, sagMM, Slow)
		factor := (force - without) / (e.ForceN(sagMM) - without)
		c = Correction{q, e.Spring.Nmm, e.Spring.Nmm * factor}
		e.Spring = e.Spring.Times(factor)
		ok = factor >= rateLeast && factor <= rateMost
	}
	return e, c, ok && !math.IsNaN(c.Now) && !math.IsNaN(massKg)
}

// solve finds where a rising function passes 0; the nearer end where it does not.
func solve(low, high float64, rising func(float64) float64) float64 {
	const halvings = 40
	for range halvings {
		if mid := (low + high) / 2; rising(mid) < 0 {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}
