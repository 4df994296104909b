package electrics

import (
	"math"
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

const (
	daysLeast  = 14.0 // that a bike should stand and still start [practice]
	idleNotice = 60.0 // min of idling to a fifth of the battery, from which it is said
	hotHours   = 6.0  // a day [memory]
	relayFromW = 40.0 // from which a switch wants a relay [practice]
)

func chargeShort(f *facts.All) (study.Finding, bool) {
	c := &f.Charging
	if f.Figure(figure.ChargeMargin).State != verdict.Over {
		return study.Finding{}, false
	}
	return study.Finding{
		State: verdict.Over,
		Offer: func() []study.Remedy { return without(f) },
		Tell: func() study.Words {
			return study.Words{
				What: study.Say("{%.0f W} are lacking over the hours of riding: the alternator gives {%.0f W}, bike and accessories take {%.0f W}.", -c.Mean.MarginW, c.Mean.SupplyW, c.OwnW+c.DrawnW) + worstHour(c),
				Why:  "The battery pays for it until it has nothing left, and then the ignition goes too.",
				Do:   "Less at once: one of grips and vest, dipped beam by day only where the law lets you. Then lamps that draw less; last a larger stator, by somebody who does it for a living.",
			}
		},
	}, true
}

// worstHour is the slowest going with everything on, in a sentence of its own; "" where
// nothing is lacking then.
func worstHour(c *facts.Charging) study.Text {
	if !(c.Hour.MarginW < 0) {
		return ""
	}
	if math.IsNaN(c.Hour.Minutes) {
		return study.Say(" With everything on at the slowest going {%.0f W} are lacking.", -c.Hour.MarginW)
	}
	return study.Say(" With everything on at the slowest going {%.0f W} are lacking: {%.0f min} to a fifth off the battery.", -c.Hour.MarginW, c.Hour.Minutes)
}

// without leaves out the accessory that draws most, where that is enough.
func without(f *facts.All) []study.Remedy {
	var most *facts.Draw
	for i := range f.Charging.Draws {
		if d := &f.Charging.Draws[i]; most == nil || d.MeanW > most.MeanW {
			most = d
		}
	}
	if most == nil || f.Charging.Mean.MarginW+most.MeanW < 0 {
		return study.Offer(f, parts.Stator, func(p *parts.Part) bool { return p.Sets(parts.AlternatorW) > f.Charging.RatedW })
	}
	return []study.Remedy{study.Without(plan.Fitted{Slot: most.Slot, Part: most.Part})}
}

func chargeThin(f *facts.All) (study.Finding, bool) {
	margin := f.Figure(figure.ChargeMargin)
	if margin.State != verdict.Watch {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		w := study.Words{
			What: spare(margin.Value, f.Charging.Curve.RatedW) + worstHour(&f.Charging),
			Why:  "Alternator curves are guessed from one number, batteries age, and cold mornings want everything at once.",
			Do:   "A voltmeter: 13.5 to 14.5 V with everything on at trail speed is right; below 13 V something goes off.",
		}
		if f.Charging.Read != "" {
			w.Why = "The volts that were read bound it at one engine speed; batteries age, and cold mornings want everything at once."
			w.Do = "Read them again at trail speed with everything on; below 13 V something goes off."
		}
		return w
	})
}

// spare is what is left over the hours of riding, in a sentence.
func spare(w, ratedW float64) study.Text {
	if w < 0 {
		return study.Say("{%.0f W} are lacking of an alternator of {%.0f W}, within what is known of it.", -w, ratedW)
	}
	return study.Say("{%.0f W} to spare over the hours of riding, of an alternator of {%.0f W}.", w, ratedW)
}

func idleDrains(f *facts.All) (study.Finding, bool) {
	minutes := power.DownMinutes(f.Charging.BatteryAh, -f.Charging.Idle.MarginW)
	if !(minutes < idleNotice) {
		return study.Finding{}, false
	}
	return study.Noted(func() study.Words {
		return study.Words{
			Short: study.Say("idling costs a fifth in {%.0f min}", minutes),
			What:  study.Say("At idle {%.0f W} are lacking: a fifth of the battery is gone in {%.0f min}.", -f.Charging.Idle.MarginW, minutes),
			Why:   "Queues, photographs, waiting for a mate with everything on.",
			Do:    "Engine off, or grips and lamps off, where it stands longer.",
		}
	})
}

func alternatorHot(f *facts.All) (study.Finding, bool) {
	c := &f.Charging
	use := (c.OwnW + c.DrawnW) / c.Cruise.SupplyW
	day := f.Plan.Brief.Day.In("h")
	if !(use > power.HotShare && use <= 1 && day >= hotHours) {
		return study.Finding{}, false
	}
	return study.FoundBy(100*use, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%.0f %% of what the alternator gives at the cruise, for {%.0f h} a day.", 100*use, day),
			Why:  "One school: small stators cook in their oil on long hot days near full output, and are rewound at the roadside. The other runs grips, tablet and inflator for years and reports nothing. It is a question of reliability, not of arithmetic.",
			Do:   "Switch off what is not used. Carry the number of somebody who rewinds, or a spare regulator.",
		}
	})
}

