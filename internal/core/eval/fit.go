package eval

import (
	"math"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Whether bike, rider and trip go together: reach and room.

const (
	usualReachMM  = 60.0 // balls of both feet [practice]
	frontSagShare = 0.23 // of travel, with the rider on [practice: 18–28 %]
	rearSagShare  = 0.30 // [practice: 25–35 %]
	engineShare   = 0.5  // where the lowest point is, of the wheelbase [memory]
	roughShare    = 0.05 // of the trip from which a ground's room is asked for
)

var sagFormula = sheet.Formula{Text: "sinks by = front sag × share + rear sag × (1 − share), share of the wheelbase forward of the rear axle", Origin: sheet.Computed}

// sinks is how far a point of the bike comes down under the rider: by the sag
// that was measured, or else by what is usual for the travel.
func (c *calc) sinks(share float64) float64 {
	b := c.run.built.Bike
	front := c.sag("front_sag", "front sag", b.FrontSag, "front_travel", "front travel", b.FrontTravel, frontSagShare)
	rear := c.sag("rear_sag", "rear sag", b.RearSag, "rear_travel", "rear travel", b.RearTravel, rearSagShare)
	sinks := front.Number*share + rear.Number*(1-share)
	if c.working != nil {
		c.working.Step(sagFormula, computed("sinks by", sinks, "mm"), front, rear, sheet.Value{Name: "share", Number: share, Origin: sheet.Memory})
	}
	return sinks
}

func (c *calc) sag(key, name string, measured measure, travelKey, travelName string, travel measure, usual float64) sheet.Value {
	if measured.Known() {
		return c.bike(key, name, "mm", measured)
	}
	v := c.bike(travelKey, travelName, "mm", travel)
	v.Name, v.Number, v.Origin = name+" as usual", v.Number*usual, sheet.Practice
	v.Note = "nobody has measured it: the middle of what is usual for the travel"
	return v
}

var reachFormula = sheet.Formula{Text: "reach = √(h² + (w/2)²) − inside leg − sole, h the seat with the rider on", Origin: sheet.Memory}

// seatReach is how far the heel ends above the ground; below zero the knees are
// bent.
func (r *run) seatReach() Figure {
	c := r.gauge("seat-reach")
	b, brief := r.built.Bike, &r.plan.Brief
	seat, width := c.bike("seat_height", "seat height", "mm", b.SeatHeight), c.bike("seat_width", "seat width", "mm", b.SeatWidth)
	leg, sole := c.brief("inside leg", "mm", brief.Inseam), c.brief("boot sole", "mm", brief.Sole)
	spot, _ := load.SpotOf(load.Rider)
	if math.IsNaN(r.facts.SeatRiseMM) {
		c.lacks("both tyres and both standard tyres")
	}
	raised := r.facts.SeatRiseMM + r.built.Figure(plan.SeatRise)
	loaded := seat.Number + raised - c.sinks(spot.Share)
	reach := math.Hypot(loaded, width.Number/2) - leg.Number - sole.Number
	c.is(reach)
	wish := sheet.Value{Name: "wish", Number: usualReachMM, Unit: "mm", Origin: sheet.Practice}
	if brief.ReachWish.Known() {
		wish = c.brief("wish", "mm", brief.ReachWish)
	}
	r.facts.ReachMM, r.facts.ReachWishMM = reach, wish.Number
	if c.working != nil {
		c.working.Step(reachFormula, computed("reach, + is heel in the air", reach, "mm"), seat, computed("tyres and seat raise it by", raised, "mm"),
			computed("h", loaded, "mm"), width, leg, sole)
	}
	return c.atMost(wish, 1, verdict.Over)
}

var roomFormula = sheet.Formula{Text: "room = clearance + rise − sinks", Origin: sheet.Computed}

// clearance is the room under the engine with the rider on.
func (r *run) clearance() Figure {
	c := r.gauge("clearance")
	unloaded := c.bike("clearance", "clearance, unloaded", "mm", r.built.Bike.Clearance)
	rise := c.riseAt(engineShare)
	room := unloaded.Number + rise - c.sinks(engineShare)
	c.is(room)
	wish := r.roomWish()
	r.facts.RoomMM, r.facts.RoomWishMM = room, wish.Number
	if math.IsNaN(wish.Number) {
		c.lacks("terrain shares (Brief)")
	} else {
		c.figure.Limited, c.figure.Limit = true, wish.Number
	}
	if c.working != nil {
		c.working.Step(roomFormula, computed("room with the rider on", room, "mm"), unloaded, computed("rise", rise, "mm"))
		c.working.Note("At full compression there is less: rider, bags and a dip take the rest of the travel.")
	}
	switch {
	case !c.figure.Known || !c.figure.Limited:
		c.figure.State = verdict.Unknown
	case room < wish.Number:
		c.figure.State = verdict.Over
	case room < 1.05*wish.Number:
		c.figure.State = verdict.Watch
	default:
		c.figure.State = verdict.OK
	}
	return c.figure
}

// roomWish is the brief's, or else what the roughest ground of the trip asks for.
func (r *run) roomWish() sheet.Value {
	if r.plan.Brief.RoomWanted.Known() {
		return sheet.Value{Name: "wish", Number: r.plan.Brief.RoomWanted.In("mm"), Unit: "mm", Origin: sheet.Rider}
	}
	wish := sheet.Value{Name: "what the ground asks for", Number: math.NaN(), Unit: "mm", Origin: sheet.Memory}
	for _, s := range r.plan.Brief.Terrain {
		if g, ok := terrain.Of(s.Ground); ok && s.Share.Base() >= roughShare && !(g.RoomMM <= wish.Number) {
			wish.Number = g.RoomMM
		}
	}
	return wish
}
