package draw

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/stance"
)

// Silhouette is what a bike's side view is built from, in mm; NaN where it is
// not known. Without wheelbase, wheels and seat height there is no view.
type Silhouette struct {
	WheelbaseMM               float64
	FrontTyreMM, RearTyreMM   float64 // diameters
	FrontRimMM, RearRimMM     float64
	SeatMM, ClearanceMM       float64
	BarMM, PegMM              float64
	RakeDegrees, OffsetMM     float64
	FrontTravelMM             float64
	Screen, Faired            bool
	CentreXMM, CentreHeightMM float64 // of mass, forward of the rear axle

	BarWidthMM, FrontTyreWidthMM float64 // only the front view looks at them

	Turned *stance.Pose // about its wheels; nil is as its data sheet has it
}

// SideView is a bike from its right side: a neutral outline by its own measures,
// facing right, standing on the ground.
type SideView struct {
	Style  Style
	Wheels []Circle
	Parts  []SidePart
	Seat   Mark2D // the lowest point of the seat
	Bottom Mark2D // of the engine
	Bar    Mark2D
	Centre Mark2D
}

// SidePart is one part of the outline: its name is its class in the style sheet.
type SidePart struct{ Name, Path string }

// Mark2D is a place on the bike with its height in mm.
type Mark2D struct {
	Shown  bool
	X, Y   N
	Height float64
}

// Sheet is what side views are drawn on: a scale with the ground, and the rear
// axle of every bike at the same spot.
type Sheet struct {
	Width, Height N
	GroundY       N
	scale         float64
	originX       float64
}

// or is v, or a usual value where it is missing.
func or(v, usual float64) float64 {
	if math.IsNaN(v) || v <= 0 {
		return usual
	}
	return v
}

// whole reports whether there is enough for a view.
func (s Silhouette) whole() bool {
	return s.WheelbaseMM > 0 && s.FrontTyreMM > 0 && s.RearTyreMM > 0 && s.SeatMM > 0
}

const (
	sideWidth   = 760.0
	sideTop     = 20.0
	sideGroundY = 372.0
)

// SideSheet is a sheet that holds all of the bikes.
func SideSheet(bikes ...Silhouette) Sheet {
	long, tall := 1400.0, 1000.0
	for _, b := range bikes {
		if b.whole() {
			long = max(long, b.WheelbaseMM+b.FrontTyreMM/2+b.RearTyreMM/2)
			tall = max(tall, or(b.BarMM, b.SeatMM+270)+150)
		}
	}
	scale := min((sideWidth-150)/(long+120), (sideGroundY-sideTop)/tall)
	rear := 0.0
	for _, b := range bikes {
		rear = max(rear, b.RearTyreMM/2)
	}
	return Sheet{Width: sideWidth, Height: sideGroundY + 24, GroundY: sideGroundY, scale: scale, originX: 60 + (rear+100)*scale}
}

// X and Y are a place on the sheet, mm forward of the rear axle and above
// ground.
func (s Sheet) X(mm float64) N { return N(s.originX + mm*s.scale) }

// Y is X's height.
func (s Sheet) Y(mm float64) N { return s.GroundY - N(mm*s.scale) }

// pen writes paths in the bike's millimetres, on a frame that may be turned.
type pen struct {
	sheet  Sheet
	turned *stance.Pose
	b      strings.Builder
}

func (p *pen) at(x, z float64) string {
	if p.turned != nil {
		x, z = p.turned.At(x, z)
	}
	return fmt.Sprintf("%s %s", p.sheet.X(x), p.sheet.Y(z))
}

func (p *pen) move(x, z float64) *pen { fmt.Fprintf(&p.b, "M %s ", p.at(x, z)); return p }
func (p *pen) line(x, z float64) *pen { fmt.Fprintf(&p.b, "L %s ", p.at(x, z)); return p }
func (p *pen) curve(x1, z1, x2, z2, x, z float64) *pen {
	fmt.Fprintf(&p.b, "C %s %s %s ", p.at(x1, z1), p.at(x2, z2), p.at(x, z))
	return p
}
func (p *pen) close() *pen  { p.b.WriteString("Z "); return p }
func (p *pen) path() string { return strings.TrimSpace(p.b.String()) }

