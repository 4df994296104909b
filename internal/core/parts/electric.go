package parts

import (
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/power"
	"valiantmule/internal/core/unit"
)

// What has to do with the bike's current has.
var (
	Draw   = prop[unit.Power]("draw", "It draws", "W", 0, 1000, "With it on, by its label: volts × amperes. Empty: nothing from the bike.")
	Duty   = prop[unit.Ratio]("duty", "… for a share of the time", "%", 0, 100, "While it is used: heated grips on step three of five draw 60 %. Empty: all of it.")
	Parked = prop[unit.Current]("parked", "Parked it takes", "mA", 0, 5000, "With the key out, where it is always live: a converter or a voltmeter 15–40.")
	FedBy  = choice[Feed]("feed", "It hangs on", Feeds)
	UsedAt = choice[Use]("use", "It is on", Uses)

	Output    = prop[unit.Power]("output", "It gives", "W", 40, 1500, "Rated. Without it the bike's own holds.")
	Capacity  = prop[unit.Charge]("capacity", "It holds", "Ah", 1, 60, "On its label. Without it the bike's own holds.")
	ColdCrank = prop[unit.Current]("cold_crank", "Cold crank", "A", 20, 900, "On its label.")

	Channels = prop[count]("channels", "Channels", "", 1, MaxChannels, "Outputs that it switches. Without it nothing hangs on it.")
	Limit    = prop[unit.Current]("limit", "Each carries", "A", 0.5, 150, "By its maker. Without it an overload is not seen.")
	Total    = prop[unit.Current]("total", "All together", "A", 1, 150, "By its maker.")
	Delay    = prop[unit.Duration]("delay", "It waits", "s", 0, 3600, "After the start, before it feeds them: the starter has the battery to itself.")

	RelayKind  = choice[power.Relay]("relay", "It", FlasherKinds)
	MadeForW   = prop[unit.Power]("made_for", "It was made for", "W", 1, 200, "The lamps of one side together, e.g. 2 × 10 W. Empty: what the bike came with.")
	FrontBlink = prop[unit.Power]("front_draw", "One in front draws", "W", 0.3, 30, "On its bulb; diodes 1–3 W. Empty: those that are on the bike stay there.")
	RearBlink  = prop[unit.Power]("rear_draw", "One behind draws", "W", 0.3, 30, "Empty: those that are on the bike stay there.")

	// Of what surely draws.
	thirst = Draw.As("It draws", "With it on, by its label: volts × amperes. Without it the charging is unknown; 0 where it has a battery of its own.").OrUnknown()
)

// Electric is what a part draws, when, and from what.
type Electric struct {
	Draw   unit.Power // with it on
	Duty   unit.Ratio // of the time that it is used; missing is all of it
	Use    Use
	Feed   Feed
	Parked unit.Current // with the key out, where it is fed always
}

// Electric is what is known of what a part draws, nil where nothing is.
func (p *Part) Electric() *Electric {
	if !p.Has.any(Draw, Duty, Parked, FedBy, UsedAt) {
		return nil
	}
	return &Electric{Draw.In(p), Duty.In(p), UsedAt.In(p), FedBy.In(p), Parked.In(p)}
}

// Draws reports whether parts of a slot may draw.
func (s Slot) Draws() bool { return s.Has(Draw) }

// Thirsty reports whether the part surely draws, though nobody has said how much: it is
// unknown then, not zero.
func (p *Part) Thirsty() bool {
	row := p.Slot.row(Draw.Key)
	return row != nil && row.Vital || p.Slot == Grips && slices.Contains(p.Provides, "warm-hands")
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
func Feeds() []entry.Option {
	return []entry.Option{entry.Opt(FeedIgnition, "Ignition"), entry.Opt(FeedEngine, "Running engine"), entry.Opt(FeedAlways, "Always live")}
}

// Uses lists them.
func Uses() []entry.Option {
	return []entry.Option{entry.Opt(InUse, "All day"), entry.Opt(InCold, "When it is cold"), entry.Opt(AtNight, "At night"), entry.Opt(AtStops, "At stops")}
}

// MaxChannels is more than any box has.
const MaxChannels = 16

// Box is a distribution box: one thick wire in, a switched and limited channel for each
// accessory out.
type Box struct {
	Channels entry.Count
	Limit    unit.Current  // of each channel
	Total    unit.Current  // of all together
	Delay    unit.Duration // after the start, until it feeds them
}

// Box is what is known of a part as a box, nil where nothing is.
func (p *Part) Box() *Box {
	if !p.Has.any(Channels, Limit, Total, Delay) {
		return nil
	}
	return &Box{Channels.In(p), Limit.In(p), Total.In(p), Delay.In(p)}
}

// Count is how many channels it has, 0 where nobody has said.
func (b *Box) Count() int {
	if b == nil {
		return 0
	}
	return int(b.Channels)
}

// Flasher is what makes indicators flash.
type Flasher struct {
	Kind  power.Relay
	Rated unit.Power // of the lamps of one side together that it was made for
}

// Flasher is what is known of a part as a flasher, nil where nothing is.
func (p *Part) Flasher() *Flasher {
	if !p.Has.any(RelayKind, MadeForW) {
		return nil
	}
	return &Flasher{RelayKind.In(p), MadeForW.In(p)}
}

// FlasherKinds lists the relays.
func FlasherKinds() []entry.Option {
	return []entry.Option{entry.Opt(power.LoadSensing, "senses the load"), entry.Opt(power.Independent, "does not mind the load")}
}

// Blinkers are indicators: what one of them draws.
type Blinkers struct {
	Front unit.Power // missing: those that are on the bike stay there
	Rear  unit.Power
}

// Blinkers is what is known of a part as indicators, nil where nothing is.
func (p *Part) Blinkers() *Blinkers {
	if !p.Has.any(FrontBlink, RearBlink) {
		return nil
	}
	return &Blinkers{FrontBlink.In(p), RearBlink.In(p)}
}
