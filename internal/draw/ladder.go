package draw

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

// Profile is the heights of a way over its distance, with the grounds as a strip
// under it.
type Profile struct {
	Area       string
	Top, Lower N // of the heights
	StripY     N // of the strip's middle
	Strips     []Strip
	Highest    string
	HighX      N
	HighY      N
}

// Strip is a stretch of ground.
type Strip struct {
	X, Width N
	Ground   terrain.Kind
	Name     string // "" where there is no room for it
	Title    string
}

// Ladder is the fuel ladder: the level in the tank falling along the way from rung
// to rung, over the heights and the grounds.
type Ladder struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Top, Lower    N // of the levels
	Litres        []Tick
	Kms           []Tick
	ReserveY      N
	Legs          []LadderLeg
	Pumps         []Pump // rungs
	Profile       Profile
}

// LadderLeg is one leg as drawn.
type LadderLeg struct {
	X, Width     N
	Band, Middle string
	State        string // "ok", "thirsty" or "short"
	Text         string // how much is left, or lacks
	TextX, TextY N
	Title        string
}

const (
	ladderWidth  = 800.0
	ladderLeft   = 46.0
	ladderRight  = 786.0
	ladderTop    = 62.0
	ladderLower  = 262.0
	heightsTop   = 286.0
	heightsLower = 350.0
	stripY       = 360.0
	ladderHeight = 412.0
)

// FuelLadder draws a ladder. Litres and km turn numbers into what is shown, height
// writes one of heights.
func FuelLadder(l ranging.Ladder, legs []facts.Leg, route *plan.Route, nodes []track.Node, pumps []Pump, litres, km func(v float64) (shown float64, text string), height func(m float64) string) Ladder {
	d := Ladder{Shown: true, Width: ladderWidth, Height: ladderHeight, Left: ladderLeft, Right: ladderRight, Top: ladderTop, Lower: ladderLower}
	x := scale{0, l.LengthKm, ladderLeft, ladderRight}
	y := scale{0, l.FullL * 1.04, ladderLower, ladderTop}
	d.ReserveY = y.of(l.ReserveL)
	for i, run := range l.Runs {
		leg := legs[run.Leg]
		from, to := x.of(leg.FromKm), x.of(leg.ToKm)
		drawn := LadderLeg{X: from, Width: to - from, State: "ok", TextX: (from + to) / 2, TextY: ladderLower - 6}
		drawn.Band, drawn.Middle = levels(run.Levels, x, y)
		switch {
		case leg.Short():
			drawn.State = "short"
			_, text := litres(-leg.MarginL)
			drawn.Text = text + " short"
		case leg.Thirsty():
			drawn.State = "thirsty"
			drawn.Text = "tight"
		}
		if drawn.Width < 34 {
			drawn.Text = ""
		}
		drawn.Title = fmt.Sprintf("Leg %d, %s to %s", i+1, leg.From, leg.To)
		d.Legs = append(d.Legs, drawn)
	}
	for i, p := range pumps {
		p.X, p.Y = x.of(route.Stops[i].At.In("km")), ladderTop-14
		p.LabelX, p.LabelY, p.Anchor = p.X, N(ladderTop-30-16*float64(i%2)), anchorAt(p.X)
		d.Pumps = append(d.Pumps, p)
	}
	most, _ := litres(l.FullL)
	for _, v := range steps(0, most, 5) {
		d.Litres = append(d.Litres, Tick{y.of(v * l.FullL / most), fmt.Sprintf("%.4g", v)})
	}
	d.Kms = kilometres(l.LengthKm, x, km)
	d.Profile = profile(nodes, route, x, heightsTop, heightsLower, height)
	d.Profile.StripY = stripY
	return d
}

// kilometres are the marks of a distance scale; the last has the unit.
func kilometres(length float64, x scale, km func(v float64) (float64, string)) []Tick {
	far, _ := km(length)
	list := steps(0, far, 9)
	ticks := make([]Tick, len(list))
	for i, v := range list {
		ticks[i] = Tick{x.of(v * length / far), fmt.Sprintf("%.5g", v)}
	}
	return ticks
}

