// Package parts is what can be put on a bike: the slots, the kinds of part that go into
// them, and a part with its properties.
//
// One table, [Kinds], says of each slot how its part is called, where it sits, how long it
// takes to fit, and which properties such parts have; a [Property] says in which unit and
// between which bounds its number is believed, which words it may be, how it is asked for
// in words, and which figure of the bike it moves. The form of a part ([Draft]), its
// validation, the schema of the document and docs/kinds.md walk that table: a new slot is a
// row and its parts. A number that nobody has said is missing, not zero, and a yes or no
// that nobody has said is no no.
//
// The package knows no bike and no plan: what a part does to a bike is computed where the
// bike is.
package parts

import (
	"fmt"
	"iter"
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Part is something that goes into a slot. What it does is data: the properties of its
// kind, effects on the figures of the bike, tags.
type Part struct {
	ID       string       `json:"id" is:"id"`
	Slot     Slot         `json:"slot"`
	Name     string       `json:"name" is:"name"`
	Price    money.Amount `json:"price,omitzero"`
	Mass     unit.Mass    `json:"mass,omitzero"`
	Place    load.Place   `json:"place,omitempty"` // "" for the kind's own
	Origin   sheet.Origin `json:"origin,omitempty"`
	Note     string       `json:"note,omitempty"`
	Has      Properties   `json:"has,omitzero"`      // the properties of its kind that are known
	Effects  []Effect     `json:"effects,omitempty"` // beyond those of its properties
	Provides []string     `json:"provides,omitempty"`
	Without  []string     `json:"without,omitempty"`  // tags that such parts provide and this one, somebody says, does not
	Needs    []string     `json:"needs,omitempty"`    // tags that the bike or another part must provide
	Excludes []string     `json:"excludes,omitempty"` // tags that no other part may provide
	Replaces unit.Mass    `json:"replaces,omitzero"`  // mass of what it takes the place of; missing: what the bike's sheet says
	Fitment  *Fitment     `json:"fitment,omitempty"`
	Made     Made         `json:"made,omitzero"` // the bikes that it was made for
	Sold     Sold         `json:"sold,omitzero"` // by whom, and how long that takes
	Kit      []Part       `json:"kit,omitempty"` // more parts out of the same box, each in a slot of its own; their price is in this one's
}

// Sold is where a part can be had, and how long it is on its way.
type Sold struct {
	By   string          `json:"by,omitempty"` // whoever sells it, in a rider's words
	From calendar.Supply `json:"from,omitempty"`
	Days unit.Duration   `json:"days,omitzero"` // that it likely takes; missing: as usual for where it comes from
}

// Supplies lists where parts come from.
func Supplies() []entry.Option {
	var list []entry.Option
	for _, row := range calendar.Supplies() {
		list = append(list, entry.Opt(row.Supply, row.Name))
	}
	return list
}

// Validate tells what of it cannot be.
func (s Sold) Validate(v *entry.Problems, path string) {
	v.Short(path+".by", s.By)
	v.Pick(path+".from", string(s.From), Supplies())
	v.That(!s.Days.Known() || s.Days.Base() >= 0 && s.Days.In("d") <= 1000, path+".days", "%s is outside 0–1000 d", s.Days)
}

// Sits is where a part sits: its own place, or its kind's.
func (p *Part) Sits() load.Place {
	if p.Place != "" {
		return p.Place
	}
	kind, _ := KindOf(p.Slot)
	return kind.Place
}

// Fills lists the slots that the part and what is in its box take, its own first.
func (p *Part) Fills() iter.Seq[Slot] {
	return func(yield func(Slot) bool) {
		if !yield(p.Slot) {
			return
		}
		for i := range p.Kit {
			if !yield(p.Kit[i].Slot) {
				return
			}
		}
	}
}

// In is the part itself, or the one out of its box that goes into a slot; nil for neither.
func (p *Part) In(s Slot) *Part {
	if p.Slot == s {
		return p
	}
	for i := range p.Kit {
		if p.Kit[i].Slot == s {
			return &p.Kit[i]
		}
	}
	return nil
}

// OwnPrefix starts the ids of parts that a rider has entered.
const OwnPrefix = "own-"

// Own reports whether a rider has entered the part as one that goes on.
func (p *Part) Own() bool { return strings.HasPrefix(p.ID, OwnPrefix) }

// The ids of what a bike came with, and of what was found on it, start so.
const (
	StandardPrefix = "standard-"
	FoundPrefix    = "found-"
)

// Told reports whether riders say what is known of the part, a few words of it at most: what
// nobody has said of it is then as usual for its kind. A shelf's sheet is whole: what it does
// not say its part does not do.
func (p *Part) Told() bool {
	return p.Own() || strings.HasPrefix(p.ID, StandardPrefix) || strings.HasPrefix(p.ID, FoundPrefix)
}

// counts are the properties by which parts of a slot are told apart, and how one is called
// of which no more is known.
var counts = map[Slot]struct {
	is   Prop[count]
	name string
}{
	FrontSprocket: {Teeth, "Front sprocket %d T"},
	RearSprocket:  {Teeth, "Rear sprocket %d T"},
	Chain:         {ChainPitches, "Chain, %d links"},
}

// Counted is a sprocket or chain that is known by its count alone; it has no
// mass and no price. Nil for other slots.
func Counted(slot Slot, n int) *Part {
	by, ok := counts[slot]
	if !ok {
		return nil
	}
	p := &Part{ID: fmt.Sprintf("any-%s-%d", slot, n), Slot: slot, Name: fmt.Sprintf(by.name, n)}
	by.is.Put(p, count(n))
	return p
}

// Count is the teeth or links of a part whose slot is told apart by them; ok is
// false for other slots and where no count is known.
func (p *Part) Count() (n int, ok bool) {
	by, ok := counts[p.Slot]
	if !ok {
		return 0, false
	}
	n = int(by.is.In(p))
	return n, n > 0
}

// Recount sets the teeth or links of a part whose slot is told apart by them.
func (p *Part) Recount(n int) {
	if by, ok := counts[p.Slot]; ok {
		by.is.Put(p, count(n))
	}
}

// CountOf is between what the count of a slot's parts is believed; ok is false for slots
// that are not told apart by one.
func CountOf(slot Slot) (least, most int, ok bool) {
	by, ok := counts[slot]
	if !ok {
		return 0, 0, false
	}
	kind, _ := KindOf(slot)
	row := kind.asks(by.is.Key)
	return int(row.Min), int(row.Max), true
}
