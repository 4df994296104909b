package stance

import (
	"math"
	"strings"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/figure"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/web/desk"
)

// nearest puts the spring first that is nearest to the rate that the load wants.
func nearest(rear bool) func(f *facts.All, p *parts.Part) float64 {
	return func(f *facts.All, p *parts.Part) float64 {
		if p.Spring() == nil {
			return math.Inf(1)
		}
		return math.Abs(p.Spring().Rate.In("N/mm") - f.Springs.Of(rear).WantNmm)
	}
}

func every(*parts.Part) bool { return true }

// specialist likes what is done by one.
func specialist(p *parts.Part) bool { return strings.Contains(p.Name, "specialist") }

// disputes are what riders argue about when springs and heights are talked of.
var disputes = []desk.Dispute{
	{Name: "The rear", About: "The first that bags and riders overload. Measure before you buy.", Place: "", Figures: []figure.ID{"sag-rear", "free-rear", "preload-rear", "cost"}, Sides: []desk.Side{
		{School: "Leave it", Says: "Money elsewhere. Riders are content on standard springs, some with 23 kg of bags, and finished long trips with the preload at its stop.", Slot: parts.ShockSpring, Likes: nil},
		{School: "A spring for your mass", Says: "The rate is arithmetic, the spring is cheap, the gain is every metre.", Slot: parts.ShockSpring, Likes: every, Nearest: nearest(true)},
		{School: "Spring and valving by a specialist", Says: "Damping for the new spring, fresh oil and gas. Two weeks without the bike; book it.", Slot: parts.ShockValving, Likes: specialist, With: &desk.Side{Slot: parts.ShockSpring, Likes: every, Nearest: nearest(true)}},
		{School: "A whole unit", Says: "New to order, or another year's with work. It can fail early: a shakedown before the trip.", Slot: parts.Shock, Likes: func(p *parts.Part) bool { return p.Spring() != nil }, Nearest: nearest(true)},
	}},
	{Name: "The front", About: "Pogo under the brake is often only old oil: ask its age first.", Place: "", Figures: []figure.ID{"sag-front", "free-front", "preload-front", "cost"}, Sides: []desk.Side{
		{School: "Leave it", Says: "Fresh oil, clickers, preload. Many forks need no more.", Slot: parts.ForkSprings, Likes: nil},
		{School: "Springs for your mass", Says: "Both legs together; front and rear come from different shops in different steps.", Slot: parts.ForkSprings, Likes: every, Nearest: nearest(false)},
		{School: "Springs and valving by a specialist", Says: "Compression by shims instead of holes; they ask for mass and ground.", Slot: parts.ForkValving, Likes: specialist, With: &desk.Side{Slot: parts.ForkSprings, Likes: every, Nearest: nearest(false)}},
		{School: "A whole fork", Says: "Another model's, with its clamps and wheel; dear, heavy, and turned about: look at the trail.", Slot: parts.Fork, Likes: func(p *parts.Part) bool { return p.Spring() != nil }, Nearest: nearest(false)},
	}},
	{Name: "Nearer to the ground", About: "By figures: travel, room under the engine, the knee, money.", Place: "", Figures: []figure.ID{"seat-reach", "clearance", "room-pressed", "sag-rear", "knee", "trail", "stand-short", "cost"}, Sides: []desk.Side{
		{School: "As it is", Says: "Some ride happily on tiptoe. A foot on a stone, the other on the peg.", Slot: parts.Seat, Likes: nil},
		{School: "A low seat", Says: "Keeps travel and room; costs the knee and an hour of comfort.", Slot: parts.Seat, Likes: func(p *parts.Part) bool { return p.Adds(parts.SeatRise) < 0 }},
		{School: "Lowering links", Says: "Costs room, some travel, a shorter stand and the fork through its clamps; the seat stays as it was.", Slot: parts.Links, Likes: func(p *parts.Part) bool { return p.Adds(parts.LinkRise) < 0 }},
	}},
	{Name: "Steering damper", About: "Calms wobble at speed and deflection in sand and rock. Bearings, tyres and load first.", Place: "", Figures: []figure.ID{"trail", "bar-short", "cost"}, Sides: []desk.Side{
		{School: "None", Says: "A sound bike with its weight forward needs none.", Slot: parts.SteeringDamper, Likes: nil},
		{School: "Under the bar", Says: "Adjustable; raises the bar, which many want anyway.", Slot: parts.SteeringDamper, Likes: func(p *parts.Part) bool { return p.Adds(parts.BarRise) > 0 }},
		{School: "A rod beside the tank", Says: "Cheap, for the road at speed; catches brush.", Slot: parts.SteeringDamper, Likes: func(p *parts.Part) bool { return strings.Contains(p.Name, "rod") }},
	}},
}
