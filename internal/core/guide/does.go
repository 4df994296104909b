package guide

import "valiantmule/internal/core/figure"

// What a step of many guides is.

func rearSag(soft, right string) Step {
	return Step{
		ID: "rear-sag", Kind: Measure, Page: "measure", Figures: []figure.ID{figure.SagRear, figure.FreeRear},
		Words: "Measure the rear sag with you and everything on it.", Why: "Most springs are set for somebody lighter without bags, and nobody notices.",
		Answers: []Answer{{"soft", "More than the band", soft}, {"right", "In the band, or less", right}},
	}
}

func frontSag(soft, right string) Step {
	return Step{
		ID: "front-sag", Kind: Measure, Page: "measure", Figures: []figure.ID{figure.SagFront, figure.FreeFront},
		Words: "Measure the front sag with you and everything on it.", Why: "A front that hangs low dives, pumps and pushes wide.",
		Answers: []Answer{{"soft", "More than the band", soft}, {"right", "In the band, or less", right}},
	}
}

func rearPreload(id string, by float64, same string) Step {
	return Step{
		ID: id, Kind: Change, Setting: RearPreload, By: by, Figures: []figure.ID{figure.SagRear, figure.PreloadRear, figure.SeatReach}, Same: same, Worse: same,
		Words: "More preload behind.", Why: "It brings the sag back into its band; it makes no spring stiffer.",
	}
}

func frontPreload(id string, by float64, same string) Step {
	return Step{
		ID: id, Kind: Change, Setting: FrontPreload, By: by, Figures: []figure.ID{figure.SagFront, figure.PreloadFront}, Same: same, Worse: same,
		Words: "More preload in front.", Why: "It brings the sag back into its band; it makes no spring stiffer.",
	}
}

func clicks(id string, s Setting, by float64, words, why, same string) Step {
	return Step{ID: id, Kind: Change, Setting: s, By: by, Words: words, Why: why, Same: same, Worse: same}
}

func shockSpring(same string) Step {
	return Step{
		ID: "shock-spring", Kind: Part, Slot: "shock-spring", Figures: []figure.ID{figure.SpringRear, figure.SagRear}, Same: same,
		Words: "Look at a shock spring for this load.", Why: "What preload cannot hold up a stiffer spring does.",
	}
}

func forkSprings(same string) Step {
	return Step{
		ID: "fork-springs", Kind: Part, Slot: "fork-springs", Figures: []figure.ID{figure.SpringFront, figure.SagFront}, Same: same,
		Words: "Look at fork springs for this load.", Why: "What preload cannot hold up stiffer springs do.",
	}
}

var specialist = Step{
	ID: "specialist", Kind: Specialist, Words: "Take it to somebody who rebuilds suspensions, with what is written down here.",
	Why: "What is left are worn bushes, shims, gas and valving. That is honest work for a bench, and guessing costs more.",
}

// WhatItDoes are the guides that start from the bike [common practice].
func WhatItDoes() []Guide { return does }

