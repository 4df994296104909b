package parts

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
)

// Draft is a part while its form is filled in: all that a part of its slot can have,
// known or not. Whatever is left empty stays unknown, and a figure that rests on it
// says so.
type Draft struct {
	Part
	kind    *Kind
	values  []Value      // by the order of kind.Asks
	gives   []entry.Said // by the order of TagsBy
	fitment Fitment
}

// DraftOf is the form of a part as it is.
func DraftOf(p *Part) *Draft {
	kind, _ := KindOf(p.Slot)
	d := &Draft{Part: *p, kind: kind, values: make([]Value, len(kind.Asks))}
	d.Provides, d.Needs, d.Excludes = slices.Clone(p.Provides), slices.Clone(p.Needs), slices.Clone(p.Excludes)
	if p.Fitment != nil {
		d.fitment = *p.Fitment
	}
	for _, tag := range TagsBy(p.Slot) {
		said := entry.Said(0)
		switch {
		case slices.Contains(p.Provides, tag.Value):
			said = entry.Yes
		case slices.Contains(p.Without, tag.Value) || p.ID != "" && !p.Told():
			said = entry.No
		}
		d.gives = append(d.gives, said)
	}
	for i := range kind.Asks {
		row := &kind.Asks[i]
		if v := p.Has.of(row.Key); v != nil {
			d.values[i] = row.copy(v)
		} else {
			d.values[i] = row.blank()
		}
	}
	return d
}

// Done is the part that the form describes. What its kind does not ask stays as it was.
func (d *Draft) Done() *Part {
	p := d.Part
	for i := range d.kind.Asks {
		p.Has.put(d.kind.Asks[i].Key, d.values[i])
	}
	by := TagsBy(d.Slot)
	p.Provides = slices.DeleteFunc(slices.Clone(d.Provides), func(tag string) bool { return entry.Among(by, tag) })
	p.Without = nil
	for i, tag := range by {
		switch d.gives[i] {
		case entry.Yes:
			p.Provides = append(p.Provides, tag.Value)
		case entry.No:
			if p.Told() { // of another nothing is taken for granted
				p.Without = append(p.Without, tag.Value)
			}
		}
	}
	p.Fitment = nil
	if d.fitment != (Fitment{}) {
		f := d.fitment
		p.Fitment = &f
	}
	return &p
}

// Asked is a group of what a form asks, under a heading.
type Asked struct {
	Name     string
	Fields   []entry.Field
	Picks    []entry.Pick
	Texts    []entry.Text
	Severals []entry.Several
}

// Covers are the places that it guards, for the form to change; nil where such parts guard
// none.
func (d *Draft) Covers() *[]Cover {
	for _, v := range d.values {
		if c, ok := v.(*Covers); ok {
			return (*[]Cover)(c)
		}
	}
	return nil
}

// Asks lists all that the form asks of a part of its slot. A help says how one finds a
// thing out, and what stays unknown without it.
func (d *Draft) Asks() []Asked {
	mass, fit := d.fitting(&d.fitment)
	came := strings.HasPrefix(d.ID, StandardPrefix)
	if came { // it replaces nothing
		mass = mass[:1]
	}
	list := []Asked{{Name: "Mass", Fields: mass}}
	own := Asked{Name: "As a " + strings.ToLower(d.kind.Name)}
	for i := range d.kind.Asks {
		own.add(&d.kind.Asks[i], d.values[i])
	}
	for i, tag := range TagsBy(d.Slot) {
		ask := entry.SaidOf("provides."+tag.Value, "It brings "+tag.Name, &d.gives[i])
		if d.usuallyGives(tag.Value) {
			ask.Unsaid = "Not said: such parts do"
		}
		own.Picks = append(own.Picks, ask)
	}
	if len(own.Fields)+len(own.Picks)+len(own.Texts)+len(own.Severals) > 0 {
		list = append(list, own)
	}
	if came { // and it goes on
		return list
	}
	return append(list, d.sold(), Asked{
		Name:  "Does it go on?",
		Picks: []entry.Pick{entry.PickOf("fit", "As far as you know", &d.fitment.Verdict, FitVerdicts()...), entry.SaidOf("blind", "A torque wrench cannot get at its fasteners", &d.fitment.Blind)},
		Texts: []entry.Text{
			{Key: "fit_work", Label: "Work it takes", Help: "Trim, drill, a longer hose; another year's mount rubs.", Words: &d.fitment.Work},
			{Key: "fit_tools", Label: "Tools it takes", Words: &d.fitment.Tools},
			{Key: "fit_ask", Label: "Ask whom, what", Help: "While nobody knows.", Words: &d.fitment.Ask},
			{Key: "fit_reason", Label: "Why it does not", Words: &d.fitment.Reason},
			{Key: "made_family", Label: "Made for", Help: "The kind of bike, as part lists call it.", Words: &d.Made.Family},
			{Key: "made_variant", Label: "… its variant", Words: &d.Made.Variant},
		},
		Fields: fit,
		Severals: []entry.Several{
			entry.SeveralOf("needs", "It needs", "What is not there keeps it off the bike.", &d.Needs, also(needable(), d.Needs)),
			entry.SeveralOf("excludes", "It cannot be with", "", &d.Excludes, also(excludable, d.Excludes)),
		},
	})
}

