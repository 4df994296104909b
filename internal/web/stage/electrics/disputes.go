package electrics

import (
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/desk"
)

// lasting likes lamps that last from so many years up to so many.
func lasting(from, to float64) func(*parts.Part) bool {
	return func(p *parts.Part) bool {
		return parts.Lasts.In(p).In("yr") >= from && parts.Lasts.In(p).In("yr") <= to
	}
}

// known likes lamps whose intensity somebody knows.
func known(p *parts.Part) bool { return parts.Candela.In(p).Known() }

func gives(f parts.Figure) func(*parts.Part) bool {
	return func(p *parts.Part) bool { return p.Sets(f) > 0 }
}

// sealed likes batteries of lead.
func sealed(p *parts.Part) bool { return gives(parts.BatteryAh)(p) && !desk.Provides("lithium")(p) }

// disputes are what riders argue about when watts and lamps are talked of.
var disputes = []desk.Dispute{
	{Name: "Eight hot hours near full output", About: "What an alternator of a small bike stands. Arithmetic does not say; those who broke down and those who did not do.", Place: "", Figures: []figure.ID{"charge-margin", "charge-idle", "idle-minutes", "cost"}, Sides: []desk.Side{
		{School: "Run it all", Says: "Grips, tablet and inflator for years from a 450, and nothing to report: what it gives it gives all day.", Slot: parts.Stator, Likes: nil},
		{School: "Leave the thirstiest at home", Says: "Stators cook in hot oil and are rewound at the roadside: half of the rating for a whole day, and a spare regulator in the bag.", Slot: parts.VestLead, Likes: nil},
		{School: "A larger one", Says: "Rewound or off another model. More copper in the same oil is hotter, too; three weeks without the bike.", Slot: parts.Stator, Likes: gives(parts.AlternatorW)},
	}},
	{Name: "To be seen by day", About: "Lamps on the bars stand in stones and water.", Place: "", Figures: []figure.ID{"charge-margin", "cost", "needs"}, Sides: []desk.Side{
		{School: "Cheap ones, each spring", Says: "Any two lights beside the headlamp do it. They fade in a summer; then a new pair.", Slot: parts.DayLamps, Likes: lasting(0, 1.5)},
		{School: "One dear set", Says: "Sealed, marked, bolted on once; nothing hangs by a wire on the way.", Slot: parts.DayLamps, Likes: lasting(6, 50)},
		{School: "The headlamp is enough", Says: "Main beam by day where the law lets you, a bright jacket, and ride as if nobody had seen you.", Slot: parts.DayLamps, Likes: nil},
	}},
	{Name: "Far or wide", About: "What a lamp beside the headlamp is for.", Place: "", Figures: []figure.ID{"night-speed", "lit-distance", "bend-lit", "charge-margin", "cost"}, Sides: []desk.Side{
		{School: "Far", Says: "Spots on what turns with the bars: the deer is seen in time. On a straight road.", Slot: parts.AuxLamps, Likes: known},
		{School: "Wide", Says: "Nights on tracks are all bends: a flood to each side, a little outward, and slowly.", Slot: parts.WideLamps, Likes: known},
		{School: "On the helmet", Says: "Looks where you look; the lead has to part, and whoever comes is looked at with it.", Slot: parts.HelmetLamp, Likes: known},
		{School: "Not by night", Says: "Camp at five. It is free, and the only one that stops for cattle.", Slot: parts.AuxLamps, Likes: nil},
	}},
	{Name: "Lead or lithium", About: "Two kilograms, high up or low down.", Place: "", Figures: []figure.ID{"loaded-mass", "parked-days", "idle-minutes", "cost"}, Sides: []desk.Side{
		{School: "Lead", Says: "Starts at minus ten, takes an old regulator, is sold in every town.", Slot: parts.Battery, Likes: sealed},
		{School: "Lithium", Says: "Two kilograms lighter and cranks harder, warm. Cold it wants waking; above 14.8 V it is ruined.", Slot: parts.Battery, Likes: desk.Provides("lithium")},
		{School: "The one that is in it", Says: "Its age is on its label; charge it, crank it on a cold morning, then decide.", Slot: parts.Battery, Likes: nil},
	}},
	{Name: "A box, or fuses in the wires", About: "More than two things on the battery's bolts are a nest.", Place: "", Figures: []figure.ID{"loaded-mass", "cost", "own-hours"}, Sides: []desk.Side{
		{School: "A box that thinks", Says: "Limits and delays by phone, one thick wire in; when it dies all of it is dark.", Slot: parts.PowerBox, Likes: func(p *parts.Part) bool { return parts.Delay.In(p).Known() }},
		{School: "A block of blades", Says: "Any shop has the fuses; a relay and an afternoon.", Slot: parts.PowerBox, Likes: func(p *parts.Part) bool { return p.Box() != nil && !parts.Delay.In(p).Known() }},
		{School: "Fuses in the wires", Says: "Two or three accessories want no more, each fuse within a hand of the battery.", Slot: parts.PowerBox, Likes: nil},
	}},
}
