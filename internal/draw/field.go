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
	PaceLine, RPMLine       Line   // the brief's two limits
	HoldLine                Line   // from here to the right top gear holds the cruise
	Climb                   []Tick // slopes at walking pace
	Window                  Span   // between them; empty when no ratio does both
	Gap                     Span   // where neither holds, when the window is empty
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
	rows := map[int]N{}
	for _, p := range f.Pairs {
		y, seen := rows[p.Pair.Front]
		if !seen {
			y = N(fieldTop + rowHeight*(float64(len(rows))+0.5))
			rows[p.Pair.Front] = y
			d.Rows = append(d.Rows, FieldRow{p.Pair.Front, y})
		}
		d.Marks = append(d.Marks, Mark{X: x.of(p.Pair.Ratio()), Y: y, Figures: p})
	}
	d.Lower = N(fieldTop + rowHeight*float64(len(rows)))
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
		d.Height += 30
		for _, v := range steps(f.ClimbAt(low), f.ClimbAt(high), 7) {
			d.Climb = append(d.Climb, Tick{x.of(ratioFor(f.ClimbAt, v, low, high)), strconv.FormatFloat(v, 'f', -1, 64)})
		}
	}
	d.HoldLine = Line{f.HoldRatio >= low && f.HoldRatio <= high, x.of(f.HoldRatio)}
	least, most := f.Window()
	held := func(ratio float64) N { return x.of(min(max(ratio, low-0.02), high+0.02)) }
	d.PaceLine = Line{least >= low && least <= high, x.of(least)}
	d.RPMLine = Line{most >= low && most <= high, x.of(most)}
	switch {
	case math.IsNaN(least) || math.IsNaN(most):
	case least <= most && most >= low && least <= high:
		d.Window = Span{true, held(least), held(most) - held(least)}
	case least > most:
		d.Gap = Span{true, held(most), held(least) - held(most)}
	}
	return d
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
