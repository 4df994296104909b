package terrain

import "math"

// of is what roads, gravel and rough ground mostly are on such trips [memory].
var of = [3]map[Kind]float64{
	{Motorway: 0.25, Paved: 0.75},
	{SmoothGravel: 0.65, Track: 0.35},
	{RoughGravel: 0.6, SingleTrack: 0.4},
}

// Roughly is a trip in three words, how much of it is road, gravel and rough ground, as stretches
// of whole percents; nil where all three are nothing.
func Roughly(road, gravel, rough float64) []Stretch {
	total := road + gravel + rough
	if !(total > 0) {
		return nil
	}
	shares := make([]float64, len(grounds))
	for i, part := range []float64{road, gravel, rough} {
		for j := range grounds {
			shares[j] += 100 * part / total * of[i][grounds[j].Kind]
		}
	}
	// Rounding leaves some over or short: the largest share bears that.
	left, largest := 100.0, 0
	for j := range shares {
		shares[j] = math.Round(shares[j])
		left -= shares[j]
		if shares[j] > shares[largest] {
			largest = j
		}
	}
	shares[largest] += left
	var list []Stretch
	for j := range grounds {
		if shares[j] > 0 {
			s := Stretch{Ground: grounds[j].Kind}
			s.Share.Set(shares[j], "%")
			list = append(list, s)
		}
	}
	return list
}
