package gearing

import (
	"fmt"
	"math"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// ratios finds the gearing as built, and what it makes of cruise and walking pace.
func ratios(r *study.Run) {
	r.Drive.Pair, _ = r.Built.Sprockets()
	r.Drive.StandardPair, _ = r.Standard.Sprockets()
	gearChange(r)
	cruiseRPM(r)
	crawlSpeed(r)
}

// final is the final ratio as built: of the sprockets, or of a shaft drive.
func final(c study.Calc) sheet.Value {
	b := c.Run.Built.Bike
	if b.Shaft() {
		return c.Bike("final_ratio", "shaft's ratio", "", &b.FinalRatio)
	}
	pair, ok := c.Run.Built.Sprockets()
	if !ok {
		c.Lacks("sprocket teeth (Gearing)")
		return sheet.Value{Number: math.NaN()}
	}
	v := study.Computed("final ratio", pair.Ratio(), "")
	if c.Sheet != nil {
		v.Note = fmt.Sprintf("%d/%d", pair.Front, pair.Rear)
	}
	return v
}

// overall is the overall ratio in a gear: the first, or the highest.
func overall(c study.Calc, first bool) sheet.Value {
	b := c.Run.Built.Bike
	primary := c.Bike("primary", "primary ratio", "", &b.Primary)
	final := final(c)
	if !b.Gearbox.Known() {
		c.LacksAt("gearbox (Bike)", "bike/gearbox")
		return sheet.Value{Number: math.NaN()}
	}
	gear := sheet.Value{Name: "top gear", Number: b.Gearbox.Top()}
	if first {
		gear.Name, gear.Number = "first gear", b.Gearbox.First()
	}
	out := study.Computed("overall ratio", drive.Overall(primary.Number, gear.Number, final.Number), "")
	if c.Sheet != nil {
		gear.Origin = b.OriginOf("gearbox")
		c.Sheet.Step(drive.OverallFormula, out, primary, gear, final)
	}
	return out
}

// rollOut of the driven wheel.
func rollOut(c study.Calc) sheet.Value { return c.On(figure.RearCircumference, "roll-out") }

// gearChange is how much shorter the gearing is than standard, tyre included.
func gearChange(r *study.Run) {
	c := r.Figure(figure.GearChange)
	final := final(c)
	roll := rollOut(c)
	was := final // of a shaft, which nothing changes
	if !r.Built.Bike.Shaft() {
		standard, ok := r.Standard.Sprockets()
		if !ok {
			c.Lacks("standard sprockets (Bike)")
		}
		was = sheet.Value{Name: "standard final ratio", Number: standard.Ratio(), Origin: sheet.Maker}
		if c.Sheet != nil {
			was.Note = fmt.Sprintf("%d/%d", standard.Front, standard.Rear)
		}
	}
	stock := r.Wheels.StandardCircumferenceMM.Rear
	if math.IsNaN(stock) {
		c.Lacks("standard rear tyre (Bike)")
	}
	change := drive.ChangePercent(final.Number, was.Number, roll.Number, stock)
	r.Drive.ChangePercent = change
	c.Is(change)
	if c.Sheet != nil {
		c.Sheet.Step(drive.ChangeFormula, study.Computed("change, + is shorter", change, "%"), final, was, roll, study.Computed("standard roll-out", stock, "mm"))
	}
	c.Plain()
}

// cruiseRPM is the engine speed in top gear at the brief's cruise.
func cruiseRPM(r *study.Run) {
	c := r.Figure(figure.CruiseRPM)
	v := c.Brief("cruise", "km/h", &r.Plan.Brief.Cruise)
	r.Drive.CruiseKmh = v.Number
	overall, roll := overall(c, false), rollOut(c)
	rpm := drive.RPM(v.Number, overall.Number, roll.Number)
	r.Drive.CruiseRPM = rpm
	c.Is(rpm)
	if c.Sheet != nil {
		c.Sheet.Step(drive.RPMFormula, study.Computed("engine speed", rpm, "rpm"), v, overall, roll)
		c.Sheet.Note("Clutch home, no slip: a driven tyre slips 1–2 % on tarmac.")
	}
	limit := cruiseLimit(c)
	r.Drive.CruiseLimitRPM = limit.Number
	c.AtMost(limit, 0.97, verdict.Over)
}

// cruiseLimit is the brief's limit, or else what the bike is comfortable with.
func cruiseLimit(c study.Calc) sheet.Value {
	if b := &c.Run.Plan.Brief; b.CruiseRPM.Known() {
		return c.Brief("cruise limit", "rpm", &b.CruiseRPM)
	}
	return c.Bike("comfort_rpm", "comfortable engine speed", "rpm", &c.Run.Built.Bike.ComfortRPM)
}

// crawlSpeed is the slowest that first gear goes with the clutch home.
func crawlSpeed(r *study.Run) {
	c := r.Figure(figure.CrawlSpeed)
	clean := c.Bike("clean_rpm", "lowest clean engine speed", "rpm", &r.Built.Bike.CleanRPM)
	overall, roll := overall(c, true), rollOut(c)
	v := drive.SpeedKmh(clean.Number, overall.Number, roll.Number)
	c.Is(v)
	if c.Sheet != nil {
		c.Sheet.Step(drive.SpeedFormula, study.Computed("walking pace", v, "km/h"), clean, overall, roll)
	}
	limit := c.Brief("walking pace", "km/h", &r.Plan.Brief.WalkingPace)
	r.Drive.PaceLimitKmh = limit.Number
	c.AtMost(limit, 0.98, verdict.Over)
}
