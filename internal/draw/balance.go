package draw

import (
	"fmt"
	"math"

	"valiantmule/internal/core/load"
)

// Balance is a bike with everything that is on it: a disc for each mass at its
// place, the two axle loads on a beam that tips, and the sides from above.
type Balance struct {
	Shown         bool
	Sheet         Sheet
	Width, Height N
	Side          SideView
	Discs         []Disc
	Spots         []SpotMark
	Ghost         Mark2D // the centre of the bike alone
	Was           Mark2D // the centre as the plan has it, when something is tried
	Arrow         string // from the ghost to the centre
	Beam          Beam
	Above         []Disc
	AboveY        N
	AboveLeft     N
	AboveRight    N
	LeftText      string
	RightText     string
}

// Mass is one thing on the bike, in kg, mm forward of the rear axle and above
// ground; a rider's and a passenger's are rings.
type Mass struct {
	Kg, XMM, ZMM float64
	Side         float64 // −1 left, 1 right
	Title        string
	Load         int // index of the loadout's load, −1 for what is none
	Ring         bool
}

// Disc is a mass as drawn: its area is its mass.
type Disc struct {
	X, Y, R N
	Title   string
	Load    int
	Ring    bool
}

// SpotMark is where something can be put.
type SpotMark struct {
	X, Y  N
	Value string
	Name  string
}

// Spot is a place or a bag, to put things.
type Spot struct {
	Value, Name string
	XMM, ZMM    float64
}

// Beam is the axle beam: its ends stand under the wheels, and it tips to the end
// that gains.
type Beam struct {
	X1, Y1, X2, Y2 N
	PivotX, PivotY N
	Rear, Front    Column
}

// Column is an axle's load against its limit.
type Column struct {
	X, Y, Height N // of the load
	LimitY       N
	Limited      bool
	Over         bool
	Text         string
}

const (
	discScale   = 4.6 // radius of a kilogram's disc
	balanceBeam = 42.0
	columnRoom  = 66.0
	columnGap   = 60.0 // below the beam, which tips
	aboveRoom   = 86.0
	tipPerShare = 260.0 // how far an end moves for a whole share
	sideOff     = 24.0
)

// AxleEnd is one wheel's load, kg.
type AxleEnd struct {
	Kg, LimitKg float64 // NaN for no limit
	Text        string
}

// BalanceOf draws it; before are the centres as they were (NaN for none).
func BalanceOf(b Silhouette, masses []Mass, spots []Spot, bareX, bareZ, wasX, wasZ float64, rear, front AxleEnd, bareShare float64) Balance {
	d := Balance{Sheet: SideSheet(b)}
	view, ok := d.Sheet.Side(b, Current)
	if !ok || math.IsNaN(rear.Kg+front.Kg) {
		return d
	}
	d.Shown, d.Side, d.Width = true, view, d.Sheet.Width
	s := d.Sheet
	count := map[[2]float64]int{}
	for _, m := range masses {
		if !(m.Kg > 0) || math.IsNaN(m.XMM+m.ZMM) {
			continue
		}
		at := [2]float64{m.XMM, m.ZMM}
		dx, dy := fan(count[at])
		count[at]++
		disc := Disc{X: s.X(m.XMM) + N(dx), Y: s.Y(m.ZMM) + N(dy), R: N(discScale * math.Sqrt(m.Kg)), Title: m.Title, Load: m.Load, Ring: m.Ring}
		d.Discs = append(d.Discs, disc)
		if m.Side != 0 {
			d.Above = append(d.Above, disc)
			d.Above[len(d.Above)-1].Y = N(m.Side)
		}
	}
	for _, p := range spots {
		d.Spots = append(d.Spots, SpotMark{s.X(p.XMM), s.Y(p.ZMM), p.Value, p.Name})
	}
	if !math.IsNaN(bareX + bareZ) {
		d.Ghost = Mark2D{true, s.X(bareX), s.Y(bareZ), bareZ}
		if view.Centre.Shown {
			d.Arrow = fmt.Sprintf("M%s %sL%s %s", d.Ghost.X, d.Ghost.Y, view.Centre.X, view.Centre.Y)
		}
	}
	if !math.IsNaN(wasX + wasZ) {
		d.Was = Mark2D{true, s.X(wasX), s.Y(wasZ), wasZ}
	}
	d.beam(b, rear, front, bareShare)
	d.above()
	return d
}

// fan is where the nth thing at a spot goes, so that all can be seen.
func fan(n int) (dx, dy float64) {
	const golden = 2.399963
	r := 9 * math.Sqrt(float64(n))
	return r * math.Cos(golden*float64(n)), r * math.Sin(golden*float64(n))
}

func (d *Balance) beam(b Silhouette, rear, front AxleEnd, bareShare float64) {
	s := d.Sheet
	y := float64(s.GroundY) + balanceBeam
	tip := 0.0
	if !math.IsNaN(bareShare) {
		tip = max(-26, min(26, (front.Kg/(front.Kg+rear.Kg)-bareShare)*tipPerShare))
	}
	x1, x2 := s.X(0), s.X(b.WheelbaseMM)
	d.Beam = Beam{X1: x1, Y1: N(y - tip), X2: x2, Y2: N(y + tip), PivotX: (x1 + x2) / 2, PivotY: N(y)}
	most := max(rear.Kg, front.Kg, or(rear.LimitKg, 0), or(front.LimitKg, 0))
	column := func(e AxleEnd, x N) Column {
		top := float64(s.GroundY) + balanceBeam + columnGap
		c := Column{X: x, Y: N(top), Height: N(columnRoom * e.Kg / most), Text: e.Text}
		if e.LimitKg > 0 {
			c.Limited, c.LimitY, c.Over = true, N(top+columnRoom*e.LimitKg/most), e.Kg > e.LimitKg
		}
		return c
	}
	d.Beam.Rear, d.Beam.Front = column(rear, x1), column(front, x2)
	d.Height = N(float64(s.GroundY) + balanceBeam + columnGap + columnRoom + 26)
}

// above puts what hangs on a side on either side of the middle, seen from above.
func (d *Balance) above() {
	if len(d.Above) == 0 {
		return
	}
	middle := float64(d.Height) + aboveRoom/2
	d.AboveY = N(middle)
	d.AboveLeft, d.AboveRight = d.Sheet.X(-350), d.Sheet.X(1700)
	count := map[N]int{}
	for i := range d.Above {
		a := &d.Above[i]
		side := a.Y
		a.X = d.Sheet.X(-180) + N(26*float64(count[side]))
		count[side]++
		a.Y = N(middle + sideOff*float64(side))
		a.R = min(a.R, 13)
	}
	d.Height = N(middle + aboveRoom/2)
}

// SpotFor a place on a bike.
func SpotFor(p load.Place, value, name string, wheelbaseMM, seatMM float64) Spot {
	return Spot{value, name, p.XMM(wheelbaseMM), p.ZMM(seatMM)}
}
