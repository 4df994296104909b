package draw

import (
	"fmt"
	"math"

	"valiantmule/internal/core/drive"
)

// ChainRun is the chain from the side on its two sprockets, with the axle in its
// slot, and the slot once more enlarged.
type ChainRun struct {
	Shown         bool
	Width, Height N
	Sprockets     []Circle // rear, then front, at their pitch circles
	Runs          []string // upper and lower, as paths
	Teeth         []Tick   // how many, at the sprockets
	AxisY         N        // of the shafts
	SlotX, SlotW  N        // on the bike
	SlotY, SlotH  N
	Zoomed        bool // the slot's ends are known
	ZoomX, ZoomW  N
	ZoomY, ZoomH  N
	ZoomTicks     []Tick
	Marks         []SlotMark
}

// SlotMark is a place of the axle in its slot.
type SlotMark struct {
	X     N
	Text  string
	Style Style
	Out   bool // beyond the slot's end
	Row   N    // y of its words, so that neighbours do not overlap
}

// AxlePlace is where something puts the axle, mm from where it was, + is back.
type AxlePlace struct {
	ShiftMM float64
	Text    string
	Style   Style
}

const (
	chainWidth = 760.0
	zoomBelow  = 52.0 // from the big sprocket to the enlarged slot
	zoomHeight = 22.0
	zoomSpan   = 420.0 // view-box units over the slot
	zoomReach  = 0.22  // of the slot's length that is shown beyond its ends
)

// Chain draws a pair of sprockets at a centre distance; the first place is where
// the chain that is on puts the axle. The wheel is on the left.
func Chain(p drive.Pair, pitchMM, centreMM float64, slot drive.Adjuster, places []AxlePlace) ChainRun {
	d := ChainRun{Width: chainWidth}
	if p.Front == 0 || p.Rear == 0 || !(centreMM > 0) || !(pitchMM > 0) {
		return d
	}
	d.Shown = true
	rear, front := drive.PitchRadiusMM(p.Rear, pitchMM), drive.PitchRadiusMM(p.Front, pitchMM)
	scale := (chainWidth - 90) / (centreMM + rear + front)
	xr := 40 + rear*scale
	xf := xr + centreMM*scale
	chainY := 8 + rear*scale
	zoomY := chainY + rear*scale + zoomBelow
	d.AxisY, d.Height = N(chainY), N(zoomY+64)
	d.Sprockets = []Circle{
		{Shown: true, X: N(xr), Y: N(chainY), R: N(rear * scale)}, {Shown: true, X: N(xf), Y: N(chainY), R: N(front * scale)},
	}
	// The straight runs touch both pitch circles: their slope is (R − r) / a.
	lean := math.Asin((rear - front) / centreMM)
	for _, side := range []float64{-1, 1} {
		dx, dy := math.Sin(lean), side*math.Cos(lean)
		d.Runs = append(d.Runs, fmt.Sprintf("M %s %s L %s %s",
			N(xr+rear*scale*dx), N(chainY+rear*scale*dy), N(xf+front*scale*dx), N(chainY+front*scale*dy)))
	}
	d.Teeth = []Tick{{N(xr), fmt.Sprintf("%d", p.Rear)}, {N(xf), fmt.Sprintf("%d", p.Front)}}
	length := slot.ForwardMM + slot.BackMM
	if !(length > 0) {
		return d
	}
	d.Zoomed = true
	d.SlotX, d.SlotW, d.SlotY, d.SlotH = N(xr-slot.BackMM*scale), N(length*scale), N(chainY-5), 10
	zoom := zoomSpan / length
	origin := chainWidth/2 + (slot.BackMM-slot.ForwardMM)/2*zoom // where the axle was; back is left
	d.ZoomX, d.ZoomW, d.ZoomY, d.ZoomH = N(origin-slot.BackMM*zoom), N(zoomSpan), N(zoomY), zoomHeight
	for _, v := range steps(-slot.BackMM, slot.ForwardMM, 8) {
		text := fmt.Sprintf("%.4g", math.Abs(v))
		d.ZoomTicks = append(d.ZoomTicks, Tick{N(origin + v*zoom), text})
	}
	row := 0
	for _, place := range places {
		if math.IsNaN(place.ShiftMM) || math.IsInf(place.ShiftMM, 0) {
			continue
		}
		m := SlotMark{Text: place.Text, Style: place.Style, Row: N(zoomY - 12 - 15*float64(row%3))}
		m.Out = !slot.Reaches(place.ShiftMM)
		beyond := zoomReach * length
		m.X = N(origin - min(max(place.ShiftMM, -slot.ForwardMM-beyond), slot.BackMM+beyond)*zoom)
		d.Marks = append(d.Marks, m)
		row++
	}
	return d
}
