package plan

import (
	"iter"
	"math"
	"slices"
	"strings"

	"valiantmule/internal/core/drive"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/tyre"
)

// Built is the bike with parts folded in.
type Built struct {
	Bike    *Bike
	Fitted  []Fitted // by slot, in the order of the kinds, several in one beside each other; empty slots left out
	Fuels   []Fuel   // what holds fuel, the main tank first
	figures [parts.FigureCount]float64
	Clashes []parts.Figure // set by two parts
	Off     []Off          // what the plan wants on it and does not go on

	at    []int16 // place in Fitted of the first by the kind's index, −1 where it is empty
	views views
}

// views are what parts are seen as again and again, each once.
type views struct {
	tyres    [len(viewedTyres)]*parts.Tyre
	fillings [len(viewedFillings)]*parts.Filling
	bags     []*parts.Bag // by parts.BagSlots
}

// The slots whose parts are viewed once.
var (
	viewedTyres    = [...]parts.Slot{parts.FrontTyre, parts.RearTyre}
	viewedFillings = [...]parts.Slot{parts.FrontTube, parts.RearTube, parts.FrontLock, parts.RearLock}
)

// Fitted is what sits in a slot.
type Fitted struct {
	Slot   parts.Slot
	Part   *parts.Part
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

// usualKinds is a little more than there are.
const usualKinds = 128

func build(bike *Bike, found []*parts.Part, lines []Line, loadout string) *Built {
	kinds := parts.Kinds()
	b := &Built{Bike: bike, Fitted: make([]Fitted, 0, len(bike.Standard)+len(lines)), at: make([]int16, len(kinds))}
	// Room for the kinds there are; more of them are no fault, only slower.
	var (
		roomChosen, roomStandard [usualKinds]*parts.Part
		roomOn                   [usualKinds]bool
	)
	chosen, standard, on := roomChosen[:], roomStandard[:], roomOn[:]
	if len(kinds) > usualKinds {
		chosen, standard, on = make([]*parts.Part, len(kinds)), make([]*parts.Part, len(kinds)), make([]bool, len(kinds))
	}
	var more []Fitted // beside the first of their kinds
	put := func(part *parts.Part, l *Line) {
		at := part.Slot.Index()
		switch {
		case at < 0:
		case chosen[at] == nil:
			chosen[at], on[at] = part, l.Decision == OnTheBike
		case kinds[at].AtOnce > 1:
			more = append(more, Fitted{part.Slot, part, true, l.Decision == OnTheBike})
		case l.Loadout != "":
			chosen[at], on[at] = part, l.Decision == OnTheBike
		}
	}
	for i := range lines {
		if l := &lines[i]; l.fitted(loadout) {
			put(l.Part, l)
			for k := range l.Part.Kit {
				put(&l.Part.Kit[k], l)
			}
		}
	}
	for i := range bike.Standard {
		if at := bike.Standard[i].Slot.Index(); at >= 0 {
			standard[at] = &bike.Standard[i]
		}
	}
	for _, p := range found { // what was found on it is what it has
		if at := p.Slot.Index(); at >= 0 {
			standard[at] = p
		}
	}
	for i := range kinds {
		if part := chosen[i]; part != nil {
			b.Fitted = append(b.Fitted, Fitted{kinds[i].Slot, part, true, on[i]})
			for _, f := range more {
				if f.Slot == kinds[i].Slot {
					b.Fitted = append(b.Fitted, f)
				}
			}
		} else if part := standard[i]; part != nil {
			b.Fitted = append(b.Fitted, Fitted{Slot: kinds[i].Slot, Part: part})
		}
	}
	b.index()
	b.takeOff(standard)
	b.fold()
	b.view()
	b.Fuels = b.holdsFuel()
	return b
}

// index says where each slot's part is.
func (b *Built) index() {
	for i := range b.at {
		b.at[i] = -1
	}
	for i := len(b.Fitted) - 1; i >= 0; i-- {
		b.at[b.Fitted[i].Slot.Index()] = int16(i)
	}
}

// view looks once at what is asked for often.
func (b *Built) view() {
	for i, s := range viewedTyres {
		b.views.tyres[i] = b.tyreIn(s)
	}
	for i, s := range viewedFillings {
		if p := b.Part(s); p != nil {
			b.views.fillings[i] = p.Filling()
		}
	}
	b.views.bags = make([]*parts.Bag, len(parts.BagSlots()))
	for i, s := range parts.BagSlots() {
		if p := b.Part(s); p != nil {
			b.views.bags[i] = p.Bag()
		}
	}
}

// takeOff takes off what does not go on, until all that is left does: one may have
// needed the other. What was there before takes its place.
func (b *Built) takeOff(standard []*parts.Part) {
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
		if was := standard[f.Slot.Index()]; was != nil && len(slices.Collect(b.Parts(f.Slot))) == 1 {
			b.Fitted[i] = Fitted{Slot: f.Slot, Part: was}
		} else {
			b.Fitted = slices.Delete(b.Fitted, i, i+1)
		}
		b.index()
		i = -1 // something may have needed it
	}
}

