package facts

import "valiantmule/internal/core/guard"

// Ends is a number at the front wheel and at the rear one.
type Ends struct{ Front, Rear float64 }

// Wheels is how the tyres roll and how tall they are, as built and as they came.
type Wheels struct {
	CircumferenceMM, StandardCircumferenceMM Ends
	DiameterMM, StandardDiameterMM           Ends
	MixPercent                               float64 // front/rear circumference against standard
}

// Heights is what other tyres lift, mm.
type Heights struct {
	Growth     Ends // of each end: half of what its tyre's diameter grows
	SeatRiseMM float64
}

// At is how much a point of the bike is lifted by the tyres, its place a share of
// the wheelbase forward of the rear axle.
func (h Heights) At(share float64) float64 {
	return h.Growth.Rear + (h.Growth.Front-h.Growth.Rear)*share
}

// Reach is from sole to ground, the brief's wish, and the seat's height with everything on.
type Reach struct{ MM, WishMM, SeatMM float64 }

// Room is what there is under the engine: with everything on it, standing by itself and
// with all travel used; and what is wished for.
type Room struct{ MM, StaticMM, PressedMM, WishMM float64 }

// Exposed is what the trip exposes this bike to, with the room that is under it and what its
// class of parts costs.
func (a *All) Exposed() guard.Trip {
	trip := a.Plan.Brief.Exposed()
	trip.RoomMM, trip.Often = a.Room.MM, a.Journey.Often.Mean()
	if kerb := a.Standard.Bike.KerbMass; kerb.Known() {
		trip.Bike, trip.PerEuro = guard.ClassOf(kerb.In("kg")), a.Plan.PerEuro()
	}
	return trip
}
