package garage

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/parts"
)

// ErrRefused says that something cannot be done to things as they are; see [Refusal].
var ErrRefused = errors.New("that cannot be done to the parts as they are")

// Refusal is an ErrRefused: what stands against it, and what helps.
type Refusal struct{ What, Do string }

func (e *Refusal) Error() string { return strings.TrimSpace(e.What + " " + e.Do) }

// Is makes it an ErrRefused.
func (e *Refusal) Is(target error) bool { return target == ErrRefused }

// Garage is all things of one rider with all that happened to them.
type Garage struct {
	Bikes map[string]Bike

	things map[string]*kept
	order  []string
	events map[string]*Event
	acts   map[string][]*Event // in their order
}

// kept is a thing with what holds of it: a chain of events, and those that were taken back and can be
// done again, the latest last.
type kept struct {
	Thing
	chain []*Event
	back  []taken
}

// taken is an event that another took back.
type taken struct{ event, by *Event }

// Held is a thing and where it is.
type Held struct {
	Thing
	Place
}

// New folds a garage from its things and their events in the order in which they were written.
// It fails where they cannot have happened so.
func New(things []Thing, events []Event, bikes map[string]Bike) (*Garage, error) {
	g := &Garage{Bikes: bikes, things: make(map[string]*kept, len(things)), events: make(map[string]*Event, len(events)), acts: map[string][]*Event{}}
	for _, t := range things {
		g.Add(t)
	}
	for i := range events {
		if err := g.apply(&events[i]); err != nil {
			return nil, fmt.Errorf("event %s: %w", events[i].ID, err)
		}
	}
	return g, nil
}

// Add puts a thing into the garage, or its sheet and money as they are now. Where it is follows
// from its events.
func (g *Garage) Add(t Thing) {
	if k, ok := g.things[t.ID]; ok {
		k.Thing = t
		return
	}
	g.things[t.ID] = &kept{Thing: t}
	g.order = append(g.order, t.ID)
}

// Held is a thing and where it is; ok is false where there is no such thing.
func (g *Garage) Held(id string) (h Held, ok bool) {
	k, ok := g.things[id]
	if !ok {
		return h, false
	}
	return Held{k.Thing, k.place()}, true
}

// All lists the things in the order in which they came.
func (g *Garage) All() []Held {
	list := make([]Held, len(g.order))
	for i, id := range g.order {
		list[i], _ = g.Held(id)
	}
	return list
}

// place follows from the latest event that moved it.
func (k *kept) place() Place {
	var p Place
	for _, e := range k.chain {
		if e.To == "" {
			continue
		}
		back := p.Back
		if e.Money.Known() && !e.Spends(p.State) {
			if back = e.Money; p.Back.Known() {
				if sum, err := p.Back.Plus(e.Money); err == nil {
					back = sum
				}
			}
		}
		p = Place{State: e.To, Bike: e.Bike, Loadout: e.Loadout, Since: e.Day, At: e.At, Whom: e.Whom, Until: e.Until, Back: back}
	}
	return p
}

// Do does an act: all of its events, in their order, or none. What is refused is a [Refusal] that
// names the things that are in each other's way.
func (g *Garage) Do(act []Event) error {
	for i := range act {
		if problems := act[i].Validate(); act[i].Of == "" && len(problems) > 0 {
			return problems[0]
		}
	}
	return g.attempt(act, func() error { return g.room(act) })
}

// attempt applies events, and takes all of it back where one fails or the check does.
func (g *Garage) attempt(act []Event, check func() error) error {
	was := map[string]kept{}
	for _, e := range act {
		if k, ok := g.things[e.Thing]; ok {
			was[e.Thing] = kept{k.Thing, slices.Clone(k.chain), slices.Clone(k.back)}
		}
	}
	err := func() error {
		for i := range act {
			if err := g.fits(&act[i]); err != nil {
				return err
			}
			if err := g.apply(&act[i]); err != nil {
				return err
			}
		}
		return check()
	}()
	if err == nil {
		return nil
	}
	for id, k := range was {
		*g.things[id] = k
	}
	for i := range act {
		delete(g.events, act[i].ID)
		g.acts[act[i].Act] = slices.DeleteFunc(g.acts[act[i].Act], func(e *Event) bool { return e == &act[i] })
		if len(g.acts[act[i].Act]) == 0 {
			delete(g.acts, act[i].Act)
		}
	}
	return err
}