// fold applies the effects of all parts on all figures: sets, then adds, then scales.
func (b *Built) fold() {
	var sets [parts.FigureCount]int
	var scale [parts.FigureCount]float64
	var added [parts.FigureCount]float64
	for i := range scale {
		scale[i] = 1
	}
	for _, f := range b.Fitted {
		f.Part.EachEffect(func(e parts.Effect) {
			at := e.Figure.Index()
			switch {
			case at < 0:
			case e.Op == parts.Set:
				b.figures[at] = e.Value
				sets[at]++
			case e.Op == parts.Add:
				added[at] += e.Value
			case e.Op == parts.Scale:
				scale[at] *= e.Value
			}
		})
	}
	for i, info := range parts.Figures() {
		b.figures[i] = (b.figures[i] + added[i]) * scale[i]
		if sets[i] > 1 {
			b.Clashes = append(b.Clashes, info.Figure)
		}
	}
}

// Kind is what sits there.
func (f *Fitted) Kind() *parts.Kind {
	kind, _ := parts.KindOf(f.Slot)
	return kind
}

// Figure is the value of a figure, 0 when no part sets it.
func (b *Built) Figure(f parts.Figure) float64 { return b.figures[f.Index()] }

// fitted is what sits in a slot, nil when it is empty.
func (b *Built) fitted(s parts.Slot) *Fitted {
	if i := s.Index(); i >= 0 {
		return b.place(i)
	}
	return nil
}

// place is what sits in the slot of a kind by its index, nil when it is empty.
func (b *Built) place(i int) *Fitted {
	if b.at[i] < 0 {
		return nil
	}
	return &b.Fitted[b.at[i]]
}

// next is what sits beside a part in its slot, nil after the last.
func (b *Built) next(f *Fitted) *Fitted {
	if f == nil || b.at[f.Slot.Index()] < 0 {
		return nil
	}
	for i := int(b.at[f.Slot.Index()]); i+1 < len(b.Fitted) && b.Fitted[i+1].Slot == f.Slot; i++ {
		if &b.Fitted[i] == f {
			return &b.Fitted[i+1]
		}
	}
	return nil
}

// Part in a slot, the first of several; nil when it is empty.
func (b *Built) Part(s parts.Slot) *parts.Part {
	if f := b.fitted(s); f != nil {
		return f.Part
	}
	return nil
}

// Parts are all in a slot.
func (b *Built) Parts(s parts.Slot) iter.Seq[*parts.Part] {
	return func(yield func(*parts.Part) bool) {
		at := s.Index()
		if at < 0 || b.at[at] < 0 {
			return
		}
		for i := int(b.at[at]); i < len(b.Fitted) && b.Fitted[i].Slot == s; i++ {
			if !yield(b.Fitted[i].Part) {
				return
			}
		}
	}
}

// Tyre in a slot, nil when it is unknown: its code is what everything rests on.
func (b *Built) Tyre(s parts.Slot) *parts.Tyre {
	if i := slices.Index(viewedTyres[:], s); i >= 0 {
		return b.views.tyres[i]
	}
	return b.tyreIn(s)
}

// tyreIn is the tyre in a slot. What a bike came with is road-biased until somebody says
// otherwise: standard tyres nearly always are [practice].
func (b *Built) tyreIn(s parts.Slot) *parts.Tyre {
	f := b.fitted(s)
	if f == nil {
		return nil
	}
	t := f.Part.Tyre()
	if t == nil || t.Size.IsZero() {
		return nil
	}
	if t.Kind == "" && !f.Chosen {
		came := *t
		came.Kind = tyre.RoadBiased
		return &came
	}
	return t
}

// Rim of the wheel as built, front or rear by its tyre's slot.
func (b *Built) Rim(tyreSlot parts.Slot) tyre.Rim {
	wheel, diameter, width := parts.FrontWheel, b.Bike.FrontRimDiameter, b.Bike.FrontRimWidth
	if tyreSlot == parts.RearTyre {
		wheel, diameter, width = parts.RearWheel, b.Bike.RearRimDiameter, b.Bike.RearRimWidth
	}
	if p := b.Part(wheel); p != nil {
		if w := p.Wheel(); w != nil {
			return w.Rim()
		}
	}
	return parts.RimOf(diameter, width)
}

