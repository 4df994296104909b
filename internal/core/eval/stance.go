package eval

import (
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// What other tyres do to height, angle and speedometer.

var riseFormula = sheet.Formula{Text: "rise = Δr_rear + (Δr_front − Δr_rear) × seat's share of the wheelbase, Δr = ½ ΔD", Origin: sheet.Computed}

// standShare is where a side stand meets the ground, of the wheelbase forward of
// the rear axle [memory].
const standShare = 0.45

// growth is what each end rises: half of what its tyre's diameter grows.
func (r *run) growth() (front, rear float64) {
	f := r.facts
	return (f.DiameterMM.Front - f.StandardDiameterMM.Front) / 2, (f.DiameterMM.Rear - f.StandardDiameterMM.Rear) / 2
}

// riseAt is how much a point of the bike is lifted by the tyres.
func (c *calc) riseAt(share float64) float64 {
	front, rear := c.run.growth()
	if math.IsNaN(front) || math.IsNaN(rear) {
		c.lacks("both tyres and both standard tyres")
	}
	rise := rear + (front-rear)*share
	if c.working != nil {
		c.working.Step(riseFormula, computed("rise", rise, "mm"),
			computed("Δr front", front, "mm"), computed("Δr rear", rear, "mm"),
			sheet.Value{Name: "share", Number: share, Origin: sheet.Memory})
	}
	return rise
}

func (r *run) seatRise() Figure {
	c := r.figure("seat-rise", "Seat rises", "mm")
	seat, _ := load.SpotOf(load.Rider)
	r.facts.SeatRiseMM = c.riseAt(seat.Share)
	c.is(r.facts.SeatRiseMM)
	return c.plain()
}

var standFormula = sheet.Formula{Text: "short by = rise at the stand − length added to it", Origin: sheet.Computed}

func (r *run) standShort() Figure {
	c := r.figure("stand-short", "Side stand short by", "mm")
	rise := c.riseAt(standShare)
	added := r.built.Figure(plan.StandLength)
	r.facts.StandShortMM = rise - added
	c.is(r.facts.StandShortMM)
	if c.working != nil {
		c.working.Step(standFormula, computed("short by", rise-added, "mm"), computed("rise", rise, "mm"), computed("added", added, "mm"))
	}
	return c.plain()
}

var rakeFormula = sheet.Formula{Text: "Δ rake = atan((Δr_rear − Δr_front) / wheelbase)", Origin: sheet.Computed}

func (r *run) rake() Figure {
	c := r.figure("rake-change", "Steering head steeper by", "°")
	base := c.bike("wheelbase", "wheelbase", "mm", r.built.Bike.Wheelbase)
	front, rear := r.growth()
	if math.IsNaN(front) || math.IsNaN(rear) {
		c.lacks("both tyres and both standard tyres")
	}
	r.facts.RakeDegrees = math.Atan((rear-front)/base.Number) * 180 / math.Pi
	c.is(r.facts.RakeDegrees)
	if c.working != nil {
		c.working.Step(rakeFormula, computed("Δ rake, + is steeper", r.facts.RakeDegrees, "°"),
			computed("Δr rear", rear, "mm"), computed("Δr front", front, "mm"), base)
	}
	return c.plain()
}

var mixFormula = sheet.Formula{Text: "mix = ((C_front/C_rear) / (C₀_front/C₀_rear) − 1) × 100", Origin: sheet.Computed}

func (r *run) mix() Figure {
	c := r.figure("wheel-mix", "Front against rear", "%")
	now, was := r.facts.CircumferenceMM, r.facts.StandardCircumferenceMM
	mix := (now.Front/now.Rear/(was.Front/was.Rear) - 1) * 100
	if math.IsNaN(mix) {
		c.lacks("both tyres and both standard tyres")
	}
	r.facts.MixPercent = mix
	c.is(mix)
	if c.working != nil {
		c.working.Step(mixFormula, computed("mix", mix, "%"),
			computed("front roll-out", now.Front, "mm"), computed("rear roll-out", now.Rear, "mm"),
			computed("standard front", was.Front, "mm"), computed("standard rear", was.Rear, "mm"))
	}
	return c.plain()
}

var speedoFormula = sheet.Formula{
	Text:   "shown over true = (1 + error before) × change of the wheel or shaft that it counts − 1",
	Origin: sheet.Published,
	Source: "limit by UN Regulation 39: never below the true speed",
}

// speedometer is how much the display shows over the true speed.
func (r *run) speedometer() Figure {
	c := r.figure("speedometer", "Speedometer reads high by", "%")
	b := r.built.Bike
	over := c.bike("speedometer_over", "speedometer error before", "%", b.SpeedometerOver)
	now, was := r.facts.CircumferenceMM, r.facts.StandardCircumferenceMM
	final := 1.0
	if !b.Shaft() {
		final = r.facts.Pair.Ratio() / r.facts.StandardPair.Ratio()
	}
	r.facts.SpeedoFactor = math.NaN()
	if b.Speedometer == "" {
		c.lacks("where the speedometer counts (Bike)")
	} else {
		r.facts.SpeedoFactor = drive.SpeedometerFactor(b.Speedometer, now.Front/was.Front, now.Rear/was.Rear, final)
	}
	if r.built.Provides("speedometer-corrected") {
		r.facts.SpeedoFactor = 1
	}
	r.facts.SpeedoOver = (1+over.Number/100)*r.facts.SpeedoFactor - 1
	c.is(100 * r.facts.SpeedoOver)
	if math.IsNaN(r.facts.SpeedoFactor) {
		c.lacks("the tyre or sprocket it counts")
	}
	if c.working != nil {
		c.working.Step(speedoFormula, computed("reads high by", 100*r.facts.SpeedoOver, "%"), over,
			computed("change of what it counts", r.facts.SpeedoFactor, ""))
	}
	return c.plain()
}
