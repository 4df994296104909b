package plan

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/sheet"
)

// Shelf is the parts that can be had, for advice that names one.
type Shelf []*parts.Part

// Unlisted is a sprocket or chain that is not on the shelf: the bike's standard
// one with another count, as heavy as it and with no price yet.
func Unlisted(b *Bike, slot parts.Slot, count int) *parts.Part {
	p := parts.Counted(slot, count)
	if p == nil {
		return nil
	}
	p.Origin, p.Note = sheet.Memory, "Not on the shelf: taken as heavy as the standard one, price unknown."
	if standard := b.StandardIn(slot); standard != nil {
		p.Mass = standard.Mass
	}
	return p
}

// Find is a part on the shelf, or one that is not listed, by its id; nil when
// there is none.
func (s Shelf) Find(b *Bike, slot parts.Slot, id string) *parts.Part {
	for _, p := range s {
		if p.Slot == slot && p.ID == id {
			return p
		}
	}
	number, unlisted := strings.CutPrefix(id, "any-"+string(slot)+"-")
	count, err := strconv.Atoi(number)
	if !unlisted || err != nil || b == nil {
		return nil
	}
	if least, most, ok := parts.CountOf(slot); !ok || count < least || count > most {
		return nil
	}
	return Unlisted(b, slot, count)
}

// maxChain is how many things one thing may need, each for the one before.
const maxChain = 3

// Bringing is the parts that provide a tag on a bike, the one that does first and
// what it needs after it; nil when the shelf has none. Of several ways the one whose
// prices are known and lowest is taken, then the shortest.
func (s Shelf) Bringing(b *Built, tag string) []*parts.Part { return s.bringing(b, tag, maxChain) }

func (s Shelf) bringing(b *Built, tag string, most int) []*parts.Part {
	var best []*parts.Part
	for _, p := range s {
		if !slices.Contains(p.Provides, tag) || !b.sizeGoes(p) || p.Fitment != nil && p.Fitment.Verdict == parts.FitsNot {
			continue
		}
		way := []*parts.Part{p}
		for _, need := range b.lacks(p) {
			var more []*parts.Part
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
func dearness(a, b []*parts.Part) int {
	sum := func(way []*parts.Part) (minor int64, known int) {
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
func (s Shelf) CouldFit(b *Built, p *parts.Part) bool {
	o, off := b.off(p)
	if !b.sizeGoes(p) || off && len(o.Lacks) == 0 {
		return false
	}
	return !off || !slices.ContainsFunc(o.Lacks, func(tag string) bool { return s.Bringing(b, tag) == nil })
}
