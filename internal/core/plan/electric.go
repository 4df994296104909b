package plan

import "valiantmule/internal/core/unit"

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

// The feeds; "" is the ignition.
const (
	FeedIgnition Feed = ""
	FeedEngine   Feed = "engine" // by a relay, while the engine runs
	FeedAlways   Feed = "always"
)

// Use is when an accessory is on.
type Use string

// The uses; "" is all the time.
const (
	InUse   Use = ""
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

// Wired is how the rider wires and uses what is in a slot, over what its sheet says.
type Wired struct {
	Slot Slot `json:"slot"`
	Feed Feed `json:"feed,omitempty"`
	Use  Use  `json:"use,omitempty"`
}

// electricSlots may draw.
var electricSlots = map[Slot]bool{
	Grips: true, Navigator: true, Socket: true, Monitor: true, AuxLamps: true, VestLead: true, Camera: true, Inflator: true, Horn: true, Headlamp: true, OtherPart: true,
}

// Draws reports whether parts of a slot may draw.
func (s Slot) Draws() bool { return electricSlots[s] }

// Wiring of a part as built: its own, or as the rider has it.
func (p *Plan) Wiring(s Slot, e *Electric) (feed Feed, use Use) {
	for _, w := range p.Wired {
		if w.Slot == s {
			return w.Feed, w.Use
		}
	}
	return e.Feed, e.Use
}

// Lamp is what a lamp is beyond a part: of a pair both together.
type Lamp struct {
	Candela unit.Intensity `json:"candela,omitzero"` // of the main beam, or of auxiliary lamps
	Lumens  unit.Flux      `json:"lumens,omitzero"`
	Beam    unit.Angle     `json:"beam,omitzero"` // full angle
	Kind    LampKind       `json:"kind,omitempty"`
}

// LampKind is what a lamp is for.
type LampKind string

// The kinds; "" is not said.
const (
	FarLamp  LampKind = "far"
	NearLamp LampKind = "near" // floods, for bends
	DayLamp  LampKind = "day"  // to be seen
)

// LampKinds lists them.
func LampKinds() []Option {
	return []Option{{string(FarLamp), "far"}, {string(NearLamp), "near and wide"}, {string(DayLamp), "to be seen by day"}}
}

// Lights reports whether parts of a slot are lamps.
func (s Slot) Lights() bool { return s == AuxLamps || s == Headlamp }