func anchorAt(x N) string {
	switch {
	case x < ladderLeft+50:
		return "start"
	case x > ladderRight-50:
		return "end"
	}
	return "middle"
}

// levels are the outline of a leg's band and its middle; below zero it is the floor.
func levels(list []ranging.Level, x, y scale) (band, middle string) {
	var up, mid strings.Builder
	down := ""
	for i, v := range list {
		word := "L"
		if i == 0 {
			word = "M"
		}
		fmt.Fprintf(&up, "%s%s %s", word, x.of(v.Km), y.of(max(0, min(v.High, list[0].High))))
		fmt.Fprintf(&mid, "%s%s %s", word, x.of(v.Km), y.of(max(0, v.Mid)))
		down = fmt.Sprintf("L%s %s", x.of(v.Km), y.of(max(0, v.Low))) + down
	}
	return up.String() + down + "Z", mid.String()
}

// profile draws heights between two lines, and the grounds of the route.
func profile(nodes []track.Node, route *plan.Route, x scale, top, lower float64, words func(m float64) string) Profile {
	d := Profile{Top: N(top), Lower: N(lower)}
	low, high, at := nodes[0].EleM(), nodes[0].EleM(), 0.0
	for _, n := range nodes {
		low = min(low, n.EleM())
		if n.EleM() > high {
			high, at = n.EleM(), n.Km()
		}
	}
	y := scale{low, max(high, low+50), lower, top}
	var b strings.Builder
	fmt.Fprintf(&b, "M%s %s", x.of(nodes[0].Km()), N(lower))
	for _, n := range nodes {
		fmt.Fprintf(&b, "L%s %s", x.of(n.Km()), y.of(n.EleM()))
	}
	fmt.Fprintf(&b, "L%s %sZ", x.of(nodes[len(nodes)-1].Km()), N(lower))
	d.Area = b.String()
	if high > low {
		d.Highest, d.HighX, d.HighY = words(high), x.of(at), y.of(high)
	}
	if route == nil {
		return d
	}
	for _, s := range stretches(route) {
		strip := Strip{X: x.of(s.from), Width: x.of(s.to) - x.of(s.from), Ground: s.ground, Title: groundName(s.ground)}
		if word := shortGrounds[s.ground]; float64(strip.Width) > 6*float64(len(word))+4 {
			strip.Name = word
		}
		d.Strips = append(d.Strips, strip)
	}
	return d
}

// shortGrounds are words that fit under a strip.
var shortGrounds = map[terrain.Kind]string{
	terrain.Motorway: "motorway", terrain.Paved: "road", terrain.SmoothGravel: "gravel", terrain.RoughGravel: "rock", terrain.Track: "track",
	terrain.Mud: "mud", terrain.Sand: "sand", terrain.SingleTrack: "single", "": "not said",
}

// Sections is the profile by itself, to set the ground of stretches on.
type Sections struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Length        float64 // km of the whole way, for what is dragged
	Kms           []Tick
	Profile       Profile
	Pumps         []Pump
}

const (
	sectionsHeight = 190.0
	sectionsTop    = 34.0
	sectionsLower  = 124.0
)

// RouteSections draws the profile of a route.
func RouteSections(route *plan.Route, pumps []Pump, km func(v float64) (float64, string), height func(m float64) string) Sections {
	d := Sections{Width: ladderWidth, Height: sectionsHeight, Left: ladderLeft, Right: ladderRight}
	if route == nil {
		return d
	}
	d.Shown, d.Length = true, route.LengthKm()
	x := scale{0, d.Length, ladderLeft, ladderRight}
	d.Profile = profile(route.Nodes, route, x, sectionsTop, sectionsLower, height)
	d.Profile.StripY = sectionsLower + 12
	d.Kms = kilometres(d.Length, x, km)
	for i, p := range pumps {
		p.X, p.Y = x.of(route.Stops[i].At.In("km")), sectionsTop-16
		d.Pumps = append(d.Pumps, p)
	}
	return d
}
