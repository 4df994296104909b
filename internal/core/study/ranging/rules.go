package ranging

import (
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/fuel"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/study"
	"valiantmule/internal/core/verdict"
)

// Rows of fuel: what does not reach, and what carrying more of it brings with it.

const (
	factorLow, factorHigh = 0.7, 1.4 // a consumption outside of what the model makes of the bike is looked at again [practice]
	widerMM               = 40.0     // at the knees, from which standing feels it [memory]
	tankMoreKg            = 4.0      // in front, from which springs feel it [memory]
	behindKg              = 3.0      // high and behind [memory]
	carriesShare          = 0.01     // that a carrier and what is in it take more of [computed]
)

func rangeShort(f *facts.All) (study.Finding, bool) {
	leg, ok := f.Range.Decides()
	reach := f.Figure(figure.Distance)
	if !ok || !(reach.Value < reach.Limit) {
		return study.Finding{}, false
	}
	state := reach.State
	return study.Finding{
		State: state,
		Offer: func() []study.Remedy { return closing(f, leg) },
		Tell: func() study.Words {
			how := "at the thirsty end of its band"
			if state == verdict.Over {
				how = "even in the middle of its band"
			}
			if leg.OnlyIntoWind() {
				how += ", and only into the wind"
			}
			return study.Words{
				What: study.Say("{%.0f km} before the reserve from %s to %s; they are {%.0f km}, too far %s.", f.Range.Km, leg.From, leg.To, f.Range.GapKm, how),
				Why:  "The longest gap decides the trip. Loose ground, headwind and bags all drink.",
				Do:   "A bigger tank, approved cans for the one leg, a slower cruise, another pump. The range page holds them side by side.",
			}
		},
	}, true
}

// closing is the cheapest carrier that goes on and brings the leg to the thirsty end
// of the band before the reserve.
func closing(f *facts.All, leg facts.Leg) []study.Remedy {
	want := (1 + carriesShare) * (leg.NeedL + fuel.BandSigma*leg.SpreadL) / (1 - f.Range.Tank.Reserve)
	var best *parts.Part
	for _, p := range f.Shelf {
		if !parts.Approved.Yes(p) || !f.Built.Fits(p) || !p.Price.Known() {
			continue
		}
		has := leg.HaveL + p.Carrier().UsableL()
		for _, old := range f.Built.Fuels {
			if old.Slot == p.Slot {
				has -= old.HoldsL - old.UnusedL
			}
		}
		if has >= want && (best == nil || p.Price.Minor() < best.Price.Minor()) {
			best = p
		}
	}
	return study.Take(best, "%s")
}

// unsurePump speaks where the trip leans on a pump that may be shut: with it closed
// two legs become one. Where the plan already takes it as shut, it says what that
// costs.
func unsurePump(f *facts.All) (study.Finding, bool) {
	var worst facts.Leg
	var pump *plan.Stop
	var how string
	look := func(leg facts.Leg, at *plan.Stop, words string) {
		if leg.Short() && (pump == nil || leg.MarginL < worst.MarginL) {
			worst, pump, how = leg, at, words
		}
	}
	for i, a := range f.Range.Legs {
		for _, s := range a.Shut {
			look(a, s, "taken as shut,")
		}
		if joined, ok := f.Range.Joined(i); ok && a.Ends.Certainty != plan.Sure && !a.Short() {
			look(joined, a.Ends, "if it is shut,")
		}
	}
	if pump == nil {
		return study.Finding{}, false
	}
	return study.FoundBy(-worst.MarginL, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s (%s): %s %s to %s is {%.0f km} and {%.1f L} short.", pump.Name, entry.NameOf(plan.Certainties(), string(pump.Certainty)), how, worst.From, worst.To, worst.Km, -worst.MarginL),
			Why:  "A pump that has run dry, closed for the day or for the winter makes two legs into one.",
			Do:   "Ask there before you go, arrive inside the hours, or carry that much. Click it shut on the range page and look.",
		}
	})
}

func smallestOfGroup(f *facts.All) (study.Finding, bool) {
	m := f.Range.Leader
	leg, ok := f.Range.Decides()
	if m == nil || !ok {
		return study.Finding{}, false
	}
	own, _, _ := leg.RangeKm()
	if !(m.Range.In("km") < own) {
		return study.Finding{}, false
	}
	return study.FoundBy(m.Range.In("km"), own, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s has {%.0f km} before the reserve, you {%.0f km}: the group stops for the smaller tank.", m.Name, m.Range.In("km"), own),
			Why:  "Who runs dry first stops everybody.",
			Do:   "Let the smallest range lead and set the stops, or carry a can for them.",
		}
	})
}

