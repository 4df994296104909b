package plan

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

// Alone is a slot whose standard part its rider leaves alone on purpose, and why.
type Alone struct {
	Slot parts.Slot `json:"slot"`
	Why  string     `json:"why"`
	On   string     `json:"on,omitempty" is:"date"`
}

// LeftAlone finds what is left alone in a slot, nil for nothing.
func (p *Plan) LeftAlone(slot parts.Slot) *Alone {
	if at := slices.IndexFunc(p.Alone, func(l Alone) bool { return l.Slot == slot }); at >= 0 {
		return &p.Alone[at]
	}
	return nil
}

// Leaving is the plan with a slot left alone; without a reason it is not any more.
func (p *Plan) Leaving(l Alone) *Plan {
	changed := *p
	changed.Alone = slices.DeleteFunc(slices.Clone(p.Alone), func(o Alone) bool { return o.Slot == l.Slot })
	if l.Why != "" {
		changed.Alone = append(changed.Alone, l)
	}
	slices.SortFunc(changed.Alone, func(a, b Alone) int { return strings.Compare(string(a.Slot), string(b.Slot)) })
	return &changed
}

func (p *Plan) validateAlone(v *entry.Problems) {
	v.Few("left_alone", len(p.Alone), len(parts.Kinds()))
	for i, l := range p.Alone {
		path := "left_alone" + entry.At(i)
		_, known := parts.KindOf(l.Slot)
		v.That(known, path+".slot", "%q is no kind of part", l.Slot)
		v.That(slices.IndexFunc(p.Alone, func(o Alone) bool { return o.Slot == l.Slot }) == i, path, "%q stands there twice", l.Slot)
		v.Name(path+".why", l.Why)
		v.Date(path+".on", l.On)
	}
}
