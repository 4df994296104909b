package facts

import (
	"math"

	"valiantmule/internal/core/terrain"
)

// Card is what is known of the pressures, surface by surface.
type Card []Pressure

// Pressure is what is known of the pressures for a surface.
type Pressure struct {
	Surface     terrain.Surface
	Share       float64 // of the trip
	Front, Rear PressureEnd
}

// PressureEnd is one wheel's, kPa, cold. What is NaN is not known, 0 is no floor.
type PressureEnd struct {
	Placard float64 // for the load that is on
	Load    float64 // below it the tyre does not carry its axle at any speed that it is rated for
	Slow    float64 // the same at the speed of the surface: lower where it is slow
	Pinch   float64 // below it a stone reaches the rim
	Bead    float64 // below it the tyre moves on its rim
	Maker   float64 // the maker's least
	Advice  float64 // what follows from them
	Own     float64 // the rider's choice
	Carries float64 // at the pressure taken, kg
}

// Under reports whether a pressure is under a floor by more than a gauge shows: half a
// psi. What is not known is under nothing, and nothing is under what is not known.
func Under(kPa, floor float64) bool { return kPa < floor-3.4 }

// Taken is the rider's choice, or else the advice.
func (e PressureEnd) Taken() float64 {
	if math.IsNaN(e.Own) {
		return e.Advice
	}
	return e.Own
}

// WithLoadKg is from how much pillion and luggage a bike counts as loaded: the
// placard's loaded figure holds, and a stone hits harder [practice].
const WithLoadKg = 30.0