// WheelBuild of a wheel as built, front or rear by its tyre's slot; "" when
// nobody has said.
func (b *Built) WheelBuild(tyreSlot parts.Slot) parts.WheelBuild {
	wheel, build := parts.FrontWheel, b.Bike.FrontBuild
	if tyreSlot == parts.RearTyre {
		wheel, build = parts.RearWheel, b.Bike.RearBuild
	}
	if p := b.Part(wheel); p != nil {
		if w := p.Wheel(); w != nil {
			return w.Build
		}
	}
	return build
}

// Filling in a slot of fillings, nil when it is empty.
func (b *Built) Filling(s parts.Slot) *parts.Filling {
	if i := slices.Index(viewedFillings[:], s); i >= 0 {
		return b.views.fillings[i]
	}
	if p := b.Part(s); p != nil {
		return p.Filling()
	}
	return nil
}

// Bag in a slot of bags, nil when none is there.
func (b *Built) Bag(s parts.Slot) *parts.Bag {
	if i := slices.Index(parts.BagSlots(), s); i >= 0 {
		return b.views.bags[i]
	}
	return nil
}

// Chosen reports whether the plan put a part of its own into the slot.
func (b *Built) Chosen(s parts.Slot) bool {
	f := b.fitted(s)
	return f != nil && f.Chosen
}

// On reports whether the plan's part in the slot is on the bike already.
func (b *Built) On(s parts.Slot) bool {
	f := b.fitted(s)
	return f != nil && f.On
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
	pair = drive.Pair{Front: int(b.Figure(parts.FrontTeeth)), Rear: int(b.Figure(parts.RearTeeth))}
	return pair, pair.Front > 0 && pair.Rear > 0
}

// Provides reports whether the bike or a fitted part provides a tag.
func (b *Built) Provides(tag string) bool {
	if slices.Contains(b.Bike.Provides, tag) {
		return true
	}
	gone := slices.ContainsFunc(replaced, func(r replacing) bool { return r.takes(tag) && b.Chosen(r.slot) })
	if !gone && b.Bike.is(tag) {
		return true
	}
	for i := range b.Fitted {
		if slices.Contains(b.Fitted[i].Part.Provides, tag) {
			return true
		}
	}
	for _, s := range parts.UsuallyBy(tag) {
		if p := b.Part(s); p != nil {
			if gives, _ := p.Gives(tag); gives {
				return true
			}
		}
	}
	return false
}

// replacing is a slot whose part takes tags of the bike's own away, where it is another.
type replacing struct {
	slot  parts.Slot
	takes func(tag string) bool
}

var replaced = []replacing{
	{parts.Handlebar, func(tag string) bool { return strings.HasPrefix(tag, "bar-2") }}, // it has its own diameter
	{parts.Levers, func(tag string) bool { return tag == "adjustable-levers" }},         // they have their own reach
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

// Against are the slots in which two bikes as built have something else, with what each
// has; nil for nothing.
func (b *Built) Against(other *Built) iter.Seq2[*parts.Kind, [2]*Fitted] {
	return func(yield func(*parts.Kind, [2]*Fitted) bool) {
		kinds := parts.Kinds()
		for i := range kinds {
			one, two := b.place(i), other.place(i)
			for one != nil || two != nil {
				if one == nil || two == nil || *one != *two {
					if !yield(&kinds[i], [2]*Fitted{one, two}) {
						return
					}
				}
				one, two = b.next(one), other.next(two)
			}
		}
	}
}

// SameTags reports whether the parts of two bikes provide and take away the same tags.
func (b *Built) SameTags(other *Built) bool {
	for kind, pair := range b.Against(other) {
		if slices.ContainsFunc(replaced, func(r replacing) bool { return r.slot == kind.Slot }) {
			return false
		}
		for _, f := range pair {
			if f != nil && f.Part.GivesAny() {
				return false
			}
		}
	}
	return true
}

// SameFigures reports whether the parts of two bikes move all figures alike.
func (b *Built) SameFigures(other *Built) bool {
	return b.figures == other.figures && slices.Equal(b.Clashes, other.Clashes)
}

// SameOff reports whether the same parts do not go on two bikes, for the same reasons.
func (b *Built) SameOff(other *Built) bool {
	return slices.EqualFunc(b.Off, other.Off, func(x, y Off) bool { return x.Part == y.Part && x.Unsure == y.Unsure && slices.Equal(x.Lacks, y.Lacks) })
}
