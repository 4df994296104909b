package plan

import (
	"fmt"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/unit"
)

// Bag is what a bag, box or roll is beyond a part, whose mass is the empty one's. A
// pair is one part: its litres and what it carries are both sides' together.
type Bag struct {
	Kind     BagKind     `json:"kind,omitempty"`
	Litres   unit.Volume `json:"litres,omitzero"`
	Carries  unit.Mass   `json:"carries,omitzero"`
	Pair     bool        `json:"pair,omitempty"`
	MaxSpeed unit.Speed  `json:"max_speed,omitzero"` // with it on, by its maker
	Handy    bool        `json:"handy,omitempty"`    // opened without unloading
	Quick    bool        `json:"quick,omitempty"`    // off in a minute
	OnSeat   bool        `json:"on_seat,omitempty"`  // lies across the pillion's seat, which carries it
	Width    unit.Length `json:"width,omitzero"`     // over all, with it on
}

// BagKind is a school of luggage.
type BagKind string

// The kinds.
const (
	SoftBag  BagKind = "soft"
	HardBag  BagKind = "hard"
	Rackless BagKind = "rackless"
)

// BagKinds lists them.
func BagKinds() []Option {
	return []Option{{string(SoftBag), "soft"}, {string(HardBag), "hard"}, {string(Rackless), "soft, without a rack"}}
}

// Rack is what a rack is beyond a part.
type Rack struct {
	Carries   unit.Mass `json:"carries,omitzero"`
	SeatStays bool      `json:"seat_stays,omitempty"` // it wraps round the seat, which does not come off any more
	NoPegs    bool      `json:"no_pegs,omitempty"`    // it takes the place of the pillion's pegs
}

// BagSlots are the slots of luggage, those that ride best first.
func BagSlots() []Slot { return bagSlots }

var bagSlots = []Slot{ToolTube, BarBags, FrameBag, TankBag, SideBags, TailBag, TopBox}

// RackSlots are the slots of what luggage hangs on.
func RackSlots() []Slot { return []Slot{RearRack, SideRack} }

// Side is where a load hangs beside the middle.
type Side string

// The sides.
const (
	Middle Side = ""
	Left   Side = "left"
	Right  Side = "right"
)

// Sides lists them.
func Sides() []Option {
	return []Option{{string(Middle), "middle"}, {string(Left), "left"}, {string(Right), "right"}}
}

// Sign is −1 on the left, 1 on the right.
func (s Side) Sign() float64 {
	switch s {
	case Left:
		return -1
	case Right:
		return 1
	}
	return 0
}

// When is on which days a thing comes along.
type When string

// The days.
const (
	Always  When = "" // on all
	ForCold When = "cold"
	ForWet  When = "wet"
	Remote  When = "remote"
	Shared  When = "shared" // one of the group carries it for all
)

// Whens lists them.
func Whens() []Option {
	return []Option{{string(Always), "always"}, {string(ForCold), "cold"}, {string(ForWet), "wet"}, {string(Remote), "remote"}, {string(Shared), "shared in the group"}}
}

// InBag is the bag that a load is in on a bike, nil when it is in none that is
// there.
func (l Load) InBag(b *Built) *Part {
	if l.Bag == "" {
		return nil
	}
	if p := b.Part(l.Bag); p != nil && p.Bag != nil {
		return p
	}
	return nil
}

// Sits is where the load is: with its bag, or at its own place.
func (l Load) Sits(b *Built) load.Place {
	if p := l.InBag(b); p != nil {
		return p.Sits()
	}
	return l.Place
}

// Check tells whether mass and volume are ones that are believed.
func (l Load) Check() error {
	if l.Mass.Known() && !(l.Mass.Base() >= 0 && l.Mass.Base() <= 200) {
		return fmt.Errorf("%s is outside 0–200 kg", l.Mass)
	}
	if v := l.Volume.In("L"); l.Volume.Known() && !(v >= 0 && v <= 300) {
		return fmt.Errorf("%s is outside 0–300 L", l.Volume)
	}
	return nil
}
