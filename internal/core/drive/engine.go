package drive

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Engine is an engine as its data sheet tells it: two points of the torque curve
// and the range that it runs in.
type Engine struct {
	TorqueNm, TorqueRPM float64
	PowerKW, PowerRPM   float64
	CleanRPM, MaxRPM    float64
}

// lowTorque is the share of the greatest torque that is there at the lowest
// clean engine speed [memory].
const lowTorque = 0.75

// TorqueFormula is the formula of [Engine.Torque].
var TorqueFormula = sheet.Formula{
	Text:   "T(n) = parabolas with their top at the greatest torque: three quarters of it at the lowest clean speed, P / ω at the speed of greatest power",
	Origin: sheet.Memory,
}

// Torque at full throttle, Nm at the crankshaft. Between the two points of the
// data sheet and beyond them the curve is a guess. It is NaN when a point is
// missing, and 0 beyond the limiter.
func (e Engine) Torque(rpm float64) float64 {
	if rpm > e.MaxRPM {
		return 0
	}
	atPower := min(1000*e.PowerKW/(2*math.Pi*e.PowerRPM/60), e.TorqueNm)
	if rpm <= e.TorqueRPM {
		below := (e.TorqueRPM - rpm) / (e.TorqueRPM - e.CleanRPM)
		return e.TorqueNm * (1 - (1-lowTorque)*below*below)
	}
	above := (rpm - e.TorqueRPM) / (e.PowerRPM - e.TorqueRPM)
	return max(0, e.TorqueNm-(e.TorqueNm-atPower)*above*above)
}

// Efficiency of gearbox and final drive together [memory].
const Efficiency = 0.9

// ThrustFormula is the formula of [Thrust].
var ThrustFormula = sheet.Formula{Text: "F = T × overall × η / r, r = C / 2π", Origin: sheet.Computed}

// Thrust at the ground, N, of so much torque at the crankshaft: torque × overall
// × efficiency ÷ rolling radius, with no slip.
func Thrust(torqueNm, overall, efficiency, circumferenceMM float64) float64 {
	return torqueNm * overall * efficiency / (circumferenceMM / 1000 / (2 * math.Pi))
}
