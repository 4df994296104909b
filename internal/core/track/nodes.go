package track

import (
	"container/heap"
	"math"

	"valiantmule/internal/core/geo"
)

// Node is a point that stands for a stretch of a way: latitude, longitude in
// degrees, height in m, km from the start, metres climbed since. It is a row of
// numbers so that a document that holds hundreds stays small.
type Node [5]float64

// Point of the node.
func (n Node) Point() geo.Point { return geo.Point{Lat: n[0], Lon: n[1]} }

// EleM is its height.
func (n Node) EleM() float64 { return n[2] }

// Km from the start.
func (n Node) Km() float64 { return n[3] }

// UpM is what was climbed since the start.
func (n Node) UpM() float64 { return n[4] }

// Between is the node a share of the way from one to the next.
func (n Node) Between(next Node, share float64) Node {
	for i := range n {
		n[i] += share * (next[i] - n[i])
	}
	return n
}

// heightWeight is how much more a height counts than a step aside when points are
// left out: a pass matters to fuel, a bend to the eye.
const heightWeight = 10

// Reduce picks the points that stand for a way, the start and the end among them:
// again and again the one that lies farthest from the line through those picked so
// far. Distance and climb are those of the whole way.
func (m Measured) Reduce(most int) []Node {
	if len(m.Points) == 0 {
		return nil
	}
	heights, _ := filled(m.Points, m.Km)
	at := candidates(len(m.Points))
	flat := m.flat(heights, at)
	picked := make([]bool, len(at))
	last := len(at) - 1
	picked[0], picked[last] = true, true
	spans := &spans{}
	add := func(from, to int) {
		if at, off := farthest(flat, from, to); at > 0 {
			heap.Push(spans, span{from, to, at, off})
		}
	}
	add(0, last)
	for n := 2; n < most && spans.Len() > 0; n++ {
		s := heap.Pop(spans).(span)
		picked[s.at] = true
		add(s.from, s.at)
		add(s.at, s.to)
	}
	nodes := make([]Node, 0, most)
	for i, k := range at {
		if p := m.Points[k]; picked[i] {
			nodes = append(nodes, Node{round(p.Lat, 1e5), round(p.Lon, 1e5), round(heights[k], 10), round(m.Km[k], 1e3), round(m.UpM[k], 10)})
		}
	}
	return nodes
}

// enough is how many points of a way come into question as nodes; of a longer one
// every so many.
const enough = 20_000

func candidates(points int) []int {
	step := points/enough + 1
	at := make([]int, 0, points/step+2)
	for i := 0; i < points-1; i += step {
		at = append(at, i)
	}
	return append(at, points-1)
}

func round(v, per float64) float64 {
	if math.IsNaN(v) {
		return 0
	}
	return math.Round(v*per) / per
}

// place is a point in a plane, m, with its distance along the way.
type place struct{ x, y, up, along float64 }

// flat lays a way out in a plane around its first point: it only ranks points.
func (m Measured) flat(heights []float64, at []int) []place {
	scale := math.Cos(radians(m.Points[0].Lat))
	places := make([]place, len(at))
	for i, k := range at {
		p := m.Points[k]
		places[i] = place{
			x: geo.Turn(p.Lon-m.Points[0].Lon) * scale * metresPerDegree,
			y: (p.Lat - m.Points[0].Lat) * metresPerDegree, along: m.Km[k],
		}
		if !math.IsNaN(heights[k]) {
			places[i].up = heightWeight * heights[k]
		}
	}
	return places
}

