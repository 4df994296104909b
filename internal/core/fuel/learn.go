package fuel

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Model is one bike's own multipliers on what [Work.Litres] computes, on road and
// on loose ground, with how sure they are. Both are 1 for a bike that burns what
// its data say.
type Model struct {
	Road, Loose float64
	cov         [3]float64 // variance of road, of both together, of loose
	Ride        float64    // spread from ride to ride, a share: wind, hand, temperature
}

// The spreads that a model starts from, as shares.
const (
	anchorSpread = 0.10 // of a consumption from papers or from others [practice: 3.0–4.9 for one class of bikes]
	blindSpread  = 0.20 // of the model without any consumption to hold it to [memory]
	looseSpread  = 0.12 // of loose ground against the road [memory]
	looseBand    = 0.12 // half of what bikes of one kind differ by on it [practice: 4.5–5.8 L/100 km of 600–690 singles]
	rideSpread   = 0.07 // from ride to ride [memory]
	rideWeight   = 4    // how many fills that first guess counts for
)

// Anchored is the model before any fill: multiplier is the known consumption over
// the computed one. Without a known consumption it is 1 and blind. A consumption says what the
// road takes; loose ground follows it by no more than bikes of a kind differ there.
func Anchored(multiplier float64, blind bool) Model {
	spread := anchorSpread
	if blind {
		spread = blindSpread
	}
	loose := min(max(multiplier, 1-looseBand), 1+looseBand)
	return Model{
		Road: multiplier, Loose: loose, Ride: rideSpread,
		cov: [3]float64{square(multiplier * spread), multiplier * loose * spread * spread, square(loose*spread) + square(loose*looseSpread)},
	}
}

// Amount is fuel, computed with multipliers of 1, by the ground that it is burnt
// on, in litres.
type Amount struct{ Road, Loose float64 }

// Plus is both together.
func (a Amount) Plus(b Amount) Amount { return Amount{a.Road + b.Road, a.Loose + b.Loose} }

// Total of the amount.
func (a Amount) Total() float64 { return a.Road + a.Loose }

// Litres are what the model makes of an amount, with the standard deviation of a
// single ride.
func (m Model) Litres(a Amount) (litres, spread float64) {
	litres = m.Road*a.Road + m.Loose*a.Loose
	known := a.Road*a.Road*m.cov[0] + 2*a.Road*a.Loose*m.cov[1] + a.Loose*a.Loose*m.cov[2]
	return litres, math.Sqrt(max(0, known) + square(m.Ride*litres))
}

// Tankful is what was burnt from one full tank to the next.
type Tankful struct {
	Litres, Km float64
	By         Amount  // computed for the ground that it was ridden on, with multipliers of 1
	KmSpread   float64 // of the distance, a share, by where it came from
}

// brimL is how well two fills to the brim agree [practice: a neck is filled to the
// same mark within about a third of a litre].
const brimL = 0.35

// Taught is a model after fills, and how each fill agrees with it.
type Taught struct {
	Model
	Each []Verdict
}

// Verdict is how one tankful agrees with the model of all of them.
type Verdict struct {
	Expected float64 // litres
	Off      float64 // standard deviations that the fill is away, + is thirstier
	Weight   float64 // what it counts for, 1 for a usual one
}

// Flagged reports a fill that does not agree with the others: it counts for less,
// and somebody should look at it.
func (v Verdict) Flagged() bool { return v.Weight < 0.75 }

// outlying is from how many standard deviations on a fill counts for less
// [pub: P. J. Huber, Robust Estimation of a Location Parameter, 1964].
const outlying = 1.8

// LearnFormula is the formula of [Learn].
var LearnFormula = sheet.Formula{
	Text:   "least squares of litres = k_road × computed on road + k_loose × computed on loose ground, held by the first guess as by one more measurement",
	Origin: sheet.Published, Source: "A. Gelman et al., Bayesian Data Analysis, ch. 14; weights by P. J. Huber, 1964",
}

// Learn corrects a model by tankfuls. No fill is dropped: one that lies far off
// counts for less, the more so the farther it lies. Without tankfuls the model
// stays as it is.
func Learn(first Model, tankfuls []Tankful) Taught {
	t := Taught{Model: first, Each: make([]Verdict, len(tankfuls))}
	if len(tankfuls) == 0 {
		return t
	}
	for i := range t.Each {
		t.Each[i].Weight = 1
	}
	// Weights and spread follow from the fit and the fit from them: a few rounds
	// settle it.
	for range 12 {
		before := t.Model
		t.fit(first, tankfuls)
		t.judge(tankfuls)
		if settled(before, t.Model) {
			break
		}
	}
	return t
}

// settled tells whether a round has changed nothing that anybody would see.
func settled(before, after Model) bool {
	const least = 1e-7
	return math.Abs(after.Road-before.Road) < least && math.Abs(after.Loose-before.Loose) < least && math.Abs(after.Ride-before.Ride) < least
}

// square is cheaper than a power: a log may hold thousands of fills.
func square(v float64) float64 { return v * v }

// fit is the least squares with the weights and the spread as they are.
func (t *Taught) fit(first Model, tankfuls []Tankful) {
	det := first.cov[0]*first.cov[2] - first.cov[1]*first.cov[1]
	// The precision of the first guess, and what each tankful adds to it.
	a, b, c := first.cov[2]/det, -first.cov[1]/det, first.cov[0]/det
	x, y := a*first.Road+b*first.Loose, b*first.Road+c*first.Loose
	for i, f := range tankfuls {
		w := t.Each[i].Weight / t.variance(f)
		a += w * f.By.Road * f.By.Road
		b += w * f.By.Road * f.By.Loose
		c += w * f.By.Loose * f.By.Loose
		x += w * f.By.Road * f.Litres
		y += w * f.By.Loose * f.Litres
	}
	det = a*c - b*b
	t.cov = [3]float64{c / det, -b / det, a / det}
	t.Road, t.Loose = (c*x-b*y)/det, (a*y-b*x)/det
}

// variance of a tankful's litres about what the model expects.
func (t *Taught) variance(f Tankful) float64 {
	expected := t.Road*f.By.Road + t.Loose*f.By.Loose
	return square(t.Ride*expected) + brimL*brimL + square(f.KmSpread*expected)
}

// judge holds each tankful against the model and takes the spread from ride to
// ride from them.
func (t *Taught) judge(tankfuls []Tankful) {
	sum, n := rideWeight*rideSpread*rideSpread, float64(rideWeight)
	for i, f := range tankfuls {
		v := &t.Each[i]
		v.Expected = t.Road*f.By.Road + t.Loose*f.By.Loose
		v.Off = (f.Litres - v.Expected) / math.Sqrt(t.variance(f))
		v.Weight = 1
		if off := math.Abs(v.Off); off > outlying {
			v.Weight = outlying / off
		}
		// What brim and distance explain is not the ride's, and what lies far off
		// counts as far as it is believed (Huber's second proposal).
		rest := square(v.Weight*(f.Litres-v.Expected)) - brimL*brimL - square(f.KmSpread*v.Expected)
		sum += max(0, rest) / (v.Expected * v.Expected)
		n++
	}
	t.Ride = math.Sqrt(sum / n)
}
