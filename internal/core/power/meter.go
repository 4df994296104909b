package power

import "math"

// Meter is what volts across the battery mean, engine running.
type Meter string

// What they mean, the worst first.
const (
	Boils       Meter = "boils"        // the regulator does not regulate
	NotCharging Meter = "not-charging" // not even with nothing on
	Drains      Meter = "drains"       // with everything on the battery gives
	JustHolds   Meter = "just-holds"   // with nothing to spare
	DrainsIdle  Meter = "drains-idle"
	IdleAlone   Meter = "idle-alone" // says little
	ChargesBare Meter = "charges"    // with everything on nobody has read
	Holds       Meter = "holds"
)

// MeterOf is what the volts at idle, at a riding speed, and there with everything on mean for a
// battery; NaN for one that nobody read.
func MeterOf(idleV, ridingV, allOnV float64, by Chemistry) Meter {
	switch {
	case idleV > BoilsV || ridingV > BoilsV || allOnV > BoilsV:
		return Boils
	case ridingV < by.ChargingV:
		return NotCharging
	case allOnV < by.WeakV:
		return Drains
	case allOnV < by.ChargingV:
		return JustHolds
	case idleV < by.RestingV:
		return DrainsIdle
	case math.IsNaN(ridingV) && math.IsNaN(allOnV):
		return IdleAlone
	case math.IsNaN(allOnV):
		return ChargesBare
	}
	return Holds
}
