package stance

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of how high the bike stands and how its rider is held.

const (
	seatNoticeMM = 5.0
	seatSmallMM  = 15.0 // [practice]: within what a boot's sole makes
	scarce       = 1.05 // of the room that the ground asks for: there is no more than that
	pressedLeast = 0.3  // of that room with all travel used, from which it strikes often [memory]
	endNoticeMM  = 10.0 // that one end is raised beyond the other [memory]
	springNotice = 6.0  // mm that new springs raise the bike at rest
	throughMost  = 12.0 // mm through the clamps, from which tyre and guard come near [memory]
	tallSeatMM   = 20.0
)

func outOfReach(f *facts.All) (study.Finding, bool) {
	seat := f.Figure(figure.SeatReach)
	if !(seat.Value > seat.Limit) {
		return study.Finding{}, false
	}
	return study.Found(seat.State, func() study.Words {
		whose := "the brief wants"
		if !f.Plan.Brief.ReachWish.Known() {
			whose = "usual is"
		}
		return study.Words{
			What: study.Say("Heels {%.0f mm} up at a stop: %s on the ground; %s {%.0f mm} at most.", f.Reach.MM, fit.FeetAt(f.Reach.MM), whose, f.Reach.WishMM),
			Why:  "Some ride happily on tiptoe, others sell a tall seat within a month. Slow rock, slopes and bags decide.",
			Do:   "Sit on it in your boots where you would stop. A low seat keeps the travel; links cost clearance.",
		}
	})
}

func roomShort(f *facts.All) (study.Finding, bool) {
	state := f.Figure(figure.Clearance).State
	if state != verdict.Watch && state != verdict.Over || math.IsNaN(f.Room.WishMM) {
		return study.Finding{}, false
	}
	return study.Found(state, func() study.Words {
		whose := "the brief wants"
		if !f.Plan.Brief.RoomWanted.Known() {
			whose = "this ground usually asks for"
		}
		do := study.Text("A skid plate and another line; springs for your mass keep what there is. Longer legs are another bike.")
		if f.Built.Chosen(parts.SkidPlate) {
			do = "The plate is on: another line, and springs for your mass, which keep what there is. Longer legs are another bike."
		}
		return study.Words{
			What: study.Say("{%.0f mm} under the engine with the rider on; %s {%.0f mm}.", f.Room.MM, whose, f.Room.WishMM),
			Why:  "Sump, header and frame rails take what the tyres roll over.",
			Do:   do,
		}
	})
}

func seatHeight(f *facts.All) (study.Finding, bool) {
	if !(math.Abs(f.Heights.SeatRiseMM) > seatNoticeMM) {
		return study.Finding{}, false
	}
	told := func() study.Words {
		short := study.Say("seat {%s mm}", study.Signed(f.Heights.SeatRiseMM, 0))
		if f.Heights.SeatRiseMM < 0 {
			return study.Words{
				Short: short,
				What:  study.Say("The tyres lower the seat by {%.0f mm}.", -f.Heights.SeatRiseMM),
				Why:   "The engine comes down with it: less room over rock, and the stand may hold the bike too upright.",
				Do:    "Measure the clearance under the engine with the rider on.",
			}
		}
		return study.Words{
			Short: short,
			What:  study.Say("The tyres raise the seat by {%.0f mm}.", f.Heights.SeatRiseMM),
			Why:   "Half of what the diameter grows goes into the height: feet reach less far.",
			Do:    "Sit on it in boots, on the kind of ground where you will stop.",
		}
	}
	if math.Abs(f.Heights.SeatRiseMM) <= seatSmallMM {
		return study.Noted(told)
	}
	return study.Found(verdict.Watch, told)
}

func roomPressed(f *facts.All) (study.Finding, bool) {
	if !(f.Room.PressedMM < pressedLeast*f.Room.WishMM) || f.Room.MM < f.Room.WishMM {
		return study.Finding{}, false
	}
	return study.FoundBy(f.Room.PressedMM, f.Room.WishMM, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("With all travel used {%.0f mm} are left under the engine.", f.Room.PressedMM),
			Why:  "A ditch takes the whole travel, and what lies in it is higher than that.",
			Do:   "A plate that is held by the frame; springs that keep it from using all of it. Links lower this as much as the seat.",
		}
	})
}

func linksLower(f *facts.All) (study.Finding, bool) {
	lower := -f.Built.Figure(parts.LinkRise)
	if !(lower > 0) {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Watch,
		Value: lower,
		Offer: func() []study.Remedy { return lowSeats(f) },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("The links lower the rear by {%.0f mm}: {%.0f mm} are left under the engine, the stand is {%.0f mm} too long, the head {%.1f°} flatter.",
					lower, f.Room.MM, math.Max(0, -f.Stood.ShortMM), math.Max(0, -f.Poses.RakeDegrees)),
				Why: "Clearance, and with most links travel, go for it; the chain runs otherwise over its slider.",
				Do:  "Hold a low seat against them: it keeps the travel, and costs room for the knee. With links the fork comes up through its clamps by as much, the stand is shortened, slack is set anew.",
			}
		},
	}, true
}

