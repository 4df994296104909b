package draw

import "math"

// Beams is what lamps light, seen from above, ahead to the right, all to one scale; with a
// lane, a bend and the way to standing in it.
type Beams struct {
	Shown          bool
	Width, Height  N
	Ahead          N // of the bike across the middle
	Left           N // where the bike stands
	All            string
	Lamps          []BeamEdge
	Lane           []N // its edges
	Ticks          []Tick
	Bend, BendLit  string
	Reacts, Stands N // where braking begins, and where it stands
	StopText       string
	ReactText      string
	Beyond         bool // standing lies beyond the light that is one's own
	Half           N    // where the own half of the sight ends
	HasHalf        bool
	Lit            N
	LitText        string
	Foot, Clip     N // of the drawing; how high what is lit is
}

// BeamEdge is how far one lamp lights, to all sides.
type BeamEdge struct {
	Name   string
	Path   string
	X, Y   N // of its name
	Anchor string
}

// BeamsIn is what the drawing is made from; lengths in m.
type BeamsIn struct {
	Lamps          []BeamIn
	All            func(deg float64) float64 // reach of all together
	LitM, OwnM     float64                   // ahead; of it one's own
	ReactM, StopM  float64                   // before the brakes bite; all of it
	BendM, RadiusM float64                   // of a bend to the right that lies in the light
	LaneM          float64
	Length         func(m float64) string
	UnitM          float64 // what the marks on the scale are round in
}

// BeamIn is one lamp.
type BeamIn struct {
	Name  string
	Reach func(deg float64) float64
}

const (
	beamsWidth = 880.0
	beamsHalf  = 140.0 // of its height, above and below the bike
	beamsLeft  = 34.0
)

// BeamsAbove draws them; without a lamp that anybody knows it is not shown.
func BeamsAbove(in BeamsIn) Beams {
	d := Beams{Width: beamsWidth, Height: 2*beamsHalf + 60, Ahead: beamsHalf + 10, Left: beamsLeft, Shown: in.LitM > 0}
	if !d.Shown {
		return d
	}
	d.Foot, d.Clip = d.Ahead+beamsHalf, 2*beamsHalf
	far := in.LitM
	if in.StopM > far {
		far = math.Min(in.StopM, 3*far)
	}
	px := (beamsWidth - beamsLeft - 60) / far
	at := func(ahead, right float64) string {
		return N(beamsLeft+ahead*px).String() + " " + (d.Ahead + N(right*px)).String()
	}
	edge := func(reach func(deg float64) float64) string {
		path := ""
		for deg := -90.0; deg <= 90; deg++ {
			r, a := reach(deg), deg*math.Pi/180
			mark := "L"
			if deg == -90 {
				mark = "M"
			}
			path += mark + at(r*math.Cos(a), r*math.Sin(a))
		}
		return path + "Z"
	}
	d.All = edge(in.All)
	for i, l := range in.Lamps {
		e := BeamEdge{Name: l.Name, Path: edge(l.Reach), Anchor: "end", X: N(math.Min(beamsLeft+l.Reach(0)*px, beamsWidth-8)), Y: d.Ahead - N(12+18*float64(i))}
		if e.X < 240 {
			e.Anchor = "start"
		}
		d.Lamps = append(d.Lamps, e)
	}
	d.Lane = []N{d.Ahead - N(in.LaneM/2*px), d.Ahead + N(in.LaneM/2*px)}
	for _, v := range steps(0, far/in.UnitM, 6) {
		d.Ticks = append(d.Ticks, Tick{N(beamsLeft + v*in.UnitM*px), in.Length(v * in.UnitM)})
	}
	arc := func(m float64) string {
		path := "M" + at(0, 0)
		for s := 2.0; s < m; s += 2 {
			path += "L" + at(in.RadiusM*math.Sin(s/in.RadiusM), in.RadiusM*(1-math.Cos(s/in.RadiusM)))
		}
		return path + "L" + at(in.RadiusM*math.Sin(m/in.RadiusM), in.RadiusM*(1-math.Cos(m/in.RadiusM)))
	}
	if in.BendM > 0 {
		d.Bend, d.BendLit = arc(in.RadiusM*math.Pi/2), arc(math.Min(in.BendM, in.RadiusM*math.Pi/2))
	}
	d.Lit, d.LitText = N(beamsLeft+in.LitM*px), "lit "+in.Length(in.LitM)
	d.HasHalf, d.Half = in.OwnM < in.LitM, N(beamsLeft+in.OwnM*px)
	if in.StopM > 0 {
		d.Reacts, d.Stands = N(beamsLeft+math.Min(in.ReactM, far)*px), N(beamsLeft+math.Min(in.StopM, far)*px)
		d.ReactText, d.StopText, d.Beyond = "brakes", "stands after "+in.Length(in.StopM), in.StopM > in.OwnM
	}
	return d
}

