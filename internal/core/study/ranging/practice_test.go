package ranging_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/studytest"
)

// TestBandsOfPractice: six invented bikes, loaded with a rider of 90 kg and 20 kg of luggage, over
// one trip that is mostly rough and has a road to it, at the usual speeds, burn what riders report
// of their kind (HANDBOOK 7 [practice]); the bands stood here before the model was held to them.
func TestBandsOfPractice(t *testing.T) {
	b := studytest.New(t)
	for _, row := range []struct {
		bike      string
		low, high float64 // L/100 km
	}{
		{"fennick-250", 3.5, 4.4}, {"fennick-300", 3.5, 4.4}, {"morrow-400", 4.1, 5.2}, {"fennick-450", 4.1, 5.2}, {"holt-650", 4.5, 5.8}, {"corrin-850", 4.6, 5.9},
	} {
		p := b.Changing(row.bike, func(p *plan.Plan) {
			p.Route, p.Readings, p.Group = nil, nil, nil
			p.Brief.Headwind, p.Brief.Altitude = unit.Speed{}, unit.Length{}
			studytest.Enter(t, &p.Brief.Rider, "90", "kg")
			studytest.Enter(t, &p.Brief.Gap, "100", "km")
			studytest.Ground(t, p, map[terrain.Kind]string{terrain.Motorway: "10", terrain.Paved: "15", terrain.SmoothGravel: "15", terrain.RoughGravel: "30", terrain.Track: "20", terrain.SingleTrack: "10"})
			studytest.Packed(studytest.Thing(t, "20", "40", "", "", load.Panniers))(p)
		})()
		got := studytest.Value(t, p, figure.Consumption)
		assert.True(t, got >= row.low && got <= row.high, "%s burns %.2f, practice says %.1f to %.1f L/100 km", row.bike, got, row.low, row.high)
	}
}
