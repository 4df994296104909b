package plan

import (
	"strconv"

	"valiantmule/internal/core/power"
	"valiantmule/internal/core/unit"
)

// Box is a distribution box: one thick wire in, a switched and limited channel for each
// accessory out.
type Box struct {
	Channels unit.Ratio    `json:"channels,omitzero"` // how many
	Limit    unit.Current  `json:"limit,omitzero"`    // of each channel
	Total    unit.Current  `json:"total,omitzero"`    // of all together
	Delay    unit.Duration `json:"delay,omitzero"`    // after the start, until it feeds them
}

// Count is how many channels it has, 0 where nobody has said.
func (b *Box) Count() int {
	if b == nil || !b.Channels.Known() {
		return 0
	}
	return int(b.Channels.Base())
}

// Channel is where an accessory hangs on a box: "" for the next free one.
type Channel string

// OwnFuse is beside the box, by a fuse at the battery.
const OwnFuse Channel = "own"

// Number is that of the channel, 0 for the next free one and for an own fuse.
func (c Channel) Number() int {
	n, err := strconv.Atoi(string(c))
	if err != nil {
		return 0
	}
	return n
}

// maxChannels is more than any box has.
const maxChannels = 16

// valid reports whether it is a channel of some box.
func (c Channel) valid() bool {
	n := c.Number()
	return c == "" || c == OwnFuse || n > 0 && n <= maxChannels && string(c) == strconv.Itoa(n)
}

// BoxPlace is where the box sits.
type BoxPlace string

// The places; "" is not said.
const (
	BoxUnderSeat BoxPlace = "seat"
	BoxAtSide    BoxPlace = "side"
	BoxUnderTank BoxPlace = "tank"
	BoxAtLamp    BoxPlace = "front"
	BoxInTail    BoxPlace = "tail"
)

// BoxPlaces lists them.
func BoxPlaces() []Option {
	return []Option{
		{string(BoxUnderSeat), "Under the seat"}, {string(BoxAtSide), "Behind a side panel"}, {string(BoxUnderTank), "Under the tank"},
		{string(BoxAtLamp), "Behind the headlamp"}, {string(BoxInTail), "In the tail, under the rack"},
	}
}

// Flasher is what makes indicators flash.
type Flasher struct {
	Kind  power.Relay `json:"kind,omitempty"`
	Rated unit.Power  `json:"rated,omitzero"` // of the lamps of one side together that it was made for
}

// FlasherKinds lists the relays.
func FlasherKinds() []Option {
	return []Option{{string(power.LoadSensing), "senses the load"}, {string(power.Independent), "does not mind the load"}}
}

// Blinkers are indicators: what one of them draws.
type Blinkers struct {
	Front unit.Power `json:"front,omitzero"` // missing: those that are on the bike stay there
	Rear  unit.Power `json:"rear,omitzero"`
}
