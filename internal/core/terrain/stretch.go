package terrain

import (
	"math"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Stretch is the share of the distance on one kind of ground.
type Stretch struct {
	Ground Kind       `json:"ground"`
	Share  unit.Ratio `json:"share"`
}

// MixOfStretches are stretches as shares.
func MixOfStretches(list []Stretch) Mix {
	var mix Mix
	for _, s := range list {
		mix.Add(s.Ground, s.Share.Base())
	}
	return mix
}

// Validate notes what is wrong with shares of ground.
func Validate(v *entry.Problems, at string, list []Stretch) {
	seen := map[Kind]bool{}
	sum := 0.0
	v.Few(at, len(list), Count)
	for i, s := range list {
		path := at + entry.At(i)
		_, known := Of(s.Ground)
		v.That(known, path+".ground", "%q is not a kind of ground", s.Ground)
		v.That(!seen[s.Ground], path+".ground", "%q is there twice", s.Ground)
		v.That(s.Share.Known() && s.Share.Base() >= 0 && s.Share.Base() <= 1, path+".share", "want 0–100 %%")
		seen[s.Ground] = true
		sum += s.Share.Base()
	}
	// Half a percent of slack: shares are typed as whole percents of a guess.
	v.That(len(list) == 0 || math.Abs(sum-1) <= 0.005, at, "shares sum to %.4g %%, want 100 %%", 100*sum)
}
