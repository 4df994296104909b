package eval

import (
	"math"

	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
)

// usualSeatHours is how long most standard seats do [practice: beyond an hour a
// day is where a seat is worth money].
const usualSeatHours = 1.5

var seatedFormula = sheet.Formula{Text: "seated = hours a day × (1 − half of the share of time on loose ground)", Origin: sheet.Memory}

// seated is the hours of a day that are ridden sitting.
func (r *run) seated() Figure {
	c := r.figure("seated-hours", "Seated a day", "h")
	day := c.brief("hours a day", "h", r.plan.Brief.Day)
	loose := r.looseShare()
	if math.IsNaN(loose) {
		c.lacks("terrain shares (Brief)")
	}
	hours := day.Number * (1 - fit.StandShare*loose)
	r.facts.SeatedHours, r.facts.StandingHours = hours, day.Number-hours
	c.is(hours)
	if c.working != nil {
		c.working.Step(seatedFormula, computed("seated", hours, "h"), day, computed("time on loose ground", 100*loose, "%"))
	}
	return c.plain()
}

// looseShare is the share of the riding time that is spent off the road.
func (r *run) looseShare() float64 {
	mix := r.plan.Brief.Mix()
	if mix == nil {
		return math.NaN()
	}
	return 1 - mix.RoadHours(1)/mix.Hours(1)
}

var seatFormula = sheet.Formula{Text: "what the seat's maker or its riders say, or what a standard seat does", Origin: sheet.Practice}

// seatHours is how long the seat as built does.
func (r *run) seatHours() Figure {
	c := r.figure("seat-hours", "The seat does", "h")
	hours := usualSeatHours
	if set := r.built.Figure(plan.SeatHours); set > 0 {
		hours = set
	}
	r.facts.SeatHours = hours
	c.is(hours)
	if c.working != nil {
		c.working.Step(seatFormula, computed("the seat does", hours, "h"), sheet.Value{Name: "a standard seat", Number: usualSeatHours, Unit: "h", Origin: sheet.Practice})
		c.working.Note("Try the standard seat first, for a whole day: many do more, some less.")
	}
	return c.plain()
}

// knee is the angle of the rider's knee, seated.
func (r *run) knee() Figure {
	c := r.figure("knee", "Knee, seated", "°")
	b := r.built.Bike
	seat, peg := c.bike("seat_height", "seat height", "mm", b.SeatHeight), c.bike("peg_height", "foot pegs", "mm", b.PegHeight)
	leg := c.brief("inside leg", "mm", r.plan.Brief.Inseam)
	over := seat.Number + r.built.Figure(plan.SeatRise) - peg.Number + r.built.Figure(plan.PegDrop)
	angle := fit.KneeDegrees(leg.Number, over)
	r.facts.KneeDegrees = angle
	c.is(angle)
	if c.working != nil {
		c.working.Step(fit.KneeFormula, computed("knee", angle, "°"), leg, computed("seat over the pegs", over, "mm"), seat, peg)
	}
	return c.plain()
}

// standing is by how much the grips are too low for a rider on the pegs.
func (r *run) standing() Figure {
	c := r.figure("bar-short", "Bars too low to stand by", "mm")
	b := r.built.Bike
	bar, peg := c.bike("bar_height", "bar height", "mm", b.BarHeight), c.bike("peg_height", "foot pegs", "mm", b.PegHeight)
	leg := c.brief("inside leg", "mm", r.plan.Brief.Inseam)
	rise := r.built.Figure(plan.BarRise)
	over := bar.Number + rise - peg.Number + r.built.Figure(plan.PegDrop)
	short := fit.GripOverPegMM(leg.Number) - over
	r.facts.BarShortMM, r.facts.BarRiseMM, r.facts.CableSlackMM = short, rise, b.CableSlack.In("mm")
	c.is(short)
	if c.working != nil {
		c.working.Step(fit.StandFormula, computed("too low by", short, "mm"), leg, computed("grips over the pegs", over, "mm"), bar, peg, computed("bars raised by", rise, "mm"))
	}
	return c.plain()
}
