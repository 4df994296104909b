package draw

import "strings"

// OneLine is a wiring diagram with one line for both wires: the battery, a bus, a box where
// there is one, and a row for each circuit.
type OneLine struct {
	Shown         bool
	Width, Height N
	Bus           N // its place across
	Top, Bottom   N // of the bus
	BatteryY      N
	Battery       string
	Box           OneBox
	Rows          []OneRow
}

// OneBox is the distribution box.
type OneBox struct {
	Shown   bool
	Y, H    N
	FeedY   N
	Name    string
	Feed    string // main fuse and wire
	Waits   string // its delay
	TextY   N
	FeedTop N
}

// OneRow is one circuit, or a channel with nothing on it.
type OneRow struct {
	OneCircuit
	Y N
}

// OneCircuit is what a row is drawn from.
type OneCircuit struct {
	Name, Draws string
	Channel     string // of the box, "" for a fuse of its own
	Fuse        string
	Feed        string // what switches it
	Always      bool   // nothing does
	Relay       bool
	Wire        string
	Spare, Bad  bool
}

const (
	oneWidth = 880.0
	oneRow   = 46.0
	oneTop   = 52.0
)

// OneLineOf draws circuits: those on channels of a box first, then those with fuses of their own.
func OneLineOf(battery, box, feed, waits string, circuits []OneCircuit) OneLine {
	d := OneLine{Width: oneWidth, Bus: 128, Battery: battery, Shown: len(circuits) > 0}
	channels := 0
	for _, own := range []bool{false, true} {
		for _, c := range circuits {
			if (c.Channel == "") != own {
				continue
			}
			if own && channels > 0 && len(d.Rows) == channels { // a gap under the box
				d.Height += 10
			}
			c.Name = shortened(c.Name, 40)
			d.Rows = append(d.Rows, OneRow{c, N(oneTop+oneRow*float64(len(d.Rows))) + d.Height})
			if !own {
				channels++
			}
		}
	}
	if len(d.Rows) == 0 {
		return d
	}
	d.Top, d.Bottom = d.Rows[0].Y, d.Rows[len(d.Rows)-1].Y
	if channels > 0 {
		first, last := d.Rows[0].Y, d.Rows[channels-1].Y
		d.Box = OneBox{Shown: true, Y: first - 22, H: last - first + 44, FeedY: (first + last) / 2, Name: box, Feed: feed, Waits: waits}
		d.Box.TextY, d.Box.FeedTop = d.Box.Y-8, d.Box.FeedY-10
		d.Top = d.Box.FeedY
		if channels == len(d.Rows) {
			d.Bottom = d.Box.FeedY
		}
	}
	d.BatteryY = d.Top
	d.Height = d.Rows[len(d.Rows)-1].Y + 34
	return d
}

// shortened is a text with so many letters at most; what stands beside the drawing has all.
func shortened(text string, most int) string {
	letters := []rune(text)
	if len(letters) <= most {
		return text
	}
	return strings.TrimRight(string(letters[:most-1]), " ,") + "…"
}
