package loading

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/load"
)

// Scaled is what stands on scales of a bike as built.
type Scaled struct {
	Rider  bool
	Loaded bool    // with what is packed, and a passenger
	Tank   float64 // share of the tank that is full
}

// ExpectedWheels are what scales under the wheels should read, kg, and on each side with the
// bike across; before any correction by weighings. They are not known where an axle load is
// not.
func ExpectedWheels(f *facts.All, s Scaled) (w load.Wheels, known bool) {
	if f.Built == nil {
		return w, false
	}
	on := f.Axles.Bare
	switch {
	case s.Rider && s.Loaded:
		on = f.Axles.Full
	case s.Loaded:
		on = f.Axles.Parked
	case s.Rider:
		on = f.Axles.Alone
	}
	base := f.Built.Bike.Wheelbase.In("mm")
	on = load.Add(on, base, []load.Item{{MassKg: -(1 - s.Tank) * f.Masses.Fuel.Full.Number, XMM: load.Tank.XMM(base)}})
	w = load.Wheels{FrontKg: on.FrontKg - f.Weighed.FrontKg, RearKg: on.RearKg - f.Weighed.RearKg}
	half := (w.FrontKg + w.RearKg) / 2
	w.LeftKg, w.RightKg = half, half
	if s.Loaded {
		apart := (f.Bags.Sides.LeftKg - f.Bags.Sides.RightKg) / 2
		w.LeftKg, w.RightKg = half+apart, half-apart
	}
	return w, !math.IsNaN(on.TotalKg())
}
