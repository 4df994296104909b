package plan

import (
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/tyre"
)

// Built is the bike with parts folded in.
type Built struct {
	Bike    *Bike
	Fitted  []Fitted // by slot, in the order of Slots; empty slots left out
	Fuels   []Fuel   // what holds fuel, the main tank first
	figures [len(figures)]float64
	Clashes []Figure // set by two parts
	Off     []Off    // what the plan wants on it and does not go on
}

// Fitted is what sits in a slot.
type Fitted struct {
	Slot   Slot
	Part   *Part
	Chosen bool // by the plan; otherwise it is the standard part
	On     bool // it is fitted already, so it goes on
}

// Build folds the parts that are in a loadout into the bike, which must not be
// nil. A part of that loadout only goes before one of all loadouts.
func (p *Plan) Build(loadout string) *Built {
	return build(p.Bike, p.Baseline.Found(), p.Lines, loadout)
}

// BuildStandard is the bike as it left the factory.
func (p *Plan) BuildStandard() *Built { return build(p.Bike, nil, nil, "") }

func build(bike *Bike, found []*Part, lines []Line, loadout string) *Built {
	b := &Built{Bike: bike, Fitted: make([]Fitted, 0, len(bike.Standard)+len(lines))}
	var chosen, standard [len(slots)]*Part
	var on [len(slots)]bool
	for i := range lines {
		if l := &lines[i]; l.fitted(loadout) {
			if at, ok := slotsByName[l.Part.Slot]; ok && (chosen[at] == nil || l.Loadout != "") {
				chosen[at], on[at] = l.Part, l.Decision == OnTheBike
			}
		}
	}
	for i := range bike.Standard {
		if at, ok := slotsByName[bike.Standard[i].Slot]; ok {
			standard[at] = &bike.Standard[i]
		}
	}
	for _, p := range found { // what was found on it is what it has
		if at, ok := slotsByName[p.Slot]; ok {
			standard[at] = p
		}
	}
	for i, info := range slots {
		if part := chosen[i]; part != nil {
			b.Fitted = append(b.Fitted, Fitted{info.Slot, part, true, on[i]})
		} else if part := standard[i]; part != nil {
			b.Fitted = append(b.Fitted, Fitted{Slot: info.Slot, Part: part})
		}
	}
	b.takeOff(&standard)
	for i, figure := range figures {
		b.figures[i] = b.fold(figure)
	}
	b.Fuels = b.holdsFuel()
	return b
}

// takeOff takes off what does not go on, until all that is left does: one may have
// needed the other. What was there before takes its place.
func (b *Built) takeOff(standard *[len(slots)]*Part) {
	for i := 0; i < len(b.Fitted); i++ {
		f := b.Fitted[i]
		if !f.Chosen || f.On {
			continue
		}
		o, off := b.off(f.Part)
		if !off {
			continue
		}
		b.Off = append(b.Off, o)
		if was := standard[slotsByName[f.Slot]]; was != nil {
			b.Fitted[i] = Fitted{Slot: f.Slot, Part: was}
		} else {
			b.Fitted = slices.Delete(b.Fitted, i, i+1)
		}
		i = -1 // something may have needed it
	}
}

var slotsByName = func() map[Slot]int {
	all := make(map[Slot]int, len(slots))
	for i, info := range slots {
		all[info.Slot] = i
	}
	return all
}()

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
func (b *Built) Figure(f Figure) float64 { return b.figures[slices.Index(figures[:], f)] }

// Part in a slot, nil when it is empty.
func (b *Built) Part(s Slot) *Part {
	for _, f := range b.Fitted {
		if f.Slot == s {
			return f.Part
		}
	}
	return nil
}

// Tyre in a slot, nil when it is unknown: its code is what everything rests on.
func (b *Built) Tyre(s Slot) *Tyre {
	if p := b.Part(s); p != nil && p.Tyre != nil && !p.Tyre.Size.IsZero() {
		return p.Tyre
	}
	return nil
}

// Rim of the wheel as built, front or rear by its tyre's slot.
func (b *Built) Rim(tyreSlot Slot) tyre.Rim {
	wheel, diameter, width := FrontWheel, b.Bike.FrontRimDiameter, b.Bike.FrontRimWidth
	if tyreSlot == RearTyre {
		wheel, diameter, width = RearWheel, b.Bike.RearRimDiameter, b.Bike.RearRimWidth
	}
	if p := b.Part(wheel); p != nil && p.Wheel != nil {
		return p.Wheel.Rim()
	}
	return rim(diameter, width)
}

// WheelBuild of a wheel as built, front or rear by its tyre's slot; "" when
// nobody has said.
func (b *Built) WheelBuild(tyreSlot Slot) WheelBuild {
	wheel, build := FrontWheel, b.Bike.FrontBuild
	if tyreSlot == RearTyre {
		wheel, build = RearWheel, b.Bike.RearBuild
	}
	if p := b.Part(wheel); p != nil && p.Wheel != nil {
		return p.Wheel.Build
	}
	return build
}

// Filling in a slot of fillings, nil when it is empty.
func (b *Built) Filling(s Slot) *Filling {
	if p := b.Part(s); p != nil {
		return p.Filling
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

// FinalRatio is that of the sprockets, or of a shaft drive; NaN when it is not
// known.
func (b *Built) FinalRatio() float64 {
	if b.Bike.Shaft() {
		return b.Bike.FinalRatio.In("")
	}
	if pair, ok := b.Sprockets(); ok {
		return pair.Ratio()
	}
	return math.NaN()
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
	// Another bar has its own diameter, other levers their own reach.
	isBar := strings.HasPrefix(tag, "bar-2")
	gone := isBar && b.Chosen(Handlebar) || tag == "adjustable-levers" && b.Chosen(Levers)
	if !gone && b.Bike.is(tag) {
		return true
	}
	for _, f := range b.Fitted {
		if slices.Contains(f.Part.Provides, tag) {
			return true
		}
	}
	return false
}

// is reports whether the bike's own data say what a tag says.
func (b *Bike) is(tag string) bool {
	switch tag {
	case "bar-22", "clamp-22":
		return math.Abs(b.BarDiameter.In("mm")-22.2) < 0.5
	case "bar-28", "clamp-28":
		return math.Abs(b.BarDiameter.In("mm")-28.6) < 0.5
	case "adjustable-levers":
		return b.Levers == AdjustableLevers
	case "radiator":
		return b.Cooling == LiquidCooled
	case "oil-cooler":
		return b.Cooling == OilCooled
	case "chain-drive":
		return !b.Shaft()
	}
	number, isChain := strings.CutPrefix(tag, "chain: ")
	return isChain && b.Chain == number
}
