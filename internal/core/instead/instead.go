// Package instead is the table of what answers a point without a part: a lesson, a skill, a
// setting. Each stands among the options of the slots whose parts would be bought for it, with
// what it costs, how long it takes, and of which points it takes the ground.
package instead

import (
	"slices"

	"valiantmule/internal/core/parts"
)

// Kind is what it is.
type Kind string

// The kinds.
const (
	Lesson  Kind = "lesson"
	Skill   Kind = "skill"
	Setting Kind = "setting"
)

// Way is one of them.
type Way struct {
	ID      string
	Kind    Kind
	Name    string
	Does    string       // what one does, in a sentence
	Euros   float64      // what it costs [memory]
	Hours   float64      // [memory]
	Answers []string     // rules, by their ids
	Beside  []parts.Slot // whose options it stands among
}

// ways are by what riders say did as much as a part [practice].
var ways = []Way{
	{
		ID: "day-off-road", Kind: Lesson, Name: "A day's lesson off the road", Euros: 180, Hours: 8,
		Does:    "An instructor, your own bike, loose ground: braking, turning at a walk, standing, picking it up.",
		Answers: []string{"heavy-for-the-ground", "climb-spins", "tyre-against-ground", "front-tyre-against-ground", "front-wet-grip", "rear-wet-grip"},
		Beside:  []parts.Slot{parts.FrontTyre, parts.RearTyre, parts.Pegs, parts.SteeringDamper},
	},
	{
		ID: "slow-hours", Kind: Skill, Name: "Two hours of slow riding in an empty yard", Hours: 2,
		Does:    "Stop with one foot on the kerb side, slide off the seat's edge, start on a slope; until the height is no question any more.",
		Answers: []string{"out-of-reach", "tall-seat"},
		Beside:  []parts.Slot{parts.Seat, parts.Links, parts.ForkSprings, parts.ShockSpring},
	},
	{
		ID: "bar-and-levers", Kind: Setting, Name: "Roll the bar, turn the levers to your arms", Hours: 0.5,
		Does:    "Forward in its clamps until the back is straight on the pegs; levers in line with the forearm, pedal and shift lever to your boots.",
		Answers: []string{"bars-low-standing", "back-bent", "boots-and-levers"},
		Beside:  []parts.Slot{parts.Handlebar, parts.Risers, parts.Levers, parts.ShiftLever, parts.Pegs},
	},
	{
		ID: "sag-first", Kind: Setting, Name: "Set preload and measure the sag", Hours: 1,
		Does:    "Both ends with everything on, as the Measure page asks; write down where the adjusters stand.",
		Answers: []string{"to-set-front", "to-set-rear", "bounces-front", "bounces-rear", "sag-stiff-front", "sag-stiff-rear", "sag-measured-front", "sag-measured-rear"},
		Beside:  []parts.Slot{parts.ForkSprings, parts.ShockSpring, parts.ForkCaps, parts.ShockAdjuster},
	},
	{
		ID: "let-air-out", Kind: Setting, Name: "The surface's pressure, and a pump to come back", Hours: 0.2,
		Does:    "Down to the card's figure where the road ends, up again before tarmac.",
		Answers: []string{"pressure-hard", "front-wet-grip", "rear-wet-grip", "climb-spins"},
		Beside:  []parts.Slot{parts.FrontTyre, parts.RearTyre},
	},
	{
		ID: "slower", Kind: Setting, Name: "Cruise ten slower, and fill at every pump",
		Does:    "Drag goes with the square of speed; the longest leg is ridden at the pace that reaches it.",
		Answers: []string{"range-short", "unsure-pump", "smallest-of-group", "cruise-not-held", "bag-speed", "light-for-the-road"},
		Beside:  []parts.Slot{parts.FuelTank, parts.AuxTank, parts.FuelBladder, parts.FuelCans, parts.RearSprocket, parts.FrontSprocket},
	},
	{
		ID: "stop-at-dusk", Kind: Setting, Name: "Be there by dusk",
		Does:    "Days planned to end in light; after that at the speed at which stopping meets the beam.",
		Answers: []string{"night-too-fast", "bends-dark"},
		Beside:  []parts.Slot{parts.Headlamp, parts.AuxLamps, parts.WideLamps, parts.HelmetLamp},
	},
	{
		ID: "a-third-less", Kind: Skill, Name: "Pack, ride a weekend, leave a third at home", Hours: 3,
		Does:    "What was not used in two days is not used in twenty; what is heavy goes low and forward.",
		Answers: []string{"rack-overload", "bag-overfull", "bag-overload", "high-behind", "front-light", "sag-soft-rear", "wrong-spring-rear", "load-takes"},
		Beside:  []parts.Slot{parts.RearRack, parts.SideRack, parts.SideBags, parts.TailBag, parts.TopBox, parts.ShockSpring},
	},
	{
		ID: "pull-the-fuse", Kind: Setting, Name: "Pull the fuse when the bike stands", Hours: 0.1,
		Does:    "Of whatever goes on drawing with the key out; a tag on the key says so.",
		Answers: []string{"parked-drain", "live-socket", "idle-drains"},
		Beside:  []parts.Slot{parts.Socket, parts.Battery},
	},
	{
		ID: "ride-it-loaded", Kind: Skill, Name: "A day on rough ground, loaded as for the trip", Hours: 6,
		Does:    "Then every bolt, bracket and strap by hand: what is not proved at home is proved far from it.",
		Answers: []string{"not-ridden-loaded", "home-made-carrier", "unit-unproven"},
		Beside:  []parts.Slot{parts.RearRack, parts.SideRack, parts.Shock, parts.Fork},
	},
	{
		ID: "one-day-on-the-seat", Kind: Skill, Name: "A whole day on the standard seat first", Hours: 6,
		Does:    "Stand for a minute in ten, move back and forth; seats that were feared proved bearable more often than not.",
		Answers: []string{"seat-for-the-hours", "knees-bent"},
		Beside:  []parts.Slot{parts.Seat},
	},
}

// Ways lists them.
func Ways() []Way { return slices.Clone(ways) }

// Of finds one by its id.
func Of(id string) (Way, bool) {
	at := slices.IndexFunc(ways, func(w Way) bool { return w.ID == id })
	if at < 0 {
		return Way{}, false
	}
	return ways[at], true
}

// Beside are those that stand among the options of a slot.
func Beside(slot parts.Slot) []Way {
	return slices.DeleteFunc(Ways(), func(w Way) bool { return !slices.Contains(w.Beside, slot) })
}