// lowSeats are the first seat that lowers.
func lowSeats(f *facts.All) []study.Remedy {
	return study.Offer(f, parts.Seat, func(p *parts.Part) bool { return p.Adds(parts.SeatRise) < 0 })
}

func springsRaise(f *facts.All) (study.Finding, bool) {
	if f.Springs.Front.By == nil && f.Springs.Rear.By == nil {
		return study.Finding{}, false
	}
	s := &f.Springs
	front, rear := s.Front.Came.RiderMM-s.Front.AloneMM, s.Rear.Came.RiderMM-s.Rear.AloneMM
	if !(math.Max(front, rear) > springNotice) {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: study.Say("rides {%.0f mm} higher", math.Max(front, rear)),
			What:  study.Say("On these springs, rider alone, the front rides {%s mm} and the rear {%s mm} higher than on its own.", study.Signed(front, 0), study.Signed(rear, 0)),
			Why:   "Firmer springs hold the bike up: the ground is further away, and the stand shorter.",
			Do:    "Look at the reach to the ground and at the stand after the sag is set, not before.",
		}
	})
}

func oneEndRaised(f *facts.All) (study.Finding, bool) {
	p := &f.Poses
	if !(math.Abs(p.FrontRiseMM-p.RearRiseMM) > endNoticeMM) {
		return study.Finding{}, false
	}
	return study.FoundBy(math.Abs(p.FrontRiseMM-p.RearRiseMM), 0, verdict.Watch, func() study.Words {
		how, why := "steeper", study.Text("Quicker steering, less steady at speed and in sand.")
		if p.RakeDegrees < 0 || math.IsNaN(p.RakeDegrees) && p.FrontRiseMM > p.RearRiseMM {
			how, why = "flatter", "Steadier, slower to turn."
		}
		what := study.Say("The front end is {%s mm} and the rear {%s mm} from where it was", study.Signed(p.FrontRiseMM, 0), study.Signed(p.RearRiseMM, 0))
		if !math.IsNaN(p.RakeDegrees) {
			what += study.Say("; the steering head is %.1f° %s", math.Abs(p.RakeDegrees), how)
		}
		if !math.IsNaN(p.TrailMM) {
			what += study.Say(": {%.0f mm} of trail, {%.0f mm} as it came", p.TrailMM, p.StandardTrailMM)
		}
		return study.Words{
			What: what + ".",
			Why:  why + " The headlamp's aim moves too.",
			Do:   "Balance the other end, or slide the fork in its clamps within the maker's marks; then aim the lamp.",
		}
	})
}

func forkThrough(f *facts.All) (study.Finding, bool) {
	slide := f.Plan.Slide()
	through := slide.In("mm")
	if !(math.Abs(through) > throughMost) {
		return study.Finding{}, false
	}
	return study.FoundBy(math.Abs(through), 0, verdict.Watch, func() study.Words {
		what, do := study.Say("The fork stands {%.0f mm} further up through its clamps.", through),
			study.Text("Let the springs out, push the fork all the way up, and look between tyre, guard and lower clamp before it is ridden.")
		if through < 0 {
			what, do = study.Say("The fork stands {%.0f mm} lower in its clamps.", -through), "Full grip of both clamps is what holds the wheel: not below the maker's mark."
		}
		return study.Words{What: what, Why: "A few millimetres is what most makers allow; the clamps and the room over the tyre set the rest.", Do: do + " A steering job: the manual's torque, a competent mechanic."}
	})
}

func backBent(f *facts.All) (study.Finding, bool) {
	if !(f.Body.BackStandingDeg > fit.BackStandingMost) || !(f.Contact.StandingHours > 0.5) {
		return study.Finding{}, false
	}
	return study.FoundBy(f.Body.BackStandingDeg, fit.BackStandingMost, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("On the pegs the back leans %.0f° forward, for %.1f hours a day.", f.Body.BackStandingDeg, f.Contact.StandingHours),
			Why:  "Neck and back carry the rider then, and arms steer by hanging on.",
			Do:   "Roll the bar ahead first, which is free. Then higher grips, cables looked at; lower pegs do half of it.",
		}
	})
}

func tallSeat(f *facts.All) (study.Finding, bool) {
	p := f.Built.Part(parts.Seat)
	if p == nil || !(p.Adds(parts.SeatRise) >= tallSeatMM) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s lifts the rider by {%.0f mm}: %s on the ground.", p.Name, p.Adds(parts.SeatRise), fit.FeetAt(f.Reach.MM)),
			Why:  "Easier to stand up from; further down at each stop, and the weight sits higher.",
			Do:   "Sit on one first, in boots, on a slope. Some sell a tall seat within a month.",
		}
	})
}
