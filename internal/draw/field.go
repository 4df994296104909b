package draw

import (
	"math"
	"strconv"

	"valiantmule/internal/core/study/gearing"
)

// Field is the sprocket field: a row per front sprocket, a mark per rear one,
// placed by ratio. Walking pace and engine speed both follow from the ratio, so
// one axis carries three scales, and what the brief allows is a band across it.
type Field struct {
	Width, Height           N
	Left, Right, Top, Lower N // the plot
	Rows                    []FieldRow
	Marks                   []Mark
	Pace, RPM               []Tick
	PaceLine, RPMLine       Line      // the brief's two limits
	HoldLine                Line      // from here to the right top gear holds the cruise
	Captions                []Caption // of the lines, above all marks
	Climb                   []Tick    // slopes at walking pace
	ClimbY                  N         // of their scale, below the engine's
	Window                  Span      // between them; empty when no ratio does both
	Gap                     Span      // where neither holds, when the window is empty
	Cruise                  string
}

// Depth of the plot.
func (f Field) Depth() N { return f.Lower - f.Top }

// FieldRow is one front sprocket.
type FieldRow struct {
	Front int
	Y     N
}

// Mark is one pair.
type Mark struct {
	X, Y    N
	Figures gearing.PairFigures
}

// Line is a limit across the plot.
type Line struct {
	Shown bool
	X     N
}

// Caption is what a line is called, on the side of it where there is room.
type Caption struct {
	X, Y   N
	Anchor string
	Text   string
}

// Span is a stretch of the plot.
type Span struct {
	Shown    bool
	X, Width N
}

const (
	fieldWidth = 760.0
	fieldLeft  = 58.0
	fieldRight = 742.0
	fieldTop   = 30.0
	rowHeight  = 46.0

	captionHeight = 14.0
	captionWidth  = 180.0 // of the longest
)

// SprocketField places the pairs of a field, which must have some.
func SprocketField(f gearing.SprocketField) Field {
	low, high := math.Inf(1), math.Inf(-1)
	for _, p := range f.Pairs {
		low, high = min(low, p.Pair.Ratio()), max(high, p.Pair.Ratio())
	}
	if low == high {
		low, high = low*0.9, high*1.1
	}
	x := scale{low, high, fieldLeft + 16, fieldRight - 16}
	d := Field{Width: fieldWidth, Left: fieldLeft, Right: fieldRight, Top: fieldTop}
	d.lines(f, x)
	top := fieldTop + captionHeight*float64(len(d.Captions))
	rows := map[int]N{}
	for _, p := range f.Pairs {
		y, seen := rows[p.Pair.Front]
		if !seen {
			y = N(top + rowHeight*(float64(len(rows))+0.5))
			rows[p.Pair.Front] = y
			d.Rows = append(d.Rows, FieldRow{p.Pair.Front, y})
		}
		d.Marks = append(d.Marks, Mark{X: x.of(p.Pair.Ratio()), Y: y, Figures: p})
	}
	d.Lower = N(top + rowHeight*float64(len(rows)))
	d.Height = d.Lower + 26
	if !math.IsNaN(f.PaceByRatio) {
		for _, v := range steps(f.PaceByRatio/high, f.PaceByRatio/low, 9) {
			d.Pace = append(d.Pace, Tick{x.of(f.PaceByRatio / v), strconv.FormatFloat(v, 'f', -1, 64)})
		}
	}
	if !math.IsNaN(f.RPMByRatio) {
		for _, v := range steps(f.RPMByRatio*low, f.RPMByRatio*high, 7) {
			d.RPM = append(d.RPM, Tick{x.of(v / f.RPMByRatio), strconv.FormatFloat(v, 'f', -1, 64)})
		}
		d.Cruise = strconv.FormatFloat(math.Round(f.CruiseKmh), 'f', -1, 64)
	}
	if f.ClimbKnown {
		d.ClimbY = d.Height + 4
		d.Height += 30
		for _, v := range steps(f.ClimbAt(low), f.ClimbAt(high), 7) {
			at := x.of(ratioFor(f.ClimbAt, v, low, high))
			if n := len(d.Climb); n == 0 || at-d.Climb[n-1].At >= ticksApart { // where grip ends, all slopes stand in one place
				d.Climb = append(d.Climb, Tick{at, strconv.FormatFloat(v, 'f', -1, 64)})
			}
		}
	}
	return d
}

// ticksApart is how far two ticks have to be from one another for their numbers to be read.
const ticksApart = 30

// lines places the limits, what they are called, and the window between them.
func (d *Field) lines(f gearing.SprocketField, x scale) {
	low, high := x.from, x.to
	least, most := f.Window()
	for _, l := range []struct {
		line  *Line
		ratio float64
		text  string
	}{
		{&d.PaceLine, least, "slow enough from here"}, {&d.HoldLine, f.HoldRatio, "top gear holds the cruise from here"}, {&d.RPMLine, most, "too busy from here"},
	} {
		if *l.line = (Line{l.ratio >= low && l.ratio <= high, x.of(l.ratio)}); !l.line.Shown {
			continue
		}
		c := Caption{l.line.X + 5, N(fieldTop + captionHeight*(float64(len(d.Captions))+1) - 2), "start", l.text}
		if l.line.X+captionWidth > fieldRight {
			c.X, c.Anchor = l.line.X-5, "end"
		}
		d.Captions = append(d.Captions, c)
	}
	held := func(ratio float64) N { return x.of(min(max(ratio, low-0.02), high+0.02)) }
	switch {
	case math.IsNaN(least) || math.IsNaN(most):
	case least <= most && most >= low && least <= high:
		d.Window = Span{true, held(least), held(most) - held(least)}
	case least > most:
		d.Gap = Span{true, held(most), held(least) - held(most)}
	}
}

// ratioFor is the ratio at which a rising function comes to v, by halving.
func ratioFor(of func(float64) float64, v, low, high float64) float64 {
	for range 30 {
		if middle := (low + high) / 2; of(middle) < v {
			low = middle
		} else {
			high = middle
		}
	}
	return low
}
