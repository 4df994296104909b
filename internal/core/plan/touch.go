package plan

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Touch is two things on the bike that are in each other's way, as its rider has found.
type Touch struct {
	How    Meeting     `json:"how"`
	One    End         `json:"one"`
	Other  End         `json:"other"`
	Room   unit.Length `json:"room,omitzero"`   // between them; below zero it is missing
	Words  string      `json:"words,omitempty"` // when, where, what it takes
	Mended bool        `json:"mended,omitempty"`
}

// Fields lists its numbers, their keys before a suffix.
func (t *Touch) Fields(of string) []entry.Field {
	return []entry.Field{entry.Ask("room"+of, "Between them", "mm", -500, 500, "Where it is closest, full lock or full travel; below zero is what is missing.", &t.Room)}
}

// Meeting is how two things are in each other's way.
type Meeting string

// The meetings.
const (
	Touches Meeting = "touches"
	Adapter Meeting = "adapter" // one goes on beside the other with something between
	Never   Meeting = "never"
)

// Meetings lists them.
func Meetings() []entry.Option {
	return []entry.Option{entry.Opt(Touches, "touches"), entry.Opt(Adapter, "needs an adapter for"), entry.Opt(Never, "cannot be with")}
}

// End is one of the two: a part of the plan by its id, whatever the bike itself has in a
// slot, or a place of its rider and frame.
type End string

// What an end is, before its colon.
const (
	partEnd  = "part"
	slotEnd  = "bike"
	placeEnd = "at"
)

// PartEnd is a part of the plan.
func PartEnd(p *parts.Part) End { return End(partEnd + ":" + p.ID) }

// SlotEnd is what the bike itself has in a slot.
func SlotEnd(s parts.Slot) End { return End(slotEnd + ":" + s) }

func (e End) cut() (kind, what string) {
	kind, what, _ = strings.Cut(string(e), ":")
	return kind, what
}

// TouchPlaces lists the places that are nobody's part.
func TouchPlaces() []entry.Option {
	place := func(value, name string) entry.Option { return entry.Option{Value: placeEnd + ":" + value, Name: name} }
	return []entry.Option{
		place("heels", "your heels"), place("shins", "your shins"), place("knees", "your knees"), place("hands", "your hands"), place("passenger", "your passenger"),
		place("frame", "the frame"), place("swingarm", "the swingarm"), place("rear-wheel", "the rear wheel"), place("front-wheel", "the front wheel"), place("fork", "the fork legs"),
		place("side-stand", "the side stand"), place("radiator", "the cooler"), place("dash", "the instruments"), place("loom", "cables and wires"), place("key", "the key, a lock"),
	}
}

// ends lists what may be an end, in words: the plan's parts, what the bike itself has, places.
func (p *Plan) ends() []entry.Option {
	var list []entry.Option
	for i := range p.Lines {
		if part := p.Lines[i].Part; part != nil && !entry.Among(list, string(PartEnd(part))) {
			list = append(list, entry.Option{Value: string(PartEnd(part)), Name: part.Name})
		}
	}
	found := p.Baseline.Found()
	for _, kind := range parts.Kinds() {
		there := kind.Comes || kind.Standing || p.Bike != nil && p.Bike.StandardIn(kind.Slot) != nil
		if there || slices.ContainsFunc(found, func(f *parts.Part) bool { return f.Slot == kind.Slot }) {
			list = append(list, entry.Option{Value: string(SlotEnd(kind.Slot)), Name: kind.Name + " (the bike's own)"})
		}
	}
	return append(list, TouchPlaces()...)
}

// Ends lists what may be an end, with those that the plan's touches name already though
// their part has gone.
func (p *Plan) Ends() []entry.Option {
	list := p.ends()
	for i := range p.Touches {
		for _, e := range []End{p.Touches[i].One, p.Touches[i].Other} {
			if !entry.Among(list, string(e)) {
				list = append(list, entry.Option{Value: string(e), Name: "a part that is out of the plan"})
			}
		}
	}
	return list
}

// Place reports whether an end is a place and no part.
func (e End) Place() bool {
	kind, _ := e.cut()
	return kind == placeEnd
}

