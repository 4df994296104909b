package draw

import "math"

// Supply is what an alternator gives at some engine speeds, beside what is drawn: the bike
// itself and each accessory on top of it.
type Supply struct {
	Shown         bool
	Width, Height N
	Lower, Left   N
	Right         N
	Ticks         []Tick
	Speeds        []SupplyColumn
}

// SupplyColumn is one engine speed.
type SupplyColumn struct {
	X, Width   N
	Name, Text string // and its engine speed
	SupplyY    N
	SupplyH    N
	SupplyText string
	Draws      []SupplyBlock
	Short      bool // more is drawn than there is
	MarginText string
	MarginY    N
}

// SupplyBlock is what one thing draws.
type SupplyBlock struct {
	Y, H N
	Name string
	Own  bool // of the bike itself
	Text bool // there is room for its name
}

// SupplyAt is what a column is drawn from.
type SupplyAt struct {
	Name, Text string
	SupplyW    float64
	SupplyText string
	MarginText string
}

// DrawnBy is one thing that draws.
type DrawnBy struct {
	Name string
	W    float64
	Own  bool
}

const (
	supplyWidth  = 760.0
	supplyTop    = 30.0
	supplyLower  = 268.0
	supplyColumn = 86.0
	supplyRoom   = 13.0 // that a name takes
)

// SupplyChart draws them; numbers that nobody knows leave it out.
func SupplyChart(at []SupplyAt, drawn []DrawnBy, watts func(v float64) string) Supply {
	d := Supply{Width: supplyWidth, Height: supplyLower + 46, Lower: supplyLower, Left: 64, Right: supplyWidth}
	most, sum := 0.0, 0.0
	for _, b := range drawn {
		sum += b.W
	}
	for _, a := range at {
		most = max(most, a.SupplyW, sum)
	}
	if math.IsNaN(most) || math.IsNaN(sum) || most == 0 || len(at) == 0 {
		return d
	}
	d.Shown = true
	y := scale{0, most * 1.12, supplyLower, supplyTop}
	for _, v := range steps(0, most*1.12, 5) {
		d.Ticks = append(d.Ticks, Tick{y.of(v), watts(v)})
	}
	for i, a := range at {
		x := 96 + float64(i)*226
		c := SupplyColumn{X: N(x), Width: supplyColumn, Name: a.Name, Text: a.Text, SupplyY: y.of(a.SupplyW), SupplyH: supplyLower - y.of(a.SupplyW), SupplyText: a.SupplyText, Short: sum > a.SupplyW, MarginText: a.MarginText}
		c.MarginY = min(c.SupplyY, y.of(sum)) - 6
		level := 0.0
		for _, b := range drawn {
			if b.W <= 0 {
				continue
			}
			block := SupplyBlock{Y: y.of(level + b.W), H: y.of(level) - y.of(level+b.W), Name: b.Name, Own: b.Own}
			block.Text = block.H >= supplyRoom
			c.Draws = append(c.Draws, block)
			level += b.W
		}
		d.Speeds = append(d.Speeds, c)
	}
	return d
}
