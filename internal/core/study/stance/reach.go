package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/stance"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

const (
	usualReachMM = 60.0 // balls of both feet [practice]
	engineShare  = 0.5  // where the lowest point is, of the wheelbase [memory]
	roughShare   = 0.05 // of the trip from which a ground's room is asked for
)

var (
	sinksFormula = sheet.Formula{Text: "the frame sinks at each axle by its sag less its free sag as it came, and turns with it", Origin: sheet.Computed}
	roomFormula  = sheet.Formula{Text: "room = clearance as the data sheet has it, turned and sunk with the frame", Origin: sheet.Computed}
)

// sunk notes what a height with the rider on rests on: the travels, and how far each end
// goes down.
func sunk(c study.Calc) {
	r := c.Run
	if math.IsNaN(r.Heights.SeatRiseMM) {
		c.Lacks("both tyres and both standard tyres")
	}
	b := r.Built.Bike
	c.Bike("front_travel", "fork travel", "mm", &b.FrontTravel)
	c.Bike("rear_travel", "rear travel", "mm", &b.RearTravel)
	if c.Sheet == nil {
		return
	}
	for _, end := range []struct {
		name             string
		e                *facts.SpringEnd
		usual, usualFree float64
	}{{"front", &r.Springs.Front, stance.UsualFront, stance.UsualFrontFree}, {"rear", &r.Springs.Rear, stance.UsualRear, stance.UsualRearFree}} {
		s := settled(end.e, end.usual, end.usualFree)
		sag, free := study.Computed(end.name+" sag, loaded", s.loaded, "mm"), study.Computed(end.name+" free sag, as it came", s.cameFree, "mm")
		if math.IsNaN(end.e.FreeMM) {
			free.Origin, free.Note = sheet.Practice, "nobody knows its springs: what is usual for the travel"
			if math.IsNaN(end.e.LoadedMM) && math.IsNaN(end.e.Came.RiderMM) {
				sag.Origin, sag.Note = sheet.Practice, free.Note
			}
		}
		c.Sheet.Step(sinksFormula, study.Computed(end.name+" sinks by", s.loaded-s.cameFree, "mm"), sag, free)
	}
}

// sinksHalf is half of the band in which it is known how far the frame sinks with everything on
// at a place, a share of the wheelbase ahead of the rear axle, mm: ends whose springs nobody
// knows sink as is usual. usual are the sags of those, to be measured.
func sinksHalf(r *study.Run, share float64) (half float64, usual []study.Lack) {
	for _, end := range []struct {
		e     *facts.SpringEnd
		share float64
		sag   string
	}{{&r.Springs.Front, share, "front sag with everything on"}, {&r.Springs.Rear, 1 - share, "rear sag with everything on"}} {
		if math.IsNaN(end.e.LoadedMM) {
			half, usual = half+stance.UsualSagHalf*end.e.End.TravelMM*end.share, append(usual, study.Lack{What: end.sag, At: "page/measure"})
		}
	}
	return half, usual
}

// overSprings notes a load that nobody knows on springs that are known: how far they sink
// is not known then.
func overSprings(c study.Calc) bool {
	unknown := false
	for _, end := range []struct {
		e    *facts.SpringEnd
		load figure.ID
	}{{&c.Run.Springs.Front, figure.FrontLoad}, {&c.Run.Springs.Rear, figure.RearLoad}} {
		if math.IsNaN(end.e.LoadedMM) && !math.IsNaN(end.e.Came.FreeMM) {
			c.On(end.load, "")
			unknown = true
		}
	}
	return unknown
}