// On is the part of the plan that an end is, nil for others, and whether the end is on a
// bike as built.
func (e End) On(b *Built) (part *parts.Part, on bool) {
	switch kind, what := e.cut(); kind {
	case partEnd:
		for i := range b.Fitted {
			if f := &b.Fitted[i]; f.Chosen && f.Part.ID == what {
				return f.Part, true
			}
		}
		return nil, false
	case slotEnd:
		return nil, !b.Chosen(parts.Slot(what))
	}
	return nil, true
}

// Meets reports whether both are on a bike as built.
func (t *Touch) Meets(b *Built) bool {
	_, one := t.One.On(b)
	_, other := t.Other.On(b)
	return one && other
}

// usualTouch is two places that are often in each other's way [memory]: slots, or one slot
// and a place.
type usualTouch struct {
	one, other parts.Slot
	place      string // where other is ""
	words      string
}

var usualTouches = []usualTouch{
	{parts.ShiftLever, "", "side-stand", "the stand's lug and the lever, stand up"},
	{parts.CentreStand, parts.BrakePedal, "", "the stand's arm under the pedal"},
	{parts.HandGuards, parts.Handlebar, "", "the clamp in the bar's end and its bend; levers inside the guard"},
	{parts.HandGuards, parts.Levers, "", "lever tips inside the guard, pulled in and not"},
	{parts.Windscreen, parts.Handlebar, "", "at full lock, guards and levers too"},
	{parts.TankBag, parts.Handlebar, "", "at full lock"},
	{parts.SideBags, parts.Silencer, "", "heat, and bags that swing in"},
	{parts.SideRack, parts.Silencer, "", "heat, and room to take it off"},
	{parts.RearRack, parts.Seat, "", "the seat comes off with the rack on"},
	{parts.SideBags, parts.PillionPegs, "", "the pegs' brackets, folded"},
	{parts.Silencer, "", "heels", "standing, toes in"},
	{parts.EngineBars, "", "shins", "feet down, and pushing the bike"},
	{parts.SkidPlate, parts.CentreStand, "", "folded up"},
	{parts.FrontTyre, parts.FrontMudguard, "", "with mud on it, fork pressed together"},
	{parts.Shock, "", "rear-wheel", "pressed together: the tyre and what hangs above it"},
}

// UsualTouches are what is worth a look with what is chosen for a bike as built, as the
// rider would write it; those that the plan has already are left out.
func (p *Plan) UsualTouches(b *Built) []Touch {
	var list []Touch
	known := p.ends()
	there := func(e End) bool {
		_, on := e.On(b)
		return on && entry.Among(known, string(e))
	}
	end := func(s parts.Slot) (End, bool) {
		if b.Chosen(s) {
			return PartEnd(b.Part(s)), true
		}
		return SlotEnd(s), false
	}
	for _, u := range usualTouches {
		one, chosen := end(u.one)
		other, second := End(placeEnd+":"+u.place), false
		if u.other != "" {
			other, second = end(u.other)
		}
		t := Touch{How: Touches, One: one, Other: other, Words: u.words}
		if !there(one) || !there(other) || !chosen && !second || slices.ContainsFunc(p.Touches, func(has Touch) bool {
			return has.One == one && has.Other == other || has.One == other && has.Other == one
		}) {
			continue
		}
		list = append(list, t)
	}
	return list
}

// valid reports whether it is an end at all; its part may have gone since.
func (e End) valid() bool {
	switch kind, what := e.cut(); kind {
	case partEnd:
		return entry.IsSlug(what)
	case slotEnd:
		return parts.Slot(what).Index() >= 0
	}
	return entry.Among(TouchPlaces(), string(e))
}

func (p *Plan) validateTouches(v *entry.Problems) {
	v.Few("touches", len(p.Touches), maxFacts)
	for i := range p.Touches {
		t, path := &p.Touches[i], "touches"+entry.At(i)
		v.That(entry.Among(Meetings(), string(t.How)), path+".how", "%q is none of %s", t.How, entry.Values(Meetings()))
		v.That(t.One.valid(), path+".one", "%q is nothing that can touch", t.One)
		v.That(t.Other.valid(), path+".other", "%q is nothing that can touch", t.Other)
		v.That(t.One != t.Other, path+".other", "is the same thing twice")
		v.Fields(path, t.Fields(""))
		v.That(len(t.Words) <= entry.MaxName, path+".words", "is longer than %d bytes", entry.MaxName)
	}
}
