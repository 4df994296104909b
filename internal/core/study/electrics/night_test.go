package electrics_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/study/electrics"
	"valiantmule/internal/core/terrain"
)

// TestNightOn against the computed column of the AASHTO Green Book's stopping sight distances
// (t 2.5 s, a 3.4 m/s², constants rounded: within 1.5 %); at the speed that it names standing
// takes just the light that is one's own, which is half where two ways share a lane.
func TestNightOn(t *testing.T) {
	level, _ := terrain.Of(terrain.Paved)
	for kmh, m := range map[float64]float64{50: 63.5, 80: 129.0, 100: 184.2} {
		assert.InEpsilon(t, m, electrics.NightOn(level, &facts.Light{ReactS: 2.5, LitM: 100}, kmh).StopM, 0.015, "%g km/h", kmh)
	}
	l := &facts.Light{ReactS: 1.5, LitM: 90}
	for _, g := range terrain.Grounds() {
		met := electrics.NightOn(g, l, electrics.NightOn(g, l, 40).MeetKmh)
		assert.InDelta(t, met.SightM, met.StopM, 1e-9, g.Name)
		assert.Less(t, met.ReactM, met.StopM, g.Name)
	}
	track, _ := terrain.Of(terrain.Track)
	road, _ := terrain.Of(terrain.Paved)
	assert.Equal(t, 45.0, electrics.NightOn(track, l, 40).SightM)
	assert.Equal(t, 90.0, electrics.NightOn(road, l, 40).SightM)
}