// fits makes sure that an event can follow on what is so.
func (g *Garage) fits(e *Event) error {
	k, ok := g.things[e.Thing]
	if !ok {
		return entry.Problem{Path: "thing", What: "is none of this garage"}
	}
	if e.Of != "" || e.To == "" {
		return nil
	}
	is := k.place()
	switch {
	case is.State.Gone() && e.To != Home && e.To != is.State:
		return &Refusal{fmt.Sprintf("%s was %s on %s.", k.Name(), entry.NameOf(States(), string(is.State)), is.Since), "First it comes home again, bought back or as it is."}
	case e.To == is.State && e.Bike == is.Bike && e.Loadout == is.Loadout:
		return &Refusal{fmt.Sprintf("%s is %s already.", k.Name(), is.Words(g.Bikes)), ""}
	case e.To == On && g.Bikes[e.Bike].Name == "":
		return entry.Problem{Path: "bike", What: "is none of this garage"}
	case is.State == On && e.Off.Known() && is.At.Known() && e.Off.Base() < is.At.Base():
		return entry.Problem{Path: "off", What: fmt.Sprintf("%s is less than the %s at which %s went on", e.Off, is.At, k.Name())}
	}
	return nil
}

// apply notes an event. One that takes another back must be of the latest that holds of its thing.
func (g *Garage) apply(e *Event) error {
	k, ok := g.things[e.Thing]
	if !ok {
		return errors.New("no such thing")
	}
	if _, twice := g.events[e.ID]; twice {
		return errors.New("is there twice")
	}
	if e.Of == "" {
		k.chain, k.back = append(k.chain, e), nil
	} else if err := g.takeBack(k, e); err != nil {
		return err
	}
	g.events[e.ID] = e
	g.acts[e.Act] = append(g.acts[e.Act], e)
	return nil
}

// takeBack takes the latest event back, or does again what was taken back last.
func (g *Garage) takeBack(k *kept, e *Event) error {
	of, ok := g.events[e.Of]
	if !ok || of.Thing != e.Thing {
		return errors.New("takes back nothing that is there")
	}
	if of.Of == "" {
		last := len(k.chain) - 1
		if last < 0 || k.chain[last] != of {
			return g.since(k, of)
		}
		k.chain, k.back = k.chain[:last:last], append(k.back, taken{of, e})
		return nil
	}
	last := len(k.back) - 1
	if last < 0 || k.back[last].by != of {
		return g.since(k, of)
	}
	k.chain, k.back = append(k.chain, k.back[last].event), k.back[:last:last]
	return nil
}

// since is the refusal of what something else rests on.
func (g *Garage) since(k *kept, of *Event) error {
	says := "something else happened to " + k.Name()
	if n := len(k.chain); n > 0 && k.chain[n-1] != of {
		says = k.chain[n-1].words(k.Name(), g.Bikes)
	}
	return &Refusal{sinceThen + " " + says + ".", "Take that back first, or move the part to where it is."}
}

// spot is a place on a bike that has bounded room.
type spot struct {
	bike, loadout string
	slot          parts.Slot
}