// skeleton is where the outline's joints are, mm; what nobody has measured is a
// usual value.
type skeleton struct {
	base, rr, rf           float64 // wheelbase, radii of the wheels
	seat, bottom, bar, peg float64 // heights
	angle                  float64 // of the fork from upright
	footX, footZ           float64 // of the steering axis, square to the front axle
	headLow, headHigh      float64
	pivotX, pivotZ         float64 // of the swingarm
}

func (b Silhouette) skeleton() skeleton {
	k := skeleton{base: b.WheelbaseMM, rr: b.RearTyreMM / 2, rf: b.FrontTyreMM / 2, seat: b.SeatMM}
	k.bottom, k.bar, k.peg = or(b.ClearanceMM, 0.25*k.seat), or(b.BarMM, k.seat+270), or(b.PegMM, 0.4*k.seat)
	k.angle = or(b.RakeDegrees, 27) * math.Pi / 180
	offset := or(b.OffsetMM, 35)
	k.footX, k.footZ = k.base-offset*math.Cos(k.angle), k.rf-offset*math.Sin(k.angle)
	k.headLow, k.headHigh = k.bar-330, k.bar-130
	k.pivotX, k.pivotZ = 0.37*k.base, k.rr+25
	return k
}

// axis is the steering axis at a height, leg the fork leg that runs beside it
// through the axle.
func (k skeleton) axis(z float64) float64 { return k.footX - (z-k.footZ)*math.Tan(k.angle) }
func (k skeleton) leg(z float64) float64  { return k.base - (z-k.rf)*math.Tan(k.angle) }

