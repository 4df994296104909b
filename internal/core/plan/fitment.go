package plan

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/unit"
)

// Fitment is what is known of whether a part goes on this bike. It comes before
// money, and what somebody found out overrules what its tags say.
type Fitment struct {
	Verdict FitVerdict    `json:"verdict,omitempty"`
	Work    string        `json:"work,omitempty"`   // what has to be done: trim, drill, a longer hose
	Hours   unit.Duration `json:"hours,omitzero"`   // that it takes beyond the usual
	Tools   string        `json:"tools,omitempty"`  // that it takes
	Ask     string        `json:"ask,omitempty"`    // whom, and what, while nobody knows
	Blind   bool          `json:"blind,omitempty"`  // a torque wrench cannot get at its fasteners
	Reason  string        `json:"reason,omitempty"` // that it does not go on
}

// FitVerdict is whether a part goes on.
type FitVerdict string

// The verdicts. Of a part without one its tags tell.
const (
	Fits         FitVerdict = "fits"
	FitsWithWork FitVerdict = "work"
	FitsNot      FitVerdict = "no"
	FitUnknown   FitVerdict = "unknown"
)

// FitVerdicts lists them.
func FitVerdicts() []Option {
	return []Option{{string(Fits), "It fits"}, {string(FitsWithWork), "It fits with work"}, {string(FitsNot), "It does not fit"}, {string(FitUnknown), "Nobody knows yet"}}
}

// Made is the kind of bike that a part was made for. The zero Made is any.
type Made struct {
	Family  string `json:"family,omitempty"`
	From    int    `json:"from,omitempty"` // model year, 0 for no first
	To      int    `json:"to,omitempty"`   // model year, 0 for no last
	Variant string `json:"variant,omitempty"`
}

// Years of it in words, "" for all.
func (m Made) Years() string {
	switch {
	case m.From == 0 && m.To == 0:
		return ""
	case m.From == m.To:
		return fmt.Sprint(m.From)
	case m.To == 0:
		return fmt.Sprintf("%d and later", m.From)
	case m.From == 0:
		return fmt.Sprintf("up to %d", m.To)
	}
	return fmt.Sprintf("%d–%d", m.From, m.To)
}

// For reports whether a bike is of that kind: sure is false where its sheet does not
// say enough.
func (m Made) For(b *Bike) (is, sure bool) {
	is, sure = true, true
	same := func(want, have string) {
		if want != "" {
			is, sure = is && (have == "" || strings.EqualFold(want, have)), sure && have != ""
		}
	}
	same(m.Family, b.Family)
	same(m.Variant, b.Variant)
	if m.From > 0 || m.To > 0 {
		is = is && (b.Year == 0 || b.Year >= m.From && (m.To == 0 || b.Year <= m.To))
		sure = sure && b.Year > 0
	}
	return is, sure || !is
}

// Off is a part that the plan wants on the bike and that does not go on, or of which
// nobody knows. It is credited with nothing.
type Off struct {
	Part   *Part
	Lacks  []string // tags that it needs and nothing provides
	Unsure bool     // nobody knows, so somebody has to ask
}

// off tells what keeps a part from going on a bike as built; ok is false when nothing
// does.
func (b *Built) off(p *Part) (o Off, ok bool) {
	o.Part = p
	if f := p.Fitment; f != nil {
		switch f.Verdict {
		case Fits, FitsWithWork:
			return o, false
		case FitsNot:
			return o, true
		case FitUnknown:
			o.Unsure = true
			return o, true
		}
	}
	if o.Lacks = b.lacks(p); len(o.Lacks) == 0 {
		return o, false
	}
	o.Unsure = !slices.ContainsFunc(o.Lacks, func(tag string) bool { return !b.Bike.unsure(tag) })
	return o, true
}

// lacks are the tags that a part needs and nothing provides.
func (b *Built) lacks(p *Part) []string {
	var list []string
	for _, tag := range p.Needs {
		if !b.Provides(tag) {
			list = append(list, tag)
		}
	}
	return list
}

// unsure reports whether a bike's sheet leaves open what a tag asks: it says nothing
// of that figure, or names no kind of frame, shaft or hub at all.
func (b *Bike) unsure(tag string) bool {
	switch tag {
	case "bar-22", "clamp-22", "bar-28", "clamp-28":
		return !b.BarDiameter.Known()
	case "radiator", "oil-cooler":
		return b.Cooling == ""
	case "chain-drive":
		return b.Final == ""
	}
	kind, _, ok := strings.Cut(tag, ": ")
	switch {
	case !ok:
		return false
	case kind == "chain":
		return b.Chain == ""
	}
	return !slices.ContainsFunc(b.Provides, func(has string) bool { return strings.HasPrefix(has, kind+": ") })
}

