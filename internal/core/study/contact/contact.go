// Package contact is the study of where the rider touches the bike: seat, pegs, bars,
// and the cockpit in sight.
package contact

import (
	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
)

// Study of the contact points.
var Study = study.Study{
	Name: "contact",
	Steps: []study.Step{
		{
			Name: "contact", Needs: facts.Bike | facts.InBrief | facts.InFigures, Gives: facts.ContactGroup, Run: touch,
			Figures: []figure.ID{figure.RideHours, figure.SeatedHours, figure.SeatHours, figure.Knee, figure.PegLean, figure.BarShort},
		},
	},
	Rules: rules,
	Needs: []study.NeedRule{
		{ID: "seat", Name: "A seat for the hours", Stage: figure.Contact, Reads: facts.ContactGroup, Ask: seat},
		{ID: "stand", Name: "Grips to stand by", Stage: figure.Contact, Reads: facts.ContactGroup, Ask: stand},
		{ID: "pegs", Name: "Pegs to stand on", Stage: figure.Contact, Reads: facts.Bike | facts.InTags | facts.ContactGroup, Ask: pegs},
		{ID: "wind", Name: "Shelter from the wind", Stage: figure.Contact, Reads: facts.Bike | facts.InBrief | facts.InFigures | facts.DriveGroup, Ask: wind},
		{ID: "warm-hands", Name: "Warm hands", Stage: figure.Contact, Reads: facts.Bike | facts.InBrief | facts.InTags, Ask: warmHands},
		{ID: "navigation", Name: "Something to find the way by", Stage: figure.Contact, Reads: facts.Bike | facts.InBrief | facts.InTags, Ask: navigation},
		{ID: "levers", Name: "Levers in reach", Stage: figure.Contact, Reads: facts.Bike | facts.InBrief | facts.InTags, Ask: levers},
		{ID: "charging", Name: "Charging on the way", Stage: figure.Contact, Reads: facts.Bike | facts.InBrief | facts.InTags, Ask: charging},
	},
}

var rules = []study.Rule{
	{ID: "cables-short", Class: cause.Fails, Cause: cause.Posture, Pulls: cause.Less(cause.BarHeight), Stage: figure.Contact, Reads: facts.Bike | facts.ContactGroup, Judge: cablesShort},
	{ID: "knees-bent", Class: cause.StopsRider, Cause: cause.Posture, Pulls: cause.More(cause.RideHeight), Stage: figure.Contact, Reads: facts.ContactGroup, Figures: []figure.ID{figure.Knee}, Judge: kneesBent},
	{ID: "seat-for-the-hours", Class: cause.StopsRider, Cause: cause.Comfort, Need: "seat", Stage: figure.Contact, Reads: facts.ContactGroup | facts.InLog | facts.InRest, Judge: seatForTheHours},
	{ID: "bars-low-standing", Class: cause.Control, Cause: cause.Posture, Pulls: cause.More(cause.BarHeight), Need: "stand", Stage: figure.Contact, Reads: facts.ContactGroup | facts.BodyGroup, Figures: []figure.ID{figure.BarShort, figure.SeatedHours}, Judge: barsLow},
	{ID: "screen-in-sight", Class: cause.Control, Cause: cause.Comfort, Free: true, Stage: figure.Contact, Reads: facts.Bike | facts.InTags | facts.ContactGroup, Judge: screenInSight},
	{ID: "shaken-phone", Class: cause.Undone, Cause: cause.Comfort, Stage: figure.Contact, Reads: facts.Bike | facts.InTags, Judge: shakenPhone},
	{ID: "live-socket", Class: cause.Fails, Cause: cause.Wiring, Free: true, Stage: figure.Contact, Reads: facts.Bike | facts.InTags, Judge: liveSocket},
	{ID: "glued-grips", Class: cause.Rest, Cause: cause.Comfort, Stage: figure.Contact, Reads: facts.Bike | facts.InContact | facts.InTags, Judge: gluedGrips},
	{ID: "pegs-drag", Class: cause.Control, Cause: cause.Posture, Stage: figure.Contact, Reads: facts.InBrief | facts.InContact | facts.ContactGroup, Judge: pegsDrag},
	{ID: "boots-and-levers", Class: cause.Control, Cause: cause.Posture, Free: true, Stage: figure.Contact, Reads: facts.InBrief | facts.InContact, Judge: bootsAndLevers},
	{ID: "tower-and-bars", Class: cause.Control, Cause: cause.Posture, Pulls: cause.Less(cause.BarHeight), Stage: figure.Contact, Reads: facts.Bike | facts.InTags | facts.ContactGroup, Judge: towerAndBars},
}

// How long most standard seats do, h, in the wind and behind a screen that takes it off the
// rider [memory].
const (
	nakedSeatHours    = 2.0
	screenedSeatHours = 3.5
)

var (
	hoursFormula  = sheet.Formula{Text: "hours = Σ distance × share / typical speed", Origin: sheet.Memory}
	seatedFormula = sheet.Formula{Text: "seated = hours a day × (1 − half of the share of time on loose ground)", Origin: sheet.Memory}
	seatFormula   = sheet.Formula{Text: "what the seat's maker or its riders say, or what a standard seat does", Origin: sheet.Practice}
)

// touch finds how the rider sits, stands and holds on.
func touch(r *study.Run) {
	rideHours(r)
	seated(r)
	seatHours(r)
	knee(r)
	pegLean(r)
	standing(r)
}

// rideHours is the time in the saddle at each ground's typical speed.
func rideHours(r *study.Run) {
	c := r.Figure(figure.RideHours)
	distance := c.Brief("trip distance", "km", &r.Plan.Brief.Distance)
	mix := r.Plan.Brief.Mix()
	if !mix.Said() {
		c.LacksGround()
	}
	hours := mix.Hours(distance.Number)
	c.Is(hours)
	if c.Sheet != nil {
		c.Sheet.Step(hoursFormula, study.Computed("hours", hours, "h"), distance)
	}
	c.Plain()
}

