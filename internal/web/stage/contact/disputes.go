package contact

import (
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/desk"
)

// contactDisputes are what they argue about seat, bars and cockpit.
var contactDisputes = []desk.Dispute{
	{Name: "Higher grips", About: "Both add up; look at the cables before either.", Place: "", Figures: []figure.ID{"bar-short", "needs"}, Sides: []desk.Side{
		{School: "Risers", Says: "The bar that you know, higher; the cheapest way, as far as the cables go.", Slot: parts.Risers, Likes: func(p *parts.Part) bool { return p.Adds(parts.BarRise) >= 20 }},
		{School: "A new bar", Says: "Shape as well as height: aluminium springs back, steel bends and is bent back.", Slot: parts.Handlebar, Likes: func(p *parts.Part) bool { return p.Adds(parts.BarRise) >= 25 }},
		{School: "Roll it", Says: "A bar rolled a little ahead costs nothing and answers most of it.", Slot: parts.Risers, Likes: nil},
	}},
	{Name: "The seat", About: "Try the standard one first, for a whole day.", Place: "", Figures: []figure.ID{"seat-hours", "seat-reach", "knee", "needs"}, Sides: []desk.Side{
		{School: "As it came", Says: "A day will tell; many need no more.", Slot: parts.Seat, Likes: nil},
		{School: "Foam or a cover", Says: "Half a day with an upholsterer, or a cover that moves from bike to bike.", Slot: parts.Seat, Likes: func(p *parts.Part) bool { return p.Sets(parts.SeatHours) == 4 }},
		{School: "Another seat", Says: "Made for hours; taller stands easier, lower reaches the ground.", Slot: parts.Seat, Likes: func(p *parts.Part) bool { return p.Sets(parts.SeatHours) >= 6 }},
	}},
	{Name: "The way", About: "What finds it, and what it needs.", Place: "", Figures: []figure.ID{"needs"}, Sides: []desk.Side{
		{School: "Paper", Says: "No battery, no glare; somebody has to have drawn it.", Slot: parts.Navigator, Likes: desk.Provides("paper")},
		{School: "Your phone", Says: "It is there already; its camera and socket suffer.", Slot: parts.Navigator, Likes: desk.Provides("shaken-camera")},
		{School: "A device of its own", Says: "Sealed and dear, or cheap and replaceable.", Slot: parts.Navigator, Likes: desk.Provides("draws-power")},
	}},
}
