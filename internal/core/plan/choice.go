package plan

import (
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

// Choice puts a part into a slot; a nil part goes back to standard.
type Choice struct {
	Slot     parts.Slot
	Part     *parts.Part
	Loadout  string   // that it is for; "" for all
	Need     Need     // "" keeps what the slot's line says, or Needed for a new line
	Decision Decision // "" is chosen; one that is not in leaves the bike as it is
	First    First    // what becomes of the part that has its place
}

// First is what becomes of the part whose place another takes.
type First string

// What may become of it; "" is home where it is paid for, undecided where nobody else has its
// sheet, and else out of the plan.
const (
	StaysHome First = "home" // beside it, its money in the total
	GoesOut   First = "out"  // of the plan, with its money
)

// Firsts lists them.
func Firsts() []entry.Option {
	return []entry.Option{entry.Opt(StaysHome, "it stays at home, its money counts"), entry.Opt(GoesOut, "it leaves the plan, with its money")}
}

// With is a copy of the plan with choices made. The original stays as it is.
func (p *Plan) With(choices ...Choice) *Plan {
	changed := *p
	changed.Lines = slices.Clone(p.Lines)
	for _, c := range choices {
		changed.choose(c)
	}
	return &changed
}

func (p *Plan) choose(c Choice) {
	line := Line{Kind: PartLine, Part: c.Part, Loadout: c.Loadout, Need: c.Need, Decision: c.Decision}
	if c.Part != nil { // what is noted about this part already comes along
		if at := slices.IndexFunc(p.Lines, func(l Line) bool {
			return l.Part != nil && l.Part.Slot == c.Slot && l.Part.ID == c.Part.ID && l.Loadout == c.Loadout
		}); at >= 0 {
			line.Amount, line.Source, line.Why, line.Hours = p.Lines[at].Amount, p.Lines[at].Source, p.Lines[at].Why, p.Lines[at].Hours
			if line.Need == "" {
				line.Need = p.Lines[at].Need
			}
			if p.Lines[at].Standing() != In || line.Standing() != In {
				p.Lines = slices.Delete(p.Lines, at, at+1)
			}
		}
	}
	at := p.lineIn(c.Slot, c.Loadout)
	if c.Part == nil {
		if at >= 0 && !p.aside(at, nil, c.First) {
			p.Lines = slices.Delete(p.Lines, at, at+1)
		}
		return
	}
	if line.Need == "" {
		line.Need = Needed
		if at >= 0 {
			line.Need = p.Lines[at].Need
		}
	}
	if at < 0 || line.Standing() != In {
		p.Lines = append(p.Lines, line)
		return
	}
	if p.aside(at, c.Part, c.First) {
		p.Lines = append(p.Lines, line)
		return
	}
	p.Lines[at] = line
}

// aside keeps the line of a part that another takes the place of, where it is to be kept;
// the same part again is no other.
func (p *Plan) aside(at int, by *parts.Part, first First) bool {
	line := &p.Lines[at]
	if by != nil && by.ID == line.Part.ID {
		return false
	}
	then, stays := line.Becomes(first)
	if stays {
		line.Decision = then
	}
	return stays
}

// Becomes is what a line is decided as when another part takes its place; stays is false where
// it leaves the plan.
func (l *Line) Becomes(first First) (then Decision, stays bool) {
	switch {
	case first == GoesOut:
		return "", false
	case first == StaysHome || l.Paid():
		return AtHome, true
	case l.Part.Own(): // nobody else has its sheet
		return Undecided, true
	}
	return "", false
}

// Displaced is the line whose place a choice takes, nil where it takes none, or only that of
// a part of the shelf that is no more than chosen.
func (p *Plan) Displaced(c Choice) *Line {
	if (&Line{Decision: c.Decision}).Standing() != In {
		return nil
	}
	at := p.lineIn(c.Slot, c.Loadout)
	if at < 0 || c.Part != nil && p.Lines[at].Part.ID == c.Part.ID {
		return nil
	}
	if _, stays := p.Lines[at].Becomes(""); !stays {
		return nil
	}
	return &p.Lines[at]
}

// Owned lists the parts of the plan that a rider has entered, each once.
func (p *Plan) Owned() []*parts.Part {
	var list []*parts.Part
	for _, l := range p.Lines {
		if l.Part != nil && l.Part.Own() && !slices.ContainsFunc(list, func(o *parts.Part) bool { return o.ID == l.Part.ID }) {
			list = append(list, l.Part)
		}
	}
	return list
}

// WithOwn is a shelf with the rider's own parts of the plan behind it.
func (p *Plan) WithOwn(s Shelf) Shelf { return append(s[:len(s):len(s)], p.Owned()...) }

// Renewed is the plan with a part's sheet as it is now wherever the plan holds it; held
// is false where it does not.
func (p *Plan) Renewed(part *parts.Part) (renewed *Plan, held bool) {
	changed := *p
	changed.Lines = slices.Clone(p.Lines)
	for i, l := range changed.Lines {
		if l.Part != nil && l.Part.ID == part.ID && l.Part.Slot == part.Slot {
			changed.Lines[i].Part, held = part, true
		}
	}
	return &changed, held
}

// Deciding is the plan with a part's sheet as it is now, decided as the choice says and from
// there.
func (p *Plan) Deciding(choice Choice, source Source) *Plan {
	part := choice.Part
	if choice.Decision == Chosen {
		choice.Decision = ""
	}
	if source == BoughtNew {
		source = ""
	}
	renewed, held := p.Renewed(part)
	if held { // it may be for another loadout now
		at := slices.IndexFunc(renewed.Lines, func(l Line) bool { return l.Part == part })
		renewed.Lines[at].Loadout = choice.Loadout
	}
	changed := renewed.With(choice)
	for i := range changed.Lines {
		if changed.Lines[i].Part == part {
			changed.Lines[i].Source = source
		}
	}
	return changed
}

// lineIn is the line whose part is in a slot for exactly this loadout, -1 for
// none.
func (p *Plan) lineIn(s parts.Slot, loadout string) int {
	return slices.IndexFunc(p.Lines, func(l Line) bool {
		return l.Part != nil && l.Part.Slot == s && l.Loadout == loadout && l.Standing() == In
	})
}

// Chosen is the part that the plan puts into a slot in a loadout, nil when the
// standard one stays.
func (p *Plan) Chosen(s parts.Slot, loadout string) *parts.Part {
	for _, scope := range [...]string{loadout, ""} {
		if at := p.lineIn(s, scope); at >= 0 {
			return p.Lines[at].Part
		}
	}
	return nil
}

// Scoped turns choices for the bike as it is in a loadout to the lines that
// decide there: a slot with a part of that loadout only is changed there only.
// The choices themselves stay as they are.
func (p *Plan) Scoped(choices []Choice, loadout string) []Choice {
	scoped := choices
	for i, c := range choices {
		if c.Loadout == "" && loadout != "" && p.lineIn(c.Slot, loadout) >= 0 {
			if &scoped[0] == &choices[0] {
				scoped = slices.Clone(choices)
			}
			scoped[i].Loadout = loadout
		}
	}
	return scoped
}
