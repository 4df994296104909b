// Package track is a way over the ground: points with heights, how long it is, how
// much it climbs, and a few hundred nodes that stand for it.
//
// Distances are in km on the ellipsoid, heights in metres. Heights of receivers are
// noisy: what is called climb here is climb after the smoothing that [Measure]
// states, and no other number.
package track

import (
	"math"

	"valiantmule/internal/core/geo"
)

// Point is a place of a track; EleM is NaN where the file has none.
type Point struct {
	geo.Point
	EleM float64
}

// Waypoint is a marked place beside or on a track.
type Waypoint struct {
	Point
	Name, Note, Kind string // Kind is the file's type or symbol
}

// Part is one track or route of a file, in segments: a receiver that was switched
// off or lost its satellites leaves a gap.
type Part struct {
	Name     string
	Segments [][]Point
	On       []string // day of each segment, 2027-05-14, by the sun where it began; "" where no time is told
}

// Points of the part's segments in one row.
func (p Part) Points() int {
	n := 0
	for _, s := range p.Segments {
		n += len(s)
	}
	return n
}

// Whole is a way from its first point to its last.
type Whole struct {
	Points []Point
	Gaps   int     // between segments, ridden in a straight line here
	GapKm  float64 // together
}

// gapKm is how far two segments may be apart without a gap worth telling.
const gapKm = 0.2

// Join puts the segments of parts into one way.
func Join(parts []Part) Whole {
	var w Whole
	for _, p := range parts {
		for _, s := range p.Segments {
			if len(s) == 0 {
				continue
			}
			if n := len(w.Points); n > 0 {
				if km := geo.DistanceM(w.Points[n-1].Point, s[0].Point) / 1000; km > gapKm {
					w.Gaps++
					w.GapKm += km
				}
			}
			w.Points = append(w.Points, s...)
		}
	}
	return w
}

// The smoothing that climb rests on.
const (
	// SmoothKm is the length over which heights are averaged.
	SmoothKm = 0.3
	// TurnM is what a climb must fall again before it counts as over, and the other
	// way round: less is noise or a bridge.
	TurnM = 10
)

// Measured is a way with what was worked out along it, point by point.
type Measured struct {
	Points []Point
	Km     []float64 // from the start
	UpM    []float64 // climbed since the start
	Level  bool      // there are no heights: nothing climbs
}

// LengthKm of the whole way.
func (m Measured) LengthKm() float64 {
	if len(m.Km) == 0 {
		return 0
	}
	return m.Km[len(m.Km)-1]
}

// Measure works out distance and climb along a way. Points without a height get
// one between their neighbours'.
func Measure(points []Point) Measured {
	m := Measured{Points: points, Km: make([]float64, len(points)), UpM: make([]float64, len(points))}
	for i := 1; i < len(points); i++ {
		m.Km[i] = m.Km[i-1] + geo.DistanceM(points[i-1].Point, points[i].Point)/1000
	}
	heights, known := filled(points, m.Km)
	m.Level = !known
	if known {
		m.climb(averaged(heights, m.Km))
	}
	return m
}

// filled is the heights with the missing ones put in along the distance.
func filled(points []Point, km []float64) (heights []float64, known bool) {
	heights = make([]float64, len(points))
	last := -1 // the last known one
	for i, p := range points {
		heights[i] = p.EleM
		if math.IsNaN(p.EleM) {
			continue
		}
		for j := last + 1; j < i; j++ {
			heights[j] = p.EleM
			if last >= 0 && km[i] > km[last] {
				heights[j] = heights[last] + (p.EleM-heights[last])*(km[j]-km[last])/(km[i]-km[last])
			}
		}
		last = i
	}
	for j := last + 1; j < len(points) && last >= 0; j++ {
		heights[j] = heights[last]
	}
	return heights, last >= 0
}

// averaged is the mean height of the points within half of SmoothKm.
func averaged(heights, km []float64) []float64 {
	smooth := make([]float64, len(heights))
	sum, from, to := 0.0, 0, 0
	for i := range heights {
		for to < len(heights) && km[to] <= km[i]+SmoothKm/2 {
			sum += heights[to]
			to++
		}
		for km[from] < km[i]-SmoothKm/2 {
			sum -= heights[from]
			from++
		}
		smooth[i] = sum / float64(to-from)
	}
	return smooth
}

// climb finds the turning points of heights and adds up the rises between them.
func (m *Measured) climb(heights []float64) {
	if len(heights) == 0 {
		return
	}
	turn, top, low := 0, 0, 0 // the last turning point; the highest and lowest since
	rising := 0               // 1, −1, or 0 before the first turn
	for i, h := range heights {
		if h > heights[top] {
			top = i
		}
		if h < heights[low] {
			low = i
		}
		switch {
		case rising >= 0 && heights[top]-h > TurnM:
			if rising > 0 {
				m.rise(heights, turn, top)
			}
			turn, low, rising = top, i, -1
		case rising <= 0 && h-heights[low] > TurnM:
			turn, top, rising = low, i, 1
		}
		m.UpM[i] = math.NaN() // until its rise is known
	}
	if rising > 0 {
		m.rise(heights, turn, top)
	}
	m.UpM[0] = 0
	for i := 1; i < len(m.UpM); i++ {
		if math.IsNaN(m.UpM[i]) {
			m.UpM[i] = m.UpM[i-1]
		}
	}
}

// rise spreads one climb over its points.
func (m *Measured) rise(heights []float64, from, to int) {
	before := 0.0
	for i := from; i >= 0; i-- {
		if !math.IsNaN(m.UpM[i]) {
			before = m.UpM[i]
			break
		}
	}
	highest := heights[from]
	for i := from; i <= to; i++ {
		highest = max(highest, heights[i])
		m.UpM[i] = before + (highest - heights[from])
	}
}