// MakeRoom are the events by which what has the places that a thing needs on a bike goes home, as that goes on by an
// event: as many as there is too little room.
func (g *Garage) MakeRoom(e Event) []Event {
	k, ok := g.things[e.Thing]
	if !ok {
		return nil
	}
	var events []Event
	for slot := range k.Part.Fills() {
		room := slot.Room() - 1
		for _, h := range g.All() {
			if h.State != On || h.Bike != e.Bike || h.Loadout != e.Loadout || h.ID == e.Thing || h.Part.In(slot) == nil {
				continue
			}
			if room--; room < 0 && !slices.ContainsFunc(events, func(o Event) bool { return o.Thing == h.ID }) {
				events = append(events, Event{Thing: h.ID, To: Home, Day: e.Day, Off: e.At})
			}
		}
	}
	return events
}

// Crowded is the refusal of what is on a bike without room for it, nil where there is room for all of it.
func (g *Garage) Crowded(bike string) error {
	var on []Event
	for _, id := range g.OnBike(bike) {
		on = append(on, Event{Thing: id})
	}
	return g.room(on)
}

// room makes sure that nothing is in a place without room for it, where something has just come.
func (g *Garage) room(act []Event) error {
	came := map[spot]*kept{}
	for _, e := range act {
		k := g.things[e.Thing]
		if is := k.place(); is.State == On {
			for slot := range k.Part.Fills() {
				came[spot{is.Bike, is.Loadout, slot}] = k
			}
		}
	}
	if len(came) == 0 {
		return nil
	}
	there := map[spot][]*kept{}
	for _, id := range g.order {
		k := g.things[id]
		is := k.place()
		if is.State != On {
			continue
		}
		for slot := range k.Part.Fills() {
			at := spot{is.Bike, is.Loadout, slot}
			if there[at] = append(there[at], k); came[at] == nil || len(there[at]) <= slot.Room() {
				continue
			}
			comes := came[at]
			other := there[at][slices.IndexFunc(there[at], func(o *kept) bool { return o != comes })]
			kind, _ := parts.KindOf(slot)
			return &Refusal{
				fmt.Sprintf("%s and %s cannot both be the %s: %s is %s.", other.Name(), comes.Name(), strings.ToLower(kind.Name), other.Name(), other.place().Words(g.Bikes)),
				"Say where " + other.Name() + " goes.",
			}
		}
	}
	return nil
}

// Undo is what takes an act back, as an act of its own: refused where something else rests on it.
// An act that is taken back already has nothing to be.
func (g *Garage) Undo(of, act, day string) ([]Event, error) {
	var list []Event
	for _, e := range slices.Backward(g.acts[of]) {
		if k := g.things[e.Thing]; e.Of == "" && slices.Contains(k.chain, e) {
			list = append(list, Event{ID: DerivedID(act, len(list)), Act: act, Thing: e.Thing, Day: day, Of: e.ID})
		}
	}
	return list, g.tried(list)
}

// Redo is what does an act again that was taken back, as an act of its own.
func (g *Garage) Redo(of, act, day string) ([]Event, error) {
	var list []Event
	for _, e := range g.acts[of] {
		k := g.things[e.Thing]
		if at := slices.IndexFunc(k.back, func(t taken) bool { return t.event == e }); at >= 0 {
			list = append(list, Event{ID: DerivedID(act, len(list)), Act: act, Thing: e.Thing, Day: day, Of: k.back[at].by.ID})
		}
	}
	return list, g.tried(list)
}

// Can tells whether an act could be done; it leaves all as it is.
func (g *Garage) Can(act []Event) error {
	try := slices.Clone(act)
	var refused error
	if err := g.attempt(try, func() error {
		refused = g.room(try)
		return errTried
	}); !errors.Is(err, errTried) {
		return err
	}
	return refused
}

// tried tells whether an act that takes back or does again can be done; where a place is full, something has come
// there since.
func (g *Garage) tried(act []Event) error {
	err := g.Can(act)
	var full *Refusal
	if errors.As(err, &full) && !strings.HasPrefix(full.What, sinceThen) {
		return &Refusal{sinceThen + " something else has its place. " + full.What, full.Do}
	}
	return err
}

// sinceThen begins the refusal of what something that happened later rests on.
const sinceThen = "Since then"

var errTried = errors.New("only tried")
