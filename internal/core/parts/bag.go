package parts

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// What bags and racks have.
var (
	BagKindOf  = choice[BagKind]("bag_kind", "Kind of bag", BagKinds)
	Litres     = prop[unit.Volume]("litres", "It holds", "L", 0.5, 200, "A pair together. Without it nobody knows whether the packing goes in.")
	Carries    = prop[unit.Mass]("carries", "May carry", "kg", 0.5, 80, "By its maker, a pair together. Without it an overload is not seen.")
	BagSpeed   = MaxSpeed.As("Speed limit", "With it on, by its maker.").Within(40, 250)
	WidthOver  = prop[unit.Length]("width_over_all", "Width over all", "mm", 200, 1400, "Of the bike with it on.")
	Pair       = yesNo("pair", "A pair")
	Handy      = yesNo("handy", "Opened without unloading")
	Quick      = yesNo("quick", "Off in a minute")
	OnSeat     = yesNo("on_seat", "Lies across the pillion's seat, not on the rack")
	SeatStays  = yesNo("seat_stays", "The seat does not come off with it on")
	NoPegs     = yesNo("no_pegs", "Takes the place of the pillion's pegs")
	rackLimits = Carries.As("May carry", "By its maker, both sides together; a home-made one by what you trust it with. Without it an overload is not seen.")
)

// Bag is what a bag, box or roll is beyond a part, whose mass is the empty one's. A
// pair is one part: its litres and what it carries are both sides' together.
type Bag struct {
	Kind     BagKind
	Litres   unit.Volume
	Carries  unit.Mass
	Pair     bool
	MaxSpeed unit.Speed  // with it on, by its maker
	Handy    bool        // opened without unloading
	Quick    bool        // off in a minute
	OnSeat   bool        // lies across the pillion's seat, which carries it
	Width    unit.Length // over all, with it on
}

// Bag is what is known of a part as a bag, nil where nothing is. It is the part's own: nobody writes to it.
func (p *Part) Bag() *Bag {
	if p.Has.bag == nil || !p.Slot.Has(Litres) {
		return nil
	}
	return p.Has.bag
}

func bagSaid(h Properties) *Bag {
	if !h.any(BagKindOf, Litres, Carries, MaxSpeed, WidthOver, Pair, Handy, Quick, OnSeat) {
		return nil
	}
	return &Bag{BagKindOf.of(h), Litres.of(h), Carries.of(h), Pair.yes(h), MaxSpeed.of(h), Handy.yes(h), Quick.yes(h), OnSeat.yes(h), WidthOver.of(h)}
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
func BagKinds() []entry.Option {
	return []entry.Option{entry.Opt(SoftBag, "soft"), entry.Opt(HardBag, "hard"), entry.Opt(Rackless, "soft, without a rack")}
}

// Rack is what a rack is beyond a part.
type Rack struct {
	Carries   unit.Mass
	SeatStays bool // it wraps round the seat, which does not come off any more
	NoPegs    bool // it takes the place of the pillion's pegs
}

// Rack is what is known of a part as a rack, nil where nothing is.
func (p *Part) Rack() *Rack {
	if !p.Has.any(Carries, SeatStays, NoPegs) || !p.Slot.Has(SeatStays) {
		return nil
	}
	return &Rack{Carries.In(p), SeatStays.Yes(p), NoPegs.Yes(p)}
}

// BagSlots are the slots of luggage, those that ride best first.
func BagSlots() []Slot { return slotsThat(Litres) }

// RackSlots are the slots of what luggage hangs on.
func RackSlots() []Slot { return slotsThat(SeatStays) }
