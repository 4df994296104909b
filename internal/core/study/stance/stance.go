// Package stance is the study of how the bike stands: what its springs do under this
// rider with this load, how it is turned about its wheels, the room under the engine, the
// side stand, and how the rider reaches the ground and the grips.
package stance

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/plan"
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
			Name: "measured sag", Needs: facts.Bike, Gives: facts.SatGroup,
			Run:   func(r *study.Run) { r.Sat = r.Plan.ReadingsOf(logbook.SagRead) },
			Stays: func(was, now *plan.Plan) bool { return was.Bike == now.Bike && len(was.Readings) == len(now.Readings) },
		},
		{
			Name: "springs", Needs: facts.Bike | facts.SatGroup | facts.MassesGroup | facts.AxlesGroup, Gives: facts.SpringsGroup, Run: springs,
			Figures: []figure.ID{
				figure.SagFront, figure.SagRear, figure.FreeFront, figure.FreeRear,
				figure.PreloadFront, figure.PreloadRear, figure.SpringFront, figure.SpringRear,
			},
		},
		{
			Name: "poses", Needs: facts.Bike | facts.WheelsGroup | facts.HeightsGroup | facts.SpringsGroup, Gives: facts.PosesGroup, Run: poses,
			Figures: []figure.ID{figure.Rake, figure.RakeChange, figure.Trail, figure.Wheelbase},
		},
		{
			Name: "stand", Needs: facts.Bike | facts.AxlesGroup | facts.CentreGroup | facts.PosesGroup, Gives: facts.StoodGroup, Run: stand,
			Figures: []figure.ID{figure.StandShort, figure.StandLean, figure.StandPressure},
		},
		{
			Name: "reach", Needs: facts.Bike | facts.HeightsGroup | facts.SpringsGroup | facts.PosesGroup, Gives: facts.ReachGroup, Run: reach,
			Figures: []figure.ID{figure.SeatReach},
		},
		{
			Name: "room", Needs: facts.Bike | facts.AxlesGroup | facts.HeightsGroup | facts.SpringsGroup | facts.PosesGroup, Gives: facts.RoomGroup, Run: room,
			Figures: []figure.ID{figure.Clearance, figure.RoomStatic, figure.RoomPressed},
		},
		{
			Name: "body", Needs: facts.Bike | facts.WheelsGroup, Gives: facts.BodyGroup, Run: body,
			Figures: []figure.ID{figure.BackSeated, figure.BackStanding},
		},
	},
	Rules: rules,
}

var rules = slices.Concat(
	both("sag-soft", sagSoft),
	both("sag-stiff", sagStiff),
	both("preload-runs-out", preloadRunsOut),
	both("wrong-spring", wrongSpring),
	both("spring-too-soft", springTooSoft),
	both("spring-too-stiff", springTooStiff),
	both("bounces", bounces),
	both("sag-measured", sagMeasured),
	both("sag-doubtful", sagDoubtful),
	[]study.Rule{
		{ID: "one-end-sprung", Stage: figure.Stance, Judge: oneEndSprung},
		{ID: "air-without-valves", Stage: figure.Stance, Judge: airWithoutValves},
		{ID: "air-holds", Stage: figure.Stance, Judge: airHolds},
		{ID: "oil-first", Stage: figure.Stance, Judge: oilFirst},
		{ID: "damping-follows", Stage: figure.Stance, Judge: dampingFollows},
		{ID: "unit-unproven", Stage: figure.Stance, Judge: unitUnproven},
		{ID: "out-of-reach", Stage: figure.Stance, Judge: outOfReach},
		{ID: "room-short", Stage: figure.Stance, Judge: roomShort},
		{ID: "room-pressed", Stage: figure.Stance, Judge: roomPressed},
		{ID: "links-lower", Stage: figure.Stance, Judge: linksLower},
		{ID: "springs-raise", Stage: figure.Stance, Judge: springsRaise},
		{ID: "one-end-raised", Stage: figure.Stance, Judge: oneEndRaised},
		{ID: "fork-through", Stage: figure.Stance, Judge: forkThrough},
		{ID: "seat-height", Stage: figure.Tyres, Judge: seatHeight},
		{ID: "stand-too-short", Stage: figure.Stance, Judge: standTooShort},
		{ID: "stand-too-long", Stage: figure.Stance, Judge: standTooLong},
		{ID: "stand-leans", Stage: figure.Stance, Judge: standLeans},
		{ID: "stand-sinks", Stage: figure.Stance, Judge: standSinks},
		{ID: "damper-mount", Stage: figure.Stance, Judge: damperMount},
		{ID: "back-bent", Stage: figure.Stance, Judge: backBent},
		{ID: "tall-seat", Stage: figure.Stance, Judge: tallSeat},
	},
)
