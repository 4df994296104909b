package draw

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/guard"
)

// Armour is a bike from the side and from the front, with a mark at each place
// that can break.
type Armour struct {
	Shown         bool
	Width, Height N
	GroundY       N
	Side          SideView
	Front         FrontView
	Marks         []RiskMark
}

// RiskMark is a place's risk: the shape tells the hazard that threatens it most,
// the size how much it is to be feared bare, and what is filled how much is left
// behind the guards.
type RiskMark struct {
	Place       guard.Place
	X, Y        N
	Outer       string // bare
	Inner       string // left
	Number      int
	TextX       N
	Current     bool
	Title, Href string
}

// Vulnerable is a place to be marked.
type Vulnerable struct {
	Place      guard.Place
	Hazard     guard.Hazard // that threatens it most
	Bare, Left float64      // what is to be feared, 0 to 1
	Number     int          // of its row in the table
	Current    bool
	Title      string
	Href       string
}

const (
	markLeast = 5.5  // radius of a mark that is hardly to be feared
	markMost  = 62.0 // of one that is certain
)

// ArmourViews draws the marks on both views; without the bike's main measures
// nothing is shown.
func ArmourViews(b Silhouette, places []Vulnerable) Armour {
	sheet := SideSheet(b)
	side, ok := sheet.Side(b, Current)
	if !ok {
		return Armour{}
	}
	d := Armour{Shown: true, Height: sheet.Height, GroundY: sheet.GroundY, Side: side}
	centre := N(float64(sheet.X(b.WheelbaseMM+b.FrontTyreMM/2)) + (b.across()/2+60)*sheet.scale)
	d.Front, _ = sheet.Front(b, centre, Current)
	d.Width = centre + d.Front.Width/2
	for _, v := range places {
		if x, z, ok := b.sideSpot(v.Place); ok {
			d.Marks = append(d.Marks, v.mark(sheet.X(x), sheet.Y(z)))
		}
		if x, z, ok := b.frontSpot(v.Place); ok {
			d.Marks = append(d.Marks, v.mark(sheet.about(centre).X(x), sheet.Y(z)))
		}
	}
	return d
}

func (v Vulnerable) mark(x, y N) RiskMark {
	size := func(p float64) float64 { return markMost * math.Sqrt(p) }
	outer := math.Max(markLeast, size(v.Bare))
	inner := 0.0
	if v.Bare > 0 {
		inner = outer * math.Sqrt(v.Left/v.Bare)
	}
	m := RiskMark{
		Place: v.Place, X: x, Y: y, Outer: hazardShape(v.Hazard, x, y, outer), Number: v.Number, TextX: x + N(outer) + 3,
		Current: v.Current, Title: v.Title, Href: v.Href,
	}
	if inner > 0.5 {
		m.Inner = hazardShape(v.Hazard, x, y, inner)
	}
	return m
}

// hazardShape is a closed path about a point, by the hazard: falls are square,
// stones round, strikes come from below.
func hazardShape(h guard.Hazard, x, y N, r float64) string {
	turn := func(n int, start float64) string {
		var b strings.Builder
		for i := range n {
			a := start + 2*math.Pi*float64(i)/float64(n)
			word := "L"
			if i == 0 {
				word = "M"
			}
			fmt.Fprintf(&b, "%s%s %s", word, x+N(r*math.Cos(a)), y+N(r*math.Sin(a)))
		}
		return b.String() + "Z"
	}
	switch h {
	case guard.SlowFall, guard.FastFall:
		return turn(4, math.Pi/4)
	case guard.Strike:
		return turn(3, -math.Pi/2)
	case guard.Rub:
		return turn(4, 0)
	case guard.PackedMud:
		return turn(6, 0)
	case guard.Branch:
		w, t := N(r*1.3), N(r*0.5)
		return fmt.Sprintf("M%s %sH%sV%sH%sZ", x-w, y-t, x+w, y+t, x-w)
	case guard.BrokeChain:
		w, t := N(r), N(r*0.4)
		return fmt.Sprintf("M%s %sH%sV%sH%sV%sH%sV%sH%sV%sH%sV%sH%sZ", x-t, y-w, x+t, y-t, x+w, y+t, x+t, y+w, x-t, y+t, x-w, y-t, x-t)
	}
	return fmt.Sprintf("M%s %sa%s %s 0 1 0 %s 0a%s %s 0 1 0 %s 0Z", x-N(r), y, N(r), N(r), N(2*r), N(r), N(r), N(-2*r))
}

