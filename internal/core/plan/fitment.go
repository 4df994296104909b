package plan

import (
	"slices"
	"strings"

	"valiantmule/internal/core/parts"
)

// IsFor reports whether a bike is of the kind that a part was made for: sure is false where
// its sheet does not say enough.
func (b *Bike) IsFor(m parts.Made) (is, sure bool) {
	is, sure = true, true
	same := func(want, have string) {
		if want != "" {
			is, sure = is && (have == "" || strings.EqualFold(want, have)), sure && have != ""
		}
	}
	same(m.Family, b.Family)
	same(m.Variant, b.Variant)
	if m.From > 0 || m.To > 0 {
		is = is && (b.Year == 0 || b.Year >= int(m.From) && (m.To == 0 || b.Year <= int(m.To)))
		sure = sure && b.Year > 0
	}
	return is, sure || !is
}

// Off is a part that the plan wants on the bike and that does not go on, or of which
// nobody knows. It is credited with nothing.
type Off struct {
	Part   *parts.Part
	Lacks  []string // tags that it needs and nothing provides
	Unsure bool     // nobody knows, so somebody has to ask
}

// off tells what keeps a part from going on a bike as built; ok is false when nothing
// does.
func (b *Built) off(p *parts.Part) (o Off, ok bool) {
	o.Part = p
	if f := p.Fitment; f != nil {
		switch f.Verdict {
		case parts.Fits, parts.FitsWithWork:
			return o, false
		case parts.FitsNot:
			return o, true
		case parts.FitUnknown:
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
func (b *Built) lacks(p *parts.Part) []string {
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

// FitKnown reports whether somebody knows that the line's part goes on: it is on, or
// somebody said, or its tags tell.
func (l *Line) FitKnown(b *Built) bool {
	if l.Part == nil || l.Decision == OnTheBike {
		return true
	}
	if f := l.Part.Fitment; f != nil && f.Verdict != "" {
		return f.Verdict != parts.FitUnknown
	}
	if _, sure := b.Bike.IsFor(l.Part.Made); !sure {
		return false
	}
	return !slices.ContainsFunc(b.Off, func(o Off) bool { return o.Part == l.Part && o.Unsure })
}

// Says tells whether a part goes on the bike as built, made for it and of its size, and why not or how far that is
// known; "" where it is plain.
func (b *Built) Says(p *parts.Part) (goes bool, why string) {
	is, sure := b.Bike.IsFor(p.Made)
	switch {
	case !b.Fits(p):
		return false, "what it needs is not there, or somebody found that it does not go on"
	case !b.sizeGoes(p):
		return false, "another size"
	case !is:
		return false, "made for another bike"
	case !sure:
		return true, "as far as its sheet and the bike's say"
	}
	return true, ""
}

// Goes reports whether a part goes on the bike as built: what it needs is there,
// nobody has found otherwise, and a tyre, tube or lock is of the rim's size. Clearance
// is another question.
func (b *Built) Goes(p *parts.Part) bool { return b.Fits(p) && b.sizeGoes(p) }

// Fits reports whether everything that a part needs is there, and nobody has found
// otherwise. Size and clearance are other questions.
func (b *Built) Fits(p *parts.Part) bool {
	_, off := b.off(p)
	return !off
}

// sizeGoes reports whether a part is of the size of the wheel that it is for, where
// both are known.
func (b *Built) sizeGoes(p *parts.Part) bool {
	tyreSlot, wheel := parts.TyreOf(p.Slot)
	if !wheel {
		return true
	}
	rim := b.Rim(tyreSlot)
	same := func(a, b float64) bool { return !(a > 0) || !(b > 0) || a == b }
	if t := p.Tyre(); t != nil && !same(t.Size.RimIn, rim.DiameterIn) {
		return false
	}
	f := p.Filling()
	if f == nil {
		return true
	}
	if f.Kind.HoldsAir() && b.WheelBuild(tyreSlot).Tubeless() {
		return false
	}
	return (!f.Rim.Known() || same(f.Rim.In("in"), rim.DiameterIn)) && (!f.RimWidth.Known() || same(f.RimWidth.In("in"), rim.WidthIn))
}
