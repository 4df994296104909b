package stance

import (
	"math"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
)

// Where a side stand hangs on the frame [memory]: of the wheelbase forward of the rear
// axle, and how high, mm.
const (
	standShare = 0.45
	standMM    = 250.0
)

var standFormula = sheet.Formula{Text: "short by = rise at the stand, wheels hanging − length added to it", Origin: sheet.Computed}

// stand finds how the bike stands on its side stand: the length that it lacks, and with
// everything on it but the rider its lean and what is under its foot.
func stand(r *study.Run) {
	b, p, s := r.Built.Bike, &r.Poses, &r.Stood
	added := r.Built.Figure(parts.StandLength)

	c := r.Figure(figure.StandShort)
	rise := p.RearRiseMM + (p.FrontRiseMM-p.RearRiseMM)*standShare
	if math.IsNaN(rise) {
		c.Lacks("both tyres and both standard tyres")
	}
	s.ShortMM = rise - added
	c.Is(s.ShortMM)
	if c.Sheet != nil {
		c.Sheet.Step(standFormula, study.Computed("short by", s.ShortMM, "mm"), study.Computed("rise", rise, "mm"), study.Computed("added", added, "mm"))
	}
	c.Plain()

	c = r.Figure(figure.StandLean)
	own := sheet.Value{Name: "lean₀", Number: stance.StandLeanDeg, Unit: "°", Origin: sheet.Memory}
	if b.StandLean.Known() {
		own = c.Bike("stand_lean", "lean₀", "°", &b.StandLean)
	}
	risen := p.Parked.RiseMM(standShare*p.Frame.WheelbaseMM, standMM)
	if math.IsNaN(risen) {
		c.Lacks("sag of both ends, parked")
	}
	s.LeanDeg = stance.LeanDeg(own.Number, risen, added)
	c.Is(s.LeanDeg)
	lean := study.Computed("lean, loaded, rider off", s.LeanDeg, "°")
	if c.Sheet != nil {
		c.Sheet.Step(stance.LeanFormula, lean, own, study.Computed("rise at the stand", risen, "mm"), study.Computed("length added", added, "mm"))
	}
	c.Plain()

	c = r.Figure(figure.StandPressure)
	mass := c.Fact("parked mass", r.Axles.Parked.TotalKg(), "kg")
	centre := c.Fact("height of its centre", r.Centre.ParkedMM, "mm")
	c.Fact("lean on its stand", s.LeanDeg, "°")
	foot, measured := r.Built.StandFootMM2()
	s.ForceN = stance.StandForceN(mass.Number, centre.Number, s.LeanDeg)
	s.KPa = stance.FootKPa(s.ForceN, foot)
	c.Is(s.KPa)
	if c.Sheet != nil {
		area := sheet.Value{Name: "foot", Number: foot / 100, Unit: "cm²", Origin: sheet.Maker}
		if !measured {
			area.Origin, area.Note = sheet.Memory, "38 × 38 mm, as on most"
		}
		c.Sheet.Step(stance.LeanFormula, lean)
		c.Sheet.Step(stance.StandForceFormula, study.Computed("F", s.ForceN, "N"), mass, centre, lean)
		c.Sheet.Step(stance.FootFormula, study.Computed("p", s.KPa, "kPa"), study.Computed("F", s.ForceN, "N"), area)
		for _, bed := range stance.Beds() {
			if !math.IsInf(bed.BearsKPa, 1) {
				c.Sheet.Note(study.Say("%s bears about %.0f kPa (after BS 8004:1986, from memory).", bed.Name, bed.BearsKPa).String())
			}
		}
	}
	c.Plain()
}