// reach is how far the heel ends above the ground; below zero the knees are bent.
func reach(r *study.Run) {
	c := r.Figure(figure.SeatReach)
	b, brief, pose := r.Built.Bike, &r.Plan.Brief, &r.Poses.Loaded
	seat, width := c.Bike("seat_height", "seat height", "mm", &b.SeatHeight), c.Bike("seat_width", "seat width", "mm", &b.SeatWidth)
	leg, sole := c.Brief("inside leg", "mm", &brief.Inseam), c.Brief("boot sole", "mm", &brief.Sole)
	sunk(c)
	spot, _ := load.SpotOf(load.Rider)
	raised := r.Built.Figure(parts.SeatRise)
	_, loaded := pose.At(spot.Share*r.Poses.Frame.WheelbaseMM, seat.Number+raised)
	across := width.Number + r.Built.Figure(parts.SeatWidth)
	reach := fit.ReachMM(loaded, across, leg.Number, sole.Number)
	c.Is(reach)
	wish, worst := sheet.Value{Name: "usual", Number: usualReachMM, Unit: "mm", Origin: sheet.Practice}, verdict.Watch
	if brief.ReachWish.Known() {
		wish, worst = c.Brief("wish", "mm", &brief.ReachWish), verdict.Over
	}
	r.Reach = facts.Reach{MM: reach, WishMM: wish.Number, SeatMM: loaded}
	if c.Sheet != nil {
		c.Sheet.Step(fit.ReachFormula, study.Computed("reach, + is heel in the air", reach, "mm"), seat, study.Computed("another seat raises it by", raised, "mm"),
			study.Computed("seat with everything on", loaded, "mm"), study.Computed("width where the legs go down", across, "mm"), leg, sole)
		c.Sheet.Note("At a stop: " + fit.FeetAt(reach) + " on the ground. Flat to 15 mm, the balls of both to 60, of one to 100, tiptoe of one to 140.")
	}
	half, usual := sinksHalf(r, spot.Share)
	c.Usual = int32(len(usual))
	c.Spread(half)
	c.AtMost(wish, 1, worst)
	c.Settle(func() []study.Lack { return usual })
}

// room is what there is under the engine: with everything on, standing by itself, and with
// all travel used.
func room(r *study.Run) {
	wish, said := roomWish(&r.Plan.Brief), r.Plan.Brief.RoomWanted.Known() // what nobody said is passed at most on watch
	below, half, usual := hangs(r)
	under := func(id figure.ID, pose *stance.Pose, name string) (study.Calc, float64) {
		c := r.Figure(id)
		unloaded := c.Bike("clearance", "clearance, unloaded", "mm", &r.Built.Bike.Clearance)
		sunk(c)
		_, room := pose.At(engineShare*r.Poses.Frame.WheelbaseMM, unloaded.Number-below)
		if overSprings(c) { // less room than there would be with what nobody has weighed
			room = math.NaN()
		}
		c.Is(room)
		if c.Sheet != nil {
			c.Sheet.Step(roomFormula, study.Computed(name, room, "mm"), unloaded, study.Computed("turned, nose up", pose.PitchDeg, "°"), study.Computed("hangs below the engine", below, "mm"))
		}
		return c, room
	}
	c, static := under(figure.RoomStatic, &r.Poses.Static, "room by itself")
	c.Plain()
	c, pressed := under(figure.RoomPressed, &r.Poses.Pressed, "room with all travel used")
	c.Plain()
	c, loaded := under(figure.Clearance, &r.Poses.Loaded, "room with everything on")
	r.Room = facts.Room{MM: loaded, StaticMM: static, PressedMM: pressed, WishMM: wish}
	if math.IsNaN(wish) {
		c.LacksGround()
	}
	sinks, ends := sinksHalf(r, engineShare)
	half += sinks
	c.Usual = max(c.Usual, int32(usual+len(ends)))
	c.Spread(half)
	c.Against(wish, said && loaded+half < wish, loaded-half < scarce*wish || loaded < wish || len(ends) > 0 && loaded-half < wish)
	if c.State == verdict.Watch {
		c.Unsure(ends...)
	}
}

// hangs is how far what was put under the engine hangs lower than what the bike came with, mm,
// with half of the band of what is usual for a plate that is told of and nobody has measured.
func hangs(r *study.Run) (mm, half float64, usual int) {
	mm = r.Built.Figure(parts.HangsBelow) - r.Standard.Figure(parts.HangsBelow)
	unsaid := func(p *parts.Part, sign float64) {
		if u := p.Usually(parts.Hangs); u.Known() && p.Told() && !parts.Hangs.In(p).Known() {
			mm, half, usual = mm+sign*u.Value, half+u.Half, usual+1
		}
	}
	for i := range r.Built.Fitted {
		now := &r.Built.Fitted[i]
		was := r.Standard.Part(now.Slot)
		if was == now.Part || !now.Slot.Has(parts.Hangs) { // the bike's clearance was taken with it on
			continue
		}
		if unsaid(now.Part, 1); was != nil {
			unsaid(was, -1)
		}
	}
	return mm, half, usual
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
