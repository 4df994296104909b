package track

import (
	"maps"
	"slices"
)

// Day is what of a recording is of one day.
type Day struct {
	On     string // 2027-05-14, "" where no time is told
	Points []Point
}

// Days are the days of a recording, the earliest first; a segment is of the day on which it began.
func Days(parts []Part) []Day {
	on := map[string][]Part{}
	for _, p := range parts {
		for i, s := range p.Segments {
			day := ""
			if i < len(p.On) {
				day = p.On[i]
			}
			on[day] = append(on[day], Part{Segments: [][]Point{s}})
		}
	}
	var list []Day
	for _, day := range slices.Sorted(maps.Keys(on)) {
		if points := Join(on[day]).Points; len(points) > 1 {
			list = append(list, Day{day, points})
		}
	}
	return list
}
