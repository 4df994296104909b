package draw

import (
	"math"

	"valiantmule/internal/core/fit"
)

// Posture is where a rider of so long a leg sits and stands, mm above ground, and how far
// ahead of the hip the foot rests.
type Posture struct {
	InseamMM, AheadMM    float64
	SeatMM, PegMM, BarMM float64
	Style                Style
}

// RiderView is a bike from its side with the rider's leg on it, seated, and the
// height at which standing wants the grips.
type RiderView struct {
	Shown         bool
	Width, Height N
	GroundY       N
	Side          SideView
	Legs          []LegView
	WishX, WishW  N // the band of the grips, standing
	WishY, WishH  N
}

// LegView is one posture: hip, knee, foot, and its grips.
type LegView struct {
	Style        Style
	Path         string
	KneeX, KneeY N
	BarX, BarY   N
}

// RiderOn draws postures on a bike; those with a number missing are left out.
func RiderOn(b Silhouette, postures ...Posture) RiderView {
	sheet := SideSheet(b)
	side, ok := sheet.Side(b, Current)
	if !ok {
		return RiderView{}
	}
	d := RiderView{Shown: true, Width: sheet.Width, Height: sheet.Height, GroundY: sheet.GroundY, Side: side}
	k := b.skeleton()
	for _, p := range postures {
		if math.IsNaN(p.InseamMM + p.SeatMM + p.PegMM + p.BarMM) {
			continue
		}
		thigh, shank := fit.Leg(p.InseamMM)
		hipX, hipZ := fit.HipXMM(k.base), p.SeatMM
		footX := hipX + p.AheadMM
		knee := joint(fit.Place{X: hipX, Z: hipZ}, fit.Place{X: footX, Z: p.PegMM}, thigh, shank, 1)
		path := (&pen{sheet: sheet}).move(hipX, hipZ).line(knee.X, knee.Z).line(footX, p.PegMM).line(footX+90, p.PegMM-10)
		barX := k.axis(p.BarMM) - 70
		d.Legs = append(d.Legs, LegView{p.Style, path.path(), sheet.X(knee.X), sheet.Y(knee.Z), sheet.X(barX), sheet.Y(p.BarMM)})
		wish := p.PegMM + fit.GripOverPegMM(p.InseamMM)
		d.WishX, d.WishW = sheet.X(barX-140), N(280*sheet.scale)
		d.WishY, d.WishH = sheet.Y(wish+fit.StandTaste), N(2*fit.StandTaste*sheet.scale)
	}
	return d
}