// WorkHours is what fitting a part takes beyond what such parts usually take, h.
func (p *Part) WorkHours() float64 {
	if p.Fitment == nil || p.Fitment.Verdict != FitsWithWork || !p.Fitment.Hours.Known() {
		return 0
	}
	return p.Fitment.Hours.In("h")
}

// FitKnown reports whether somebody knows that the line's part goes on: it is on, or
// somebody said, or its tags tell.
func (l *Line) FitKnown(b *Built) bool {
	if l.Part == nil || l.Decision == OnTheBike {
		return true
	}
	if f := l.Part.Fitment; f != nil && f.Verdict != "" {
		return f.Verdict != FitUnknown
	}
	if _, sure := l.Part.Made.For(b.Bike); !sure {
		return false
	}
	return !slices.ContainsFunc(b.Off, func(o Off) bool { return o.Part == l.Part && o.Unsure })
}

// Goes reports whether a part goes on the bike as built: what it needs is there,
// nobody has found otherwise, and a tyre, tube or lock is of the rim's size. Clearance
// is another question.
func (b *Built) Goes(p *Part) bool { return b.Fits(p) && b.sizeGoes(p) }

// Fits reports whether everything that a part needs is there, and nobody has found
// otherwise. Size and clearance are other questions.
func (b *Built) Fits(p *Part) bool {
	_, off := b.off(p)
	return !off
}

// sizeGoes reports whether a part is of the size of the wheel that it is for, where
// both are known.
func (b *Built) sizeGoes(p *Part) bool {
	tyreSlot, wheel := tyreOf[p.Slot]
	if !wheel {
		return true
	}
	rim := b.Rim(tyreSlot)
	same := func(a, b float64) bool { return !(a > 0) || !(b > 0) || a == b }
	if t := p.Tyre; t != nil && !same(t.Size.RimIn, rim.DiameterIn) {
		return false
	}
	f := p.Filling
	if f == nil {
		return true
	}
	if f.Kind.HoldsAir() && b.WheelBuild(tyreSlot).Tubeless() {
		return false
	}
	return (!f.Rim.Known() || same(f.Rim.In("in"), rim.DiameterIn)) && (!f.RimWidth.Known() || same(f.RimWidth.In("in"), rim.WidthIn))
}

// tyreOf names the tyre of the wheel that a slot belongs to.
var tyreOf = map[Slot]Slot{
	FrontTyre: FrontTyre, FrontTube: FrontTyre, FrontLock: FrontTyre, FrontSealant: FrontTyre,
	RearTyre: RearTyre, RearTube: RearTyre, RearLock: RearTyre, RearSealant: RearTyre,
	SpareFront: FrontTyre, SpareRear: RearTyre,
}

// SpareOf is the slot of the tyre that one in a spare's slot is the spare of, "" for others.
func SpareOf(s Slot) Slot {
	if s == SpareFront || s == SpareRear {
		return tyreOf[s]
	}
	return ""
}

// maxChain is how many things one thing may need, each for the one before.
const maxChain = 3

// Bringing is the parts that provide a tag on a bike, the one that does first and
// what it needs after it; nil when the shelf has none. Of several ways the one whose
// prices are known and lowest is taken, then the shortest.
func (s Shelf) Bringing(b *Built, tag string) []*Part { return s.bringing(b, tag, maxChain) }

func (s Shelf) bringing(b *Built, tag string, most int) []*Part {
	var best []*Part
	for _, p := range s {
		if !slices.Contains(p.Provides, tag) || !b.sizeGoes(p) || p.Fitment != nil && p.Fitment.Verdict == FitsNot {
			continue
		}
		way := []*Part{p}
		for _, need := range b.lacks(p) {
			var more []*Part
			if most > 1 {
				more = s.bringing(b, need, most-1)
			}
			if more == nil {
				way = nil
				break
			}
			way = append(way, more...)
		}
		if way != nil && (best == nil || dearness(way, best) < 0) {
			best = way
		}
	}
	return best
}

// dearness compares two ways: known prices before unknown, then the lower, then the
// shorter.
func dearness(a, b []*Part) int {
	sum := func(way []*Part) (minor int64, known int) {
		for _, p := range way {
			if !p.Price.Known() {
				known = 1
				continue
			}
			minor += p.Price.Minor()
		}
		return minor, known
	}
	aSum, aUnknown := sum(a)
	bSum, bUnknown := sum(b)
	return cmp.Or(cmp.Compare(aUnknown, bUnknown), cmp.Compare(aSum, bSum), cmp.Compare(len(a), len(b)))
}

// CouldFit reports whether a part goes on a bike, by itself or with others of the
// shelf that bring what it needs.
func (s Shelf) CouldFit(b *Built, p *Part) bool {
	o, off := b.off(p)
	if !b.sizeGoes(p) || off && len(o.Lacks) == 0 {
		return false
	}
	return !off || !slices.ContainsFunc(o.Lacks, func(tag string) bool { return s.Bringing(b, tag) == nil })
}
