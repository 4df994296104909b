package garage

import (
	"cmp"
	"slices"
	"strings"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// Offered are things that lie at home as parts to be tried, under ids of their own.
func Offered(things []Held) []*parts.Part {
	var list []*parts.Part
	for _, h := range things {
		if h.State != Home {
			continue
		}
		p := plan.OfThing(h.Part, h.ID)
		p.Note = strings.TrimSpace("Yours, at home: costs its fitting. " + p.Note)
		if p.Price.Known() {
			p.Price = money.New(0, p.Price.Code())
		}
		list = append(list, p)
	}
	return list
}

// Untaken are those of what is offered that a plan has in no line yet.
func Untaken(offered []*parts.Part, lines []plan.Line) []*parts.Part {
	taken := map[string]bool{}
	for i := range lines {
		taken[lines[i].Thing] = lines[i].Thing != ""
	}
	return slices.DeleteFunc(slices.Clone(offered), func(p *parts.Part) bool {
		id, _ := plan.ThingOf(p)
		return taken[id]
	})
}

// asPart is the part of a thing by its own id, whatever a plan offers it under.
func asPart(p, was *parts.Part) *parts.Part {
	if _, ok := plan.ThingOf(p); !ok || was == nil {
		return p
	}
	own := *p
	own.ID, own.Price, own.Note = was.ID, was.Price, was.Note
	return &own
}

// News is one thing of which a plan's lines say something else than is so.
type News struct {
	Held
	Line int       // of the plan, −1 for none
	Then plan.Line // as it would be
}

// Says tells it in words, by the names of bikes.
func (n News) Says(bikes map[string]Bike) string {
	words := n.Name() + " is " + n.Place.Words(bikes)
	if n.Line >= 0 && n.State == On && n.Then.Decision == plan.OnAnother {
		words += ": it leaves a gap here"
	}
	return words
}

// Differs lists the things of which a plan's lines say something else than is so: what has gone elsewhere, and
// what is on its bike and in no line of it.
func Differs(things []Held, p *plan.Plan) []News {
	if p.Bike == nil || p.Garage == "" {
		return nil
	}
	var list []News
	claimed := map[string]bool{}
	byID := make(map[string]*Held, len(things))
	for i := range things {
		byID[things[i].ID] = &things[i]
	}
	for i := range p.Lines {
		claimed[p.Lines[i].Thing] = p.Lines[i].Thing != ""
	}
	for i := range p.Lines {
		l := &p.Lines[i]
		if !IsReal(l) {
			continue
		}
		h := byID[l.Thing]
		if l.Thing == "" {
			m, ok := match(things, l, p.Garage, claimed)
			if !ok {
				continue
			}
			h, claimed[m.ID] = &m, true
		}
		if h == nil { // of another house, or deleted: the line is all there is
			continue
		}
		if then := stands(*l, h, p.Garage); then != *l {
			list = append(list, News{*h, i, then})
		}
	}
	for _, h := range things {
		if h.State != On || h.Bike != p.Garage || claimed[h.ID] {
			continue
		}
		if _, err := p.Loadout(h.Loadout); h.Loadout != "" && err != nil {
			continue
		}
		list = append(list, unplanned(p, h))
	}
	return list
}

// stands is a line as it is once its thing's place is taken over; the same line where they agree.
func stands(l plan.Line, h *Held, bike string) plan.Line {
	then := l
	switch {
	case h.State == On && h.Bike == bike:
		if l.Decision != plan.ComesOff {
			then.Decision = plan.OnTheBike
		}
		then.Loadout = h.Loadout
	case h.State == On:
		if l.Decision == plan.OnTheBike || l.Decision == plan.ComesOff {
			then.Decision = plan.OnAnother
		}
	case h.State == Home:
		switch l.Decision {
		case plan.Ordered:
			then.Decision = plan.Owned
		case plan.OnTheBike, plan.ComesOff, plan.OnAnother, plan.LentOut, plan.Sold, plan.SentBack, plan.WornOut:
			then.Decision = plan.AtHome
		}
	case h.State == Nowhere:
	case h.State == Coming: // a line that waits beside another goes on waiting
		if l.Standing() == plan.In {
			then.Decision = plan.Ordered
		}
	default:
		then.Decision = h.State.decision()
	}
	if h.Back.Known() && l.Source != plan.Had { // it comes back to the ledger that has what it cost
		then.Back = h.Back
	}
	if then != l && then.Thing == "" {
		then.Thing = h.ID
	}
	return then
}

// unplanned is a thing on a plan's bike that is in no line of it, as one: in that of the same part where it is planned,
// and else as what comes off where the plan has something else in its place.
func unplanned(p *plan.Plan, h Held) News {
	then := plan.Line{Kind: plan.PartLine, Part: plan.OfThing(h.Part, h.ID), Thing: h.ID, Loadout: h.Loadout, Need: plan.Needed, Source: plan.Had, Decision: plan.OnTheBike}
	for i, l := range p.Lines {
		if l.Part != nil && l.Thing == "" && l.Standing() == plan.In && l.Part.ID == h.Part.ID && l.Part.Slot == h.Part.Slot && l.Loadout == h.Loadout {
			if l.Thing = h.ID; h.For != p.Garage {
				l.Source = plan.Had
			}
			return News{h, i, stands(l, &h, p.Garage)}
		}
	}
	return News{h, -1, roomFor(p, then)}
}

// Taken is a plan with its lines as the things are.
func Taken(p *plan.Plan, news []News) *plan.Plan {
	changed := *p
	changed.Lines = slices.Clone(p.Lines)
	comes := func(n News) bool { return n.Line >= 0 && n.Then.Decision == plan.OnTheBike }
	for _, n := range news {
		if comes(n) { // its place is looked for below
			changed.Lines[n.Line].Decision = plan.AtHome
		} else if n.Line >= 0 {
			changed.Lines[n.Line] = n.Then
		}
	}
	for _, n := range news { // what has gone has made room by now
		switch {
		case comes(n):
			changed.Lines[n.Line] = roomFor(&changed, n.Then)
		case n.Line < 0:
			if again := unplanned(&changed, n.Held); again.Line >= 0 {
				changed.Lines[again.Line] = again.Then
			} else {
				changed.Lines = append(changed.Lines, again.Then)
			}
		}
	}
	return &changed
}

// roomFor is a line of what is on the bike; where a plan has something else in its place, it comes off for that.
func roomFor(p *plan.Plan, l plan.Line) plan.Line {
	if !p.CanStay(plan.Choice{Slot: l.Part.Slot, Part: l.Part, Loadout: l.Loadout}) {
		l.Decision = plan.ComesOff
	}
	return l
}

// Standing is a plan for a machine with what is on its bike now, each paid for already.
func Standing(p *plan.Plan, things []Held) *plan.Plan { return Taken(p, Differs(things, p)) }

// Sorted puts things into an order to be read: at home first, then by bike, by what they are called.
func Sorted(things []Held) []Held {
	list := slices.Clone(things)
	rank := func(s State) int {
		at := 0
		for at < len(states) && states[at].state != s {
			at++
		}
		return at
	}
	slices.SortStableFunc(list, func(a, b Held) int {
		return cmp.Or(cmp.Compare(rank(a.State), rank(b.State)), strings.Compare(a.Bike, b.Bike), strings.Compare(a.Name(), b.Name()))
	})
	return list
}
