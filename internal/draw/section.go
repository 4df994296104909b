package draw

import "fmt"

// Tyre is one to be drawn, measured or by its code.
type Tyre struct {
	Style                      Style
	WidthMM, DiameterMM, RimMM float64
}

// Clearance is the room for it; NaN where nobody has measured.
type Clearance struct{ WidthMM, DiameterMM float64 }

// Section is rear tyres in true proportion over one another: from the side, and
// cut through the tread.
type Section struct {
	Shown         bool
	Width, Height N
	GroundY       N
	Sides         []Circle // from the side, all standing on the ground
	Cuts          []Cut    // the lower end of the tyre cut through
	Room          Circle   // the tallest that clears
	Walls         []N      // x of the widest that clears, both sides
	SideMid       N
	CutMid        N
}

// Circle of a drawing.
type Circle struct {
	Shown   bool
	X, Y, R N
	Rim     N
	Style   Style
}

// Cut is a tyre's outline cut through the ground point, as an SVG path.
type Cut struct {
	Path  string
	Style Style
}

const (
	sectionWidth  = 400.0
	sectionHeight = 216.0
	sectionGround = 190.0
	sideX         = 104.0
	cutX          = 300.0
)

// Tyres draws rear tyres; without any nothing is shown.
func Tyres(tyres []Tyre, room Clearance) Section {
	d := Section{Width: sectionWidth, Height: sectionHeight, GroundY: sectionGround, SideMid: sideX, CutMid: cutX}
	tallest := 0.0
	for _, t := range tyres {
		tallest = max(tallest, t.DiameterMM)
	}
	if tallest == 0 {
		return d
	}
	d.Shown = true
	if room.DiameterMM > 0 {
		tallest = max(tallest, room.DiameterMM)
	}
	side := 178 / tallest // view-box units per mm from the side
	cut := 0.92           // and cut through, where width matters
	if room.DiameterMM > 0 {
		r := room.DiameterMM / 2 * side
		d.Room = Circle{Shown: true, X: sideX, Y: N(sectionGround - r), R: N(r)}
	}
	if room.WidthMM > 0 {
		half := room.WidthMM / 2 * cut
		d.Walls = []N{N(cutX - half), N(cutX + half)}
	}
	for _, t := range tyres {
		r := t.DiameterMM / 2 * side
		d.Sides = append(d.Sides, Circle{
			Shown: true, X: sideX, Y: N(sectionGround - r), R: N(r), Rim: N(t.RimMM / 2 * side), Style: t.Style,
		})
		d.Cuts = append(d.Cuts, Cut{cutPath(t, cut), t.Style})
	}
	return d
}

// cutPath is the outline from bead to bead round the tread, standing on the
// ground: sides by an arc of the section's height, the crown a little flatter.
func cutPath(t Tyre, scale float64) string {
	half := t.WidthMM / 2 * scale
	height := (t.DiameterMM - t.RimMM) / 2 * scale
	bead := half * 0.62
	top := sectionGround - height
	shoulder := sectionGround - height*0.42
	return fmt.Sprintf("M %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s",
		N(cutX-bead), N(top),
		N(cutX-bead), N(top+height*0.2), N(cutX-half), N(top+height*0.25), N(cutX-half), N(shoulder),
		N(cutX-half), N(sectionGround-height*0.1), N(cutX-half*0.55), N(sectionGround), N(cutX), N(sectionGround),
		N(cutX+half*0.55), N(sectionGround), N(cutX+half), N(sectionGround-height*0.1), N(cutX+half), N(shoulder),
		N(cutX+half), N(top+height*0.25), N(cutX+bead), N(top+height*0.2), N(cutX+bead), N(top))
}
