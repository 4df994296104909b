package garage

import (
	"fmt"
	"slices"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// Packed is a thing in a file, with what happened to it.
type Packed struct {
	Thing
	Events []Event `json:"events,omitempty"` // what holds, the oldest first
}

// The bikes of a file: its own, and any other.
const (
	ThisBike    = "this"
	AnotherBike = "another"
)

// Pack is some things as they go into a file of a bike of the garage, or of a plan for it.
func (g *Garage) Pack(ids []string, bike string) []Packed {
	var list []Packed
	for _, id := range ids {
		k, ok := g.things[id]
		if !ok || len(k.chain) == 0 {
			continue
		}
		p := Packed{Thing: k.Thing}
		for _, e := range k.chain {
			packed := *e
			packed.Thing = ""
			switch {
			case e.Bike == "":
			case e.Bike == bike:
				packed.Bike = ThisBike
			default:
				packed.Bike = AnotherBike
			}
			p.Events = append(p.Events, packed)
		}
		list = append(list, p)
	}
	return list
}

// OnBike are the ids of the things that are on a bike.
func (g *Garage) OnBike(bike string) []string {
	var ids []string
	for _, h := range g.All() {
		if h.State == On && h.Bike == bike {
			ids = append(ids, h.ID)
		}
	}
	return ids
}

// LeftBike are the things that were on a bike and are on another, or lent out, by now: each leaves a gap.
func (g *Garage) LeftBike(bike string) []Held {
	var list []Held
	for _, id := range g.order {
		k := g.things[id]
		now := k.place()
		if now.State != Lent && (now.State != On || now.Bike == bike) {
			continue
		}
		moves := slices.DeleteFunc(slices.Clone(k.chain), func(e *Event) bool { return e.To == "" })
		if n := len(moves); n > 1 && moves[n-2].To == On && moves[n-2].Bike == bike {
			list = append(list, Held{k.Thing, now})
		}
	}
	return list
}

// CameFrom is the name of the bike that a thing was on just before the one that it is on, "" for none.
func (g *Garage) CameFrom(id string) string {
	k, ok := g.things[id]
	if !ok {
		return ""
	}
	moves := slices.DeleteFunc(slices.Clone(k.chain), func(e *Event) bool { return e.To == "" })
	if n := len(moves); n > 1 && moves[n-1].To == On && moves[n-2].To == On && moves[n-2].Bike != moves[n-1].Bike {
		return bikeName(g.Bikes, moves[n-2].Bike)
	}
	return ""
}

// OfPlan are the ids of the things that a plan's lines are.
func (g *Garage) OfPlan(p *plan.Plan) []string {
	var ids []string
	for i := range p.Lines {
		if id := p.Lines[i].Thing; id != "" && g.things[id] != nil && !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	return ids
}

// Bounds of a file, above any real one's.
const (
	maxPacked = 1000
	maxEvents = 300 // of a thing
	maxAll    = 5000
)

// ValidatePacked notes what is wrong with the things of a file.
func ValidatePacked(list []Packed) []entry.Problem {
	v := new(entry.Problems)
	v.Few("things", len(list), maxPacked)
	seen, all := map[string]bool{}, 0
	for i := range list {
		at := "things" + entry.At(i)
		p := &list[i]
		v.That(!seen[p.ID], at+".id", "stands there twice")
		seen[p.ID] = true
		for _, problem := range p.Validate() {
			v.That(false, at+"."+problem.Path, "%s", problem.What)
		}
		v.Few(at+".events", len(p.Events), maxEvents)
		all += len(p.Events)
		for j := range p.Events {
			e := &p.Events[j]
			for _, problem := range e.Validate() {
				v.That(false, at+".events"+entry.At(j)+"."+problem.Path, "%s", problem.What)
			}
			v.That(e.Bike == "" || e.Bike == ThisBike || e.Bike == AnotherBike, at+".events"+entry.At(j)+".bike", "is neither %q nor %q", ThisBike, AnotherBike)
			v.That(e.Of == "" && e.Thing == "", at+".events"+entry.At(j), "names another")
		}
	}
	v.Few("things", all, maxAll)
	return v.List
}

// Without are packed things less what is nobody else's: what they cost and took.
func Without(list []Packed) []Packed {
	bare := slices.Clone(list)
	for i := range bare {
		p := &bare[i]
		p.Cost, p.Workshop, p.By = money.Amount{}, money.Amount{}, ""
		part := *p.Part
		part.Price = money.Amount{}
		p.Part = &part
		p.Events = slices.Clone(p.Events)
		for j := range p.Events {
			p.Events[j].Money, p.Events[j].Whom = money.Amount{}, ""
		}
	}
	return bare
}

// Unpack makes things of a file new ones of a garage, by an act: their ids by those that they had, and what happened
// to them, on this bike under [ThisBike]. What was on another is as if it lay at home then.
func Unpack(list []Packed, act string) (put []Thing, events []Event, ids map[string]string) {
	ids = map[string]string{}
	n := 0
	for i, p := range list {
		t := p.Thing
		t.ID = DerivedID(act, 5000+i)
		ids[p.ID] = t.ID
		put = append(put, t)
		at := Event{}
		for _, e := range p.Events {
			if e.Bike == AnotherBike {
				e.To, e.Bike, e.Loadout = Home, "", ""
				e.At = unit.Length{}
			}
			if e.To != "" && e.To == at.To && e.Bike == at.Bike && e.Loadout == at.Loadout || at.To.Gone() && e.To != "" && e.To != Home {
				continue
			}
			if e.To != "" {
				at = e
			}
			e.Thing, e.Act, e.ID = t.ID, act, DerivedID(act, 20000+n)
			n++
			events = append(events, e)
		}
	}
	return put, events, ids
}

// AtHome are events by which the same things just lie at home, where their places are taken.
func AtHome(put []Thing, act, day string) []Event {
	events := make([]Event, len(put))
	for i, t := range put {
		events[i] = Event{ID: DerivedID(act, 40000+i), Act: act, Thing: t.ID, To: Home, Day: day, Note: fmt.Sprintf("came in a file on %s", day)}
	}
	return events
}