// seated is the hours of a day that are ridden sitting.
func seated(r *study.Run) {
	c := r.Figure(figure.SeatedHours)
	day := c.Brief("hours a day", "h", &r.Plan.Brief.Day)
	mix := r.Plan.Brief.Mix()
	if !mix.Said() {
		c.LacksGround()
	}
	loose := 1 - mix.RoadHours(1)/mix.Hours(1) // of the riding time
	hours := day.Number * (1 - fit.StandShare*loose)
	r.Contact.SeatedHours, r.Contact.StandingHours = hours, day.Number-hours
	c.Is(hours)
	if c.Sheet != nil {
		c.Sheet.Step(seatedFormula, study.Computed("seated", hours, "h"), day, study.Computed("time on loose ground", 100*loose, "%"))
	}
	c.Plain()
}

// seatHours is how long the seat as built does.
func seatHours(r *study.Run) {
	c := r.Figure(figure.SeatHours)
	usual, seat := nakedSeatHours, "a standard seat in the wind"
	if screened(r.All) {
		usual, seat = screenedSeatHours, "a standard seat behind a screen"
	}
	hours := usual
	if set := r.Built.Figure(parts.SeatHours); set > 0 {
		hours = set
	}
	r.Contact.SeatHours = hours
	c.Is(hours)
	if c.Sheet != nil {
		c.Sheet.Step(seatFormula, study.Computed("the seat does", hours, "h"), sheet.Value{Name: seat, Number: usual, Unit: "h", Origin: sheet.Memory})
		c.Sheet.Note("Try the standard seat first, for a whole day: many do more, some less.")
	}
	c.Plain()
}

// knee is the angle of the rider's knee, seated.
func knee(r *study.Run) {
	c := r.Figure(figure.Knee)
	b := r.Built.Bike
	seat, peg := c.Bike("seat_height", "seat height", "mm", &b.SeatHeight), c.Bike("peg_height", "foot pegs", "mm", &b.PegHeight)
	leg := c.Brief("inside leg", "mm", &r.Plan.Brief.Inseam)
	over := seat.Number + r.Built.Figure(parts.SeatRise) - peg.Number + r.Built.Figure(parts.PegDrop)
	ahead := sheet.Value{Name: "pegs ahead of the hip", Number: b.PegAheadMM(), Unit: "mm", Origin: sheet.Memory}
	if b.PegAhead.Known() {
		ahead.Origin = b.OriginOf("peg_ahead")
	}
	angle := fit.KneeDegrees(leg.Number, over, ahead.Number)
	r.Contact.KneeDegrees, r.Contact.SeatOverPegMM = angle, over
	c.Is(angle)
	if c.Sheet != nil {
		c.Sheet.Step(fit.KneeFormula, study.Computed("knee", angle, "°"), leg, study.Computed("seat over the pegs", over, "mm"), ahead, seat, peg)
	}
	c.Plain()
}

// pegLean is the lean at which the pegs touch the ground, and how much earlier that is than
// with the standard ones.
func pegLean(r *study.Run) {
	c := r.Figure(figure.PegLean)
	b := r.Built.Bike
	peg := c.Bike("peg_height", "foot pegs", "mm", &b.PegHeight)
	down, out := r.Built.Figure(parts.PegDrop), r.Built.Figure(parts.PegOut)
	lean := func(down, out, off float64) float64 {
		return fit.TouchDeg(peg.Number-fit.UsualSinkMM-down, fit.UsualPegOutMM+off+out)
	}
	now := lean(down, out, 0)
	r.Contact.PegLeanDeg, r.Contact.PegSoonerDeg = now, lean(0, 0, 0)-now
	c.Is(now)
	c.Usual = max(c.Usual, 2)
	c.Band(lean(down, out, fit.UsualPegHalfMM), lean(down, out, -fit.UsualPegHalfMM))
	if c.Sheet != nil {
		c.Sheet.Step(fit.TouchFormula, study.Computed("pegs touch down at", now, "°"), peg, sheet.Value{Name: "sinks in a bend by", Number: fit.UsualSinkMM, Unit: "mm", Origin: sheet.Memory},
			study.Computed("lower by", down, "mm"), sheet.Value{Name: "a peg's end from the middle of the bike", Number: fit.UsualPegOutMM, Unit: "mm", Origin: sheet.Memory}, study.Computed("further out by", out, "mm"))
	}
	c.Plain()
}

// standing is by how much the grips are too low for a rider on the pegs.
func standing(r *study.Run) {
	c := r.Figure(figure.BarShort)
	b := r.Built.Bike
	bar, peg := c.Bike("bar_height", "bar height", "mm", &b.BarHeight), c.Bike("peg_height", "foot pegs", "mm", &b.PegHeight)
	leg := c.Brief("inside leg", "mm", &r.Plan.Brief.Inseam)
	rise := r.Built.Figure(parts.BarRise)
	over := bar.Number + rise - peg.Number + r.Built.Figure(parts.PegDrop)
	short := fit.GripOverPegMM(leg.Number) - over
	r.Contact.BarShortMM, r.Contact.BarRiseMM, r.Contact.CableSlackMM = short, rise, b.CableSlack.In("mm")+r.Built.Figure(parts.CableSlack)
	c.Is(short)
	if c.Sheet != nil {
		c.Sheet.Step(fit.StandFormula, study.Computed("too low by", short, "mm"), leg, study.Computed("grips over the pegs", over, "mm"), bar, peg, study.Computed("bars raised by", rise, "mm"))
	}
	c.Plain()
}
