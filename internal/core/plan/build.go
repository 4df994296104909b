package plan

import (
	"slices"

	"valiantmule/internal/core/drive"
)

// Built is the bike with parts folded in.
type Built struct {
	Bike    *Bike
	Fitted  []Fitted // by slot, in the order of Slots; empty slots left out
	figures [4]float64
	Clashes []Figure // set by two parts
}

// Fitted is what sits in a slot.
type Fitted struct {
	Slot   Slot
	Part   *Part
	Chosen bool // by the plan; otherwise it is the standard part
}

// Build folds the plan's parts into its bike, which must not be nil.
func (p *Plan) Build() *Built { return build(p.Bike, p.Lines) }

// BuildStandard is the bike as it came.
func (p *Plan) BuildStandard() *Built { return build(p.Bike, nil) }

func build(bike *Bike, lines []Line) *Built {
	b := &Built{Bike: bike, Fitted: make([]Fitted, 0, len(slots))}
	for _, info := range slots {
		part, chosen := bike.StandardIn(info.Slot), false
		for i := range lines {
			if lines[i].Part != nil && lines[i].Part.Slot == info.Slot {
				part, chosen = lines[i].Part, true
			}
		}
		if part != nil {
			b.Fitted = append(b.Fitted, Fitted{info.Slot, part, chosen})
		}
	}
	for i, figure := range figures {
		b.figures[i] = b.fold(figure)
	}
	return b
}

// fold applies the effects on one figure: sets, then adds, then scales.
func (b *Built) fold(figure Figure) float64 {
	value, sets := 0.0, 0
	for _, op := range []Op{Set, Add, Scale} {
		for _, f := range b.Fitted {
			for _, e := range f.Part.Effects {
				if e.Figure != figure || e.Op != op {
					continue
				}
				switch op {
				case Set:
					value = e.Value
					sets++
				case Add:
					value += e.Value
				case Scale:
					value *= e.Value
				}
			}
		}
	}
	if sets > 1 {
		b.Clashes = append(b.Clashes, figure)
	}
	return value
}

// Figure is the value of a figure, 0 when no part sets it.
func (b *Built) Figure(f Figure) float64 { return b.figures[slices.Index(figures, f)] }

// Part in a slot, nil when it is empty.
func (b *Built) Part(s Slot) *Part {
	for _, f := range b.Fitted {
		if f.Slot == s {
			return f.Part
		}
	}
	return nil
}

// Tyre in a slot, nil when it is unknown.
func (b *Built) Tyre(s Slot) *Tyre {
	if p := b.Part(s); p != nil {
		return p.Tyre
	}
	return nil
}

// Chosen reports whether the plan put a part of its own into the slot.
func (b *Built) Chosen(s Slot) bool {
	for _, f := range b.Fitted {
		if f.Slot == s {
			return f.Chosen
		}
	}
	return false
}

// Sprockets as built; ok is false when one is unknown.
func (b *Built) Sprockets() (pair drive.Pair, ok bool) {
	pair = drive.Pair{Front: int(b.Figure(FrontTeeth)), Rear: int(b.Figure(RearTeeth))}
	return pair, pair.Front > 0 && pair.Rear > 0
}

// Provides reports whether the bike or a fitted part provides a tag.
func (b *Built) Provides(tag string) bool {
	if slices.Contains(b.Bike.Provides, tag) {
		return true
	}
	for _, f := range b.Fitted {
		if slices.Contains(f.Part.Provides, tag) {
			return true
		}
	}
	return false
}

// Fits reports whether everything that a part needs is there. Size and clearance
// are other questions.
func (b *Built) Fits(p *Part) bool {
	for _, tag := range p.Needs {
		if !b.Provides(tag) {
			return false
		}
	}
	return true
}
