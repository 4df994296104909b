package desk

import (
	"valiantmule/internal/core/eval"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/draw"
)

// Silhouette is what a bike is drawn from, on the tyres that it came with.
func Silhouette(b *plan.Bike, report *eval.LoadoutReport) draw.Silhouette {
	mm := func(q interface{ In(string) float64 }) float64 { return q.In("mm") }
	s := draw.Silhouette{
		WheelbaseMM: mm(b.Wheelbase), FrontRimMM: mm(b.FrontRimDiameter), RearRimMM: mm(b.RearRimDiameter),
		FrontTyreMM: report.Facts.Wheels.DiameterMM.Front, RearTyreMM: report.Facts.Wheels.DiameterMM.Rear,
		SeatMM: mm(b.SeatHeight), ClearanceMM: mm(b.Clearance), BarMM: mm(b.BarHeight), PegMM: mm(b.PegHeight),
		RakeDegrees: b.Rake.In("°"), OffsetMM: mm(b.Offset), FrontTravelMM: mm(b.FrontTravel),
		Screen: b.Body == plan.Screen, Faired: b.Body == plan.Faired,
		BarWidthMM: mm(b.BarWidth),
	}
	if t := report.Facts.Built.Tyre(parts.FrontTyre); t != nil {
		s.FrontTyreWidthMM = t.WidthMM()
	}
	height, _ := report.Figure(figure.CentreHeight)
	front, _ := report.Figure(figure.FrontLoad)
	rear, _ := report.Figure(figure.RearLoad)
	if height.Known && front.Known && rear.Known {
		s.CentreHeightMM = height.Value
		s.CentreXMM = load.CentreXMM(load.Axles{FrontKg: front.Value, RearKg: rear.Value}, s.WheelbaseMM)
	}
	return s
}
