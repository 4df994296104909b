package parts

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
)

// Limits on what a part says, far above any real one.
const (
	maxEffects = 30
	maxGuarded = 60 // places, hazards and accesses of a guard
	maxKit     = 12 // parts in one box
)

// Validate notes what is wrong with a part at a place in a document: not what is missing,
// which is allowed, but what cannot be.
func (p *Part) Validate(v *entry.Problems, path string) {
	v.Name(path+".name", p.Name)
	v.ID(path+".id", p.ID, "a short id of a–z, 0–9 and -")
	kind, known := KindOf(p.Slot)
	v.That(known, path+".slot", "%q is not a slot", p.Slot)
	v.That(sheet.IsOrigin(p.Origin), path+".origin", "%q is not an origin", p.Origin)
	_, isPlace := load.SpotOf(p.Place)
	v.That(p.Place == "" || isPlace, path+".place", "%q is not a place on the bike", p.Place)
	v.Note(path+".note", p.Note)
	v.Short(path+".made.family", p.Made.Family)
	v.Short(path+".made.variant", p.Made.Variant)
	v.Tags(path+".provides", p.Provides)
	v.Tags(path+".without", p.Without)
	v.Tags(path+".needs", p.Needs)
	v.Tags(path+".excludes", p.Excludes)
	p.validateFitting(v, path)
	p.Sold.Validate(v, path+".sold")
	for i := range p.Has.held {
		p.validateHeld(v, path+".has.", kind, &p.Has.held[i])
	}
	p.together(v, path+".has.")
	v.Few(path+".kit", len(p.Kit), maxKit)
	fills := map[Slot]int{p.Slot: 1}
	for i := range p.Kit {
		at := path + ".kit" + entry.At(i)
		v.That(len(p.Kit[i].Kit) == 0, at+".kit", "a part out of a box is no box itself")
		fills[p.Kit[i].Slot]++
		v.That(fills[p.Kit[i].Slot] <= p.Kit[i].Slot.Room(), at+".slot", "the box has more for that place than there is room")
		v.That(!p.Kit[i].Price.Known(), at+".price", "is in the price of the box")
		piece := p.Kit[i]
		piece.Kit = nil
		piece.Validate(v, at)
	}
	v.Few(path+".effects", len(p.Effects), maxEffects)
	for i, e := range p.Effects {
		e.validate(v, fmt.Sprintf("%s.effects[%d]", path, i))
	}
}

// inDocument is where a document keeps the numbers that every part has.
var inDocument = map[string]string{"mass": ".mass", "replaces": ".replaces", "made_from": ".made.from", "made_to": ".made.to", "fit_hours": ".fitment.hours"}

// KeyAt is the key under which a form asks for what lies at a place below a part.
func KeyAt(at string) string {
	for key, path := range inDocument {
		if path == "."+at {
			return key
		}
	}
	key, _, _ := strings.Cut(strings.TrimPrefix(at, "has."), "[")
	return key
}

func (p *Part) validateFitting(v *entry.Problems, path string) {
	var f Fitment
	if p.Fitment != nil {
		f = *p.Fitment
		v.Pick(path+".fitment.verdict", string(f.Verdict), FitVerdicts())
		v.Short(path+".fitment.work", f.Work)
		v.Short(path+".fitment.tools", f.Tools)
		v.Short(path+".fitment.ask", f.Ask)
		v.Short(path+".fitment.reason", f.Reason)
	}
	mass, fit := p.fitting(&f)
	for _, field := range append(mass, fit...) {
		v.Check(path+inDocument[field.Key], field.Check())
	}
	v.That(p.Made.To == 0 || p.Made.From <= p.Made.To, path+".made.to", "is before the first year, %d", p.Made.From)
}

// validateHeld checks one property against its kind's row.
func (p *Part) validateHeld(v *entry.Problems, at string, kind *Kind, h *held) {
	row := kind.asks(h.key)
	if row == nil {
		v.That(false, at+h.key, "belongs to parts of other slots, not to %q", p.Slot)
		return
	}
	at += h.key
	switch is := h.value.(type) {
	case *Covers:
		is.check(v, at)
	case *entry.Word:
		v.Pick(at, string(*is), row.Options())
	case *entry.Words:
		v.Few(at, len(*is), maxGuarded)
		for i, word := range *is {
			v.Pick(fmt.Sprintf("%s[%d]", at, i), word, row.Options())
		}
	case *entry.Line:
		v.Short(at, string(*is))
	case *Code, *entry.Said:
	default:
		v.Check(at, entry.Field{Unit: row.Unit, Min: row.Min, Max: row.Max, Entry: h.value}.Check())
	}
}

// together checks what of a part's properties cannot be true together.
func (p *Part) together(v *entry.Problems, at string) {
	if t := p.Tyre(); t != nil {
		t.check(v, at)
	}
	if c := p.Carrier(); c != nil {
		c.check(v, at)
	}
	if s := p.Spring(); s != nil {
		s.check(v, at)
	}
	if a := p.Adjuster(); a != nil {
		a.Check(v, at+PreloadMax.Key)
	}
}

// validate checks an effect that is said by itself: those of a kind's own properties are
// that property's.
func (e Effect) validate(v *entry.Problems, at string) {
	i := e.Figure.Index()
	v.That(i >= 0, at+".figure", "%q is not a figure of the bike", e.Figure)
	v.That(e.Op == Set || e.Op == Add || e.Op == Scale, at+".op", "%q is not set, add or scale", e.Op)
	if i < 0 {
		return
	}
	info := figures[i]
	v.That(info.Free, at+".figure", "%s follows from a property of the part that moves it", e.Figure)
	v.That(!info.Free || !math.IsNaN(e.Value) && e.Value >= info.Min && e.Value <= info.Max, at+".value", "%g is outside %g–%g %s", e.Value, info.Min, info.Max, info.Unit)
}

// Aside is the part without those of its properties, numbers and effects that are refused,
// and what is wrong with them, in reverse order. What was believed when a document was
// written may not be now: it counts as not said.
func (p *Part) Aside(path string) (left *Part, aside []entry.Problem) {
	var v entry.Problems
	if p.Validate(&v, path); len(v.List) == 0 {
		return p, nil
	}
	less := *p
	less.Effects = slices.Clone(p.Effects)
	for _, problem := range slices.Backward(v.List) { // so that places in lists stay what they are
		if less.drop(strings.TrimPrefix(problem.Path, path+".")) {
			aside = append(aside, problem)
		}
	}
	return &less, aside
}

// drop makes a number, a property or an effect at a place below the part unsaid; it reports
// whether there was one.
func (p *Part) drop(at string) bool {
	list, index, _ := strings.Cut(at, "[")
	switch key, isProperty := strings.CutPrefix(list, "has."); {
	case isProperty:
		was := len(p.Has.held)
		p.Has.put(key, new(entry.Line)) // nothing, whatever it is
		return len(p.Has.held) < was
	case list == "effects":
		number, _, _ := strings.Cut(index, "]")
		i, err := strconv.Atoi(number)
		if err != nil || i >= len(p.Effects) {
			return false
		}
		if p.Effects = slices.Delete(p.Effects, i, i+1); len(p.Effects) == 0 {
			p.Effects = nil
		}
		return true
	}
	switch at {
	case "mass":
		p.Mass = unit.Mass{}
	case "replaces":
		p.Replaces = unit.Mass{}
	case "made.from":
		p.Made.From = 0
	case "made.to":
		p.Made.To = 0
	case "fitment.hours":
		f := *p.Fitment
		f.Hours = unit.Duration{}
		p.Fitment = &f
	default:
		return false
	}
	return true
}
