package plan

import (
	"strconv"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

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

// valid reports whether it is a channel of some box.
func (c Channel) valid() bool {
	n := c.Number()
	return c == "" || c == OwnFuse || n > 0 && n <= parts.MaxChannels && string(c) == strconv.Itoa(n)
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
func BoxPlaces() []entry.Option {
	return []entry.Option{
		entry.Opt(BoxUnderSeat, "Under the seat"), entry.Opt(BoxAtSide, "Behind a side panel"), entry.Opt(BoxUnderTank, "Under the tank"),
		entry.Opt(BoxAtLamp, "Behind the headlamp"), entry.Opt(BoxInTail, "In the tail, under the rack"),
	}
}