// BeamSide is the dipped beam from the side, heights larger than lengths.
type BeamSide struct {
	Shown         bool
	Width, Height N
	Left, Ground  N
	LampY         N
	Level         N
	Came, Now     string // the cut-off
	CameText      string
	NowText       string
	NowX, CameX   N
	TextY         N
	Eyes          N // of whoever comes, across
	EyesY         N
	EyesText      string
	Blinds        bool
	Ticks         []Tick
	HeightText    string
}

const (
	dippedWidth  = 880.0
	dippedGround = 170.0
	dippedLeft   = 34.0
	dippedFarM   = 120.0
	dippedRise   = 78.0  // px per m up
	dippedMostM  = 500.0 // beyond which a number says nothing
	eyesM        = 50.0  // where somebody comes
	eyesUpMM     = 1200.0
)

// DippedSide draws the cut-off of a lamp so high, pointing so far below level as it came and
// as loaded; the marks on the ground are round in a unit of so many m; unknown numbers leave
// it out.
func DippedSide(heightMM, cameDeg, nowDeg, unitM float64, length func(m float64) string, height func(mm float64) string) BeamSide {
	d := BeamSide{Width: dippedWidth, Height: dippedGround + 34, Left: dippedLeft, Ground: dippedGround, Shown: !math.IsNaN(heightMM + cameDeg + nowDeg)}
	if !d.Shown {
		return d
	}
	x := scale{0, dippedFarM, dippedLeft, dippedWidth - 20}
	y := func(mm float64) N { return N(dippedGround - mm/1000*dippedRise) }
	d.LampY, d.Level, d.HeightText = y(heightMM), y(heightMM), height(heightMM)
	edge := func(deg float64) (string, N, string) {
		reach := heightMM / 1000 / math.Tan(deg*math.Pi/180)
		if deg > 0 && reach <= dippedFarM {
			return "M" + N(dippedLeft).String() + " " + d.LampY.String() + "L" + x.of(reach).String() + " " + N(dippedGround).String(), x.of(reach), "ends at " + length(reach)
		}
		end := y(heightMM - dippedFarM*1000*math.Tan(deg*math.Pi/180))
		words := "ends at " + length(reach)
		if reach > dippedMostM {
			words = "ends beyond " + length(dippedMostM)
		}
		if deg <= 0 {
			words = "never ends: it dazzles"
		}
		return "M" + N(dippedLeft).String() + " " + d.LampY.String() + "L" + x.of(dippedFarM).String() + " " + end.String(), x.of(dippedFarM), words
	}
	d.Came, d.CameX, d.CameText = edge(cameDeg)
	d.Now, d.NowX, d.NowText = edge(nowDeg)
	d.Eyes, d.EyesY, d.EyesText = x.of(eyesM), y(eyesUpMM), "eyes of whoever comes"
	d.Blinds = heightMM-eyesM*1000*math.Tan(nowDeg*math.Pi/180) >= heightMM
	for _, v := range steps(0, dippedFarM/unitM, 6) {
		d.Ticks = append(d.Ticks, Tick{x.of(v * unitM), length(v * unitM)})
	}
	return d
}
