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
}

var characters = []Character{
	{Kind: Road, Name: "Road", RoadShare: 0.9, LifeLowKm: 8000, LifeHighKm: 14000},
	{Kind: RoadBiased, Name: "Road-biased", RoadShare: 0.75, LifeLowKm: 8000, LifeHighKm: 14000},
	{Kind: AllRound, Name: "All-round", RoadShare: 0.55, LifeLowKm: 5000, LifeHighKm: 9000},
	{Kind: DirtBiased, Name: "Dirt-biased", RoadShare: 0.3, LifeLowKm: 3000, LifeHighKm: 6000},
	{Kind: Knobbly, Name: "Knobbly", RoadShare: 0.05, LifeLowKm: 1500, LifeHighKm: 4000},
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

// Style is how hard the rider is on tyres.
type Style string

// The styles.
const (
	Gentle Style = "gentle"
	Steady Style = "steady"
	Hard   Style = "hard"
)

// styleFactor scales life by style: hard riding on abrasive ground about halves
// it [practice].
var styleFactor = map[Style]float64{Gentle: 1.15, Steady: 1, Hard: 0.8}

// KnownStyle reports whether s is one of the styles.
func KnownStyle(s Style) bool { _, ok := styleFactor[s]; return ok }

// Reference bike of the practice figures: a middle twin with rider and bags.
const (
	refMassKg  = 340.0
	refPowerKW = 50.0
)

// FrontLife is how much longer a front lasts than a rear of its kind
// [practice: 1.3 to 2 times].
const FrontLife = 1.6

// Wear is what a rear tyre's life depends on.
type Wear struct {
	LowKm, HighKm float64 // the kind's band, or the maker's
	LoadedKg      float64 // bike, rider and bags
	PowerKW       float64
	Abrasion      float64 // of the mix, motorway = 1
	Style         Style
}

// Band is an estimate with its spread.
type Band struct{ Low, Mid, High float64 }

// LifeFormula is the model behind [Life]: the exponents are set so that a light
// single gets about half as much again, and the low end of a kind is met by
// heavy powerful bikes.
var LifeFormula = sheet.Formula{
	Text:   "life = base × √(340 kg / loaded mass) × (50 kW / power)^0.3 ÷ abrasion × style; the high end once more × √ of what that makes of the base, where it is longer",
	Origin: sheet.Practice,
}

// Life of a rear tyre in km, held to between a quarter and three times the base.
func Life(w Wear) Band {
	factor := w.Factor()
	mid := math.Sqrt(w.LowKm*w.HighKm) * factor
	// What is kind to its tyres differs most: an all-round rear on a light single of 18 kW
	// has gone 15 000 to 19 000 km [practice].
	return Band{Low: w.LowKm * factor, Mid: mid, High: w.HighKm * factor * math.Sqrt(max(1, factor))}
}

// Factor is what mass, power, ground and style make of the base.
func (w Wear) Factor() float64 {
	f := math.Sqrt(refMassKg/w.LoadedKg) * math.Pow(refPowerKW/w.PowerKW, 0.3) / w.Abrasion * styleFactor[w.Style]
	return min(max(f, 0.25), 3)
}

// StyleFactor is the style's share in [Wear.Factor].
func StyleFactor(s Style) float64 { return styleFactor[s] }
