package load

import (
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/desk"
)

// loadDisputes are what they argue about bags and racks.
var loadDisputes = []desk.Dispute{
	{Name: "Soft or hard", About: "What gives in a fall, and what locks.", Place: "", Figures: []figure.ID{"loaded-mass", "axle-rear", "bag-fullest", "range", "cost"}, Sides: []desk.Side{
		{School: "Soft", Says: "Lighter; gives when a leg is under it; abrades, wants a shield and straps pulled tight again.", Slot: parts.SideBags, Likes: bagOf(parts.SoftBag)},
		{School: "Hard", Says: "Lockable, tidy, a table in the evening; heavy, wide, traps legs and bends in a crash.", Slot: parts.SideBags, Likes: bagOf(parts.HardBag)},
		{School: "None", Says: "One night less, and everything in a roll: nothing rides lighter.", Slot: parts.SideBags, Likes: nil},
	}},
	{Name: "Rack or rackless", About: "What moves between bikes, and what is quick to pack.", Place: "", Figures: []figure.ID{"loaded-mass", "axle-rear", "left-right", "cost", "own-hours"}, Sides: []desk.Side{
		{School: "Rackless", Says: "Light, cheap, moves to the next bike; slow to pack, and the seat comes off last.", Slot: parts.SideBags, Likes: bagOf(parts.Rackless)},
		{School: "On a rack", Says: "Off in a minute, clear of wheel and pipe; the rack weighs and costs, and takes the pillion's pegs.", Slot: parts.SideRack, Likes: func(p *parts.Part) bool { return p.Rack() != nil }},
	}},
	{Name: "The tail", About: "The worst place for anything heavy, and the handiest.", Place: "", Figures: []figure.ID{"rack-load", "front-share", "centre-height", "cost"}, Sides: []desk.Side{
		{School: "A roll", Says: "For what is light and large: it lies low across the seat.", Slot: parts.TailBag, Likes: func(p *parts.Part) bool { return !parts.Handy.Yes(p) }},
		{School: "A box", Says: "Takes a helmet, locks; high and behind, on a subframe that was not asked.", Slot: parts.TopBox, Likes: func(p *parts.Part) bool { return p.Bag() != nil }},
		{School: "Nothing", Says: "What does not go into the sides stays at home.", Slot: parts.TailBag, Likes: nil},
	}},
}

func bagOf(kind parts.BagKind) func(*parts.Part) bool {
	return func(p *parts.Part) bool { return parts.BagKindOf.In(p) == kind }
}
