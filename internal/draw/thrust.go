package draw

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/study/gearing"
)

// Thrust is the pull of each gear against slopes, over road speed.
type Thrust struct {
	Shown                   bool
	Width, Height           N
	Left, Right, Top, Lower N
	Gears                   []GearCurve // those of before first, as ghosts
	Slopes                  []GearCurve // resistance; the label is the slope
	Speeds, Newtons         []Tick
	Traction, Wheelie       Level
	LevelX                  N // where their texts end: left of the slopes' labels
	TractionDY, WheelieDY   N // above their lines, but the lower of two that are close
	Cruise                  Line
	CruiseText              string
}

// GearCurve is one line with the place of its label.
type GearCurve struct {
	Path  string
	X, Y  N
	Text  string
	Style Style
}

const (
	thrustWidth  = 760.0
	thrustHeight = 400.0
	thrustLeft   = 62.0
	thrustRight  = 700.0
	thrustTop    = 20.0
	thrustLower  = 352.0
)

// labelHeight is what a label takes.
const labelHeight = 14

// spare takes labels away that would stand on another; what the brief wishes stays.
func spare(slopes []GearCurve) {
	var kept []*GearCurve
	for _, wished := range []bool{true, false} {
		for i := range slopes {
			s := &slopes[i]
			if s.Text == "" || (s.Style == Standard) != wished {
				continue
			}
			if slices.ContainsFunc(kept, func(k *GearCurve) bool { return math.Abs(float64(k.Y-s.Y)) < labelHeight }) {
				s.Text = ""
				continue
			}
			kept = append(kept, s)
		}
	}
}

// ThrustDiagram draws the chart over the gears of before; speeds turns km/h into
// what is shown, in unit.
func ThrustDiagram(c gearing.ThrustChart, before []gearing.GearThrust, speeds func(kmh float64) float64, unit string) Thrust {
	d := Thrust{Shown: true, Width: thrustWidth, Height: thrustHeight, Left: thrustLeft, Right: thrustRight, Top: thrustTop, Lower: thrustLower}
	fastest, most := 0.0, 0.0
	for _, g := range slices.Concat(before, c.Gears) {
		for _, p := range g.Points {
			fastest, most = max(fastest, p.Kmh), max(most, p.Newton)
		}
	}
	x := scale{0, speeds(fastest) * 1.02, thrustLeft, thrustRight}
	y := scale{0, most * 1.06, thrustLower, thrustTop}
	curve := func(points []gearing.ThrustPoint) string {
		var b strings.Builder
		word := "M"
		for _, p := range points {
			if p.Newton > most*1.06 {
				continue // above the plot
			}
			fmt.Fprintf(&b, "%s %s %s ", word, x.of(speeds(p.Kmh)), y.of(p.Newton))
			word = "L"
		}
		return strings.TrimSpace(b.String())
	}
	for _, s := range c.Slopes {
		last := s.Points[len(s.Points)-1]
		for _, p := range s.Points {
			if p.Newton <= most*1.06 {
				last = p
			}
		}
		if path := curve(s.Points); path != "" {
			line := GearCurve{path, x.of(speeds(last.Kmh)), y.of(last.Newton), fmt.Sprintf("%.0f %%", 100*s.Slope), Ghost}
			if s.Wished {
				line.Style, line.Text = Standard, line.Text+", the brief's"
			}
			if line.Y < thrustTop+16 || (last != s.Points[len(s.Points)-1] && !s.Wished) {
				line.Text = "" // it leaves the plot at the top, where the limits are written
			}
			d.Slopes = append(d.Slopes, line)
		}
	}
	spare(d.Slopes)
	for _, g := range before {
		d.Gears = append(d.Gears, GearCurve{Path: curve(g.Points), Style: Ghost})
	}
	for _, g := range c.Gears {
		peak := g.Points[0]
		for _, p := range g.Points {
			if p.Newton > peak.Newton {
				peak = p
			}
		}
		d.Gears = append(d.Gears, GearCurve{curve(g.Points), x.of(speeds(peak.Kmh)), y.of(peak.Newton), fmt.Sprint(g.Gear), Current})
	}
	for _, v := range steps(0, speeds(fastest), 8) {
		d.Speeds = append(d.Speeds, Tick{x.of(v), fmt.Sprintf("%.4g", v)})
	}
	for _, v := range steps(0, most, 6) {
		d.Newtons = append(d.Newtons, Tick{y.of(v), fmt.Sprintf("%.4g", v)})
	}
	level := func(l gearing.Limit, text string) Level {
		in := l.Newton > 0 && l.Newton <= most*1.06
		return Level{in, y.of(l.Newton), fmt.Sprintf("%s at %.0f %%", text, 100*l.Slope)}
	}
	d.Traction, d.Wheelie = level(c.Traction, "the wheel spins"), level(c.Wheelie, "the front lifts")
	d.LevelX, d.TractionDY, d.WheelieDY = x.of(speeds(fastest))-8, -5, -5
	if math.Abs(float64(d.Traction.Y-d.Wheelie.Y)) < labelHeight {
		if d.Traction.Y > d.Wheelie.Y {
			d.TractionDY = labelHeight
		} else {
			d.WheelieDY = labelHeight
		}
	}
	if !math.IsNaN(c.CruiseAt) {
		d.Cruise = Line{c.CruiseAt <= fastest, x.of(speeds(c.CruiseAt))}
		d.CruiseText = fmt.Sprintf("cruise %.0f %s", speeds(c.CruiseAt), unit)
	}
	return d
}
