package draw

import "math"

// Pulses are flashes over some seconds, as long on as off, with the slowest and the fastest
// that are asked for above and below them.
type Pulses struct {
	Shown         bool
	Width, Height N
	Rows          []PulseRow
	Ticks         []Tick
}

// PulseRow is one pace.
type PulseRow struct {
	Name string
	Y    N
	Own  bool
	On   []Pulse
}

// Pulse is a stretch across.
type Pulse struct{ X, W N }

const (
	pulseWidth   = 560.0
	pulseLeft    = 120.0
	pulseSeconds = 4.0
	pulseRow     = 26.0
)

// PulsesOf draws a pace between two others, all a minute; one that nobody knows is left out.
func PulsesOf(perMin, least, most float64) Pulses {
	d := Pulses{Shown: perMin > 0, Width: pulseWidth, Height: 3*pulseRow + 26}
	if !d.Shown {
		return d
	}
	x := scale{0, pulseSeconds, pulseLeft, pulseWidth - 10}
	for i, p := range []struct {
		name string
		pace float64
	}{{"slowest", least}, {"this bike", perMin}, {"fastest", most}} {
		row := PulseRow{Name: p.name, Y: N(6 + float64(i)*pulseRow), Own: i == 1}
		period := 60 / p.pace
		for t := 0.0; t < pulseSeconds-1e-9; t += period {
			end := math.Min(t+period/2, pulseSeconds)
			row.On = append(row.On, Pulse{x.of(t), x.of(end) - x.of(t)})
		}
		d.Rows = append(d.Rows, row)
	}
	for s := 0.0; s <= pulseSeconds; s++ {
		d.Ticks = append(d.Ticks, Tick{x.of(s), N(s).String() + " s"})
	}
	return d
}