// farthest is the place between two that lies farthest off their line, and by how
// much squared; 0 when there is none between.
func farthest(way []place, from, to int) (at int, off float64) {
	a, b := way[from], way[to]
	bx, by, up, along := b.x-a.x, b.y-a.y, b.up-a.up, b.along-a.along
	perLength, perAlong := 0.0, 0.0
	if length := bx*bx + by*by; length > 0 {
		perLength = 1 / length
	}
	if along > 0 {
		perAlong = 1 / along
	}
	off = -1
	for i := from + 1; i < to; i++ {
		p := &way[i]
		x, y := p.x-a.x, p.y-a.y
		share := min(1, max(0, (x*bx+y*by)*perLength))
		dx, dy, dz := x-share*bx, y-share*by, p.up-a.up-(p.along-a.along)*perAlong*up
		if d := dx*dx + dy*dy + dz*dz; d > off {
			at, off = i, d
		}
	}
	return at, off
}

const metresPerDegree = 111320 // about

func radians(degrees float64) float64 { return degrees * math.Pi / 180 }

// span is a stretch between two picked points, with its farthest point.
type span struct {
	from, to, at int
	off          float64
}

// spans is a heap, the one with the farthest point on top.
type spans []span

func (s spans) Len() int           { return len(s) }
func (s spans) Less(i, j int) bool { return s[i].off > s[j].off }
func (s spans) Swap(i, j int)      { s[i], s[j] = s[j], s[i] }
func (s *spans) Push(x any)        { *s = append(*s, x.(span)) }
func (s *spans) Pop() any {
	old := *s
	x := old[len(old)-1]
	*s = old[:len(old)-1]
	return x
}

// Pass is where a way goes by a place: km from its start, and km off it.
type Pass struct{ AtKm, OffKm float64 }

// apartKm is how far along a way two passes are apart at least; nearer together it
// lingers there.
const apartKm = 5.0

// Snap is where on a way a place lies: the nearest point of its nodes' lines. A way that
// passes twice takes the first.
func Snap(nodes []Node, p geo.Point) Pass {
	best := Pass{OffKm: math.Inf(1)}
	for _, by := range alongside(nodes, p) {
		if by.OffKm < best.OffKm-0.001 {
			best = by
		}
	}
	return best
}

// Passes is every time that a way goes by a place as near as it ever does, give or take
// slackKm, in order: an out and back goes by twice.
func Passes(nodes []Node, p geo.Point, slackKm float64) []Pass {
	lines := alongside(nodes, p)
	least := Snap(nodes, p).OffKm
	var passes []Pass
	last := math.Inf(-1) // where the way was near, last
	for _, by := range lines {
		switch n := len(passes) - 1; {
		case by.OffKm > least+slackKm:
			continue
		case by.AtKm-last > apartKm:
			passes = append(passes, by)
		case by.OffKm < passes[n].OffKm-0.001:
			passes[n] = by
		}
		last = by.AtKm
	}
	return passes
}

// alongside is the nearest point of each of a way's lines.
func alongside(nodes []Node, p geo.Point) []Pass {
	scale := math.Cos(radians(p.Lat)) * metresPerDegree
	flat := func(n Node) (x, y float64) {
		return geo.Turn(n[1]-p.Lon) * scale, (n[0] - p.Lat) * metresPerDegree
	}
	lines := make([]Pass, 0, len(nodes))
	for i := 0; i+1 < len(nodes); i++ {
		ax, ay := flat(nodes[i])
		bx, by := flat(nodes[i+1])
		dx, dy := bx-ax, by-ay
		share := 0.0
		if length := dx*dx + dy*dy; length > 0 {
			share = max(0, min(1, -(ax*dx+ay*dy)/length))
		}
		lines = append(lines, Pass{nodes[i].Km() + share*(nodes[i+1].Km()-nodes[i].Km()), math.Hypot(ax+share*dx, ay+share*dy) / 1000})
	}
	return lines
}

// At is the node, between those there are, at a distance from the start.
func At(nodes []Node, km float64) Node {
	for i := 0; i+1 < len(nodes); i++ {
		if a, b := nodes[i], nodes[i+1]; km <= b.Km() || i+2 == len(nodes) {
			if b.Km() <= a.Km() {
				return b
			}
			return a.Between(b, max(0, min(1, (km-a.Km())/(b.Km()-a.Km()))))
		}
	}
	return Node{}
}