func parkedDrain(f *facts.All) (study.Finding, bool) {
	c := &f.Charging
	if f.Figure(figure.ParkedDays).State != verdict.Watch {
		return study.Finding{}, false
	}
	return study.FoundBy(c.ParkedMA, 0, verdict.Watch, func() study.Words {
		var names []string
		for _, d := range c.Draws {
			if d.ParkedMA > 0 {
				names = append(names, d.Part.Name)
			}
		}
		return study.Words{
			What: study.Say("With the key out {%.0f mA} go on being drawn (%s): after {%.0f d} the battery cranks no more.", c.ParkedMA, study.Listed(names), c.ParkedDays),
			Why:  "An empty socket draws nothing; the converter or voltmeter in it does.",
			Do:   "Feed it by the ignition or a relay, or pull its fuse when the bike stands.",
		}
	})
}

func batteryCranks(f *facts.All) (study.Finding, bool) {
	has := f.Built.Bike.Cranks.In("A")
	if set := f.Built.Figure(parts.CrankAmps); set > 0 {
		has = set
	}
	wants := power.CrankA(f.Built.Bike.Displacement.In("cc"))
	if !(has < wants) {
		return study.Finding{}, false
	}
	return study.FoundBy(has, wants, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("A battery of {%.0f A} cold crank; an engine of that size asks for about {%.0f A}.", has, wants),
			Why:  "Warm it will do; on a frosty morning it clicks.",
			Do:   "A battery with more, or know the place where it can be pushed.",
		}
	})
}

func lithiumCold(f *facts.All) (study.Finding, bool) {
	if !f.Built.Provides("lithium") {
		return study.Finding{}, false
	}
	state := verdict.Watch
	return study.Finding{State: state, Small: f.Plan.Brief.Weather != plan.Cold, Tell: func() study.Words {
		return study.Words{
			Short: "a lithium battery",
			What:  "A lithium battery saves two kilograms, dislikes cold starts and old regulators.",
			Why:   "Cold it gives little until it has warmed itself; over 14.8 V it is ruined, and may burn.",
			Do:    "Measure the regulator: never over 14.8 V. In the cold, lamps on for a minute before the first start; a charger that is made for it.",
		}
	}}, true
}

func noRelay(f *facts.All) (study.Finding, bool) {
	at := slices.IndexFunc(f.Charging.Draws, func(d facts.Draw) bool { return d.FullW >= relayFromW && d.Feed == parts.FeedAlways })
	if at < 0 {
		return study.Finding{}, false
	}
	d := f.Charging.Draws[at]
	return study.FoundBy(d.FullW, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s, {%.0f W}, hangs on the battery by itself.", d.Part.Name, d.FullW),
			Why:  "Forgotten for a night it is a flat battery in the morning.",
			Do:   "A relay on the running light or the ignition, a fuse next to the battery.",
		}
	})
}

// latest are the volts that were read last, nil where nobody has.
func latest(f *facts.All) *logbook.Volts {
	if len(f.Metered) == 0 {
		return nil
	}
	return f.Metered[len(f.Metered)-1].Volts()
}

func voltsLow(f *facts.All) (study.Finding, bool) {
	v := latest(f)
	if v == nil || !(v.AllOn.In("V") < f.Charging.Chemistry.WeakV || v.Riding.In("V") < f.Charging.Chemistry.ChargingV) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Over, func() study.Words {
		w := study.Words{
			What: study.Say("%.1f V with everything on at 5000 rpm: the battery gives, too.", v.AllOn.In("V")),
			Why:  "It is empty by the evening, whatever the sheet says of the alternator.",
			Do:   "Something off. Then look at the plug of the regulator, which browns; a stator that is dying reads the same.",
		}
		if v.Riding.In("V") < f.Charging.Chemistry.ChargingV {
			w.What = study.Say("%.1f V at 5000 rpm with nothing on but the bike itself; 13.5 to 14.5 V are usual.", v.Riding.In("V"))
			w.Why = "It does not charge: stator, regulator, a plug or an earth."
			w.Do = "A competent mechanic with the manual's test of the stator, before anything more hangs on it."
		}
		return w
	})
}

func regulatorHigh(f *facts.All) (study.Finding, bool) {
	v := latest(f)
	if v == nil || !(highest(v) > power.BoilsV) {
		return study.Finding{}, false
	}
	state, what := verdict.Over, "It boils the battery, and takes lamps and chargers with it."
	if f.Built.Provides("lithium") {
		state, what = verdict.Stop, "A lithium battery is ruined by it, and may burn."
	}
	return study.Finding{
		State: state,
		Value: highest(v), Limit: power.BoilsV,
		Offer: func() []study.Remedy { return study.Providing(f, parts.Regulator, "lithium-charge", "%s") },
		Tell: func() study.Words {
			return study.Words{What: study.Say("%.1f V were read: the regulator does not regulate; 14.8 V is too much.", highest(v)), Why: study.Text(what), Do: "Another regulator before the next ride; read the volts again with it."}
		},
	}, true
}

// highest of the volts that were read.
func highest(v *logbook.Volts) float64 {
	most := 0.0
	for _, volts := range []float64{v.Idle.In("V"), v.Riding.In("V"), v.AllOn.In("V")} {
		if volts > most { // what was not read is not more
			most = volts
		}
	}
	return most
}
