package plan

import (
	"cmp"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Wired is how the rider wires and uses what is in a slot, over what its sheet says. What
// is laid already is held against what it should be.
type Wired struct {
	Slot    parts.Slot   `json:"slot"`
	Feed    parts.Feed   `json:"feed,omitempty"`
	Use     parts.Use    `json:"use,omitempty"`
	Length  unit.Length  `json:"length,omitzero"` // of its wire, one way
	Area    unit.Area    `json:"area,omitzero"`   // of the wire that is laid
	Fuse    unit.Current `json:"fuse,omitzero"`   // that is in it
	Channel Channel      `json:"channel,omitempty"`
}

// Fields lists its numbers, their keys before a suffix.
func (w *Wired) Fields(of string) []entry.Field {
	return []entry.Field{
		entry.Ask("length"+of, "Wire, one way", "m", 0.1, 10, "From the battery or the box to it, as it is laid. Empty: what is usual to its place.", &w.Length),
		entry.Ask("area"+of, "Wire laid", "mm²", 0.1, 35, "Copper, without its jacket, or its gauge: 16 AWG. Empty: as asked for.", &w.Area),
		entry.Ask("fuse"+of, "Fuse in it", "A", 0.5, 60, "Empty: as asked for.", &w.Fuse),
	}
}

// Electric is what the part in a slot draws, nil for one that draws nothing; all of it
// unknown for one that the rider put there and surely draws.
func (f *Fitted) Electric() *parts.Electric {
	if e := f.Part.Electric(); e != nil || !f.Chosen || !f.Part.Thirsty() {
		return e
	}
	return &parts.Electric{}
}

// WiredIn is what the rider has said of a slot's wiring.
func (p *Plan) WiredIn(s parts.Slot) Wired {
	for _, w := range p.Wired {
		if w.Slot == s {
			return w
		}
	}
	return Wired{Slot: s}
}

// Wiring of a part that draws: as the rider has it, where they have not said as its sheet does,
// and of one that is told of as such parts usually are.
func (p *Plan) Wiring(part *parts.Part, e *parts.Electric) Wired {
	w, usual := p.WiredIn(part.Slot), parts.InUse
	if part.Told() {
		kind, _ := parts.KindOf(part.Slot)
		usual = cmp.Or(kind.Used, usual)
	}
	w.Feed, w.Use = cmp.Or(w.Feed, e.Feed, parts.FeedIgnition), cmp.Or(w.Use, e.Use, usual)
	return w
}

// Rewired is the plan's wiring with a slot's replaced.
func (p *Plan) Rewired(w Wired) []Wired {
	list := slices.DeleteFunc(slices.Clone(p.Wired), func(was Wired) bool { return was.Slot == w.Slot })
	return append(list, w)
}

func (p *Plan) validateWiring(v *entry.Problems) {
	v.Few("wired", len(p.Wired), len(parts.Kinds()))
	for i, w := range p.Wired {
		path := "wired" + entry.At(i)
		v.That(w.Slot.Draws(), path+".slot", "%q is no slot of what draws", w.Slot)
		v.Pick(path+".feed", string(w.Feed), parts.Feeds())
		v.Pick(path+".use", string(w.Use), parts.Uses())
		v.Fields(path, w.Fields(""))
		v.That(w.Channel.valid(), path+".channel", "%q is no channel of 1–%d, nor %q", w.Channel, parts.MaxChannels, OwnFuse)
	}
	v.Pick("box_sits", string(p.BoxSits), BoxPlaces())
}
