package draw

import "fmt"

// Tyre is one to be drawn, measured or by its code.
type Tyre struct {
	Style                      Style
	WidthMM, DiameterMM, RimMM float64
}

// Clearance is the room for it; NaN where nobody has measured.
type Clearance struct{ WidthMM, DiameterMM float64 }

// Contender is a tyre of a line-up, with the standard one of its end, whose
// diameter is 0 where there is none to compare with.
type Contender struct {
	Tyre, Standard Tyre
	Room           Clearance
}

// Lineup is up to four tyres side by side in true proportion, each over its
// standard one: from the side, and below it cut through the tread. The columns
// share the width behind the gutter, so that a table can stand under them.
type Lineup struct {
	Shown         bool
	Width, Height N
	Gutter        N // left of the columns
	SideGround    N // where the wheels stand
	CutGround     N
	Columns       []LineupColumn
}

// LineupColumn is one tyre.
type LineupColumn struct {
	Sides []Circle // all standing on the ground
	Cuts  []Cut
	Room  Circle // the tallest that clears
	Walls []N    // x of the widest that clears, both sides
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
	lineupWidth  = 760.0
	lineupGutter = 112.0 // before the first column, as wide as the table's row names
	sideGround   = 160.0
	sideHeight   = 148.0 // of the tallest
	cutGround    = 284.0
	cutScale     = 0.9 // view-box units per mm: width is what matters here
	lineupHeight = 294.0
)

// TyreLineup draws tyres side by side; without any nothing is shown.
func TyreLineup(list []Contender) Lineup {
	d := Lineup{Width: lineupWidth, Height: lineupHeight, Gutter: lineupGutter, SideGround: sideGround, CutGround: cutGround}
	tallest := 0.0
	for _, c := range list {
		tallest = max(tallest, c.Tyre.DiameterMM, c.Standard.DiameterMM)
		if c.Room.DiameterMM > 0 {
			tallest = max(tallest, c.Room.DiameterMM)
		}
	}
	if tallest == 0 {
		return d
	}
	d.Shown = true
	scale := sideHeight / tallest
	step := (lineupWidth - lineupGutter) / float64(len(list))
	for i, c := range list {
		x := lineupGutter + (float64(i)+0.5)*step
		var col LineupColumn
		if c.Room.DiameterMM > 0 {
			col.Room = standing(x, c.Room.DiameterMM, 0, scale, "")
		}
		if c.Room.WidthMM > 0 {
			half := c.Room.WidthMM / 2 * cutScale
			col.Walls = []N{N(x - half), N(x + half)}
		}
		for _, t := range []Tyre{c.Standard, c.Tyre} {
			if t.DiameterMM > 0 {
				col.Sides = append(col.Sides, standing(x, t.DiameterMM, t.RimMM, scale, t.Style))
				col.Cuts = append(col.Cuts, Cut{cutPath(t, x, cutGround, cutScale), t.Style})
			}
		}
		d.Columns = append(d.Columns, col)
	}
	return d
}

func standing(x, diameter, rim, scale float64, style Style) Circle {
	r := diameter / 2 * scale
	return Circle{Shown: true, X: N(x), Y: N(sideGround - r), R: N(r), Rim: N(rim / 2 * scale), Style: style}
}

// cutPath is the outline from bead to bead round the tread, standing on the
// ground: sides by an arc of the section's height, the crown a little flatter.
func cutPath(t Tyre, x, ground, scale float64) string {
	half := t.WidthMM / 2 * scale
	height := (t.DiameterMM - t.RimMM) / 2 * scale
	bead := half * 0.62
	top := ground - height
	shoulder := ground - height*0.42
	return fmt.Sprintf("M %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s C %s %s %s %s %s %s",
		N(x-bead), N(top),
		N(x-bead), N(top+height*0.2), N(x-half), N(top+height*0.25), N(x-half), N(shoulder),
		N(x-half), N(ground-height*0.1), N(x-half*0.55), N(ground), N(x), N(ground),
		N(x+half*0.55), N(ground), N(x+half), N(ground-height*0.1), N(x+half), N(shoulder),
		N(x+half), N(top+height*0.25), N(x+bead), N(top+height*0.2), N(x+bead), N(top))
}
