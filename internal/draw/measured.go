package draw

import "math"

// Measured are sags over the masses under which they were measured, an end a panel, with the
// line through them.
type Measured struct {
	Shown         bool
	Width, Height N
	Ends          []MeasuredPanel
}

// MeasuredPanel is one end's.
type MeasuredPanel struct {
	Name                     string
	Left, Right, Top, Bottom N
	Masses, Sags             []Tick
	Dots                     []MeasuredDot
	Line                     string // "" without one
}

// MeasuredDot is one reading, with a bar as long as stiction held it apart.
type MeasuredDot struct{ X, Y, Y1, Y2 N }

// MeasuredEnd is what a panel is drawn from.
type MeasuredEnd struct {
	Name     string
	TravelMM float64 // NaN where nobody knows
	Points   []MeasuredPoint
	Line     func(kg float64) float64 // nil without one
}

// MeasuredPoint is one reading.
type MeasuredPoint struct{ Kg, MM, ApartMM float64 }

const (
	measuredWidth  = 760.0
	measuredTop    = 30.0
	measuredBottom = 226.0
)

// MeasuredSags draws the ends that have readings; words write a length and a mass.
func MeasuredSags(ends []MeasuredEnd, mm, kg func(v float64) string) Measured {
	d := Measured{Width: measuredWidth, Height: measuredBottom + 40}
	for i, e := range ends {
		if len(e.Points) == 0 {
			continue
		}
		d.Shown = true
		left := 60 + float64(i)*380
		d.Ends = append(d.Ends, panelOf(e, left, left+290, mm, kg))
	}
	return d
}

func panelOf(e MeasuredEnd, left, right float64, mm, kg func(v float64) string) MeasuredPanel {
	least, most, deep := math.Inf(1), math.Inf(-1), 0.0
	for _, p := range e.Points {
		least, most, deep = math.Min(least, p.Kg), math.Max(most, p.Kg), math.Max(deep, p.MM+p.ApartMM/2)
	}
	least, most = least-15, most+15
	x, y := scale{least, most, left, right}, scale{0, deep * 1.15, measuredTop, measuredBottom} // down is more sag
	panel := MeasuredPanel{Name: e.Name, Left: N(left), Right: N(right), Top: measuredTop, Bottom: measuredBottom}
	for _, v := range steps(least, most, 4) {
		panel.Masses = append(panel.Masses, Tick{x.of(v), kg(v)})
	}
	for _, v := range steps(0, deep*1.15, 5) {
		panel.Sags = append(panel.Sags, Tick{y.of(v), mm(v)})
	}
	for _, p := range e.Points {
		panel.Dots = append(panel.Dots, MeasuredDot{x.of(p.Kg), y.of(p.MM), y.of(math.Max(0, p.MM-p.ApartMM/2)), y.of(p.MM + p.ApartMM/2)})
	}
	if e.Line != nil {
		from, to := least, most
		if e.Line(from) < 0 { // it starts where the spring does
			from += (to - from) * -e.Line(from) / (e.Line(to) - e.Line(from))
		}
		panel.Line = "M " + x.of(from).String() + " " + y.of(e.Line(from)).String() + " L " + x.of(to).String() + " " + y.of(math.Min(e.Line(to), deep*1.15)).String()
	}
	return panel
}