// HazardKey is a hazard's shape by itself, for a key of 20 by 20.
func HazardKey(h guard.Hazard) string { return hazardShape(h, 10, 10, 7) }

// sideSpot is where a place is seen from the side, mm forward of the rear axle and
// above ground.
func (b Silhouette) sideSpot(p guard.Place) (x, z float64, ok bool) {
	k := b.skeleton()
	switch p {
	case guard.Mudguard:
		return k.base + 0.35*k.rf, 2*k.rf + 30, true
	case guard.Fork:
		return k.leg(k.rf + 190), k.rf + 190, true
	case guard.Lamp:
		return k.axis(k.headHigh) + 125, k.headHigh - 75, true
	case guard.Dash:
		return k.axis(k.headHigh) + 45, k.headHigh + 75, true
	case guard.Levers:
		return k.axis(k.bar) + 15, k.bar + 45, true
	case guard.Bars:
		return k.axis(k.bar) - 95, k.bar, true
	case guard.Indicators:
		return -0.16 * k.base, k.seat + 30, true
	case guard.Radiator, guard.OilCooler:
		return 0.71 * k.base, k.seat - 300, true
	case guard.Fairing:
		return k.axis(k.headLow) + 90, k.headLow - 40, true
	case guard.Tank:
		return 0.57 * k.base, k.seat + 70, true
	case guard.Cases:
		return 0.52 * k.base, k.bottom + 190, true
	case guard.Sump:
		return 0.57 * k.base, k.bottom + 12, true
	case guard.Frame:
		return 0.35 * k.base, k.seat - 190, true
	case guard.Drive:
		return 0.42 * k.base, k.pivotZ + 15, true
	case guard.Stand:
		return 0.37 * k.base, k.bottom + 25, true
	case guard.Swingarm:
		return 0.19 * k.base, k.rr + 15, true
	case guard.RearBrake:
		return 0, k.rr, true
	case guard.Plate:
		return -0.2 * k.base, k.seat - 60, true
	}
	return 0, 0, false
}

// frontSpot is where a place is seen from the front, mm to the bike's left of its
// middle and above ground.
func (b Silhouette) frontSpot(p guard.Place) (x, z float64, ok bool) {
	k := b.skeleton()
	bar := or(b.BarWidthMM, 820) / 2
	switch p {
	case guard.Mudguard:
		return 0, 2*k.rf + 5, true
	case guard.Fork:
		return -halfFork, k.rf + 190, true
	case guard.Lamp:
		return 0, k.headHigh - 75, true
	case guard.Dash:
		return 0, k.headHigh + 75, true
	case guard.Levers:
		return bar - 140, k.bar + 30, true
	case guard.Bars:
		return -bar + 20, k.bar, true
	case guard.Indicators:
		return -halfLamp - 110, k.headHigh - 90, true
	case guard.Radiator:
		return halfFork + 50, k.seat - 270, true
	case guard.OilCooler:
		return halfFork + 40, k.seat - 290, true
	case guard.Fairing:
		return 190, k.headLow, true
	case guard.Tank:
		return halfTank, k.seat + 40, true
	case guard.Cases:
		return -halfEngine, k.bottom + 160, true
	case guard.Sump:
		return 0, k.bottom + 10, true
	case guard.Stand:
		return halfEngine + 20, k.bottom + 40, true
	}
	return 0, 0, false
}
