// Package stance is the study of how high the bike stands and how the rider reaches
// the ground: what other tyres lift, the room under the engine, the side stand, the
// steering head.
package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// Study of the stance.
var Study = study.Study{
	Name: "stance",
	Steps: []study.Step{
		{
			Name: "heights", Needs: facts.Bike | facts.WheelsGroup, Gives: facts.HeightsGroup, Run: heights,
			Figures: []figure.ID{figure.SeatRise, figure.StandShort, figure.RakeChange},
		},
		{
			Name: "reach", Needs: facts.Bike | facts.HeightsGroup, Gives: facts.ReachGroup, Run: reach,
			Figures: []figure.ID{figure.SeatReach},
		},
		{
			Name: "room", Needs: facts.Bike | facts.HeightsGroup, Gives: facts.RoomGroup, Run: room,
			Figures: []figure.ID{figure.Clearance},
		},
	},
	Rules: rules,
}

var rules = []study.Rule{
	{ID: "out-of-reach", Stage: figure.Bike, Judge: outOfReach},
	{ID: "room-short", Stage: figure.Bike, Judge: roomShort},
	{ID: "seat-height", Stage: figure.Tyres, Judge: seatHeight},
	{ID: "stand-too-short", Stage: figure.Tyres, Judge: standTooShort},
	{ID: "rake", Stage: figure.Tyres, Judge: rake},
}

// standShare is where a side stand meets the ground, of the wheelbase forward of
// the rear axle [memory].
const standShare = 0.45

var (
	riseFormula  = sheet.Formula{Text: "rise = Δr_rear + (Δr_front − Δr_rear) × share of the wheelbase, Δr = ½ ΔD", Origin: sheet.Computed}
	standFormula = sheet.Formula{Text: "short by = rise at the stand − length added to it", Origin: sheet.Computed}
	rakeFormula  = sheet.Formula{Text: "Δ rake = atan((Δr_rear − Δr_front) / wheelbase)", Origin: sheet.Computed}
)

// heights finds what other tyres lift.
func heights(r *study.Run) {
	w := &r.Wheels
	r.Heights.Growth = facts.Ends{Front: (w.DiameterMM.Front - w.StandardDiameterMM.Front) / 2, Rear: (w.DiameterMM.Rear - w.StandardDiameterMM.Rear) / 2}
	seatRise(r)
	standShort(r)
	rakeChange(r)
}

// riseAt is how much a point of the bike is lifted by the tyres.
func riseAt(c study.Calc, share float64) float64 {
	h := &c.Run.Heights
	rise := h.At(share)
	if math.IsNaN(rise) {
		c.Lacks("both tyres and both standard tyres")
	}
	if c.Sheet != nil {
		c.Sheet.Step(riseFormula, study.Computed("rise", rise, "mm"),
			study.Computed("Δr front", h.Growth.Front, "mm"), study.Computed("Δr rear", h.Growth.Rear, "mm"),
			sheet.Value{Name: "share", Number: share, Origin: sheet.Memory})
	}
	return rise
}

func seatRise(r *study.Run) {
	c := r.Figure(figure.SeatRise)
	seat, _ := load.SpotOf(load.Rider)
	r.Heights.SeatRiseMM = riseAt(c, seat.Share)
	c.Is(r.Heights.SeatRiseMM)
	c.Plain()
}

func standShort(r *study.Run) {
	c := r.Figure(figure.StandShort)
	rise, added := riseAt(c, standShare), r.Built.Figure(plan.StandLength)
	r.Heights.StandShortMM = rise - added
	c.Is(rise - added)
	if c.Sheet != nil {
		c.Sheet.Step(standFormula, study.Computed("short by", rise-added, "mm"), study.Computed("rise", rise, "mm"), study.Computed("added", added, "mm"))
	}
	c.Plain()
}

func rakeChange(r *study.Run) {
	c := r.Figure(figure.RakeChange)
	base := c.Bike("wheelbase", "wheelbase", "mm", &r.Built.Bike.Wheelbase)
	g := r.Heights.Growth
	if math.IsNaN(g.Front) || math.IsNaN(g.Rear) {
		c.Lacks("both tyres and both standard tyres")
	}
	r.Heights.RakeDegrees = math.Atan((g.Rear-g.Front)/base.Number) * 180 / math.Pi
	c.Is(r.Heights.RakeDegrees)
	if c.Sheet != nil {
		c.Sheet.Step(rakeFormula, study.Computed("Δ rake, + is steeper", r.Heights.RakeDegrees, "°"),
			study.Computed("Δr rear", g.Rear, "mm"), study.Computed("Δr front", g.Front, "mm"), base)
	}
	c.Plain()
}
