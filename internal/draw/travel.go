package draw

import (
	"math"
	"slices"
)

// Travels are both wheels' travel side by side to one scale: what the bike by itself, its
// rider and everything on it use, the band, and what is left to the bump. The wheel hangs
// at the top and is pushed in downwards.
type Travels struct {
	Shown         bool
	Width, Height N
	Top           N
	Ticks         []Tick
	Left          N // of the scale
	Ends          []TravelColumn
}

// TravelColumn is one wheel's.
type TravelColumn struct {
	Name         string
	X, Width     N
	EndX, WordsX N // right of it, and where words begin
	LeftX        N
	LeftMid      N
	BedH         N
	Bottom       N // where the travel ends
	BottomText   string
	Band         Slab
	BandText     string
	BandTextY    N
	Free         Slab // band of free sag
	Marks        []TravelMark
	Tried        N // where everything on it comes to with what lies on the bench
	TriedText    string
	HasTried     bool
	LeftY, LeftH N // what is left to the bump
	LeftText     string
	Rule         AdjusterRule
}

// Slab is a stretch of the travel.
type Slab struct {
	Shown bool
	Y, H  N
}

// TravelMark is one sag with its words beside it.
type TravelMark struct {
	Name   string // its class in the style sheet
	Y      N
	TextY  N
	Text   string
	Strong bool
}

// AdjusterRule is an adjuster: from all out to all in, where it is set and where the load wants it.
type AdjusterRule struct {
	Shown      bool
	X, Width   N
	Y          N
	EndX       N
	HalfW      N      // of the lower half
	WantsAt    string // how its words are anchored
	Now, Wants N
	HasWants   bool
	Beyond     bool // it wants more than there is
	Low, High  string
	NowText    string
	WantsText  string
}

// TravelEnd is what one wheel's column is drawn from, mm; NaN where nobody knows.
type TravelEnd struct {
	Name                  string
	TravelMM              float64
	FreeMM, AloneMM       float64
	LoadedMM, TriedMM     float64
	BandLow, BandHigh     float64 // shares
	FreeLow, FreeHigh     float64
	PreloadMM, WantMM     float64
	LeastMM, MostMM       float64
	BandWords, WantsWords string
}

const (
	travelsWidth  = 760.0
	travelsTop    = 34.0
	travelsHeight = 262.0
	travelWidth   = 92.0
	travelGap     = 15.0 // between two lines of words
	ruleDown      = 52.0
)

// SagColumns draws both ends; words writes a length.
func SagColumns(front, rear TravelEnd, words func(mm float64) string) Travels {
	d := Travels{Width: travelsWidth, Height: travelsTop + travelsHeight + ruleDown + 44, Top: travelsTop, Left: 48}
	most := 0.0
	for _, e := range []TravelEnd{front, rear} {
		if e.TravelMM > most {
			most = e.TravelMM
		}
	}
	if most == 0 {
		return d
	}
	d.Shown = true
	y := scale{0, most, travelsTop, travelsTop + travelsHeight}
	for _, v := range steps(0, most, 6) {
		d.Ticks = append(d.Ticks, Tick{y.of(v), words(v)})
	}
	for i, e := range []TravelEnd{front, rear} {
		if e.TravelMM > 0 {
			d.Ends = append(d.Ends, travelOf(e, y, 128+float64(i)*326, words))
		}
	}
	return d
}

func travelOf(e TravelEnd, y scale, x float64, words func(mm float64) string) TravelColumn {
	c := TravelColumn{
		Name: e.Name, X: N(x), Width: travelWidth, EndX: N(x + travelWidth), WordsX: N(x + travelWidth + 14), LeftX: N(x + travelWidth + 118),
		Bottom: y.of(e.TravelMM), BedH: y.of(e.TravelMM) - travelsTop, BottomText: "bump, " + words(e.TravelMM),
	}
	slab := func(low, high float64) Slab {
		if math.IsNaN(low + high) {
			return Slab{}
		}
		return Slab{true, y.of(low * e.TravelMM), y.of(high*e.TravelMM) - y.of(low*e.TravelMM)}
	}
	c.Band, c.Free, c.BandText = slab(e.BandLow, e.BandHigh), slab(e.FreeLow, e.FreeHigh), e.BandWords
	for _, m := range []struct {
		name, text string
		mm         float64
		strong     bool
	}{{"free", "by itself", e.FreeMM, false}, {"alone", "you", e.AloneMM, false}, {"loaded", "all on", e.LoadedMM, true}} {
		if !math.IsNaN(m.mm) {
			c.Marks = append(c.Marks, TravelMark{Name: m.name, Y: y.of(m.mm), TextY: y.of(m.mm), Text: m.text + " " + words(m.mm), Strong: m.strong})
		}
	}
	keepApart(c.Marks)
	shown := e.LoadedMM
	if !math.IsNaN(e.TriedMM) {
		shown = e.TriedMM
		c.HasTried, c.Tried, c.TriedText = true, y.of(e.TriedMM), words(e.TriedMM)
	}
	c.BandTextY = c.Band.Y + 10
	if c.HasTried && math.Abs(float64(c.Tried-c.BandTextY)) < travelGap {
		c.BandTextY = c.Tried - travelGap
	}
	if left := e.TravelMM - shown; !math.IsNaN(left) {
		c.LeftY, c.LeftH, c.LeftText = y.of(shown), c.Bottom-y.of(shown), words(left)+" left"
		c.LeftMid = c.LeftY + c.LeftH/2
	}
	c.Rule = ruleOf(e, x, y.end+ruleDown, words)
	return c
}

// keepApart moves words that would stand on one another, the upper up and the lower down.
func keepApart(marks []TravelMark) {
	slices.SortStableFunc(marks, func(a, b TravelMark) int { return int(math.Copysign(1, float64(a.Y-b.Y))) })
	for range marks { // as often as one may push the next
		for i := 1; i < len(marks); i++ {
			if over := travelGap - (marks[i].TextY - marks[i-1].TextY); over > 0 {
				marks[i-1].TextY -= over / 2
				marks[i].TextY += over / 2
			}
		}
	}
	if len(marks) > 0 && marks[0].TextY < travelsTop { // not above the column
		down := travelsTop - marks[0].TextY
		for i := range marks {
			marks[i].TextY += down
		}
	}
}

// ruleOf is the adjuster beneath a column; without both ends there is none.
func ruleOf(e TravelEnd, x, y float64, words func(mm float64) string) AdjusterRule {
	if !(e.MostMM > e.LeastMM) || math.IsNaN(e.PreloadMM) {
		return AdjusterRule{}
	}
	const over = 70.0
	left, right := x-over, x+travelWidth+over
	at := scale{e.LeastMM, e.MostMM, left, right}
	held := func(mm float64) N { return at.of(min(max(mm, e.LeastMM), e.MostMM)) }
	r := AdjusterRule{Shown: true, X: N(left), Width: N(right - left), Y: N(y), EndX: N(right), HalfW: N((right - left) / 2), Now: held(e.PreloadMM), Low: words(e.LeastMM), High: words(e.MostMM), NowText: words(e.PreloadMM)}
	r.WantsAt = "middle"
	switch mid := N(left+right) / 2; {
	case held(e.WantMM) > mid+travelWidth/2:
		r.WantsAt = "end"
	case held(e.WantMM) < mid-travelWidth/2:
		r.WantsAt = "start"
	}
	if !math.IsNaN(e.WantMM) {
		r.HasWants, r.Wants, r.WantsText, r.Beyond = true, held(e.WantMM), e.WantsWords, e.WantMM > e.MostMM || e.WantMM < e.LeastMM
	}
	return r
}
