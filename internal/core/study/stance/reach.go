package stance

import (
	"math"

	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

const (
	usualReachMM  = 60.0 // balls of both feet [practice]
	frontSagShare = 0.23 // of travel, with the rider on [practice: 18–28 %]
	rearSagShare  = 0.30 // [practice: 25–35 %]
	engineShare   = 0.5  // where the lowest point is, of the wheelbase [memory]
	roughShare    = 0.05 // of the trip from which a ground's room is asked for
)

var (
	sagFormula  = sheet.Formula{Text: "sinks by = front sag × share + rear sag × (1 − share), share of the wheelbase forward of the rear axle", Origin: sheet.Computed}
	roomFormula = sheet.Formula{Text: "room = clearance + rise − sinks", Origin: sheet.Computed}
)

// sinks is how far a point of the bike comes down under the rider: by the sag
// that was measured, or else by what is usual for the travel.
func sinks(c study.Calc, share float64) float64 {
	b := c.Run.Built.Bike
	front := sag(c, "front_sag", "front sag", &b.FrontSag, "front_travel", "front travel", &b.FrontTravel, frontSagShare)
	rear := sag(c, "rear_sag", "rear sag", &b.RearSag, "rear_travel", "rear travel", &b.RearTravel, rearSagShare)
	sinks := front.Number*share + rear.Number*(1-share)
	if c.Sheet != nil {
		c.Sheet.Step(sagFormula, study.Computed("sinks by", sinks, "mm"), front, rear, sheet.Value{Name: "share", Number: share, Origin: sheet.Memory})
	}
	return sinks
}

func sag(c study.Calc, key, name string, measured study.Quantity, travelKey, travelName string, travel study.Quantity, usual float64) sheet.Value {
	if measured.Known() {
		return c.Bike(key, name, "mm", measured)
	}
	v := c.Bike(travelKey, travelName, "mm", travel)
	v.Number, v.Origin = v.Number*usual, sheet.Practice
	if c.Sheet != nil {
		v.Name, v.Note = name+" as usual", "nobody has measured it: the middle of what is usual for the travel"
	}
	return v
}

// reach is how far the heel ends above the ground; below zero the knees are bent.
func reach(r *study.Run) {
	c := r.Figure(figure.SeatReach)
	b, brief := r.Built.Bike, &r.Plan.Brief
	seat, width := c.Bike("seat_height", "seat height", "mm", &b.SeatHeight), c.Bike("seat_width", "seat width", "mm", &b.SeatWidth)
	leg, sole := c.Brief("inside leg", "mm", &brief.Inseam), c.Brief("boot sole", "mm", &brief.Sole)
	spot, _ := load.SpotOf(load.Rider)
	if math.IsNaN(r.Heights.SeatRiseMM) {
		c.Lacks("both tyres and both standard tyres")
	}
	raised := r.Heights.SeatRiseMM + r.Built.Figure(plan.SeatRise)
	loaded := seat.Number + raised - sinks(c, spot.Share)
	reach := fit.ReachMM(loaded, width.Number, leg.Number, sole.Number)
	c.Is(reach)
	wish := sheet.Value{Name: "wish", Number: usualReachMM, Unit: "mm", Origin: sheet.Practice}
	if brief.ReachWish.Known() {
		wish = c.Brief("wish", "mm", &brief.ReachWish)
	}
	r.Reach.MM, r.Reach.WishMM = reach, wish.Number
	if c.Sheet != nil {
		c.Sheet.Step(fit.ReachFormula, study.Computed("reach, + is heel in the air", reach, "mm"), seat, study.Computed("tyres and seat raise it by", raised, "mm"),
			study.Computed("seat with the rider on", loaded, "mm"), width, leg, sole)
		c.Sheet.Note("At a stop: " + fit.FeetAt(reach) + " on the ground. Flat to 15 mm, the balls of both to 60, of one to 100, tiptoe of one to 140.")
	}
	c.AtMost(wish, 1, verdict.Over)
}

// room is what there is under the engine with the rider on.
func room(r *study.Run) {
	c := r.Figure(figure.Clearance)
	unloaded := c.Bike("clearance", "clearance, unloaded", "mm", &r.Built.Bike.Clearance)
	rise := riseAt(c, engineShare)
	room, wish := unloaded.Number+rise-sinks(c, engineShare), roomWish(&r.Plan.Brief)
	c.Is(room)
	r.Room.MM, r.Room.WishMM = room, wish
	if math.IsNaN(wish) {
		c.Lacks("terrain shares (Brief)")
	}
	if c.Sheet != nil {
		c.Sheet.Step(roomFormula, study.Computed("room with the rider on", room, "mm"), unloaded, study.Computed("rise", rise, "mm"))
		c.Sheet.Note("At full compression there is less: rider, bags and a dip take the rest of the travel.")
	}
	c.Against(wish, room < wish, room < scarce*wish)
}

// roomWish is the brief's, or else what the roughest ground of the trip asks for, mm.
func roomWish(b *plan.Brief) float64 {
	if b.RoomWanted.Known() {
		return b.RoomWanted.In("mm")
	}
	wish := math.NaN()
	for _, s := range b.Terrain {
		if g, ok := terrain.Of(s.Ground); ok && s.Share.Base() >= roughShare && !(g.RoomMM <= wish) {
			wish = g.RoomMM
		}
	}
	return wish
}
