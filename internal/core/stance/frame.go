package stance

import (
	"math"

	"valiantmule/internal/core/sheet"
)

// Frame is a bike in the stance that its data sheet is of: standing by itself, on level
// ground. Places are mm forward of the rear axle's foot on the ground and above it.
type Frame struct {
	WheelbaseMM, RakeDeg, OffsetMM float64
	FrontRadiusMM, RearRadiusMM    float64
}

// Change is what has moved since: wheels of other radii, and axles that have come closer
// to the frame, the front one along its leg, the rear one straight up.
type Change struct {
	FrontRadiusMM, RearRadiusMM float64
	FrontUpMM, RearUpMM         float64
}

// Pose is where a change leaves the frame: turned about its wheels until both stand on
// the ground.
type Pose struct {
	PitchDeg                      float64 // + is nose up
	RakeDeg, TrailMM, WheelbaseMM float64
	FrontRadiusMM, RearRadiusMM   float64
	FrontAxleXMM, FrontAxleZMM    float64 // in the frame's own coordinates, where the front axle is now
	RearAxleZMM                   float64 // and the rear one; it stays at x = 0
	sin, cos                      float64
}

// PoseFormula is the formula of [Frame.Stand].
var PoseFormula = sheet.Formula{
	Text:   "turned by θ = asin((R_front − R_rear) / D) − φ about the wheels, D and φ the way from axle to axle in the frame; rake = rake₀ + θ",
	Origin: sheet.Computed, Source: "rigid rotation; the rear axle is taken to move straight up, its arc leaves out less than a hundredth of the wheelbase",
}

// Stand is the pose after a change: both wheels on level ground.
func (f Frame) Stand(c Change) Pose {
	sin, cos := math.Sincos(f.RakeDeg * math.Pi / 180)
	p := Pose{
		FrontRadiusMM: c.FrontRadiusMM, RearRadiusMM: c.RearRadiusMM,
		FrontAxleXMM: f.WheelbaseMM - c.FrontUpMM*sin, FrontAxleZMM: f.FrontRadiusMM + c.FrontUpMM*cos, RearAxleZMM: f.RearRadiusMM + c.RearUpMM,
	}
	along, up := p.FrontAxleXMM, p.FrontAxleZMM-p.RearAxleZMM
	apart := math.Hypot(along, up)
	turn := math.Asin((c.FrontRadiusMM-c.RearRadiusMM)/apart) - math.Atan2(up, along)
	p.sin, p.cos = math.Sincos(turn)
	p.PitchDeg = turn * 180 / math.Pi
	p.RakeDeg = f.RakeDeg + p.PitchDeg
	p.TrailMM = TrailMM(p.RakeDeg, f.OffsetMM, 2*c.FrontRadiusMM)
	p.WheelbaseMM = math.Sqrt(apart*apart - (c.FrontRadiusMM-c.RearRadiusMM)*(c.FrontRadiusMM-c.RearRadiusMM))
	return p
}

// At is where a place of the frame has come to.
func (p *Pose) At(x, z float64) (nowX, nowZ float64) {
	z -= p.RearAxleZMM
	return x*p.cos - z*p.sin, p.RearRadiusMM + x*p.sin + z*p.cos
}

// RiseMM is by how much a place of the frame has risen.
func (p *Pose) RiseMM(x, z float64) float64 {
	_, now := p.At(x, z)
	return now - z
}