func consumptionOff(f *facts.All) (study.Finding, bool) {
	k := f.Learning.Anchor
	// A rider's own figure is how they ride; the window is for a sheet that others wrote.
	switch f.Built.Bike.OriginOf("economy") {
	case sheet.Rider, sheet.Measured:
		return study.Finding{}, false
	}
	if !(k < factorLow || k > factorHigh) {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("The consumption on the sheet is %.2f times what the engine's data come to.", k),
			Why:  "It is outside of what such bikes burn, so one of the two is wrong: a unit, a displacement, the gearbox, or a tank that was not filled to the same mark.",
			Do:   "Look at consumption, displacement and gearing on the sheet; three fills from full to full settle it.",
		}
	})
}

// carried yields the carriers that the plan puts on, with their fuel's mass.
func carried(f *facts.All) []plan.Fuel {
	var list []plan.Fuel
	for _, c := range f.Built.Fuels {
		if c.Part != nil && f.Built.Chosen(c.Slot) {
			list = append(list, c)
		}
	}
	return list
}

func tankAtTheKnees(f *facts.All) (study.Finding, bool) {
	for _, c := range carried(f) {
		if wider := c.Part.Carrier().Wider.In("mm"); wider >= widerMM {
			return study.FoundBy(wider, 0, verdict.Watch, func() study.Words {
				return study.Words{
					What: study.Say("%s is {%.0f mm} wider between the knees.", c.Part.Name, wider),
					Why:  "Standing, the knees hold the bike; a wide tank pushes them out and the body back.",
					Do:   "Stand on one before you buy. Check full lock, and the bars against your knees.",
				}
			})
		}
	}
	return study.Finding{}, false
}

func tankPlumbing(f *facts.All) (study.Finding, bool) {
	var names []string
	for _, c := range carried(f) {
		if k := c.Part.Carrier().Kind; k == parts.Plumbed || (k == parts.MainTank && c.Part.Carrier().Plastic) {
			names = append(names, c.Part.Name)
		}
	}
	if len(names) == 0 {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Hoses, taps and a filter for: %s.", study.Listed(names)),
			Why:  "Plastic threads strip and creep: metal unions hold. A pinched hose or a shut vent starves the engine; a pump and its level sender may not move over.",
			Do:   "Metal unions, new hose and clips, the vent led clear, and a look for drops after the first warm hour, away from sparks. With injection, a competent mechanic.",
		}
	})
}

func tankInFront(f *facts.All) (study.Finding, bool) {
	main := f.Built.Fuels[0]
	if main.Part == nil {
		return study.Finding{}, false
	}
	more := (main.HoldsL - f.Built.Bike.Tank.In("L")) * fuel.Density
	if !(more >= tankMoreKg) {
		return study.Finding{}, false
	}
	return study.FoundBy(more, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("Full, the tank holds {%.1f kg} more petrol than the standard one, high and in front.", more),
			Why:  "The fork sinks deeper and dives sooner, and the steering changes between full and empty.",
			Do:   "Set front sag with it full; springs a step firmer if it cannot be set. Fill it only for the leg that needs it.",
		}
	})
}

func fuelBehind(f *facts.All) (study.Finding, bool) {
	kg := 0.0
	for _, c := range carried(f) {
		if p := c.Part.Sits(); p == load.Tail || p == load.TopBox {
			kg += c.HoldsL*fuel.Density + c.Part.Mass.In("kg")
		}
	}
	if !(kg >= behindKg) {
		return study.Finding{}, false
	}
	return study.FoundBy(kg, 0, verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("{%.1f kg} of fuel high behind the seat.", kg),
			Why:  "Behind the axle it lifts the front and works on the subframe, and it moves.",
			Do:   "Pour it in first, at the first stop where there is room; strap it down on four sides; keep to the rack's limit.",
		}
	})
}

func canNotApproved(f *facts.All) (study.Finding, bool) {
	for _, c := range carried(f) {
		if c.Part.Carrier().Approved {
			continue
		}
		return study.Finding{
			State: verdict.Over,
			Offer: func() []study.Remedy {
				return study.Offer(f, c.Slot, func(p *parts.Part) bool { return parts.Approved.Yes(p) })
			},
			Tell: func() study.Words {
				return study.Words{
					What: study.Say("%s is not approved for petrol.", c.Part.Name),
					Why:  "It swells, leaks vapour and splits in the heat; ferries, pumps and the law turn it away.",
					Do:   "Take an approved one.",
				}
			},
		}, true
	}
	return study.Finding{}, false
}

func fuelByTheExhaust(f *facts.All) (study.Finding, bool) {
	i := slices.IndexFunc(carried(f), func(c plan.Fuel) bool { return c.Part.Sits() == load.Panniers && c.Part.Carrier().Kind == parts.Poured })
	if i < 0 || f.Built.Provides("heat-shield") {
		return study.Finding{}, false
	}
	return study.Found(verdict.Watch, func() study.Words {
		return study.Words{
			What: study.Say("%s hangs beside the rear wheel, one side over the exhaust.", carried(f)[i].Part.Name),
			Why:  "A hot silencer softens plastic and boils petrol, and in a fall it is the first thing to touch.",
			Do:   "The side without the exhaust, a shield with air behind it, and a hand's width; never fill beside a hot engine.",
		}
	})
}
