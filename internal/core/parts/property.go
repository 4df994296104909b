package parts

import (
	"cmp"
	"fmt"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/sheet"
)

// A Property is one thing that parts of some kinds have: how it is called in a document,
// how it is asked for, and what of it is believed. It is the only place that says so: the
// form of a part, its validation, the schema and docs/kinds.md walk the same rows.
type Property struct {
	Key, Label, Unit string
	Min, Max         float64 // in Unit, of a number
	Help             string

	Options func() []entry.Option // of a word, or of words
	Moves   Figure                // figure of the bike that its number moves, "" for none
	By      Op                    // how it moves it
	Usual   Usual                 // of such parts
	Vital   bool                  // a part of which nobody has said it is unknown there, not without

	blank func() Value
	copy  func(Value) Value
}

// Value is what is known of a property: a quantity, a count, a word or several, a yes or a
// no, a tyre's code, what a guard covers.
type Value interface{ entry.Entry }

// Usual is what a number usually is, give or take half of a band, in its property's unit;
// the zero Usual is none. It stands in for a number that nobody has said.
type Usual struct {
	Value, Half float64
	Origin      sheet.Origin
}

// Known reports whether there is one.
func (u Usual) Known() bool { return u.Origin != "" }

// in is it in words.
func (u Usual) in(symbol string) string {
	return fmt.Sprintf("Usually %.3g %s to %.3g %s.", u.Value-u.Half, symbol, u.Value+u.Half, symbol)
}

// row is anything that stands for a row: a property, or one as a kind asks for it.
type row interface{ row() *Property }

func (p *Property) row() *Property { return p }

// Blank is a value of it that is not known.
func (p *Property) Blank() Value { return p.blank() }

// As is the property as parts of one kind are asked for it.
func (p *Property) As(label, help string) *Property {
	copied := *p
	copied.Label, copied.Help = label, help
	return &copied
}

// Within is the property with other bounds.
func (p *Property) Within(least, most float64) *Property {
	copied := *p
	copied.Min, copied.Max = least, most
	return &copied
}

// Moving is the property of parts that move a figure by it.
func (p *Property) Moving(f Figure, by Op) *Property {
	copied := *p
	copied.Moves, copied.By = f, by
	return &copied
}

// Usually is the property with what is usual to a kind, from memory.
func (p *Property) Usually(value, half float64) *Property {
	copied := *p
	copied.Usual = Usual{value, half, sheet.Memory}
	return &copied
}

// OrUnknown is the property of parts that are not without: one of which nobody has said it
// is unknown.
func (p *Property) OrUnknown() *Property {
	copied := *p
	copied.Vital = true
	return &copied
}

// asks is a list of rows.
func asks(rows ...row) []Property {
	list := make([]Property, len(rows))
	for i, r := range rows {
		list[i] = *r.row()
	}
	return list
}

// Prop is a property whose value is a T: reading it needs no more than the part.
type Prop[T any] struct{ *Property }

// prop makes a property of a number or a text.
func prop[T any, P interface {
	*T
	Value
}](key, label, unit string, least, most float64, help string) Prop[T] {
	return Prop[T]{&Property{
		Key: key, Label: label, Unit: unit, Min: least, Max: most, Help: help,
		blank: func() Value { return P(new(T)) },
		copy:  func(v Value) Value { c := *v.(P); return P(&c) },
	}}
}

// Among is the property of words out of a closed list.
func (k Prop[T]) Among(options func() []entry.Option) Prop[T] {
	k.Options = options
	return k
}

// In is what a part says of it, the zero T where it says nothing.
func (k Prop[T]) In(p *Part) T { return k.of(p.Has) }

func (k Prop[T]) of(h Properties) (t T) {
	if v := h.of(k.Key); v != nil {
		t = *any(v).(*T)
	}
	return t
}

// Put sets it; the part as it was handed to others stays as it is.
func (k Prop[T]) Put(p *Part, t T) {
	v := k.blank()
	*any(v).(*T) = t
	p.Has.put(k.Key, v)
}

