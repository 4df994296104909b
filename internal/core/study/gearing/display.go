package gearing

import (
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

var speedoFormula = sheet.Formula{
	Text:   "shown over true = (1 + error before) × change of the wheel or shaft that it counts − 1",
	Origin: sheet.Published,
	Source: "limit by UN Regulation 39: never below the true speed",
}

// display is how much the speedometer shows over the true speed.
func display(r *study.Run) {
	c := r.Figure(figure.Speedometer)
	b := r.Built.Bike
	over := c.Bike("speedometer_over", "speedometer error before", "%", &b.SpeedometerOver)
	now, was := r.Wheels.CircumferenceMM, r.Wheels.StandardCircumferenceMM
	final := 1.0
	if !b.Shaft() {
		final = r.Drive.Pair.Ratio() / r.Drive.StandardPair.Ratio()
	}
	if b.Speedometer == "" {
		c.Lacks("where the speedometer counts (Bike)")
	} else {
		r.Speedo.Factor = drive.SpeedometerFactor(b.Speedometer, now.Front/was.Front, now.Rear/was.Rear, final)
	}
	if r.Built.Provides("speedometer-corrected") {
		r.Speedo.Factor = 1
	}
	r.Speedo.Over = (1+over.Number/100)*r.Speedo.Factor - 1
	c.Is(100 * r.Speedo.Over)
	if math.IsNaN(r.Speedo.Factor) {
		c.Lacks("the tyre or sprocket it counts")
	}
	if c.Sheet != nil {
		c.Sheet.Step(speedoFormula, study.Computed("reads high by", 100*r.Speedo.Over, "%"), over,
			study.Computed("change of what it counts", r.Speedo.Factor, ""))
	}
	c.Plain()
}
