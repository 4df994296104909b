package drive

import (
	"math"

	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Road is what the bike is driven against.
type Road struct {
	MassKg      float64
	Rolling     float64 // resistance, as a share of the weight
	DragAreaM2  float64
	Density     float64 // of the air, kg/m³
	HeadwindKmh float64
}

// ResistanceFormula is the formula of [Road.Resistance].
var ResistanceFormula = sheet.Formula{
	Text:   "F = m·g·(sin θ + Crr·cos θ) + ½·ρ·CdA·(v + wind)²",
	Origin: sheet.Published, Source: "J. Y. Wong, Theory of Ground Vehicles, ch. 3",
}

// Resistance in N at a speed on a slope, the tangent of its angle.
func (r Road) Resistance(kmh, slope float64) float64 {
	angle := math.Atan(slope)
	air := (kmh + r.HeadwindKmh) / 3.6
	return r.MassKg*unit.StandardGravity*(math.Sin(angle)+r.Rolling*math.Cos(angle)) + r.DragAreaM2*r.Density/2*air*math.Abs(air)
}

// TopSpeedFormula is the formula of [Road.TopSpeed].
var TopSpeedFormula = sheet.Formula{
	Text:   "η·P·ρ/ρ₀ = (Crr·m·g + ½·ρ·CdA·v²)·v, solved for v",
	Origin: sheet.Published, Source: "J. Y. Wong, Theory of Ground Vehicles, ch. 3",
}

// TopSpeed in km/h that so much power at the wheel holds on the level in still
// air: the one root of the cubic, by Cardano's formula.
func (r Road) TopSpeed(wheelW float64) float64 {
	cube := r.DragAreaM2 * r.Density / 2
	third, half := r.Rolling*r.MassKg*unit.StandardGravity/cube/3, wheelW/cube/2
	root := math.Sqrt(half*half + third*third*third)
	return 3.6 * (math.Cbrt(half+root) + math.Cbrt(half-root))
}

// Balance is where the loaded bike's centre sits, mm.
type Balance struct {
	BehindFrontMM float64 // the front axle
	AheadRearMM   float64 // of the rear axle
	HeightMM      float64
}

// Climb limits. Each is the tangent of the steepest slope at a steady speed.
var (
	// PullFormula is the formula of [SteepestByPull].
	PullFormula = sheet.Formula{Text: "F = m·g·(sin θ + Crr·cos θ), solved for θ", Origin: sheet.Computed}
	// TractionFormula is the formula of [Balance.SteepestByTraction].
	TractionFormula = sheet.Formula{Text: "tan θ = (μ·a − Crr·b) / (L − (μ + Crr)·h)", Origin: sheet.Published, Source: "V. Cossalter, Motorcycle Dynamics, ch. 3"}
	// WheelieFormula is the formula of [Balance.SteepestByWheelie].
	WheelieFormula = sheet.Formula{Text: "tan θ = b / h", Origin: sheet.Published, Source: "V. Cossalter, Motorcycle Dynamics, ch. 3"}
)

// SteepestByPull is the slope that a thrust holds against weight and rolling
// resistance; beyond the weight itself there is no limit.
func SteepestByPull(thrustN, massKg, rolling float64) float64 {
	share := thrustN / (massKg * unit.StandardGravity * math.Hypot(1, rolling))
	if share >= 1 {
		return math.Inf(1)
	}
	return math.Tan(math.Asin(share) - math.Atan(rolling))
}

// SteepestByTraction is the slope at which the driven rear wheel slips, with
// friction μ and the weight that the slope moves onto it; the front wheel has to be pushed
// against its rolling resistance Crr.
func (b Balance) SteepestByTraction(friction, rolling float64) float64 {
	left := b.BehindFrontMM + b.AheadRearMM - (friction+rolling)*b.HeightMM
	if left <= 0 {
		return math.Inf(1)
	}
	return (friction*b.BehindFrontMM - rolling*b.AheadRearMM) / left
}

// LooseGripFormula is the formula of [LooseGrip].
var LooseGripFormula = sheet.Formula{Text: "μ on loose ground × (1 − 0.4 × what the tyre's road share is over 0.3)", Origin: sheet.Memory}

// LooseGrip is what is left of loose ground's friction for a tyre by the share of road that
// it is made for: what has fewer blocks digs in less.
func LooseGrip(tyreRoad float64) float64 { return 1 - 0.4*max(0, tyreRoad-0.3) }

// SteepestByWheelie is the slope at which the front wheel leaves the ground.
func (b Balance) SteepestByWheelie() float64 { return b.AheadRearMM / b.HeightMM }