var does = []Guide{
	{ID: "pogo", Name: "Pumps under the front brake", Says: "It bobs up and down as I brake.", First: "oil-age", Steps: []Step{
		{ID: "oil-age", Kind: Ask, Words: "How old is the oil in the fork?", Why: "Old oil is thin oil: pumping under the brake is often only that.", Answers: []Answer{
			{"fresh", "Changed within two years or 20 000 km", "front-sag"}, {"old", "Older, or nobody knows", "oil"}}},
		{ID: "oil", Kind: Part, Slot: "fork-oil", Words: "Look at fresh oil of the maker's weight, level by the manual.", Why: "Before any thicker oil, and before springs.", Same: "front-sag"},
		frontSag("preload", "rebound"), frontPreload("preload", 4, "rebound"),
		clicks("rebound", ForkRebound, -2, "Two clicks more rebound in front.", "It comes up slower after the brake.", "fork-springs"), forkSprings("specialist"), specialist,
	}},
	{ID: "wallow", Name: "Wallows", Says: "It rolls and swings in fast bends, like a boat.", First: "rear-sag", Steps: []Step{
		rearSag("preload", "rebound"), rearPreload("preload", 4, "rebound"),
		clicks("rebound", ShockRebound, -2, "Two clicks more rebound behind.", "It holds the spring back after each dip.", "forward"),
		{ID: "forward", Kind: Change, Setting: Forward, Words: "Sit forward, and bring what is heavy forward.", Why: "Free: it takes sag off the rear and puts weight on the front wheel.", Figures: []figure.ID{figure.SagRear, figure.AxleRear, figure.FrontShare}, Same: "shock-spring", Worse: "shock-spring"},
		shockSpring("specialist"), specialist,
	}},
	{ID: "kick", Name: "Kicks behind", Says: "The rear throws me forward over a sharp edge.", First: "preload-where", Steps: []Step{
		{ID: "preload-where", Kind: Ask, Words: "Where does the shock's preload stand?", Why: "A spring that is screwed right down, or one too stiff, throws.", Figures: []figure.ID{figure.SagRear, figure.PreloadRear}, Answers: []Answer{
			{"hard", "Far in, and the bags are off", "less"}, {"right", "Where the sag is right", "rebound"}}},
		{ID: "less", Kind: Change, Setting: RearPreload, By: -4, Words: "Less preload behind.", Why: "Bare it wants less than loaded.", Figures: []figure.ID{figure.SagRear}, Same: "rebound", Worse: "rebound"},
		clicks("rebound", ShockRebound, -3, "Three clicks more rebound behind.", "It comes back slower than it was pushed in.", "compression"),
		clicks("compression", ShockCompression, 2, "Two clicks less compression behind.", "A sharp edge goes into the spring instead of into you.", "specialist"), specialist,
	}},
	{ID: "bounce", Name: "Bounces", Says: "It hops on small waves, hard and loose at once.", First: "preload-where", Steps: []Step{
		{ID: "preload-where", Kind: Ask, Words: "Where does the shock's preload stand?", Why: "A spring that is too stiff without preload hops at full extension: more preload is the first cure, odd as it sounds.", Figures: []figure.ID{figure.FreeRear, figure.SagRear, figure.SpringRear}, Answers: []Answer{
			{"out", "All out, or hardly in", "more"}, {"in", "Some turns in", "rebound"}}},
		rearPreload("more", 4, "rebound"),
		clicks("rebound", ShockRebound, -2, "Two clicks more rebound behind.", "It lets the spring up slower.", "pressure"),
		{ID: "pressure", Kind: Change, Setting: ByHand, Words: "Tyre pressures by the card for this surface, cold.", Why: "A hard tyre is a spring of its own, without damping.", Same: "shock-spring", Worse: "shock-spring"},
		shockSpring("specialist"), specialist,
	}},
	{ID: "harsh", Name: "Harsh", Says: "Every small stone comes through.", First: "where", Steps: []Step{
		{ID: "where", Kind: Ask, Words: "Where does it come through?", Why: "Hands and feet tell the ends apart.", Answers: []Answer{{"front", "In the hands", "front"}, {"rear", "In seat and pegs", "rear"}}},
		clicks("front", ForkCompression, 3, "Three clicks less compression in front.", "Rough ground wants it softer.", "pressure"),
		clicks("rear", ShockCompression, 3, "Three clicks less compression behind.", "Rough ground wants it softer.", "pressure"),
		{ID: "pressure", Kind: Change, Setting: ByHand, Words: "Pressures by the card for this surface, cold.", Why: "The tyre is the first spring.", Same: "oil-thick", Worse: "oil-thick"},
		{ID: "oil-thick", Kind: Ask, Words: "Has somebody put thicker oil into the fork?", Why: "Thicker oil slows both ways, and harsh comes with it.", Answers: []Answer{{"yes", "Yes, or nobody knows", "oil"}, {"no", "No", "stiction"}}},
		{ID: "oil", Kind: Part, Slot: "fork-oil", Words: "Look at fresh oil of the maker's weight.", Why: "Standard first.", Same: "stiction"},
		{ID: "stiction", Kind: Measure, Page: "measure", Words: "Measure stiction: the difference between pushed down and lifted.", Why: "Above ten millimetres (0.4 in) something binds: a twisted fork, dry bushes, a link without grease.", Answers: []Answer{{"much", "More than 10 mm (0.4 in)", "specialist"}, {"little", "Less", "specialist"}}},
		specialist,
	}},
	{ID: "bottoms", Name: "Bottoms", Says: "It hits the end with a bang.", First: "where", Steps: []Step{
		{ID: "where", Kind: Ask, Words: "Which end?", Why: "They are cured apart.", Answers: []Answer{{"rear", "Behind", "rear-sag"}, {"front", "In front", "front-sag"}}},
		rearSag("preload", "compression"), rearPreload("preload", 5, "shock-spring"),
		clicks("compression", ShockCompression, -3, "Three clicks more compression behind.", "It takes more to reach the end.", "shock-spring"), shockSpring("specialist"),
		frontSag("front-preload", "front-compression"), frontPreload("front-preload", 5, "fork-springs"),
		clicks("front-compression", ForkCompression, -3, "Three clicks more compression in front.", "It takes more to reach the end.", "oil-level"),
		{ID: "oil-level", Kind: Change, Setting: ByHand, Words: "Ten millimetres more oil in each leg, within the manual's range.", Why: "A smaller air gap firms the end of the travel and leaves the beginning.", Same: "fork-springs", Worse: "fork-springs"},
		forkSprings("specialist"), specialist,
	}},
	{ID: "dives", Name: "Dives", Says: "The front goes down at a touch of the brake.", First: "front-sag", Steps: []Step{
		frontSag("preload", "compression"), frontPreload("preload", 4, "compression"),
		clicks("compression", ForkCompression, -2, "Two clicks more compression in front.", "It goes down slower; rough ground will say whether that was too much.", "fork-springs"), forkSprings("specialist"), specialist,
	}},
	{ID: "wanders", Name: "Wanders", Says: "It never runs straight, the steering is light.", First: "load-where", Steps: []Step{
		{ID: "load-where", Kind: Ask, Words: "Are there bags on it?", Why: "A load behind lifts the front and turns the frame: flatter steering with no weight on it.", Figures: []figure.ID{figure.FrontShare, figure.Trail, figure.SagRear}, Answers: []Answer{{"yes", "Yes", "rear-sag"}, {"no", "No", "bearings"}}},
		rearSag("preload", "forward"), rearPreload("preload", 4, "forward"),
		{ID: "forward", Kind: Change, Setting: Forward, Words: "Sit forward, and bring what is heavy forward and down.", Why: "Weight on the front wheel is what holds it.", Figures: []figure.ID{figure.FrontShare, figure.SagRear}, Same: "bearings", Worse: "bearings"},
		{ID: "bearings", Kind: Ask, Words: "Steering head, wheel bearings, swingarm: any play, any notch?", Why: "A damper hides a worn bearing, and then it is worse.", Answers: []Answer{{"play", "Play or a notch", "specialist"}, {"sound", "Sound, and tyre pressures right", "through"}}},
		{ID: "through", Kind: Change, Setting: ForkThrough, By: -5, Words: "Let the fork down in its clamps by five millimetres.", Why: "More rake and trail: steadier. Both clamps keep their full grip.", Figures: []figure.ID{figure.Rake, figure.Trail}, Same: "specialist", Worse: "specialist"}, specialist,
	}},
	{ID: "deflects", Name: "Deflects", Says: "Stones and roots knock the front aside.", First: "front-sag", Steps: []Step{
		frontSag("preload", "softer"), frontPreload("preload", 4, "softer"),
		clicks("softer", ForkCompression, 3, "Three clicks less compression in front.", "The wheel goes over instead of aside.", "rebound"),
		clicks("rebound", ForkRebound, 2, "Two clicks less rebound in front.", "It is back on the ground before the next one.", "damper"),
		{ID: "damper", Kind: Part, Slot: "steering-damper", Words: "Look at a steering damper.", Why: "Dear, adjustable, and some mounts raise the bar. Bearings, tyres and springs come first.", Same: "specialist"}, specialist,
	}},
	{ID: "tiptoe", Name: "Tiptoe", Says: "I cannot get a foot down where I stop.", First: "where", Steps: []Step{
		{ID: "where", Kind: Ask, Words: "Where does it matter?", Why: "Some ride happily on tiptoe; slow rock, slopes and bags decide.", Figures: []figure.ID{figure.SeatReach}, Answers: []Answer{{"slow", "In slow rock, on slopes, loaded", "rear-sag"}, {"road", "At a light, now and then", "practise"}}},
		{ID: "practise", Kind: Change, Setting: ByHand, Words: "One foot down, the other on the brake; stop where the ground is higher.", Why: "Free, and it answers most of it.", Same: "rear-sag", Worse: "rear-sag"},
		{ID: "rear-sag", Kind: Measure, Page: "measure", Words: "Measure the rear sag first.", Why: "A spring that is too stiff for you keeps you up there for nothing.", Figures: []figure.ID{figure.SagRear}, Answers: []Answer{{"stiff", "Less than the band", "less"}, {"right", "In the band", "seat"}}},
		{ID: "less", Kind: Change, Setting: RearPreload, By: -4, Words: "Less preload behind.", Why: "It sinks further under you; back into the band, not past it.", Figures: []figure.ID{figure.SagRear, figure.SeatReach}, Same: "seat", Worse: "seat"},
		{ID: "seat", Kind: Part, Slot: "seat", Words: "Look at a low seat, narrow where the legs go down.", Why: "It keeps travel and room, and costs the knee.", Figures: []figure.ID{figure.SeatReach, figure.Knee}, Same: "links"},
		{ID: "links", Kind: Part, Slot: "links", Words: "Look at lowering links, by figures.", Why: "Room and travel go for them, the stand is too long then, the fork has to follow.", Figures: []figure.ID{figure.SeatReach, figure.Clearance, figure.StandShort}},
	}},
	{ID: "stand", Name: "Stands too upright, or falls over", Says: "A gust, a bag, and it goes over.", First: "which", Steps: []Step{
		{ID: "which", Kind: Ask, Words: "What does it do on its stand?", Why: "Too upright, too far over and sinking in are three things.", Figures: []figure.ID{figure.StandLean, figure.StandPressure, figure.StandShort}, Answers: []Answer{
			{"upright", "Stands too upright", "loaded"}, {"leans", "Leans too far", "longer"}, {"sinks", "Its foot sinks in", "plate"}}},
		{ID: "loaded", Kind: Ask, Words: "With bags on, or bare?", Why: "A load presses the springs together and leaves the stand as long as it was.", Answers: []Answer{{"bags", "With bags", "preload"}, {"bare", "Bare too", "shorter"}}},
		rearPreload("preload", 5, "shorter"),
		{ID: "shorter", Kind: Part, Slot: "side-stand", Words: "Look at a shorter stand.", Why: "After links or a smaller tyre it is too long.", Figures: []figure.ID{figure.StandShort}},
		{ID: "longer", Kind: Part, Slot: "side-stand", Words: "Look at a longer stand or a thicker foot.", Why: "After taller tyres it is too short.", Figures: []figure.ID{figure.StandShort}},
		{ID: "plate", Kind: Change, Setting: ByHand, Words: "A flat stone, a flattened tin, a lid under it.", Why: "Free, and it holds.", Same: "plate-part", Worse: "plate-part"},
		{ID: "plate-part", Kind: Part, Slot: "stand-plate", Words: "Look at a plate in the jacket, or a wide foot.", Why: "Sand bears less than half of what a standard foot asks for.", Figures: []figure.ID{figure.StandPressure}},
	}},
}