// Side draws a bike on a sheet; ok is false when its main measures are missing.
func (s Sheet) Side(b Silhouette, style Style) (view SideView, ok bool) {
	if !b.whole() {
		return view, false
	}
	view.Style = style
	k := b.skeleton()
	base, rr, rf, seat, bottom, bar, peg := k.base, k.rr, k.rf, k.seat, k.bottom, k.bar, k.peg
	axis, leg, headLow, headHigh, pivotX, pivotZ := k.axis, k.leg, k.headLow, k.headHigh, k.pivotX, k.pivotZ
	part := func(name string, p *pen) { view.Parts = append(view.Parts, SidePart{name, p.path()}) }
	start := func() *pen { return &pen{sheet: s, turned: b.Turned} }
	mark := func(shown bool, x, z float64) Mark2D {
		if b.Turned != nil {
			x, z = b.Turned.At(x, z)
		}
		return Mark2D{shown, s.X(x), s.Y(z), z}
	}

	// Of a frame that is turned the wheels stand on the ground all the same, and their axles
	// have moved in it.
	wheelbase, rearR, frontR := base, rr, rf
	rearZ, frontX, frontZ := rr, base, rf
	if t := b.Turned; t != nil {
		wheelbase, rearR, frontR = t.WheelbaseMM, t.RearRadiusMM, t.FrontRadiusMM
		rearZ, frontX, frontZ = t.RearAxleZMM, t.FrontAxleXMM, t.FrontAxleZMM
	}
	view.Wheels = []Circle{
		{Shown: true, X: s.X(0), Y: s.Y(rearR), R: N(rearR * s.scale), Rim: N(b.RearRimMM / 2 * s.scale), Style: style},
		{Shown: true, X: s.X(wheelbase), Y: s.Y(frontR), R: N(frontR * s.scale), Rim: N(b.FrontRimMM / 2 * s.scale), Style: style},
	}
	tankTop := min(seat+150, bar-60)

	part("swingarm", start().move(0, rearZ).line(pivotX, pivotZ))
	part("fork", start().move(frontX, frontZ).line(leg(headHigh+40), headHigh+40))
	part("frame", start().move(axis(headHigh), headHigh).line(axis(headLow), headLow).
		line(0.62*base, bottom+70).line(0.42*base, bottom+60).line(pivotX, pivotZ+60).line(0.33*base, seat-110).line(axis(headHigh), headHigh-20))
	part("subframe", start().move(0.33*base, seat-110).line(-0.1*base, seat-10).move(pivotX, pivotZ+60).line(-0.02*base, seat-40))
	part("engine", start().move(0.41*base, bottom+8).line(0.58*base, bottom).
		curve(0.66*base, bottom+20, 0.68*base, bottom+90, 0.67*base, bottom+150).
		line(0.64*base, min(bottom+380, seat-170)).line(0.52*base, min(bottom+420, seat-140)).
		line(0.47*base, bottom+250).line(0.39*base, bottom+230).line(0.38*base, bottom+70).close())
	part("tank", start().move(0.47*base, seat+12).curve(0.5*base, tankTop, 0.6*base, tankTop+25, axis(headHigh)-25, headHigh+5).
		line(axis(headHigh-120)-30, headHigh-150).curve(0.6*base, seat-120, 0.5*base, seat-80, 0.45*base, seat-75).close())
	part("seat", start().move(-0.14*base, seat+38).curve(0.02*base, seat+40, 0.16*base, seat+28, 0.26*base, seat+8).
		curve(0.32*base, seat-4, 0.4*base, seat-4, 0.48*base, seat+20).line(0.46*base, seat-70).line(0.1*base, seat-45).line(-0.12*base, seat-5).close())
	part("bar", start().move(axis(headHigh+30), headHigh+30).line(axis(headHigh+30)+12, bar-35).line(axis(bar)-70, bar))
	part("peg", start().move(pivotX+25, peg).line(pivotX+105, peg))
	tail := -0.14 * base
	part("mudguard", start().move(tail, seat+30).line(tail-0.06*base, seat-70))
	// A big front wheel with travel under it has its mudguard up at the clamps.
	if or(b.FrontTravelMM, 150) >= 200 {
		up := rf*2 + or(b.FrontTravelMM, 200)*0.55
		part("mudguard", start().move(axis(up)-90, up+15).curve(base-40, up+35, base+120, up+10, base+rf*0.9, up-90))
	} else {
		r := frontR + 22
		part("mudguard", start().move(frontX-r*0.86, frontZ+r*0.5).curve(frontX-r*0.6, frontZ+r*1.05, frontX+r*0.35, frontZ+r*1.2, frontX+r*0.78, frontZ+r*0.62))
	}
	lampX := axis(headHigh) + 70
	switch {
	case b.Faired:
		part("body", start().move(axis(headHigh)-10, bar+90).curve(lampX+60, bar+60, lampX+150, headHigh+20, lampX+140, headHigh-110).
			line(0.74*base, headLow-60).line(0.66*base, bottom+60).line(0.52*base, bottom+30))
	case b.Screen:
		part("body", start().move(axis(headHigh)+5, bar+150).curve(lampX+25, bar+70, lampX+95, headHigh+10, lampX+110, headHigh-80).line(axis(headLow)+25, headLow+20))
	}
	part("lamp", start().move(lampX+20, headHigh-10).curve(lampX+75, headHigh-20, lampX+75, headHigh-130, lampX+20, headHigh-140).close())

	view.Seat = mark(true, 0.36*base, seat)
	view.Bottom = mark(b.ClearanceMM > 0, 0.58*base, bottom)
	view.Bar = mark(b.BarMM > 0, axis(bar)-70, bar)
	if b.CentreHeightMM > 0 && !math.IsNaN(b.CentreXMM) {
		view.Centre = Mark2D{true, s.X(b.CentreXMM), s.Y(b.CentreHeightMM), b.CentreHeightMM}
	}
	return view, true
}
