package facts

import (
	"fmt"
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/terrain"
)

// Drive is the gearing as built.
type Drive struct {
	Pair, StandardPair drive.Pair // zero when unknown
	ChangePercent      float64    // against standard, + = shorter
	CruiseKmh          float64    // the brief's
	CruiseRPM          float64    // in top gear there
	CruiseLimitRPM     float64
	PaceLimitKmh       float64
}

// Chain is how the chain runs. Shifts count from where the axle is set with the
// standard sprockets and chain, + is back.
type Chain struct {
	Links     int     // of the chain as built, 0 when unknown
	Exact     float64 // pitches that the pair asks for at the centre as set now
	ShiftMM   float64 // to tighten the chain as built
	Adjuster  drive.Adjuster
	Best      int // even links with the smallest shift in reach, 0 for none
	BestShift float64
}

// Speedo is what the display shows.
type Speedo struct {
	Factor float64 // against the standard bike's
	Over   float64 // shown over true, less 1
}

// Climb is the steepest slope, as a tangent, on the ground that allows least.
type Climb struct {
	Ground                 terrain.Ground
	Pull, Traction, Wheely float64
	Wish                   float64
}

// Slope is the least of the three, and what sets it.
func (c Climb) Slope() (slope float64, limit string) {
	slope, limit = c.Pull, "pull"
	if c.Traction < slope {
		slope, limit = c.Traction, "grip"
	}
	if c.Wheely < slope {
		slope, limit = c.Wheely, "the front wheel"
	}
	if math.IsNaN(c.Pull + c.Traction + c.Wheely) {
		return math.NaN(), ""
	}
	return slope, limit
}

// Cruise is how the engine holds the brief's cruise into its headwind.
type Cruise struct {
	Known bool
	Gear  int // the highest that holds it, 0 for none
	Gears int
}

// StandardCentreMM is where the standard chain holds the axle on the standard
// sprockets.
func (f *All) StandardCentreMM() (float64, error) {
	pitch, known := drive.PitchMM(f.Built.Bike.Chain)
	links := f.Standard.Figure(parts.ChainLinks)
	if !known || links == 0 || f.Drive.StandardPair.Front == 0 {
		return 0, fmt.Errorf("standard chain or sprockets unknown")
	}
	return drive.CentreMM(f.Drive.StandardPair, pitch, links)
}
