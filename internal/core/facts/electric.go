package facts

import (
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
)

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

// Light is how far one sees at night, and how fast that is.
type Light struct {
	MainCd, AuxCd float64
	LitM          float64
	Kmh, WishKmh  float64        // at which stopping meets the beam on the ground that allows least; the brief's
	Ground        terrain.Ground // that one
	Half          bool           // half of the sight is another's there
	TiltDeg       float64        // that the load tips the beam up, against the rider alone
	HeightMM      float64
	DownDeg       float64 // of the dipped beam as loaded
	DippedM       float64
	Unsaid        []string // lamps of which only lumens are known
}

// Worst is the lesser margin of trail and cruise.
func (c *Charging) Worst() Charge {
	if c.Trail.MarginW < c.Cruise.MarginW {
		return c.Trail
	}
	return c.Cruise
}
