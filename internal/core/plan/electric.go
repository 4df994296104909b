package plan

import (
	"cmp"
	"math"
	"slices"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/unit"
)

// Electric is what a part draws, when, and from what.
type Electric struct {
	Draw   unit.Power   `json:"draw,omitzero"` // with it on
	Duty   unit.Ratio   `json:"duty,omitzero"` // of the time that it is used; missing is all of it
	Use    Use          `json:"use,omitempty"`
	Feed   Feed         `json:"feed,omitempty"`
	Parked unit.Current `json:"parked,omitzero"` // with the key out, where it is fed always
}

// Feed is what an accessory hangs on.
type Feed string

// The feeds; "" of a part is the ignition, "" of what a rider wires is as its part says.
const (
	FeedIgnition Feed = "ignition"
	FeedEngine   Feed = "engine" // by a relay, while the engine runs
	FeedAlways   Feed = "always"
)

// Use is when an accessory is on.
type Use string

// The uses; "" of a part is all the time, "" of what a rider uses is as its part says.
const (
	InUse   Use = "day"
	InCold  Use = "cold"
	AtNight Use = "night"
	AtStops Use = "stopped"
)

// Feeds lists them.
func Feeds() []Option {
	return []Option{{string(FeedIgnition), "Ignition"}, {string(FeedEngine), "Running engine"}, {string(FeedAlways), "Always live"}}
}

// Uses lists them.
func Uses() []Option {
	return []Option{{string(InUse), "All day"}, {string(InCold), "When it is cold"}, {string(AtNight), "At night"}, {string(AtStops), "At stops"}}
}

// Wired is how the rider wires and uses what is in a slot, over what its sheet says. What
// is laid already is held against what it should be.
type Wired struct {
	Slot    Slot         `json:"slot"`
	Feed    Feed         `json:"feed,omitempty"`
	Use     Use          `json:"use,omitempty"`
	Length  unit.Length  `json:"length,omitzero"` // of its wire, one way
	Area    unit.Area    `json:"area,omitzero"`   // of the wire that is laid
	Fuse    unit.Current `json:"fuse,omitzero"`   // that is in it
	Channel Channel      `json:"channel,omitempty"`
}

// Fields lists its numbers, their keys before a suffix.
func (w *Wired) Fields(of string) []Field {
	return []Field{
		{"length" + of, "Wire, one way", "m", 0.1, 10, "From the battery or the box to it, as it is laid. Empty: what is usual to its place.", &w.Length},
		{"area" + of, "Wire laid", "mm²", 0.1, 35, "Copper, without its jacket, or its gauge: 16 AWG. Empty: as asked for.", &w.Area},
		{"fuse" + of, "Fuse in it", "A", 0.5, 60, "Empty: as asked for.", &w.Fuse},
	}
}

// electricSlots may draw.
var electricSlots = map[Slot]bool{
	Grips: true, Navigator: true, Socket: true, Monitor: true, AuxLamps: true, WideLamps: true, DayLamps: true, HelmetLamp: true, VestLead: true, Camera: true, Inflator: true,
	Horn: true, Headlamp: true, BrakeLamp: true, BagLead: true, OtherPart: true,
}

// Draws reports whether parts of a slot may draw.
func (s Slot) Draws() bool { return electricSlots[s] }

// thirsty slots hold nothing that draws nothing: a part of which nobody has said what it
// draws is unknown, not zero.
var thirsty = map[Slot]bool{AuxLamps: true, WideLamps: true, DayLamps: true, VestLead: true, Camera: true, Inflator: true, Horn: true, BagLead: true}

// Electric is what the part in a slot draws, nil for one that draws nothing; all of it
// unknown for one that the rider put there and surely draws.
func (f *Fitted) Electric() *Electric {
	if f.Part.Electric != nil || !f.Chosen {
		return f.Part.Electric
	}
	if thirsty[f.Slot] || f.Slot == Grips && slices.Contains(f.Part.Provides, "warm-hands") {
		return &Electric{}
	}
	return nil
}

// WiredIn is what the rider has said of a slot's wiring.
func (p *Plan) WiredIn(s Slot) Wired {
	for _, w := range p.Wired {
		if w.Slot == s {
			return w
		}
	}
	return Wired{Slot: s}
}

// Wiring of what is in a slot and draws: as the rider has it, and where they have not said as
// its part does.
func (p *Plan) Wiring(s Slot, e *Electric) Wired {
	w := p.WiredIn(s)
	w.Feed, w.Use = cmp.Or(w.Feed, e.Feed, FeedIgnition), cmp.Or(w.Use, e.Use, InUse)
	return w
}

// Rewired is the plan's wiring with a slot's replaced.
func (p *Plan) Rewired(w Wired) []Wired {
	list := slices.DeleteFunc(slices.Clone(p.Wired), func(was Wired) bool { return was.Slot == w.Slot })
	return append(list, w)
}

// Lamp is what a lamp is beyond a part: of a pair both together.
type Lamp struct {
	Candela unit.Intensity `json:"candela,omitzero"` // of the main beam, or of auxiliary lamps
	Lumens  unit.Flux      `json:"lumens,omitzero"`
	Beam    unit.Angle     `json:"beam,omitzero"`    // full angle
	Outward unit.Angle     `json:"outward,omitzero"` // that each points to its own side
	Mount   LampMount      `json:"mount,omitempty"`
	Lasts   unit.Duration  `json:"lasts,omitzero"` // until it is faded, drowned or shaken to pieces
}

// LampMount is what a lamp sits on.
type LampMount string

// The mounts of lamps; "" is not said, and taken as fixed.
const (
	OnFrame LampMount = "frame"
	OnBars  LampMount = "bars" // or the fork: it turns with them
	OnHead  LampMount = "head" // it shines where its rider looks
)

// LampMounts lists them.
func LampMounts() []Option {
	return []Option{{string(OnFrame), "the frame: it stays straight ahead"}, {string(OnBars), "bars or fork: it turns with them"}, {string(OnHead), "the helmet: it looks where you do"}}
}

// lampSlots hold lamps, to see by or to be seen.
var lampSlots = []Slot{Headlamp, AuxLamps, WideLamps, HelmetLamp, DayLamps}

// Lights reports whether parts of a slot are lamps.
func (s Slot) Lights() bool { return slices.Contains(lampSlots, s) }

// ToSeeBy lists the slots of lamps that add to the main beam.
func ToSeeBy() []Slot { return []Slot{AuxLamps, WideLamps, HelmetLamp} }

// AYear is what a lamp costs a year, where its price and how long it lasts are known.
func (p *Part) AYear() (money.Amount, bool) {
	if p.Lamp == nil || !p.Lamp.Lasts.Known() || !p.Price.Known() {
		return money.Amount{}, false
	}
	return money.New(int64(math.Round(float64(p.Price.Minor())/p.Lamp.Lasts.In("yr"))), p.Price.Code()), true
}