// add asks for a property by what its value is.
func (a *Asked) add(row *Property, v Value) {
	switch v := v.(type) {
	case *Covers: // rows of their own
	case *entry.Word:
		a.Picks = append(a.Picks, entry.PickOf(row.Key, row.Label, v, row.Options()...))
	case *entry.Said:
		a.Picks = append(a.Picks, entry.SaidOf(row.Key, row.Label, v))
	case *entry.Words:
		a.Severals = append(a.Severals, entry.SeveralOf(row.Key, row.Label, row.Help, (*[]string)(v), row.Options()))
	case *entry.Line:
		a.Texts = append(a.Texts, entry.Text{Key: row.Key, Label: row.Label, Help: row.Help, Words: (*string)(v)})
	default:
		a.Fields = append(a.Fields, row.field(v))
	}
}

func (p *Property) field(v Value) entry.Field {
	return entry.Field{Key: p.Key, Label: p.Label, Unit: p.Unit, Min: p.Min, Max: p.Max, Help: p.help(), Entry: v}
}

// help is how one finds it out, and what is usual.
func (p *Property) help() string {
	if !p.Usual.Known() {
		return p.Help
	}
	return p.Help + " " + p.Usual.in(p.Unit)
}

// needable are tags that parts may need: what a bike or another part brings to hang on.
func needable() []entry.Option {
	var list []entry.Option
	for _, o := range KnownTags() {
		if slices.Contains([]string{
			"bar-22", "bar-28", "clamp-22", "clamp-28", "nav-place", "engine-bars", "rear-rack", "side-rack", "wide-pegs", "radiator", "oil-cooler", "chain-drive", "speedometer-pulse", "socket",
		}, o.Value) {
			list = append(list, o)
		}
	}
	for _, number := range []string{"520", "525", "428", "530"} {
		list = append(list, entry.Option{Value: "chain: " + number, Name: TagWords("chain: " + number)})
	}
	return list
}

// excludable are tags that two parts may want one place for.
var excludable = []entry.Option{
	{Value: "bar-ends", Name: TagWords("bar-ends")}, {Value: "wraps-cases", Name: TagWords("wraps-cases")}, {Value: "rear-rack", Name: TagWords("rear-rack")}, {Value: "side-rack", Name: TagWords("side-rack")},
}

// also are options with what is there beside them.
func also(options []entry.Option, have []string) []entry.Option {
	list := slices.Clone(options)
	for _, tag := range have {
		if !entry.Among(list, tag) {
			list = append(list, entry.Option{Value: tag, Name: TagWords(tag)})
		}
	}
	return list
}

// FoundBy is the one number by which what was found in a slot is known: a count, a code, a draw, a
// length; ok is false for slots whose parts are known by more.
func FoundBy(s Slot) (f entry.Field, ok bool) {
	if kind, known := KindOf(s); !known || kind.Found == "" {
		return f, false
	}
	return DraftOf(&Part{Slot: s}).Found(), true
}

// Found is that number of the form.
func (d *Draft) Found() entry.Field {
	for _, a := range d.Asks() {
		for _, f := range a.Fields {
			if f.Key == d.kind.Found {
				return f
			}
		}
	}
	return entry.Field{Entry: new(entry.Line)}
}
