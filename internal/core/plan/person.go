package plan

import (
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/unit"
)

// Person is who sits on the bike: what seat, pegs, bars, springs and levers are held against.
type Person struct {
	Rider    unit.Mass   `json:"rider,omitzero"` // dressed to ride, with water
	Inseam   unit.Length `json:"inseam,omitzero"`
	Stature  unit.Length `json:"stature,omitzero"`
	HandSpan unit.Length `json:"hand_span,omitzero"` // thumb tip to little finger's, stretched
	Boot     unit.Length `json:"boot_length,omitzero"`
	Sole     unit.Length `json:"sole,omitzero"` // of the boot
}

// Fields lists its numbers.
func (b *Person) Fields() []entry.Field {
	return []entry.Field{
		entry.Ask("rider", "Rider, dressed", "kg", 35, 250, "With boots, helmet, armour (8–12 kg) and the water you carry.", &b.Rider),
		entry.Ask("inseam", "Inside leg", "mm", 500, 1100, "Barefoot, back to a wall, a book pulled up to the crotch.", &b.Inseam),
		entry.Ask("stature", "You stand", "mm", 1200, 2300, "Barefoot, floor to crown: back and arms follow from it. Empty: as goes with the inside leg.", &b.Stature),
		entry.Ask("sole", "Boot sole", "mm", 0, 80, "Under the heel.", &b.Sole),
		entry.Ask("hand_span", "Hand span", "mm", 100, 320, "Stretched, from thumb tip to little finger's: small hands want levers that come to them.", &b.HandSpan),
		entry.Ask("boot_length", "Boot, outside", "mm", 180, 420, "Heel to toe: long ones want levers set for them.", &b.Boot),
	}
}

// Known reports whether anything is said.
func (b Person) Known() bool { return b != Person{} }

// RiddenIn is the plan as it is ridden in a loadout: where somebody else sits on the bike there, the
// brief has that body. What is not said of theirs is not known; the rider's does not stand in.
func (p *Plan) RiddenIn(loadout string) *Plan {
	l, err := p.Loadout(loadout)
	if err != nil || l.By == nil || p.Brief.Person == *l.By {
		return p
	}
	changed := *p
	changed.Brief.Person = *l.By
	return &changed
}
