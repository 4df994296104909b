package parts

import (
	"math"
	"strconv"
	"valiantmule/internal/core/entry"
)

// Figure is a figure of the bike that parts may move: a closed list.
type Figure string

// The figures, in the order in which effects are applied.
const (
	FrontTeeth  Figure = "front-teeth"
	RearTeeth   Figure = "rear-teeth"
	ChainLinks  Figure = "chain-links"
	StandLength Figure = "stand-length-mm" // over the standard stand's
	BarRise     Figure = "bar-rise-mm"     // of the grips
	BarBack     Figure = "bar-back-mm"     // of the grips, towards the rider
	CableSlack  Figure = "cable-slack-mm"  // more than the standard ones'
	SeatRise    Figure = "seat-rise-mm"
	PegDrop     Figure = "peg-drop-mm"
	PegOut      Figure = "peg-out-mm" // each, from the middle of the bike
	SeatHours   Figure = "seat-hours" // a day, until it hurts
	Shelter     Figure = "shelter-percent"

	SeatWidth   Figure = "seat-width-mm"   // over the standard seat's
	ForkLength  Figure = "fork-length-mm"  // over the standard fork's, wheel hanging, along the leg
	ForkTravel  Figure = "fork-travel-mm"  // more of it, along the leg
	ShockLength Figure = "shock-length-mm" // over the standard shock's, eye to eye
	LinkRise    Figure = "link-rise-mm"    // of the frame over the rear axle, wheel hanging
	RearTravel  Figure = "rear-travel-mm"  // more of it, at the wheel
	LinkPercent Figure = "link-percent"    // that the shock moves more for the same travel
	StandFoot   Figure = "stand-foot-cm2"
	StandPlate  Figure = "stand-plate-cm2"

	HangsBelow Figure = "hangs-below-mm" // the engine

	AlternatorW Figure = "alternator-w" // rated, in place of the bike's
	BatteryAh   Figure = "battery-ah"
	CrankAmps   Figure = "cold-crank-a"
)

// FigureInfo is what effects may do to a figure. A number of a part's own property that
// moves it has its property's bounds instead.
type FigureInfo struct {
	Figure   Figure
	Unit     string
	Min, Max float64 // of one effect
	Free     bool    // any part may set, add to or scale it; otherwise only a property moves it
}

var figures = [...]FigureInfo{
	{Figure: FrontTeeth}, {Figure: RearTeeth}, {Figure: ChainLinks},
	{StandLength, "mm", -300, 300, true}, {BarRise, "mm", -300, 300, true}, {BarBack, "mm", -300, 300, true}, {CableSlack, "mm", -300, 300, true},
	{SeatRise, "mm", -300, 300, true}, {PegDrop, "mm", -300, 300, true}, {PegOut, "mm", -100, 100, true},
	{Figure: SeatHours}, {Figure: Shelter},
	{SeatWidth, "mm", -300, 300, true}, {ForkLength, "mm", -300, 300, true}, {ForkTravel, "mm", -300, 300, true}, {ShockLength, "mm", -300, 300, true},
	{LinkRise, "mm", -300, 300, true}, {RearTravel, "mm", -300, 300, true},
	{Figure: LinkPercent}, {Figure: HangsBelow}, {Figure: StandFoot}, {Figure: StandPlate}, {Figure: AlternatorW}, {Figure: BatteryAh}, {Figure: CrankAmps},
}

// FigureCount is how many figures there are.
const FigureCount = len(figures)

// Figures lists them in their order.
func Figures() []FigureInfo { return figures[:] }

// Index of a figure in [Figures], -1 for one that there is not.
func (f Figure) Index() int {
	for i := range figures { // without copying the rows: this is asked all the time
		if figures[i].Figure == f {
			return i
		}
	}
	return -1
}

// Op is what an effect does to a figure. Sets come first, then adds, then scales.
type Op string

// The operations.
const (
	Set   Op = "set"
	Add   Op = "add"
	Scale Op = "scale"
)

// Effect is one part's effect on one figure.
type Effect struct {
	Figure Figure  `json:"figure"`
	Op     Op      `json:"op"`
	Value  float64 `json:"value"`
}

// EachEffect calls a function with each effect of a part: those that its properties have,
// then those that are said by themselves.
func (p *Part) EachEffect(effect func(Effect)) {
	for i := range p.Has.held {
		h := &p.Has.held[i]
		if !h.moves {
			continue
		}
		row := p.Slot.row(h.key)
		if row == nil || row.Moves == "" {
			continue
		}
		if q, ok := h.value.(interface{ In(unit string) float64 }); ok {
			effect(Effect{row.Moves, row.By, tidy(q.In(row.Unit))})
		}
	}
	for _, e := range p.Effects {
		effect(e)
	}
}

// tidy takes the tail off that a change of units leaves on a number.
func tidy(v float64) float64 { return math.Round(v*1e6) / 1e6 }

// MovesAny reports whether the part moves any figure.
func (p *Part) MovesAny() bool {
	any := false
	p.EachEffect(func(Effect) { any = true })
	return any
}

// Sets is the value that the part sets a figure to, 0 when it does not.
func (p *Part) Sets(f Figure) float64 {
	value, found := 0.0, false
	p.EachEffect(func(e Effect) {
		if e.Figure == f && e.Op == Set && !found {
			value, found = e.Value, true
		}
	})
	return value
}

// Adds is what the part adds to a figure.
func (p *Part) Adds(f Figure) float64 {
	sum := 0.0
	p.EachEffect(func(e Effect) {
		if e.Figure == f && e.Op == Add {
			sum += e.Value
		}
	})
	return sum
}

// Moving is the property by which parts of a slot move a figure so, and the value of an
// effect as a document has it there; the key is "" where they have none.
func Moving(s Slot, f Figure, by Op, value float64) (key string, is any) {
	kind, _ := KindOf(s)
	for i := range kind.Asks {
		row := &kind.Asks[i]
		if row.Moves != f || row.By != by {
			continue
		}
		v := row.blank()
		if err := v.Enter(strconv.FormatFloat(value, 'f', -1, 64), row.Unit); err != nil {
			return "", nil
		}
		if _, counted := v.(*entry.Count); counted {
			return row.Key, value
		}
		return row.Key, v.String()
	}
	return "", nil
}
