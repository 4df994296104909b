package plan

import (
	"fmt"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/parts"
)

// Side is where a load hangs beside the middle.
type Side string

// The sides.
const (
	Middle Side = ""
	Left   Side = "left"
	Right  Side = "right"
)

// Sides lists them.
func Sides() []entry.Option {
	return []entry.Option{entry.Opt(Middle, "middle"), entry.Opt(Left, "left"), entry.Opt(Right, "right")}
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
func Whens() []entry.Option {
	return []entry.Option{entry.Opt(Always, "always"), entry.Opt(ForCold, "cold"), entry.Opt(ForWet, "wet"), entry.Opt(Remote, "remote"), entry.Opt(Shared, "shared in the group")}
}

// InBag is the bag that a load is in on a bike, nil when it is in none that is
// there.
func (l Load) InBag(b *Built) *parts.Part {
	if l.Bag == "" {
		return nil
	}
	if b.Bag(l.Bag) != nil {
		return b.Part(l.Bag)
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
