package drive

// Pickup is where the speedometer counts turns.
type Pickup string

// The pickups.
const (
	FrontWheel Pickup = "front-wheel"
	RearWheel  Pickup = "rear-wheel"
	Gearbox    Pickup = "gearbox" // the output shaft: errs with tyre and sprockets
)

// SpeedometerFactor is what the display shows against what it showed at the same
// road speed on the standard bike: above 1 it reads higher. frontGrowth and
// rearGrowth are new over standard circumference, finalGrowth new over standard
// final ratio.
func SpeedometerFactor(p Pickup, frontGrowth, rearGrowth, finalGrowth float64) float64 {
	switch p {
	case FrontWheel:
		return 1 / frontGrowth
	case RearWheel:
		return 1 / rearGrowth
	}
	return finalGrowth / rearGrowth
}

// SpeedometerHighest is the most that a speedometer may show at a true speed, in
// km/h: it must never show less than the truth, and at most a tenth and 4 km/h
// more [pub: UN Regulation 39, 5.3: 0 ≤ V₁ − V₂ ≤ V₂/10 + 4 km/h].
func SpeedometerHighest(trueKmh float64) float64 { return trueKmh*1.1 + 4 }
