package draw

import (
	"fmt"
	"math"
	"strconv"

	"valiantmule/internal/core/study/gearing"
)

// Fan is road speed against engine speed, a ray per gear.
type Fan struct {
	Width, Height           N
	Left, Right, Top, Lower N
	Rays                    []Ray
	Speeds, Engine          []Tick
	Cruise, Pace            Line // upright: the brief's speeds
	CruiseText, PaceText    string
	Comfort, Limit          Level // level: engine speeds
	Meet                    Point // top gear at the cruise
	Shown                   bool
}

// Ray is one gear.
type Ray struct {
	X1, Y1, X2, Y2 N
	Gear           string
	Style          Style
}

// Level is an engine speed across the plot.
type Level struct {
	Shown bool
	Y     N
	Text  string
}

// Point with a word.
type Point struct {
	Shown bool
	X, Y  N
	Text  string
}

// FanLimits are the speeds that the fan is read against; NaN when there is none.
type FanLimits struct {
	Cruise, Pace          float64 // road speeds, in Unit
	CruiseRPM, ComfortRPM float64
	Unit                  string // of road speeds, here and in the gears
}

const (
	fanWidth  = 760.0
	fanHeight = 340.0
	fanLeft   = 58.0
	fanRight  = 720.0
	fanTop    = 18.0
	fanLower  = 296.0
)

// SpeedFan draws the gears, which must not be empty, over the ones before a
// change, which may. Road speeds may be in any unit, all in the same.
func SpeedFan(gears, before []gearing.GearRange, limits FanLimits) Fan {
	fastest, highest := 0.0, 0.0
	for _, list := range [][]gearing.GearRange{gears, before} {
		for _, g := range list {
			fastest, highest = max(fastest, g.ToKmh), max(highest, g.ToRPM)
		}
	}
	x := scale{0, fastest * 1.04, fanLeft, fanRight}
	y := scale{0, highest * 1.06, fanLower, fanTop}
	d := Fan{Shown: true, Width: fanWidth, Height: fanHeight, Left: fanLeft, Right: fanRight, Top: fanTop, Lower: fanLower}
	rays := func(list []gearing.GearRange, style Style) {
		for _, g := range list {
			d.Rays = append(d.Rays, Ray{
				X1: x.of(g.FromKmh), Y1: y.of(g.FromRPM), X2: x.of(g.ToKmh), Y2: y.of(g.ToRPM), Gear: strconv.Itoa(g.Gear), Style: style,
			})
		}
	}
	rays(before, Ghost)
	rays(gears, Current)
	for _, v := range steps(0, fastest, 8) {
		d.Speeds = append(d.Speeds, Tick{x.of(v), strconv.FormatFloat(v, 'f', -1, 64)})
	}
	for _, v := range steps(0, highest, 6) {
		d.Engine = append(d.Engine, Tick{y.of(v), strconv.FormatFloat(v, 'f', -1, 64)})
	}
	if v := limits.Cruise; !math.IsNaN(v) {
		d.Cruise, d.CruiseText = Line{v <= fastest, x.of(v)}, fmt.Sprintf("cruise %.0f %s", v, limits.Unit)
		top := gears[len(gears)-1]
		d.Meet = Point{v <= top.ToKmh, x.of(v), y.of(top.CruiseRPM), fmt.Sprintf("%.0f rpm", top.CruiseRPM)}
	}
	if v := limits.Pace; !math.IsNaN(v) {
		d.Pace, d.PaceText = Line{true, x.of(v)}, fmt.Sprintf("walking pace %.3g %s", v, limits.Unit)
	}
	if v := limits.CruiseRPM; !math.IsNaN(v) {
		d.Limit = Level{v <= highest, y.of(v), fmt.Sprintf("cruise limit %.0f rpm", v)}
	}
	if v := limits.ComfortRPM; !math.IsNaN(v) && v != limits.CruiseRPM {
		d.Comfort = Level{v <= highest, y.of(v), fmt.Sprintf("comfortable to %.0f rpm", v)}
	}
	return d
}
