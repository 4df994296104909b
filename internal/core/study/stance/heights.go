package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

var riseFormula = sheet.Formula{Text: "rise = Δr_rear + (Δr_front − Δr_rear) × share of the wheelbase, Δr = ½ ΔD", Origin: sheet.Computed}

// heights finds what other tyres lift.
func heights(r *study.Run) {
	w, h := &r.Wheels, &r.Heights
	h.Growth = facts.Ends{Front: (w.DiameterMM.Front - w.StandardDiameterMM.Front) / 2, Rear: (w.DiameterMM.Rear - w.StandardDiameterMM.Rear) / 2}
	c := r.Figure(figure.SeatRise)
	seat, _ := load.SpotOf(load.Rider)
	h.SeatRiseMM = h.At(seat.Share)
	if math.IsNaN(h.SeatRiseMM) {
		c.Lacks("both tyres and both standard tyres")
	}
	c.Is(h.SeatRiseMM)
	if c.Sheet != nil {
		c.Sheet.Step(riseFormula, study.Computed("rise", h.SeatRiseMM, "mm"),
			study.Computed("Δr front", h.Growth.Front, "mm"), study.Computed("Δr rear", h.Growth.Rear, "mm"),
			sheet.Value{Name: "share", Number: seat.Share, Origin: sheet.Memory})
	}
	c.Plain()
}
