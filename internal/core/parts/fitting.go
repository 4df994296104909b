package parts

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// moved is a length by which a part moves a figure of the bike.
func moved(key, label, help string, f Figure) Prop[unit.Length] {
	p := prop[unit.Length](key, label, "mm", -300, 300, help)
	p.Moves, p.By = f, Add
	return p
}

// What parts move of the bike.
var (
	BarsUp      = moved("bar_rise", "Grips higher by", "Against the standard ones; lower is negative. Without it reach, cables and standing are judged as standard.", BarRise)
	BarsBack    = moved("bar_back", "Grips further back by", "Towards the rider.", BarBack)
	SeatUp      = moved("seat_rise", "Seat higher by", "At its lowest point, rider on; lower is negative. Without it the reach to the ground is the standard seat's.", SeatRise)
	SeatWider   = moved("seat_width", "Wider by", "Where the legs go down; narrower is negative.", SeatWidth)
	Slack       = moved("cable_slack", "Bars may rise further by", "Beyond what the standard cables and hoses allow, at full lock. Without it they are judged as standard.", CableSlack)
	PegsDown    = moved("peg_drop", "Pegs lower by", "Against the standard ones; higher is below zero. Without it the knees are judged as standard.", PegDrop)
	PegsOut     = moved("peg_out", "Each reaches further out by", "Than a standard one; shorter is below zero. Longer ones touch down earlier.", PegOut)
	StandLonger = moved("stand_length", "Longer by", "Than the standard stand; shorter is negative.", StandLength)
	ForkLonger  = moved("fork_length", "Longer by", "Than the standard fork, wheel hanging; shorter is negative.", ForkLength)
	ForkMore    = moved("fork_travel", "More travel by", "Along the leg; less is negative.", ForkTravel)
	ShockLonger = moved("shock_length", "Longer by", "Than the standard shock, eye to eye; shorter is negative.", ShockLength)
	LinksUp     = moved("link_rise", "Raises the rear by", "Wheel hanging, as such links are sold; lowering ones are below zero: −25 mm. Without it the height is judged as standard.", LinkRise)
	RearMore    = moved("rear_travel", "More travel by", "At the wheel; less is negative.", RearTravel)

	Proved   = yesNo("ridden_loaded", "Ridden on this bike with its full load") // of what carries
	Comfort  = prop[unit.Duration]("comfort", "Comfortable for", "h", 0.25, 24, "A day, until it hurts. Without it the seat is not judged.")
	Shelters = prop[unit.Ratio]("shelter", "Takes off the wind", "%", -50, 100, "Of what reaches the rider without it; a large screen takes 40 %, a low one 15 %.")
	Leverage = prop[unit.Ratio]("leverage", "The shock moves more by", "%", -40, 40, "For the same travel of the wheel; lowering links mostly make it less, which is negative. Empty: as usual for links that raise or lower by so much.")
	Sole     = prop[unit.Area]("foot", "Its sole", "cm²", 2, 2000, "Length × width. Without it the standard foot counts.")
)

// Effort is what fitting a part takes.
type Effort int

// The efforts.
const (
	Hands Effort = iota
	Tools        // and patience
	Press        // a balancer, or a hand for wiring and structure
)

// sold is what a form asks of where a part comes from.
func (d *Draft) sold() Asked {
	return Asked{
		Name:   "How it comes",
		Texts:  []entry.Text{{Key: "sold_by", Label: "Sold by", Help: "What one seller sends comes together, and is late together.", Words: &d.Sold.By}},
		Picks:  []entry.Pick{entry.PickOf("sold_from", "From", &d.Sold.From, Supplies()...)},
		Fields: []entry.Field{entry.Ask("sold_days", "On its way", "d", 0, 1000, "As the seller says. Empty: as is usual for where it comes from.", &d.Sold.Days)},
	}
}

// fitting are the numbers that every part has, wherever it goes: what it weighs, whom it is
// made for, what it takes. They are asked for and believed alike.
func (p *Part) fitting(f *Fitment) (mass, fit []entry.Field) {
	kind, _ := KindOf(p.Slot)
	return []entry.Field{
			{Key: "mass", Label: "It weighs", Unit: "kg", Min: 0, Max: 99, Help: "On a kitchen or luggage scale. " + kind.Weighs.in("kg"), Entry: &p.Mass},
			{Key: "replaces", Label: "What it replaces weighs", Unit: "kg", Min: 0, Max: 99, Help: "What comes off for it; 0 where nothing does. Empty: what the bike's sheet says of it, or as is usual.", Entry: &p.Replaces},
		}, []entry.Field{
			{Key: "made_from", Label: "… model years from", Min: 1950, Max: 2100, Help: "Another year's part is a finding.", Entry: &p.Made.From},
			{Key: "made_to", Label: "… to", Min: 1950, Max: 2100, Entry: &p.Made.To},
			{Key: "fit_hours", Label: "Work beyond the usual", Unit: "h", Min: 0, Max: 200, Help: "Where it fits with work.", Entry: &f.Hours},
		}
}
