// Package outside is the simulated outside world: what ships with the house in
// place of devices that are not there. Same seed, same answer.
package outside

import (
	"errors"
	"math"
	"math/rand/v2"

	"valiantmule/internal/core/load"
)

// Fault is what is wrong with a weighbridge.
type Fault string

// The faults.
const (
	Sound   Fault = ""        // reads to its 0.5 kg
	Noise   Fault = "noise"   // an engine runs beside it
	Drift   Fault = "drift"   // it was not set to zero
	Pounds  Fault = "pounds"  // it is set to another unit and does not say so
	Dropout Fault = "dropout" // a cable is loose
)

// Faults lists them with what one sees.
func Faults() []struct {
	Fault Fault
	Name  string
} {
	return []struct {
		Fault Fault
		Name  string
	}{{Sound, "as it should be"}, {Noise, "an engine runs beside it"}, {Drift, "not set to zero"}, {Pounds, "set to pounds"}, {Dropout, "a loose cable"}}
}

// ErrNoReading is a weighbridge that gives nothing at all.
var ErrNoReading = errors.New("the weighbridge gives no reading: look at its cables")

const (
	stepKg    = 0.5 // it shows
	noiseKg   = 2.5
	driftKg   = 4.0
	poundsPer = 1 / 0.45359237
)

// Weigh reads what stands on the bridge; NaN is a place that gave no reading.
func Weigh(truth load.Wheels, fault Fault, seed uint64) (load.Wheels, error) {
	random := rand.New(rand.NewPCG(seed, 45))
	spread, offset, unit := 0.1, 0.0, 1.0
	switch fault {
	case Noise:
		spread = noiseKg
	case Drift:
		offset = driftKg * (0.5 + random.Float64())
	case Pounds:
		unit = poundsPer
	}
	read := func(kg float64) float64 {
		return math.Max(0, math.Round((kg*unit+offset+spread*random.NormFloat64())/stepKg)*stepKg)
	}
	w := load.Wheels{FrontKg: read(truth.FrontKg), RearKg: read(truth.RearKg), LeftKg: read(truth.LeftKg), RightKg: read(truth.RightKg)}
	if fault == Dropout {
		lost := []*float64{&w.FrontKg, &w.RearKg, &w.LeftKg, &w.RightKg}
		*lost[random.IntN(4)] = math.NaN()
		if random.IntN(3) == 0 {
			return load.Wheels{}, ErrNoReading
		}
	}
	return w, nil
}
