package draw

import "math"

// Weeks is jobs over the weeks until departure, in lanes by what is taken apart meanwhile.
type Weeks struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Top, Lower    N
	Lanes         []WeekLane
	Ticks         []WeekTick
	Leaves        Level // x of the day of departure; Text is said where it lies beyond the right end
	Beyond        string
	From, To      N // of the band from the middle to four times in five
}

// BandWidth and BandHeight of that band.
func (w Weeks) BandWidth() N  { return max(1, w.To-w.From) }
func (w Weeks) BandHeight() N { return w.Lower - w.Top }

// WeekLane is one place with what is done while it is open.
type WeekLane struct {
	Name   string
	Y      N // of its middle
	Open   []WeekBlock
	Marks  []WeekMark
	Shaded bool
}

// WeekBlock is a place that is open, from the first job there to the last.
type WeekBlock struct {
	X, Y, Width, Height N
	Holds               bool // the day of departure hangs on it
	Title               string
}

// WeekMark is something that comes on a day.
type WeekMark struct {
	X, Y  N
	Holds bool
	Title string
}

// WeekTick is a week's beginning, with its date where there is room for it.
type WeekTick struct {
	X    N
	Text string
}

// WeekSpan is a block before it is drawn: days from today.
type WeekSpan struct {
	Lane     int
	From, To float64
	Holds    bool
	Title    string
	Point    bool // it comes on a day and takes no room
}

const (
	weeksWidth = 900.0
	weeksLeft  = 150.0
	weeksRight = 886.0
	weeksTop   = 34.0
	weeksLane  = 30.0
	weeksBlock = 18.0
	weeksLeast = 7.0    // px of the shortest block
	weeksMost  = 1100.0 // days that are drawn; what is later lies at the end
)

// WeeksOf draws spans in lanes. Ready and middle are moments in days from today, leaves is NaN
// where nobody has said; day writes the date of a day.
func WeeksOf(lanes []string, spans []WeekSpan, monday int, middle, ready, leaves float64, day func(int) string) Weeks {
	d := Weeks{Width: weeksWidth, Left: weeksLeft, Right: weeksRight, Top: weeksTop}
	if len(lanes) == 0 || math.IsInf(ready, 0) {
		return d
	}
	d.Shown = true
	end := math.Max(7, ready) + 2
	for _, s := range spans {
		end = math.Max(end, s.To+1)
	}
	end = math.Min(end, weeksMost)
	if leaves > end && leaves <= 1.8*end {
		end = leaves + 2
	}
	x := scale{0, end, weeksLeft, weeksRight}
	for i, name := range lanes {
		d.Lanes = append(d.Lanes, WeekLane{Name: name, Y: N(weeksTop + (float64(i)+0.5)*weeksLane), Shaded: i%2 == 1})
	}
	d.Lower = N(weeksTop + float64(len(lanes))*weeksLane)
	d.Height = d.Lower + 24
	for _, s := range spans {
		lane := &d.Lanes[s.Lane]
		s.From, s.To = math.Min(s.From, end), math.Min(s.To, end)
		if s.Point {
			lane.Marks = append(lane.Marks, WeekMark{x.of(math.Max(0, s.To)), lane.Y, s.Holds, s.Title})
			continue
		}
		from, to := x.of(math.Max(0, s.From)), x.of(s.To)
		if to-from < weeksLeast {
			to = from + weeksLeast
		}
		lane.Open = append(lane.Open, WeekBlock{from, lane.Y - weeksBlock/2, to - from, weeksBlock, s.Holds, s.Title})
	}
	weeks := int(end/7) + 1
	every := 1 + weeks/10
	for i, at := 0, monday; float64(at) < end; i, at = i+1, at+7 {
		tick := WeekTick{X: x.of(float64(at))}
		if i%every == 0 && float64(tick.X) < weeksRight-34 {
			tick.Text = day(at)
		}
		d.Ticks = append(d.Ticks, tick)
	}
	d.From, d.To = x.of(math.Max(0, math.Min(middle, end))), x.of(math.Max(0, math.Min(ready, end)))
	switch {
	case math.IsNaN(leaves):
	case leaves > end:
		d.Beyond = "you leave " + day(int(leaves))
	case leaves >= 0:
		d.Leaves = Level{true, x.of(leaves), "you leave"}
	}
	return d
}
