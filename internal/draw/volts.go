package draw

import "math"

// Volts is a rule of voltages with what was read on it.
type Volts struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Line          N
	Bands         []VoltBand
	Ticks         []Tick
	Marks         []VoltMark
}

// VoltBand is a stretch of the rule that means something.
type VoltBand struct {
	X, W N
	Kind string // "dead", "weak", "right", "high"
	Text string
	Mid  N
}

// VoltMark is a reading.
type VoltMark struct {
	X, TextY N
	Text     string
	Worst    bool
}

// VoltRead is what a mark is drawn from.
type VoltRead struct {
	Name  string
	Volts float64
	Words string
}

const (
	voltsWidth = 760.0
	voltsFrom  = 11.5
	voltsTo    = 15.5
	voltsLine  = 92.0
)

// VoltsRule draws readings against where a battery rests, where it charges, and where it boils.
func VoltsRule(reads []VoltRead, restsV, chargesV, boilsV float64) Volts {
	d := Volts{Width: voltsWidth, Height: voltsLine + 48, Left: 20, Right: voltsWidth - 20, Line: voltsLine}
	x := scale{voltsFrom, voltsTo, 20, voltsWidth - 20}
	from := voltsFrom
	for _, b := range []struct {
		to         float64
		kind, text string
	}{{restsV, "dead", "the battery gives"}, {chargesV, "weak", "just enough"}, {boilsV, "right", "it charges"}, {voltsTo, "high", "too much"}} {
		d.Bands = append(d.Bands, VoltBand{X: x.of(from), W: x.of(b.to) - x.of(from), Kind: b.kind, Text: b.text, Mid: (x.of(from) + x.of(b.to)) / 2})
		from = b.to
	}
	for _, v := range steps(voltsFrom, voltsTo, 8) {
		d.Ticks = append(d.Ticks, Tick{x.of(v), N(v).String() + " V"})
	}
	for _, r := range reads {
		if math.IsNaN(r.Volts) {
			continue
		}
		d.Shown = true
		at := math.Max(voltsFrom, math.Min(voltsTo, r.Volts))
		d.Marks = append(d.Marks, VoltMark{X: x.of(at), TextY: N(14 + 20*float64(len(d.Marks))), Text: r.Name + " " + r.Words, Worst: r.Volts < restsV || r.Volts > boilsV})
	}
	return d
}
