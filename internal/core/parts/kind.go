package parts

import (
	"fmt"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
)

// Kind is a row of the table of kinds: what goes into a slot.
type Kind struct {
	Slot     Slot
	Family   Family
	Name     string
	Place    load.Place // where it sits unless the part says
	Standing bool       // every bike has something in it: what replaces it weighs the difference
	Comes    bool       // every bike comes with one, though no sheet lists it
	InPlace  bool       // it hangs on the wire of what it takes the place of, whose draw is in the bike's own
	Drew     Drew       // what such a part draws that came with the bike; nil: nothing
	Used     Use        // when such parts are on, "" for all the time
	Hours    float64    // to fit; a thing that is only carried takes none
	Takes    Effort
	Asks     []Property // what such parts have, in the order in which it is asked
	Found    string     // key of the number by which one that was found on a bike is known; "" where it takes more
	AtOnce   int        // how many a bike has room for, 0 for one
	Weighs   Usual      // kg; of a bag, rack or box empty
}

// Drew is what a part that came with a bike draws with it on, W, give or take half of a band,
// by what that bike itself draws, NaN where nobody knows.
type Drew func(ownW float64, injected bool) (w, half float64)

// Family is what a kind is of; figures and rules say of which families they read parts.
type Family int

// The families, in the order of the table.
const (
	Wheels Family = iota
	Guarding
	Contact
	Electrics
	Carrying
	Springing
	EngineAndBrakes

	FamilyCount // how many there are
)

var (
	table      = inFamilies(wheels, guards, contact, electrics, carrying, springing, engine)
	bySlot     map[Slot]int
	properties map[string]*Property // by key, each as its first kind has it
	order      map[string]int       // of keys
	holders    map[string][]Slot    // whose parts have a property
	moving     map[string]bool      // keys by which some kind moves a figure
)

func init() { index() }

// inFamilies are the kinds of all families in their order.
func inFamilies(lists ...[]Kind) []Kind {
	var all []Kind
	for i, list := range lists {
		for _, k := range list {
			k.Family = Family(i)
			all = append(all, k)
		}
	}
	return all
}

// index makes the ways into the table, and panics where it does not fit together: a slot
// twice, a key that means two things, a kind that is found by what it does not have.
func index() {
	bySlot, properties, order, holders, moving = make(map[Slot]int, len(table)), map[string]*Property{}, map[string]int{}, map[string][]Slot{}, map[string]bool{}
	for i := range table {
		k := &table[i]
		if _, twice := bySlot[k.Slot]; twice {
			panic(fmt.Sprintf("parts: slot %s stands in the table twice", k.Slot))
		}
		bySlot[k.Slot] = i
		for j := range k.Asks {
			p := &k.Asks[j]
			holders[p.Key] = append(holders[p.Key], k.Slot)
			moving[p.Key] = moving[p.Key] || p.Moves != ""
			switch was := properties[p.Key]; {
			case was == nil:
				properties[p.Key], order[p.Key] = p, len(order)
			case fmt.Sprintf("%T %s", was.blank(), was.Unit) != fmt.Sprintf("%T %s", p.blank(), p.Unit):
				panic(fmt.Sprintf("parts: %s is one thing of a %s and another elsewhere", p.Key, k.Slot))
			}
		}
		if !k.Weighs.Known() {
			panic(fmt.Sprintf("parts: nobody says what a %s usually weighs", k.Slot))
		}
		if k.Found != "" && k.asks(k.Found) == nil {
			panic(fmt.Sprintf("parts: a %s is found by %s, which it does not have", k.Slot, k.Found))
		}
	}
}

// With is the table with more kinds until restore is called: by it tests show that a row is
// all that a new kind takes. It is not for use while others read the table.
func With(more ...Kind) (restore func()) {
	was := table
	table = append(slices.Clone(was), more...)
	index()
	return func() {
		table = was
		index()
	}
}

// Kinds lists the table in the order in which parts are folded in.
func Kinds() []Kind { return table }

// KindOptions are all kinds, to choose the place of something.
func KindOptions() []entry.Option {
	list := make([]entry.Option, len(table))
	for i := range table {
		list[i] = entry.Opt(table[i].Slot, table[i].Name)
	}
	return list
}

// KindOf finds the kind of a slot; an empty one where there is no such slot.
func KindOf(s Slot) (*Kind, bool) {
	at, ok := bySlot[s]
	if !ok {
		return &Kind{}, false
	}
	return &table[at], true
}

// Index of a slot in [Kinds], -1 for one that there is not.
func (s Slot) Index() int {
	if at, ok := bySlot[s]; ok {
		return at
	}
	return -1
}

// asks is the kind's row of a property, nil where it has none.
func (k *Kind) asks(key string) *Property {
	for i := range k.Asks {
		if k.Asks[i].Key == key {
			return &k.Asks[i]
		}
	}
	return nil
}

func (s Slot) row(key string) *Property {
	kind, _ := KindOf(s)
	return kind.asks(key)
}

// Has reports whether parts of a slot have a property.
func (s Slot) Has(p row) bool { return s.row(p.row().Key) != nil }

// Asks is a property as parts of a slot are asked for it, nil where they are not.
func (s Slot) Asks(key string) *Property { return s.row(key) }

// Room is how many parts of the slot are on a bike at once, in a loadout.
func (s Slot) Room() int {
	kind, _ := KindOf(s)
	return max(1, kind.AtOnce)
}

// HoursToFit is what a part of the slot usually takes, h.
func (s Slot) HoursToFit() float64 {
	kind, _ := KindOf(s)
	return kind.Hours
}

// slotsThat are the slots whose parts have a property, in the order of the table.
func slotsThat(p row) []Slot { return holders[p.row().Key] }

// Comes reports whether every bike comes with something in a slot, though no sheet
// lists it.
func (s Slot) Comes() bool {
	kind, _ := KindOf(s)
	return kind.Comes
}

// tyreOf names the tyre of the wheel that a slot belongs to.
var tyreOf = map[Slot]Slot{
	FrontTyre: FrontTyre, FrontTube: FrontTyre, FrontLock: FrontTyre, FrontSealant: FrontTyre,
	RearTyre: RearTyre, RearTube: RearTyre, RearLock: RearTyre, RearSealant: RearTyre,
	SpareFront: FrontTyre, SpareRear: RearTyre,
}

// TyreOf is the slot of the tyre of the wheel that a slot belongs to; ok is false for slots
// of no wheel.
func TyreOf(s Slot) (t Slot, ok bool) {
	t, ok = tyreOf[s]
	return t, ok
}

// SpareOf is the slot of the tyre that one in a spare's slot is the spare of, "" for others.
func SpareOf(s Slot) Slot {
	if s == SpareFront || s == SpareRear {
		return tyreOf[s]
	}
	return ""
}