// Choice is a property whose value is a word of a closed list.
type Choice[S ~string] struct{ *Property }

func choice[S ~string](key, label string, options func() []entry.Option) Choice[S] {
	return Choice[S]{prop[entry.Word](key, label, "", 0, 0, "").Among(options).Property}
}

// In is what a part says of it, "" where it says nothing.
func (k Choice[S]) In(p *Part) S { return k.of(p.Has) }

func (k Choice[S]) of(h Properties) S { return S(Prop[entry.Word](k).of(h)) }

// Put sets it.
func (k Choice[S]) Put(p *Part, word S) { Prop[entry.Word](k).Put(p, entry.Word(word)) }

// YesNo is a property that parts have or have not.
type YesNo struct{ Prop[entry.Said] }

func yesNo(key, label string) YesNo { return YesNo{prop[entry.Said](key, label, "", 0, 0, "")} }

// Yes reports whether somebody has said yes.
func (k YesNo) Yes(p *Part) bool { return k.yes(p.Has) }

func (k YesNo) yes(h Properties) bool { return k.of(h) == entry.Yes }

// Properties are what is known of a part beyond its name, price and mass, in the order of
// the table. Those of two parts may be one; setting one makes them two.
type Properties struct {
	held []held

	// What they come to together is asked for again and again; it is looked at once.
	tyre    *Tyre
	filling *Filling
	bag     *Bag
}

type held struct {
	key   string
	value Value
	moves bool // parts of some kind move a figure by it
}

// IsZero reports that nothing is known.
func (h Properties) IsZero() bool { return len(h.held) == 0 }

// of is the value of a property, nil where nothing is known of it.
func (h Properties) of(key string) Value {
	for i := range h.held {
		if h.held[i].key == key {
			return h.held[i].value
		}
	}
	return nil
}

// put sets a property in a list of its own; one that is not known is taken out.
func (h *Properties) put(key string, v Value) {
	list := slices.DeleteFunc(slices.Clone(h.held), func(was held) bool { return was.key == key })
	if v.Known() {
		list = append(list, held{key, v, moving[key]})
	}
	*h = holding(list)
}

// holding are properties in their order, with what they come to.
func holding(list []held) Properties {
	if len(list) == 0 {
		return Properties{}
	}
	slices.SortStableFunc(list, func(a, b held) int { return cmp.Compare(order[a.key], order[b.key]) })
	h := Properties{held: list}
	h.tyre, h.filling, h.bag = tyreSaid(h), fillingSaid(h), bagSaid(h)
	return h
}

// any reports whether something is known of one of the properties.
func (h Properties) any(rows ...row) bool {
	for _, r := range rows {
		if h.of(r.row().Key) != nil {
			return true
		}
	}
	return false
}

// Usually is what a number of such a part usually is, none where its kind does not say.
func (p *Part) Usually(of row) Usual {
	if row := p.Slot.row(of.row().Key); row != nil {
		return row.Usual
	}
	return Usual{}
}

// Says are the numbers with a unit that are known of a part, in the order in which its kind
// asks for them.
func (p *Part) Says() []entry.Field {
	var list []entry.Field
	kind, _ := KindOf(p.Slot)
	for i := range kind.Asks {
		row := &kind.Asks[i]
		if v := p.Has.of(row.Key); v != nil && row.Unit != "" {
			list = append(list, row.field(v))
		}
	}
	return list
}

// Say enters a property of a part by its key, as it is typed: a bare number is in the
// property's own unit.
func (p *Part) Say(key, text string) error {
	row := p.Slot.row(key)
	if row == nil {
		return fmt.Errorf("parts of %q have no %s", p.Slot, key)
	}
	v := row.blank()
	if err := v.Enter(text, row.Unit); err != nil {
		return err
	}
	p.Has.put(key, v)
	return nil
}
