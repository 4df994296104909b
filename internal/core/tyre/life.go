package tyre

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Kind sorts tyres by the share of road that they suit.
type Kind string

// The kinds, along the line from wet-road grip and long life to mud grip.
const (
	Road       Kind = "road"        // 90/10
	RoadBiased Kind = "road-biased" // 80/20 to 70/30
	AllRound   Kind = "all-round"   // 60/40 to 50/50
	DirtBiased Kind = "dirt-biased" // 40/60 to 20/80
	Knobbly    Kind = "knobbly"     // competition
)

// Character is what a kind is good for.
type Character struct {
	Kind      Kind
	Name      string
	RoadShare float64 // the share of road that it suits, 0–1
	// Life of a rear on the reference bike [practice, very wide].
	LifeLowKm, LifeHighKm float64
	FreshMM               float64 // depth of tread when new [memory]
}

var characters = []Character{
	{Kind: Road, Name: "Road", RoadShare: 0.9, LifeLowKm: 8000, LifeHighKm: 14000, FreshMM: 6},
	{Kind: RoadBiased, Name: "Road-biased", RoadShare: 0.75, LifeLowKm: 8000, LifeHighKm: 14000, FreshMM: 7},
	{Kind: AllRound, Name: "All-round", RoadShare: 0.55, LifeLowKm: 5000, LifeHighKm: 12000, FreshMM: 8.5},
	{Kind: DirtBiased, Name: "Dirt-biased", RoadShare: 0.3, LifeLowKm: 3000, LifeHighKm: 6000, FreshMM: 11},
	{Kind: Knobbly, Name: "Knobbly", RoadShare: 0.05, LifeLowKm: 1500, LifeHighKm: 4000, FreshMM: 14},
}

// Characters lists the kinds from road to mud.
func Characters() []Character { return characters }

// CharacterOf finds a kind's character; of a kind that nobody has named its numbers
// are NaN.
func CharacterOf(k Kind) (Character, bool) {
	for _, c := range characters {
		if c.Kind == k {
			return c, true
		}
	}
	unknown := math.NaN()
	return Character{RoadShare: unknown, LifeLowKm: unknown, LifeHighKm: unknown}, false
}

// Depths of tread, mm.
const (
	LegalDepthMM  = 1.6  // in many countries [the handbook]
	DepthSpreadMM = 0.25 // of one reading at the same knobs [memory]
)

// FreshDepth is the depth of a kind's tread when new, mm; of a kind that nobody has named an all-round one's.
func FreshDepth(k Kind) float64 {
	if c, ok := CharacterOf(k); ok {
		return c.FreshMM
	}
	c, _ := CharacterOf(AllRound)
	return c.FreshMM
}

// Style is how hard the rider is on tyres.
type Style string

// The styles.
const (
	Gentle Style = "gentle"
	Steady Style = "steady"
	Hard   Style = "hard"
)

// styleFactor scales life by style, 0.5 to 1.3 at the ends of practice: hard riding on abrasive
// ground halves it [practice].
var styleFactor = map[Style]float64{Gentle: 1.2, Steady: 1, Hard: 0.7}

// KnownStyle reports whether s is one of the styles.
func KnownStyle(s Style) bool { _, ok := styleFactor[s]; return ok }

// FrontLife is how much longer a front lasts than a rear of its kind
// [practice: 1.3 to 2 times].
const FrontLife = 1.6

// Conditions are what a tyre's life depends on beside the tyre.
type Conditions struct {
	LoadedKg float64 // bike, rider and bags
	PowerKW  float64
	Abrasion float64 // of the mix, motorway = 1
	Style    Style
}

// Ordinary are the conditions of a middling bike in mixed use, for which the lives of kinds hold
// [practice].
func Ordinary() Conditions { return Conditions{300, 40, 1.1, Steady} }

// Wear is a life under some conditions, and the conditions that are asked of.
type Wear struct {
	LowKm, HighKm float64
	Under         Conditions
	Conditions
}

// Band is an estimate with its spread.
type Band struct{ Low, Mid, High float64 }

// kindSpread is half of the band of a kind's life, a share of its middle [practice: tyres of a
// kind differ threefold on one bike].
const kindSpread = 0.4

// Life of a rear of the kind under ordinary conditions, km.
func (c Character) Life() Band {
	mid := (c.LifeLowKm + c.LifeHighKm) / 2
	return Band{(1 - kindSpread) * mid, mid, (1 + kindSpread) * mid}
}

// LifeFormula is the model behind [Life]: a light single gets half as much again by its mass and
// power alone, and heavy powerful bikes the low end of a kind.
var LifeFormula = sheet.Formula{
	Text:   "life = base × (300 kg / loaded mass) × (40 kW / power)^0.4 × 1.1 / abrasion × style, ± 40 % for a kind's base; of a life that somebody saw, each against the conditions that it was seen under",
	Origin: sheet.Practice,
}

// Life of a tyre in km, held to between a quarter and three times the base.
func Life(w Wear) Band {
	factor := w.Factor()
	return Band{Low: w.LowKm * factor, Mid: (w.LowKm + w.HighKm) / 2 * factor, High: w.HighKm * factor}
}

// Factor is what mass, power, ground and style make of the base, by what they differ.
func (w Wear) Factor() float64 {
	f := w.Under.LoadedKg / w.LoadedKg * math.Pow(w.Under.PowerKW/w.PowerKW, 0.4) * w.Under.Abrasion / w.Abrasion * styleFactor[w.Style] / styleFactor[w.Under.Style]
	return min(max(f, 0.25), 3)
}

// StyleFactor is the style's share in [Wear.Factor].
func StyleFactor(s Style) float64 { return styleFactor[s] }
