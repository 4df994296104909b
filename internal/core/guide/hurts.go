package guide

import "valiantmule/internal/core/figure"

// WhatHurts are the guides that start from the rider [common practice]: one measurement, the
// free change, then a part.
func WhatHurts() []Guide { return hurts }

func byHand(id, words, why, next string) Step {
	return Step{ID: id, Kind: Change, Setting: ByHand, Words: words, Why: why, Same: next, Worse: next}
}

func part(id, slot, words, why, same string, figures ...figure.ID) Step {
	return Step{ID: id, Kind: Part, Slot: slot, Words: words, Why: why, Same: same, Figures: figures}
}

// look is a question that a figure of the plan answers, and where either answer leads.
func look(id, words, why string, yes, yesTo, no, noTo string, figures ...figure.ID) Step {
	return Step{ID: id, Kind: Ask, Words: words, Why: why, Figures: figures, Answers: []Answer{{"yes", yes, yesTo}, {"no", no, noTo}}}
}

var hurts = []Guide{
	{ID: "knees", Name: "Knees lock", Says: "After an hour I cannot straighten them.", First: "angle", Steps: []Step{
		look("angle", "How far is the knee bent, seated?", "Below about 68° it asks for room.", "Bent hard", "stand-up", "It has room", "seat-place", figure.Knee),
		byHand("stand-up", "Stand up for a minute in every ten, on easy ground.", "Free, and good for back and seat too.", "pegs"),
		byHand("seat-place", "Sit a hand's width further back on the straight.", "It opens knee and hip.", "pegs"),
		part("pegs", "pegs", "Look at lower pegs.", "They free the knee and ground earlier in ruts.", "seat", figure.Knee, figure.BackStanding),
		part("seat", "seat", "Look at a taller seat.", "More room for the knee, a longer way to the ground.", "", figure.Knee, figure.SeatReach),
	}},
	{ID: "back", Name: "Neck and back, standing", Says: "Standing breaks my back.", First: "lean", Steps: []Step{
		look("lean", "How far does the back lean, standing?", "The grips want to be about an inside leg above the pegs.", "Bent over", "roll", "Nearly upright", "knees", figure.BackStanding, figure.BarShort),
		byHand("roll", "Roll the bar ahead, in line with the fork.", "Free: a few millimetres of height and much of reach. Clamps by torque, full lock looked at.", "risers"),
		byHand("knees", "Bend the knees, grip the tank with them, hands light.", "A back that is upright and hurts hangs on by the hands.", "grip"),
		part("risers", "risers", "Look at risers, as far as the cables go.", "Twenty to thirty millimetres usually go on without new ones.", "bar", figure.BackStanding, figure.BarShort),
		part("bar", "handlebar", "Look at a higher bar.", "Shape as well as height; both add up.", "pegs-low", figure.BackStanding),
		part("pegs-low", "pegs", "Look at lower pegs.", "The other half of the same.", "", figure.BackStanding, figure.Knee),
		part("grip", "knee-grip", "Look at what the knees hold on to.", "Knees that hold let the hands go.", ""),
	}},
	{ID: "hands", Name: "Numb hands", Says: "They tingle, then they sleep.", First: "when", Steps: []Step{
		look("when", "When does it come?", "Weight on the hands and buzz are two things.", "Seated, by the hour", "levers", "On rough ground, or at one engine speed", "loose"),
		byHand("levers", "Rotate levers down until the wrists are straight; sit further forward.", "A bent wrist sleeps first.", "grips"),
		byHand("loose", "Hold on with the knees; a loose fist; grips clean and tight.", "Most of it is a clenched fist.", "damped"),
		part("grips", "grips", "Look at other grips.", "Thin for dirt, fat for vibration.", "damped"),
		part("damped", "risers", "Look at damped clamps.", "They cut the buzz; a little vague, and dear.", ""),
	}},
	{ID: "seat", Name: "Sore seat", Says: "From the second hour on I ride sideways.", First: "hours", Steps: []Step{
		look("hours", "How many hours a day, on a seat that does how many?", "Beyond an hour a day the seat decides.", "More than it does", "whole-day", "Less", "slides", figure.SeatedHours, figure.SeatHours),
		byHand("whole-day", "Try it for a whole day first, in the trousers of the trip; stand up often.", "A seat feels worst in the first week.", "cover"),
		byHand("slides", "Level it, or tape a wedge under its front; see whether you slide into the tank.", "A seat that tips forward hurts elsewhere.", "cover"),
		part("cover", "seat", "Look at a cover, foam or another seat.", "Cheap first: a cover moves from bike to bike.", "", figure.SeatHours, figure.SeatReach),
	}},
	{ID: "calf", Name: "Hot calf", Says: "The exhaust cooks one leg.", First: "boot", Steps: []Step{
		look("boot", "Does it burn in boots and trousers of the trip, too?", "Town shoes are no measure.", "Yes", "shield", "No", "away"),
		byHand("away", "Toe in, heel out; stand up in the slow bits.", "Free, and standing air cools.", "shield-part"),
		byHand("shield", "Look whether a heat shield is missing or turned, and put it back.", "Previous owners leave them off.", "shield-part"),
		part("shield-part", "knee-grip", "Look at calf guards and grips.", "They keep leg and pipe apart, and give grip.", "silencer"),
		part("silencer", "silencer", "Look at another silencer only last.", "Fuelling, noise and approval hang on it.", ""),
	}},
	{ID: "wind", Name: "Helmet beaten by the wind", Says: "It rattles my head at speed.", First: "where", Steps: []Step{
		look("where", "Stand up a hand's width at speed. Does it go quiet?", "Then the screen's edge throws its wake at the helmet.", "Quieter", "lower", "No better", "duck"),
		byHand("lower", "Set the screen flatter or lower, or leave it at home for a day.", "Clean air at the helmet is quieter than a torn wake.", "screen"),
		byHand("duck", "Sit a hand lower for a minute. Quieter? Then set the screen steeper or higher.", "Either above the wake or below it.", "screen"),
		part("screen", "windscreen", "Look at another screen.", "Adjustable ones forgive. Below the line of sight off road.", ""),
	}},
	{ID: "elbows", Name: "Elbows in the mirrors", Says: "I see nothing but my sleeves.", First: "turn", Steps: []Step{
		look("turn", "Turned outwards as far as they go, are sleeves still half of it?", "Wide jackets fill narrow mirrors.", "Yes", "raise", "No", "nothing"),
		byHand("raise", "Swap left for right, or turn the stems: some stand further out so.", "Free.", "mirrors"),
		byHand("nothing", "Leave them so, and mark the place with paint.", "They are knocked out of it in the first fall.", "mirrors"),
		part("mirrors", "mirrors", "Look at mirrors on longer or folding stems.", "Folding ones fold instead of break.", ""),
	}},
	{ID: "clutch", Name: "Clutch out of reach", Says: "My fingers only just get there.", First: "span", Steps: []Step{
		{ID: "span", Kind: Measure, Page: "brief", Words: "Measure your hand: stretched, from thumb tip to little finger's. It goes into the brief.", Why: "Small hands on a fixed lever spoil the whole ride.", Answers: []Answer{{"small", "Under 19 cm (7½ in)", "screw"}, {"large", "19 cm and more", "angle"}}},
		byHand("screw", "Turn the lever's adjuster or its stop screw in, free play kept.", "Many have one, and nobody has told you.", "levers"),
		byHand("angle", "Rotate the lever down and its clamp inwards, so that two fingers reach its end.", "Leverage is at the end.", "cable"),
		byHand("cable", "Oil the cable, or bleed the clutch.", "A dry cable is half the force.", "levers"),
		part("levers", "levers", "Look at adjustable or short levers.", "Not the guard's stay nor its mount: look how they end.", ""),
	}},
	{ID: "pedal", Name: "Feet cannot find the pedal", Says: "I brake or shift late, my toe misses.", First: "boot", Steps: []Step{
		{ID: "boot", Kind: Measure, Page: "brief", Words: "Measure your boot, heel to toe, outside. It goes into the brief.", Why: "Standard levers are set for a shoe.", Answers: []Answer{{"long", "31 cm (12¼ in) and more", "spline"}, {"short", "Shorter", "height"}}},
		byHand("spline", "Shift lever one spline up or forward; brake pedal's stop to match.", "Standing, the sole goes over one and under the other. Costs nothing.", "shift"),
		byHand("height", "Brake pedal up or down by its stop until the sole lies on it, standing.", "Free play and the lamp's switch afterwards.", "brake"),
		part("shift", "shift-lever", "Look at a longer, folding shift lever.", "Longer for a long boot.", "brake"),
		part("brake", "brake-pedal", "Look at a brake pedal with a larger tip.", "Found without looking.", ""),
	}},
}
