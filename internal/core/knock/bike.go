package knock

import (
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/terrain"
	"valiantmule/internal/core/verdict"
)

// Rows of whether it is the right bike, said before parts are bought.

const (
	heavyKg, heavyTightKg = 200.0, 165.0 // kerb masses that are work where it is loose, or tight [practice]
	looseShare            = 0.15
	tightShare            = 0.10
	lightKg               = 150.0 // kerb mass that the wind moves about [practice]
	openRoadShare         = 0.5
	openRoadKmh           = 100.0
)

func axleOverload(f *Facts) (Finding, bool) {
	return first(f, func(e end) (Finding, bool) {
		on, limit := e.of(f.AxleKg), e.of(f.AxleLimitKg)
		if !(on > limit) {
			return Finding{}, false
		}
		return Finding{
			State: verdict.Stop,
			What:  say("The %s axle carries {%.0f kg}; {%.0f kg} are permitted.", e.name, on, limit),
			Why:   "Wheel, bearings and brake of that end were not made for it.",
			Do:    "Do not ride it so. Move load to the other end or leave it at home; the maker's plate rules.",
		}, true
	})
}

func outOfReach(f *Facts) (Finding, bool) {
	if !(f.ReachMM > f.ReachWishMM) {
		return Finding{}, false
	}
	state := verdict.Watch
	if f.ReachMM > f.ReachWishMM+60 {
		state = verdict.Over
	}
	return Finding{
		State: state,
		What:  say("Heels end {%.0f mm} above the ground; the brief wants {%.0f mm} at most.", f.ReachMM, f.ReachWishMM),
		Why:   "Some ride happily on tiptoe, others sell a tall seat within a month. Slow rock, slopes and bags decide.",
		Do:    "Sit on it in your boots where you would stop. A low seat keeps the travel; links cost clearance.",
	}, true
}

func roomShort(f *Facts) (Finding, bool) {
	if !(f.RoomMM < f.RoomWishMM) {
		return Finding{}, false
	}
	return Finding{
		State: verdict.Watch,
		What:  say("{%.0f mm} under the engine with the rider on; this ground asks for {%.0f mm}.", f.RoomMM, f.RoomWishMM),
		Why:   "Sump, header and frame rails take what the tyres roll over.",
		Do:    "A skid plate and another line; springs for your mass keep what there is. Longer legs are another bike.",
	}, true
}

func heavyForGround(f *Facts) (Finding, bool) {
	mix, kerb := f.Plan.Brief.Mix(), f.Built.Bike.KerbMass.In("kg")
	tight, loose := mix[terrain.SingleTrack], mix[terrain.Mud]+mix[terrain.Sand]
	switch {
	case kerb > heavyTightKg && tight >= tightShare:
		return Finding{
			State: verdict.Watch,
			What:  say("{%.0f kg} ready to ride, and %.0f %% of the trip is single track.", kerb, 100*tight),
			Why:   "A heavy bike is the wrong tool where it is tight: it is picked up, turned round and held on slopes by one person.",
			Do:    "Hold a lighter bike against it below before parts are bought.",
		}, true
	case kerb > heavyKg && loose >= looseShare:
		return Finding{
			State: verdict.Watch,
			What:  say("{%.0f kg} ready to ride, and %.0f %% of the trip is mud and sand.", kerb, 100*loose),
			Why:   "Where it is deep, mass digs in, and every kilogram is lifted out again.",
			Do:    "Hold a lighter bike against it below, or shift the route.",
		}, true
	}
	return Finding{}, false
}

func lightForRoad(f *Facts) (Finding, bool) {
	b, mix := f.Built.Bike, f.Plan.Brief.Mix()
	road, kerb := mix.Road(), b.KerbMass.In("kg")
	if !(road >= openRoadShare && f.CruiseKmh >= openRoadKmh && kerb < lightKg) {
		return Finding{}, false
	}
	why := Text("A light bike tires its rider on open windy roads, hour after hour.")
	if b.Body == plan.Naked {
		why = "Nothing keeps the wind off. " + why
	}
	return Finding{
		State: verdict.Watch,
		What:  say("{%.0f kg} at {%.0f km/h}, and %.0f %% of the trip is road.", kerb, f.CruiseKmh, 100*road),
		Why:   why,
		Do:    "A slower cruise and smaller roads, or a truck to the trail head; else hold a heavier bike against it below.",
	}, true
}
