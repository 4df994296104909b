// Package stance is the study of how the bike stands: what its springs do under this
// rider with this load, how it is turned about its wheels, the room under the engine, the
// side stand, and how the rider reaches the ground and the grips.
package stance

import (
	"slices"

	"valiantmule/internal/core/cause"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/study"
)

// Study of the stance.
var Study = study.Study{
	Name: "stance",
	Steps: []study.Step{
		{
			Name: "heights", Needs: facts.Bike | facts.WheelsGroup, Gives: facts.HeightsGroup, Run: heights,
			Figures: []figure.ID{figure.SeatRise},
		},
		{
			Name: "measured sag", Needs: facts.Bike | facts.InLog, Gives: facts.SatGroup,
			Run:    func(r *study.Run) { r.Sat = r.Plan.ReadingsOf(logbook.SagRead) },
			OfPlan: true,
		},
		{
			Name: "springs", Needs: facts.Bike | facts.InBrief | facts.InLoadout | facts.InSprings | facts.InFigures | facts.SatGroup | facts.MassesGroup | facts.AxlesGroup, Gives: facts.SpringsGroup, Run: springs,
			Figures: []figure.ID{
				figure.SagFront, figure.SagRear, figure.FreeFront, figure.FreeRear,
				figure.PreloadFront, figure.PreloadRear, figure.SpringFront, figure.SpringRear,
			},
		},
		{
			Name: "poses", Needs: facts.Bike | facts.InLoadout | facts.InFigures | facts.WheelsGroup | facts.HeightsGroup | facts.SpringsGroup, Gives: facts.PosesGroup, Run: poses,
			Figures: []figure.ID{figure.Rake, figure.RakeChange, figure.Trail, figure.Wheelbase},
		},
		{
			Name: "stand", Needs: facts.Bike | facts.InFigures | facts.PosesGroup | facts.AxlesGroup | facts.CentreGroup, Gives: facts.StoodGroup, Run: stand,
			Figures: []figure.ID{figure.StandShort, figure.StandLean, figure.StandPressure},
		},
		{
			Name: "reach", Needs: facts.Bike | facts.InBrief | facts.InFigures | facts.HeightsGroup | facts.SpringsGroup | facts.PosesGroup, Gives: facts.ReachGroup, Run: reach,
			Figures: []figure.ID{figure.SeatReach},
		},
		{
			Name: "room", Needs: facts.Bike | facts.InBrief | facts.InGuards | facts.InEngine | facts.InFigures | facts.HeightsGroup | facts.SpringsGroup | facts.PosesGroup | facts.AxlesGroup, Gives: facts.RoomGroup, Run: room,
			Figures: []figure.ID{figure.Clearance, figure.RoomStatic, figure.RoomPressed},
		},
		{
			Name: "body", Needs: facts.Bike | facts.InBrief | facts.InLoadout | facts.InFigures | facts.WheelsGroup, Gives: facts.BodyGroup, Run: body,
			Figures: []figure.ID{figure.BackSeated, figure.BackStanding},
		},
	},
	Rules: rules,
}

var rules = slices.Concat(
	both("sag-soft", sagSoft, sagOf),
	both("sag-stiff", sagStiff, sagOf),
	both("to-set", toSet, sagOf),
	both("preload-runs-out", preloadRunsOut),
	both("wrong-spring", wrongSpring),
	both("spring-too-soft", springTooSoft),
	both("spring-too-stiff", springTooStiff),
	both("bounces", bounces),
	both("sag-measured", sagMeasured),
	both("sag-doubtful", sagDoubtful),
	[]study.Rule{
		{ID: "one-end-sprung", Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.SpringsGroup, Judge: oneEndSprung},
		{ID: "air-without-valves", Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.Bike | facts.InTags | facts.SpringsGroup, Judge: airWithoutValves},
		{ID: "air-holds", Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.Bike | facts.InTags | facts.SpringsGroup, Judge: airHolds},
		{ID: "oil-first", Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.Bike | facts.InTags, Judge: oilFirst},
		{ID: "damping-follows", Class: cause.Control, Cause: cause.Springs, Free: true, Stage: figure.Stance, Reads: facts.Bike | facts.SpringsGroup, Judge: dampingFollows},
		{ID: "unit-unproven", Class: cause.Control, Cause: cause.Unproved, Stage: figure.Stance, Reads: facts.InSprings | facts.InLog, Judge: unitUnproven},
		{ID: "out-of-reach", Class: cause.Control, Cause: cause.Height, Pulls: cause.Less(cause.RideHeight), Stage: figure.Stance, Reads: facts.ReachGroup, Figures: []figure.ID{figure.SeatReach}, Judge: outOfReach},
		{ID: "room-short", Class: cause.Control, Cause: cause.Height, Pulls: cause.More(cause.RideHeight), Stage: figure.Stance, Reads: facts.RoomGroup, Figures: []figure.ID{figure.Clearance}, Judge: roomShort},
		{ID: "room-pressed", Class: cause.Control, Cause: cause.Springs, Pulls: cause.More(cause.RideHeight), Stage: figure.Stance, Reads: facts.RoomGroup, Figures: []figure.ID{figure.Clearance}, Judge: roomPressed},
		{ID: "links-lower", Class: cause.Control, Cause: cause.Height, Stage: figure.Stance, Reads: facts.InFigures, Judge: linksLower},
		{ID: "springs-raise", Class: cause.Control, Cause: cause.Springs, Stage: figure.Stance, Reads: facts.SpringsGroup, Judge: springsRaise},
		{ID: "one-end-raised", Class: cause.Control, Cause: cause.Level, Free: true, Stage: figure.Stance, Reads: facts.PosesGroup, Judge: oneEndRaised},
		{ID: "fork-through", Class: cause.Control, Cause: cause.Level, Free: true, Stage: figure.Stance, Reads: facts.InLoadout, Judge: forkThrough},
		{ID: "seat-height", Class: cause.Control, Cause: cause.Height, Stage: figure.Tyres, Reads: facts.HeightsGroup, Judge: seatHeight},
		{ID: "stand-too-short", Class: cause.Control, Cause: cause.Stand, Stage: figure.Stance, Reads: facts.StoodGroup, Judge: standTooShort},
		{ID: "stand-too-long", Class: cause.Control, Cause: cause.Stand, Stage: figure.Stance, Reads: facts.StoodGroup, Judge: standTooLong},
		{ID: "stand-leans", Class: cause.Control, Cause: cause.Stand, Stage: figure.Stance, Reads: facts.StoodGroup, Judge: standLeans},
		{ID: "stand-sinks", Class: cause.Control, Cause: cause.Stand, Stage: figure.Stance, Reads: facts.InBrief | facts.StoodGroup, Judge: standSinks},
		{ID: "damper-mount", Class: cause.Control, Cause: cause.Level, Stage: figure.Stance, Reads: facts.InSprings, Judge: damperMount},
		{ID: "back-bent", Class: cause.StopsRider, Cause: cause.Posture, Pulls: cause.More(cause.BarHeight), Stage: figure.Stance, Reads: facts.BodyGroup | facts.ContactGroup, Judge: backBent},
		{ID: "tall-seat", Class: cause.Control, Cause: cause.Height, Pulls: cause.Less(cause.RideHeight), Stage: figure.Stance, Reads: facts.InContact, Judge: tallSeat},
	},
)
