package draw

// Bars are distances side by side from one start, against a line that they should
// reach.
type Bars struct {
	Shown         bool
	Width, Height N
	Left          N
	Lower         N
	Rows          []BarRow
	Ticks         []Tick
	Mark          Line
	MarkText      string
}

// Bar is one distance.
type Bar struct {
	Name  string
	Value float64
	Short bool // of the line
}

// BarRow is a bar as drawn. One that goes past the plot has no end.
type BarRow struct {
	Y, Width N
	Name     string
	Text     string
	Short    bool
	Beyond   bool
}

const (
	barsWidth = 760.0
	barsLeft  = 150.0
	barsRight = 660.0
	barsTop   = 26.0
	barStep   = 26.0
)

// WearBars draws how far worn parts still go against the trip; the plot ends at
// twice the trip.
func WearBars(bars []Bar, trip float64, words func(v float64) string) Bars {
	d := Bars{Width: barsWidth, Left: barsLeft}
	if len(bars) == 0 {
		return d
	}
	d.Shown = true
	most := 2 * trip
	if !(trip > 0) {
		most = 0
		for _, b := range bars {
			most = max(most, b.Value)
		}
		most = max(min(most, 50_000), 1)
	}
	x := scale{0, most, barsLeft, barsRight}
	d.Lower = N(barsTop + barStep*float64(len(bars)))
	d.Height = d.Lower + 24
	for i, b := range bars {
		row := BarRow{Y: N(barsTop + barStep*float64(i)), Name: b.Name, Text: words(b.Value), Short: b.Short, Beyond: b.Value > most}
		if row.Beyond {
			row.Text = "more"
		}
		row.Width = x.of(min(b.Value, most)) - barsLeft
		d.Rows = append(d.Rows, row)
	}
	for _, v := range steps(0, most, 5) {
		d.Ticks = append(d.Ticks, Tick{x.of(v), words(v)})
	}
	if trip > 0 {
		d.Mark, d.MarkText = Line{true, x.of(trip)}, "the trip, "+words(trip)
	}
	return d
}
