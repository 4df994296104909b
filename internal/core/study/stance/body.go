package stance

import (
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// body finds how the rider's back is held, seated and on the pegs.
func body(r *study.Run) {
	b, built := r.Built.Bike, r.Built
	base := b.Wheelbase.In("mm")
	man := fit.BodyOf(r.Plan.Brief.Stature.In("mm"), r.Plan.Brief.Inseam.In("mm"))
	seat, peg, bar := b.SeatHeight.In("mm")+built.Figure(parts.SeatRise), b.PegHeight.In("mm")-built.Figure(parts.PegDrop), b.BarHeight.In("mm")
	grip := fit.Place{X: fit.GripXMM(base, r.Wheels.StandardDiameterMM.Front/2, b.Rake.In("°"), b.Offset.In("mm"), bar) - built.Figure(parts.BarBack), Z: bar + built.Figure(parts.BarRise)}
	foot := fit.Place{X: fit.HipXMM(base) + b.PegAheadMM(), Z: peg}
	hip := fit.Place{X: fit.HipXMM(base) + sits(r.Loadout.Sits)*base, Z: seat}
	up := man.StandingHip(foot)
	r.Body = facts.Body{BackSeatedDeg: man.BackDeg(hip, grip), BackStandingDeg: man.BackDeg(up, grip)}
	r.Body.RiseMostMM = man.RiseToUprightMM(hip, grip)
	back(r, figure.BackSeated, man, hip, grip, r.Body.BackSeatedDeg, fit.BackSeatedMost)
	back(r, figure.BackStanding, man, up, grip, r.Body.BackStandingDeg, fit.BackStandingMost)
}

// sits is how far forward of the usual spot the rider sits, of the wheelbase.
func sits(s plan.Sit) float64 {
	usual, _ := load.SpotOf(load.Rider)
	spot, _ := load.SpotOf(s.Place())
	return spot.Share - usual.Share
}

// back is one of the two.
func back(r *study.Run, id figure.ID, man fit.Body, hip, grip fit.Place, degrees, most float64) {
	c, b := r.Figure(id), r.Built.Bike
	c.Bike("wheelbase", "wheelbase", "mm", &b.Wheelbase)
	c.Bike("rake", "rake", "°", &b.Rake)
	c.Bike("offset", "offset", "mm", &b.Offset)
	c.Bike("bar_height", "bar height", "mm", &b.BarHeight)
	c.Bike("peg_height", "foot pegs", "mm", &b.PegHeight)
	c.Bike("seat_height", "seat height", "mm", &b.SeatHeight)
	c.Brief("inside leg", "mm", &r.Plan.Brief.Inseam)
	c.Fact("standard front tyre", r.Wheels.StandardDiameterMM.Front, "mm")
	c.Is(degrees)
	if c.Sheet != nil {
		c.Sheet.Step(fit.BackFormula, study.Computed("back leans", degrees, "°"),
			sheet.Value{Name: "t", Number: man.Torso, Unit: "mm", Origin: sheet.Published, Note: "0.288 of the stature; of one that nobody has said, by the inside leg"},
			sheet.Value{Name: "a", Number: man.Arm, Unit: "mm", Origin: sheet.Published, Note: "elbow bent to 120°"},
			study.Computed("grip ahead of the hip", grip.X-hip.X, "mm"), study.Computed("grip above the hip", grip.Z-hip.Z, "mm"))
		c.Sheet.Note("Pegs and grips are taken to be where they are on most upright bikes: good to about 50 mm, which is some five degrees.")
	}
	c.Judged(false, degrees > most)
}
