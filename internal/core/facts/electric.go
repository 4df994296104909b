package facts

import "valiantmule/internal/core/plan"

// Charging is what the alternator gives against what is drawn.
type Charging struct {
	RatedW, RatedRPM, IdleRPM, OwnW float64
	Idle, Trail, Cruise             Charge
	Draws                           Draws
	DrawnW                          float64 // by all accessories together, on average
	ParkedMA, ParkedDays            float64
	BatteryAh                       float64
}

// Charge is the margin at one engine speed.
type Charge struct{ RPM, SupplyW, MarginW float64 }

// Draws are the accessories in the order of their slots.
type Draws []Draw

// Draw is one of them.
type Draw struct {
	Slot     plan.Slot
	Part     *plan.Part
	Feed     plan.Feed
	Use      plan.Use
	FullW    float64 // with it on
	Used     float64 // share of the time, by duty, weather and night
	MeanW    float64
	ParkedMA float64
}

// Worst is the lesser margin of trail and cruise.
func (c *Charging) Worst() Charge {
	if c.Trail.MarginW < c.Cruise.MarginW {
		return c.Trail
	}
	return c.Cruise
}
