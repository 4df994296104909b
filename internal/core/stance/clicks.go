package stance

import "math"

// Damping is what a clicker sets.
type Damping int

// The two.
const (
	Compression Damping = iota
	Rebound
)

// surfaceClicks are softer (+) or firmer, in clicks, than standard [practice]: rough ground
// wants soft compression, fast smooth ground firm; sand wants to be held up in front of what
// pushes.
var surfaceClicks = map[string]float64{"road": -2, "gravel": 0, "rock": 3, "soft": -1}

// Clicks from fully in for a surface, where standard is so many: compression by the surface;
// rebound by what the spring pushes back with, a click in for every 4 mm of preload beyond
// the sheet's and for every tenth of more spring [practice]. The other school leaves the
// damping as it is when the load changes: then more is 0. NaN without a standard.
func Clicks(d Damping, standard float64, surface string, morePreloadMM, moreRate float64) float64 {
	clicks := standard
	if d == Compression {
		clicks += surfaceClicks[surface]
	} else {
		firmer := 0.0
		if !math.IsNaN(morePreloadMM) {
			firmer += morePreloadMM / 4
		}
		if !math.IsNaN(moreRate) {
			firmer += 10 * moreRate
		}
		clicks -= math.Round(firmer)
	}
	return math.Max(0, clicks)
}
