package draw

import (
	"fmt"
	"math"
	"strings"
)

// Ridden is how far a trip has come by its days against how far it was to be, with what went into
// the tank and what was left of the tread beneath.
type Ridden struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Top, Lower    N
	Base          N // on which the bars of fuel stand
	Planned       string
	Line          string
	Home          Level // the whole distance
	Values, Days  []Tick
	Dots          []RiddenDot
	Fuel          []RiddenBar
	Tread         []RiddenDot
}

// RiddenDot is the evening of a day, or a depth of tread.
type RiddenDot struct {
	X, Y  N
	Text  string // beside it, "" for most
	Title string
}

// RiddenBar is what went into the tank on a day.
type RiddenBar struct {
	X, Y, W, H N
	Title      string
}

// RiddenDay is one day: numbers in the reader's units, NaN for what nobody wrote down.
type RiddenDay struct {
	On          int // days since the first one
	Distance    float64
	Fuel, Tread float64
	Day         string // as its tick says
	Title       string
	FuelTitle   string
	TreadText   string
}

const (
	riddenWidth  = 800.0
	riddenTop    = 18.0
	riddenLower  = 214.0
	riddenBase   = 282.0
	riddenHeight = 300.0
	riddenFuel   = 34.0 // the highest bar
	riddenMost   = 60   // marks beside one another, of a day each or of several
	treadMost    = 14   // depths beside one another
)

// together puts so many days into one: where it was on the last evening, all that went in, the last depth.
func together(days []RiddenDay, n int) []RiddenDay {
	if n <= 1 {
		return days
	}
	var list []RiddenDay
	for from := 0; from < len(days); from += n {
		part := days[from:min(from+n, len(days))]
		last := part[len(part)-1]
		sum := last
		sum.Distance, sum.Fuel, sum.Tread = 0, 0, math.NaN()
		for _, day := range part {
			sum.Distance, sum.Fuel = sum.Distance+zero(day.Distance), sum.Fuel+zero(day.Fuel)
			if !math.IsNaN(day.Tread) {
				sum.Tread, sum.TreadText = day.Tread, day.TreadText
			}
		}
		sum.Title = fmt.Sprintf("%d days until %s", len(part), last.Day)
		sum.FuelTitle = sum.Title
		list = append(list, sum)
	}
	return list
}

// RiddenDays draws days against a distance over so many planned days; both NaN where nobody has said.
func RiddenDays(days []RiddenDay, distance, planned float64) Ridden {
	d := Ridden{Width: riddenWidth, Height: riddenHeight, Left: ladderLeft, Right: ladderRight, Top: riddenTop, Lower: riddenLower, Base: riddenBase}
	if len(days) == 0 {
		return d
	}
	d.Shown = true
	days = together(days, (len(days)+riddenMost-1)/riddenMost)
	sum, fuel := 0.0, 0.0
	for _, day := range days {
		sum, fuel = sum+zero(day.Distance), max(fuel, zero(day.Fuel))
	}
	last := float64(days[len(days)-1].On + 1)
	x := scale{0, max(last, zero(planned), 1), ladderLeft, ladderRight - 10}
	top := 1.06 * max(sum, zero(distance), 1)
	y := scale{0, top, riddenLower, riddenTop}
	if distance > 0 {
		d.Home = Level{true, y.of(distance), "home"}
		if planned > 0 {
			d.Planned = fmt.Sprintf("M%s %sL%s %s", x.of(0), y.of(0), x.of(planned), y.of(distance))
		}
	}
	var line strings.Builder
	fmt.Fprintf(&line, "M%s %s", x.of(0), y.of(0))
	at := 0.0
	width := max(2, float64(x.of(1)-x.of(0))*0.6)
	every, read := 1+len(days)/9, 0
	for _, day := range days {
		if !math.IsNaN(day.Tread) {
			read++
		}
	}
	seldom := (read + treadMost - 1) / treadMost
	for i, day := range days {
		at += zero(day.Distance)
		right := x.of(float64(day.On) + 1)
		fmt.Fprintf(&line, "L%s %s", right, y.of(at))
		d.Dots = append(d.Dots, RiddenDot{X: right, Y: y.of(at), Title: day.Title})
		if i%every == 0 {
			d.Days = append(d.Days, Tick{right, day.Day})
		}
		if day.Fuel > 0 {
			h := riddenFuel * day.Fuel / fuel
			d.Fuel = append(d.Fuel, RiddenBar{X: right - N(width/2), Y: riddenBase - N(h), W: N(width), H: N(h), Title: day.FuelTitle})
		}
		if math.IsNaN(day.Tread) {
			continue
		}
		if read--; read%seldom == 0 { // the last one is always there
			d.Tread = append(d.Tread, RiddenDot{X: right, Y: riddenBase, Text: day.TreadText, Title: day.TreadText})
		}
	}
	d.Line = line.String()
	for _, v := range steps(0, top, 5) {
		d.Values = append(d.Values, Tick{y.of(v), fmt.Sprintf("%.4g", v)})
	}
	return d
}

// zero is a number, or nothing.
func zero(v float64) float64 {
	if math.IsNaN(v) {
		return 0
	}
	return v
}
