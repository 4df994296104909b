package plan

import (
	"cmp"
	"slices"
	"strings"

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

// What may become of it; "" is beside the other where it is kept and there is room, on until the other is
// fitted where it is on, home where it is paid for, undecided where nobody else has its sheet, and else out of the plan.
const (
	StaysBeside First = "beside" // both are on
	StaysHome   First = "home"   // its money in the total
	GoesOut     First = "out"    // of the plan, with its money
)

// Firsts lists them.
func Firsts() []entry.Option {
	return []entry.Option{
		entry.Opt(StaysBeside, "both are on, beside each other"), entry.Opt(StaysHome, "it stays at home, its money counts"), entry.Opt(GoesOut, "it leaves the plan, with its money"),
	}
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
	same := -1
	if c.Part != nil {
		same = slices.IndexFunc(p.Lines, func(l Line) bool { return c.is(&l) })
	}
	line := c.line()
	if same >= 0 { // what is noted about this part already comes along
		was := p.Lines[same]
		if thing, ok := ThingOf(c.Part); ok && was.Thing == thing {
			line.Part = was.Part
		}
		line.Amount, line.Source, line.Why, line.Hours, line.Thing, line.Workshop, line.Swap, line.Supply = was.Amount, was.Source, was.Why, was.Hours, was.Thing, was.Workshop, was.Swap, was.Supply
		line.Need = cmp.Or(line.Need, was.Need)
		if line.Decision == OnTheBike {
			planned := line
			planned.Decision = was.Decision
			line = p.Fit(planned)
		}
		if was.Standing() == In && line.Standing() == In {
			p.Lines[same] = line
			return
		}
		p.Lines = slices.Delete(p.Lines, same, same+1)
	} else if line.Decision == OnTheBike {
		planned := line
		planned.Decision = ""
		line = p.Fit(planned)
	}
	at := -1 // where the first of those stood that leave
	for _, i := range slices.Backward(p.displacedBy(c)) {
		was := &p.Lines[i]
		line.Need = cmp.Or(line.Need, was.Need)
		then, stays := was.Becomes(c)
		if stays {
			was.Decision = then
			continue
		}
		p.Lines = slices.Delete(p.Lines, i, i+1)
		at = i
	}
	if c.Part == nil {
		return
	}
	line.Need = cmp.Or(line.Need, Needed)
	if at < 0 {
		at = len(p.Lines)
	}
	p.Lines = slices.Insert(p.Lines, at, line)
}

// line is what the choice puts into a plan that has nothing of it.
func (c *Choice) line() Line {
	line := Line{Kind: PartLine, Part: c.Part, Loadout: c.Loadout, Need: c.Need, Decision: c.Decision}
	if thing, ok := ThingOf(c.Part); ok {
		line.Thing, line.Source = thing, Had
	}
	return line
}

// is reports whether a line is of the part that the choice puts in, for the same loadout.
func (c *Choice) is(l *Line) bool {
	if l.Part == nil || l.Part.Slot != c.Slot || l.Loadout != c.Loadout {
		return false
	}
	thing, ok := ThingOf(c.Part)
	return l.Part.ID == c.Part.ID || ok && l.Thing == thing
}

// thingPrefix starts the ids of things of the rider's that are had already, as they are offered; behind
// that of a part that a rider has entered it says which.
const thingPrefix = "thing-"

// OfThing is a thing's part under an id of its own, by which it is offered beside the same part of the shelf.
func OfThing(part *parts.Part, thing string) *parts.Part {
	p := *part
	if p.ID = thingPrefix + strings.ToLower(thing); part.Own() {
		p.ID = parts.OwnPrefix + p.ID
	}
	return &p
}

// ThingOf is which thing of the rider's a part is that is offered as had already.
func ThingOf(p *parts.Part) (id string, ok bool) {
	if p == nil {
		return "", false
	}
	id, ok = strings.CutPrefix(strings.TrimPrefix(p.ID, parts.OwnPrefix), thingPrefix)
	return strings.ToUpper(id), ok
}

// inTheWay are the lines whose parts are in the places that a choice takes, by their index: all in a slot that it
// empties, and whatever fills one of those that its part does.
func (p *Plan) inTheWay(c Choice) (list []int) {
	if c.Part == nil {
		return p.linesIn(c.Slot, c.Loadout)
	}
	for slot := range c.Part.Fills() {
		for _, i := range p.linesIn(slot, c.Loadout) {
			if !c.is(&p.Lines[i]) && !slices.Contains(list, i) {
				list = append(list, i)
			}
		}
	}
	slices.Sort(list)
	return list
}

// CanStay reports whether there is room for a choice's part beside what is in its places.
func (p *Plan) CanStay(c Choice) bool {
	if c.Part == nil {
		return false
	}
	for slot := range c.Part.Fills() {
		if there := p.linesIn(slot, c.Loadout); len(there) >= slot.Room() {
			return false
		}
	}
	return true
}

// Stays reports whether what is in a choice's places stays on beside it. Where nobody has said and there is room,
// what is paid for or the rider's own stays, and any part without a kind of its own.
func (p *Plan) Stays(c Choice) bool {
	switch {
	case !p.CanStay(c):
		return false
	case c.First != "":
		return c.First == StaysBeside
	}
	return c.Slot == parts.OtherPart || c.Part.Own() || slices.ContainsFunc(p.inTheWay(c), func(i int) bool { return p.Lines[i].Paid() || p.Lines[i].Part.Own() })
}

// displacedBy are the lines whose place a choice takes, by their index; as many as there is too little room.
func (p *Plan) displacedBy(c Choice) []int {
	if (&Line{Decision: c.Decision}).Standing() != In || p.Stays(c) {
		return nil
	}
	if c.Part == nil {
		return p.inTheWay(c)
	}
	var list []int
	for slot := range c.Part.Fills() {
		there := slices.DeleteFunc(p.linesIn(slot, c.Loadout), func(i int) bool { return c.is(&p.Lines[i]) })
		if over := max(1, len(there)+1-slot.Room()); len(there) > 0 {
			for _, i := range there[max(0, len(there)-over):] {
				if !slices.Contains(list, i) {
					list = append(list, i)
				}
			}
		}
	}
	slices.Sort(list)
	return list
}

// Becomes is what a line is decided as when a choice takes its place; stays is false where
// it leaves the plan. What is on the bike is so until the other is fitted.
func (l *Line) Becomes(c Choice) (then Decision, stays bool) {
	switch {
	case l.Decision == OnTheBike && c.Decision != OnTheBike:
		return ComesOff, true
	case c.First == GoesOut && l.Decision != OnTheBike:
		return "", false
	case c.First == StaysHome || l.Paid():
		return AtHome, true
	case l.Part.Own(): // nobody else has its sheet
		return Undecided, true
	}
	return "", false
}

// Displaced are the lines whose place a choice takes and that stay in the plan; where it leaves them on
// beside it, those that it could take the place of.
func (p *Plan) Displaced(c Choice) []*Line {
	at := p.displacedBy(c)
	if p.Stays(c) {
		at = p.inTheWay(c)
	}
	var list []*Line
	for _, i := range at {
		if _, stays := p.Lines[i].Becomes(Choice{Decision: c.Decision}); stays {
			list = append(list, &p.Lines[i])
		}
	}
	return list
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

// place is where a part of a line is, in which of the loadouts.
type place struct {
	slot    parts.Slot
	loadout string
}

// Alternatives are the lines that are undecided, by what they are alternatives for: parts for one place in
// one loadout, none of which is left once that is filled. Any other line is by itself.
func (p *Plan) Alternatives() [][]*Line {
	var list [][]*Line
	at := map[place]int{}
	for i := range p.Lines {
		l := &p.Lines[i]
		if l.Standing() != Open || l.Costs() {
			continue
		}
		if l.Part == nil || l.Part.Slot.Room() > 1 {
			list = append(list, []*Line{l})
			continue
		}
		to := place{l.Part.Slot, l.Loadout}
		if len(p.linesIn(to.slot, to.loadout)) > 0 {
			continue
		}
		group, ok := at[to]
		if !ok {
			group, list = len(list), append(list, nil)
			at[to] = group
		}
		list[group] = append(list[group], l)
	}
	return list
}

// lineIn is the line whose part is in a slot for exactly this loadout, -1 for
// none.
func (p *Plan) lineIn(s parts.Slot, loadout string) int {
	return slices.IndexFunc(p.Lines, func(l Line) bool { return l.in(s, loadout) })
}

// linesIn are all of them, by their index.
func (p *Plan) linesIn(s parts.Slot, loadout string) (list []int) {
	for i := range p.Lines {
		if p.Lines[i].in(s, loadout) {
			list = append(list, i)
		}
	}
	return list
}

// in reports whether the line's part, or one out of its box, is in a slot for exactly this loadout.
func (l *Line) in(s parts.Slot, loadout string) bool {
	if l.Part == nil || l.Loadout != loadout || l.Standing() != In {
		return false
	}
	return l.Part.Slot == s || slices.ContainsFunc(l.Part.Kit, func(k parts.Part) bool { return k.Slot == s })
}

// Chosen is the part that the plan puts into a slot in a loadout, nil when the
// standard one stays.
func (p *Plan) Chosen(s parts.Slot, loadout string) *parts.Part {
	for _, scope := range [...]string{loadout, ""} {
		if at := p.lineIn(s, scope); at >= 0 {
			return p.Lines[at].Part.In(s)
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
