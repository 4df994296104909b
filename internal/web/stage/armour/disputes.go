package armour

import (
	"valiantmule/internal/core/guard"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/desk"
)

// armourDisputes are what riders argue about when guards are talked of.
var armourDisputes = []desk.Dispute{
	{Name: "Hand guards", About: "A lever that breaks is a lever that is carried; a wrist that is caught is not.", Place: guard.Levers, Figures: nil, Sides: []desk.Side{
		{School: "Full bar", Says: "Levers and bar ends stay whole in every fall. A rare trapped wrist is the price.", Slot: parts.HandGuards, Likes: desk.Provides("bar-ends")},
		{School: "Open", Says: "Twigs, stones and cold are kept off and hands come out freely; falls take a lever.", Slot: parts.HandGuards, Likes: func(p *parts.Part) bool { return !desk.Provides("bar-ends")(p) }},
		{School: "When it breaks", Says: "A spare lever under the seat weighs less than any guard.", Slot: parts.HandGuards, Likes: nil},
	}},
	{Name: "Skid plate", About: "Each can cover well or badly; look at what is behind it.", Place: guard.Sump, Figures: nil, Sides: []desk.Side{
		{School: "Aluminium", Says: "Takes the blow and shows it; rings, and thin soft alloy dents.", Slot: parts.SkidPlate, Likes: onFrame(func(p *parts.Part) bool { return !desk.Provides("wraps-cases")(p) })},
		{School: "Plastic", Says: "Slides over, is quiet and springs back; melts on a bare header, hides the drain.", Slot: parts.SkidPlate, Likes: desk.Provides("wraps-cases")},
		{School: "When it breaks", Says: "Epoxy, a strap and luck: on smooth ground many never need more.", Slot: parts.SkidPlate, Likes: nil},
	}},
	{Name: "Engine bars", About: "They must touch first; low ones save no fairing.", Place: guard.Cases, Figures: nil, Sides: []desk.Side{
		{School: "Bars", Says: "Cases, and some of tank and cooler, survive a fall on the road side.", Slot: parts.EngineBars, Likes: func(p *parts.Part) bool { return true }},
		{School: "None", Says: "Mass, width and knees; a bonded cover on the case does half of it.", Slot: parts.EngineBars, Likes: nil},
	}},
	{Name: "Headlamp guard", About: "Wanted more once the mudguard is raised.", Place: guard.Lamp, Figures: nil, Sides: []desk.Side{
		{School: "Clear", Says: "All the light, until dust has scratched it.", Slot: parts.LampGuard, Likes: func(p *parts.Part) bool { return p.ID == "lamp-clear" }},
		{School: "Mesh", Says: "Takes the hard stone; a little light is lost.", Slot: parts.LampGuard, Likes: func(p *parts.Part) bool { return p.ID != "lamp-clear" }},
		{School: "When it breaks", Says: "A lamp is replaced in town; ride by day until then.", Slot: parts.LampGuard, Likes: nil},
	}},
}

func onFrame(likes func(*parts.Part) bool) func(*parts.Part) bool {
	return func(p *parts.Part) bool { return parts.GuardMount.In(p) == parts.ToFrame && likes(p) }
}
