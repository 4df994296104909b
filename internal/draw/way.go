package draw

import (
	"fmt"
	"math"
	"strings"

	"valiantmule/internal/core/geo"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/track"
)

// Way is a route seen from above: no map, only what is known of it.
type Way struct {
	Shown         bool
	Width, Height N
	Pieces        []WayPiece // by ground, in order
	Pumps         []Pump
	Marks         []WayMark // start, end, kilometres
	Scale         Line      // its right end; it starts at ScaleLeft
	ScaleLeft     N
	ScaleY        N
	ScaleText     string
	NorthX        N
}

// WayPiece is a stretch on one kind of ground, "" where nobody has said.
type WayPiece struct {
	Ground terrain.Kind
	Path   string
	Title  string
}

// WayMark is a word at a place.
type WayMark struct {
	X, Y N
	Text string
}

// Pump is a stop with its sign: its shape says how far it can be counted on.
type Pump struct {
	ID        string
	X, Y      N
	Number    int
	Name      string
	Title     string
	Certainty plan.Certainty
	Closed    bool
	Href      string
	LabelX    N
	LabelY    N
	Anchor    string
}

const (
	wayWidth  = 760.0
	wayHeight = 470.0
	wayMargin = 46.0
)

// WayFromAbove lays the nodes out to scale, north up; km turns a distance into what
// is shown, bare and in words.
func WayFromAbove(r *plan.Route, pumps []Pump, km func(v float64) (float64, string)) Way {
	d := Way{Width: wayWidth, Height: wayHeight}
	if r == nil || len(r.Nodes) < 2 {
		return d
	}
	d.Shown = true
	words := func(v float64) string { _, text := km(v); return text }
	p := planeOf(r.Nodes)
	mark := func(n track.Node, text string) WayMark {
		x, y := p.of(n)
		return WayMark{x, y, text}
	}
	for _, s := range stretches(r) {
		d.Pieces = append(d.Pieces, WayPiece{s.ground, p.path(r.Nodes, s.from, s.to), fmt.Sprintf("%s, %s to %s", groundName(s.ground), words(s.from), words(s.to))})
	}
	d.Marks = append(d.Marks, mark(r.Nodes[0], "start"), mark(r.Nodes[len(r.Nodes)-1], "end"))
	var taken []box
	for i, pump := range pumps {
		at := track.At(r.Nodes, r.Stops[i].At.In("km"))
		pump.X, pump.Y = p.of(at)
		pump.place(&taken, wayWidth)
		d.Pumps = append(d.Pumps, pump)
	}
	perOwn, _ := km(1)
	bar := round125(160/p.perKm*perOwn) / perOwn
	d.ScaleLeft, d.ScaleY = 24, wayHeight-16
	d.Scale, d.ScaleText = Line{true, N(24 + bar*p.perKm)}, words(bar)
	d.NorthX = wayWidth - 28
	return d
}

// round125 is the largest of 1, 2 and 5 times a power of ten that is not above a
// number.
func round125(most float64) float64 {
	power := math.Pow(10, math.Floor(math.Log10(most)))
	for _, f := range []float64{5, 2} {
		if f*power <= most {
			return f * power
		}
	}
	return power
}

// box is a rectangle that a label takes.
type box struct{ left, top, right, bottom float64 }

func (b box) meets(o box) bool {
	return b.left < o.right && o.left < b.right && b.top < o.bottom && o.top < b.bottom
}

// place puts the pump's name beside it where it meets no other.
func (p *Pump) place(taken *[]box, width float64) {
	const letter, line, off = 6.6, 14.0, 13.0
	long := letter * float64(len([]rune(p.Name))+2)
	x, y := float64(p.X), float64(p.Y)
	*taken = append(*taken, box{x - 9, y - 9, x + 9, y + 9})
	tries := []struct {
		x, y   float64
		anchor string
	}{{x + off, y + 4, "start"}, {x - off, y + 4, "end"}, {x, y - off, "middle"}, {x, y + off + 10, "middle"}, {x + off, y - 10, "start"}, {x - off, y - 10, "end"}, {x + off, y + 18, "start"}, {x - off, y + 18, "end"}}
	for _, t := range tries {
		left := t.x
		switch t.anchor {
		case "end":
			left -= long
		case "middle":
			left -= long / 2
		}
		b := box{left, t.y - line + 3, left + long, t.y + 3}
		free := b.left > 2 && b.right < width-2
		for _, o := range *taken {
			free = free && !b.meets(o)
		}
		if free {
			p.LabelX, p.LabelY, p.Anchor = N(t.x), N(t.y), t.anchor
			*taken = append(*taken, b)
			return
		}
	}
	p.LabelX, p.LabelY, p.Anchor = N(x+off), N(y+4), "start"
}

// plane is the projection: true to scale around the middle of the way.
type plane struct {
	lat, lon, left, top, perDegree, narrow float64
	perKm                                  float64 // view-box units
}

func planeOf(nodes []track.Node) plane {
	first := nodes[0].Point()
	p := plane{lon: first.Lon}
	south, north, west, east := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
	for _, n := range nodes {
		lon := geo.Turn(n.Point().Lon - first.Lon)
		south, north = min(south, n.Point().Lat), max(north, n.Point().Lat)
		west, east = min(west, lon), max(east, lon)
	}
	p.narrow = max(0.05, math.Cos((south+north)/2*math.Pi/180))
	width, height := max(1e-6, (east-west)*p.narrow), max(1e-6, north-south)
	p.perDegree = min((wayWidth-2*wayMargin)/width, (wayHeight-2*wayMargin)/height)
	p.lat, p.lon = north, first.Lon+west
	p.left = (wayWidth - width*p.perDegree) / 2
	p.top = (wayHeight - height*p.perDegree) / 2
	const kmPerDegree = 111.2
	p.perKm = p.perDegree / kmPerDegree
	return p
}

func (p plane) of(n track.Node) (x, y N) {
	at := n.Point()
	return N(p.left + geo.Turn(at.Lon-p.lon)*p.narrow*p.perDegree), N(p.top + (p.lat-at.Lat)*p.perDegree)
}

// path of the way between two distances.
func (p plane) path(nodes []track.Node, from, to float64) string {
	var b strings.Builder
	put := func(n track.Node) {
		word := "L"
		if b.Len() == 0 {
			word = "M"
		}
		x, y := p.of(n)
		fmt.Fprintf(&b, "%s%s %s", word, x, y)
	}
	put(track.At(nodes, from))
	for _, n := range nodes {
		if n.Km() > from && n.Km() < to {
			put(n)
		}
	}
	put(track.At(nodes, to))
	return b.String()
}

// part is a stretch of the whole way, on a ground or on none that is known.
type part struct {
	from, to float64
	ground   terrain.Kind
}

// stretches cut the whole way by ground, what nobody has said included.
func stretches(r *plan.Route) []part {
	var list []part
	at, end := 0.0, r.LengthKm()
	for _, s := range r.Ground {
		from, to := s.From.In("km"), min(end, s.To.In("km"))
		if from > at+0.01 {
			list = append(list, part{at, from, ""})
		}
		list = append(list, part{from, to, s.Ground})
		at = to
	}
	if end > at+0.01 {
		list = append(list, part{at, end, ""})
	}
	return list
}

func groundName(k terrain.Kind) string {
	if g, ok := terrain.Of(k); ok {
		return g.Name
	}
	return "Not said"
}
