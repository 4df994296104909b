package contact

import (
	"math"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/fit"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/study"
)

// From how much on a brief asks for something [practice where the handbook of the
// trade says so, else memory].
const (
	seatFromHours = 1.0 // seated a day
	pegHours      = 1.0 // standing a day, for pegs
	gripHours     = 0.5 // for bars
	windHours     = 1.0 // a day at the cruise, for a screen
	windKmh       = 100.0
	shelterMost   = 15.0 // percent that answers it
	lostFromKm    = 500.0
	signposted    = 0.9 // share of road that has signposts
	chargeHours   = 3.0
)

func seat(f *facts.All) (n study.Need, ok bool) {
	c := &f.Contact
	if !(c.SeatedHours > seatFromHours) {
		return n, false
	}
	met := c.SeatedHours <= c.SeatHours
	tell := func() study.Answer {
		a := study.Answer{
			Because: study.Say("%.1f hours a day, %.1f of them seated.", c.SeatedHours+c.StandingHours, c.SeatedHours),
			Bare:    "a standard seat", Fitted: study.Say("a seat that does %.1f hours", c.SeatHours),
		}
		if !met {
			a.Short = "try the standard seat for a day first; then foam, a cover or another"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}

func stand(f *facts.All) (n study.Need, ok bool) {
	c := &f.Contact
	if !(c.StandingHours > gripHours) || math.IsNaN(c.BarShortMM) {
		return n, false
	}
	met := c.BarShortMM <= fit.StandTaste
	tell := func() study.Answer {
		a := study.Answer{
			Because: study.Say("%.1f hours a day on the pegs, by the ground.", c.StandingHours),
			Bare:    study.Say("grips {%.0f mm} too low", c.BarShortMM+c.BarRiseMM), Fitted: study.Say("grips {%.0f mm} too low", c.BarShortMM),
		}
		if !met {
			a.Short = "roll the bar forward; then risers or a higher bar"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}

// smallHandMM is the span under which a standard lever is far away [memory].
const smallHandMM = 190.0

func levers(f *facts.All) (n study.Need, ok bool) {
	span := f.Plan.Brief.HandSpan.In("mm")
	if !(span < smallHandMM) {
		return n, false
	}
	return study.Provided(f, "adjustable-levers", func() study.Answer {
		return study.Answer{
			Because: study.Say("A hand of {%.0f mm} from thumb tip to little finger's.", span), Bare: "fixed levers",
			Fitted: "levers that come to the hand", Short: "levers that come to the hand: small hands on a fixed one spoil the whole ride",
		}
	}), true
}

func pegs(f *facts.All) (n study.Need, ok bool) {
	if !(f.Contact.StandingHours > pegHours) {
		return n, false
	}
	return study.Provided(f, "wide-pegs", func() study.Answer {
		return study.Answer{
			Because: study.Say("%.1f hours a day on the pegs.", f.Contact.StandingHours), Bare: "standard pegs",
			Fitted: "wide toothed pegs", Short: "wide toothed pegs: control standing for little money",
		}
	}), true
}

func ownScreen(f *facts.All) bool {
	return f.Built.Bike.Body == plan.Screen || f.Built.Bike.Body == plan.Faired
}

// screened reports whether something takes the wind off the rider.
func screened(f *facts.All) bool {
	return ownScreen(f) || f.Built.Figure(parts.Shelter) >= shelterMost
}

func wind(f *facts.All) (n study.Need, ok bool) {
	mix := f.Plan.Brief.Mix()
	road := f.Plan.Brief.Day.In("h") * mix.RoadHours(1) / mix.Hours(1)
	if !(road > windHours) || !(f.Drive.CruiseKmh >= windKmh) {
		return n, false
	}
	own, shelter, met := ownScreen(f), f.Built.Figure(parts.Shelter), screened(f)
	tell := func() study.Answer {
		a := study.Answer{Because: study.Say("%.1f hours a day on the road, at {%.0f km/h}.", road, f.Drive.CruiseKmh), Bare: "nothing in front of you"}
		switch {
		case own:
			a.Bare, a.Fitted = "the bike's own screen", "the bike's own screen"
		case met:
			a.Fitted = study.Say("a screen that takes %.0f %% of the wind", shelter)
		default:
			a.Fitted, a.Short = a.Bare, "a low or adjustable screen, or a slower cruise"
		}
		return a
	}
	return study.Need{Met: met, Tell: tell}, true
}

func warmHands(f *facts.All) (n study.Need, ok bool) {
	if f.Plan.Brief.Weather != plan.Cold {
		return n, false
	}
	return study.Provided(f, "warm-hands", func() study.Answer {
		return study.Answer{
			Because: "Cold mornings are to be counted on.", Bare: "nothing",
			Fitted: "shields or heated grips", Short: "shields before the hands, or heated grips",
		}
	}), true
}

func navigation(f *facts.All) (n study.Need, ok bool) {
	km, loose := f.Plan.Brief.Distance.In("km"), f.Plan.Brief.Mix().Loose()
	if !(km >= lostFromKm) || !(loose >= 1-signposted) {
		return n, false
	}
	return study.Provided(f, "navigation", func() study.Answer {
		return study.Answer{
			Because: study.Say("{%.0f km}, %.0f %% of them without signposts.", km, 100*loose), Bare: "nothing",
			Fitted: "something in sight", Short: "paper, a phone on a damped mount, or a sealed device",
		}
	}), true
}

func charging(f *facts.All) (n study.Need, ok bool) {
	day := f.Plan.Brief.Day.In("h")
	if !f.Built.Provides("navigation") || !(day > chargeHours) || f.Built.Provides("paper") {
		return n, false
	}
	return study.Provided(f, "socket", func() study.Answer {
		return study.Answer{
			Because: study.Say("A screen that is looked at for %.1f hours a day.", day), Bare: "nothing",
			Fitted: "a socket", Short: "a switched socket, sealed or out of the rain",
		}
	}), true
}
