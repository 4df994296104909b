package draw

import (
	"fmt"
	"strings"
)

// Learnt is an estimate and its band after each fill, with what each fill says by
// itself.
type Learnt struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Top, Lower    N
	Band, Middle  string
	Dots          []FillDot
	Values        []Tick
	Days          []Tick
	Paper         Level
}

// FillDot is one fill; a flagged one has another shape.
type FillDot struct {
	X, Y    N
	Flagged bool
	Title   string
	Href    string
}

// Estimate is the middle and the half width of the band after so many fills.
type Estimate struct{ Mid, Half float64 }

// Said is what one tankful says by itself.
type Said struct {
	Value   float64
	Flagged bool
	Day     string
	Title   string
}

const (
	learntWidth  = 800.0
	learntHeight = 270.0
	learntTop    = 18.0
	learntLower  = 226.0
)

// Estimates draws how an estimate settles: the stands are one more than the fills.
func Estimates(stands []Estimate, fills []Said, paper float64) Learnt {
	d := Learnt{Width: learntWidth, Height: learntHeight, Left: ladderLeft, Right: ladderRight, Top: learntTop, Lower: learntLower}
	if len(stands) == 0 {
		return d
	}
	d.Shown = true
	low, high := stands[0].Mid-stands[0].Half, stands[0].Mid+stands[0].Half
	for _, f := range fills {
		low, high = min(low, f.Value), max(high, f.Value)
	}
	pad := 0.06 * (high - low)
	y := scale{low - pad, high + pad, learntLower, learntTop}
	x := scale{0, float64(max(1, len(fills))), ladderLeft, ladderRight - 10}
	var up, mid strings.Builder
	down := ""
	for i, s := range stands {
		word := "L"
		if i == 0 {
			word = "M"
		}
		at := x.of(float64(i))
		fmt.Fprintf(&up, "%s%s %s", word, at, y.of(s.Mid+s.Half))
		fmt.Fprintf(&mid, "%s%s %s", word, at, y.of(s.Mid))
		down = fmt.Sprintf("L%s %s", at, y.of(s.Mid-s.Half)) + down
	}
	d.Band, d.Middle = up.String()+down+"Z", mid.String()
	every := 1 + len(fills)/9
	for i, f := range fills {
		d.Dots = append(d.Dots, FillDot{X: x.of(float64(i + 1)), Y: y.of(f.Value), Flagged: f.Flagged, Title: f.Title})
		if i%every == 0 {
			d.Days = append(d.Days, Tick{x.of(float64(i + 1)), f.Day})
		}
	}
	for _, v := range steps(low-pad, high+pad, 5) {
		d.Values = append(d.Values, Tick{y.of(v), fmt.Sprintf("%.3g", v)})
	}
	if paper > low-pad && paper < high+pad {
		d.Paper = Level{true, y.of(paper), "on the sheet"}
	}
	return d
}
