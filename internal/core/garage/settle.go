package garage

import (
	"reflect"
	"slices"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// Moment is when, where and by which act a plan is changed.
type Moment struct {
	Act      string // its id; ids of what is made follow from it
	Bike     string // of the garage, that the plan rides
	Day      string
	Odometer unit.Length // of that bike then
}

// Settled is a change of a plan's lines and what it does to things.
type Settled struct {
	Lines []plan.Line // with the things that they are
	Put   []Thing     // made, or with another sheet or sum
	Act   []Event
}

// IsReal reports whether a line of a plan is a thing that there is, or was.
func IsReal(l *plan.Line) bool {
	if l.Part == nil {
		return false
	}
	_, ok := stateOf(l)
	return ok || l.Thing != ""
}

// Settle works out what a change of a plan's lines does to the things that they are: what is ordered,
// owned or fitted becomes a thing; what is decided otherwise than before moves; what comes off to make
// room goes home as the other goes on. A line that nobody has changed moves nothing, wherever its
// thing is by now. Nothing is done yet: see [Garage.Do].
func (g *Garage) Settle(before, after []plan.Line, m Moment) Settled {
	s := Settled{Lines: slices.Clone(after)}
	claimed := map[string]bool{}
	for _, l := range after {
		claimed[l.Thing] = l.Thing != ""
	}
	var off, on []Event
	place := func(e Event) {
		e.Act, e.Day = m.Act, m.Day
		if is, ok := g.Held(e.Thing); ok && is.State == On && is.Bike == m.Bike {
			e.Off = m.Odometer
		}
		if e.To == On {
			e.Bike, e.At = m.Bike, m.Odometer
			on = append(on, e)
			return
		}
		off = append(off, e)
	}
	for i := range s.Lines {
		l := &s.Lines[i]
		if !IsReal(l) {
			continue
		}
		was := lineBefore(before, l)
		want, real := stateOf(l)
		made := false
		if l.Thing == "" {
			if h, ok := match(g.All(), l, m.Bike, claimed); ok {
				if l.Thing = h.ID; h.For != m.Bike { // another bike's ledger has what it cost
					l.Source = plan.Had
				}
			} else {
				l.Thing, made = DerivedID(m.Act, 1000+i), true
			}
			claimed[l.Thing] = true
		}
		is, had := g.Held(l.Thing)
		if t := thingOf(l, is.Thing, m.Bike, made || !had); made || !had || was != nil && differ(was, l) {
			s.Put = append(s.Put, t)
		}
		moved := was == nil || was.Thing == "" || was.Decision != l.Decision || was.Loadout != l.Loadout
		if !real || !moved || want == On && m.Bike == "" {
			continue
		}
		if made || !had || is.State != want || want == On && (is.Bike != m.Bike || is.Loadout != l.Loadout) {
			e := Event{Thing: l.Thing, To: want}
			switch {
			case want == On:
				e.Loadout = l.Loadout
			case want.Gone():
				e.Money = more(l.Back, is.Back)
			}
			if l.Source == plan.Had { // it comes back to the ledger that has what it cost
				l.Back = money.Amount{}
			}
			place(e)
			if l.Decision == plan.OnTheBike {
				g.makeRoom(&s, l, m, place)
			}
		}
	}
	s.Act = append(off, on...)
	for i := range s.Act {
		s.Act[i].ID = DerivedID(m.Act, i)
	}
	return s
}

// more is by how much an amount is above one before, missing where it is not.
func more(a, before money.Amount) money.Amount {
	if !before.Known() || a.Code() != before.Code() {
		return a
	}
	if a.Minor() <= before.Minor() {
		return money.Amount{}
	}
	return money.New(a.Minor()-before.Minor(), a.Code())
}

// makeRoom sends home what comes off for a part that is fitted.
func (g *Garage) makeRoom(s *Settled, fitted *plan.Line, m Moment, place func(Event)) {
	for i := range s.Lines {
		l := &s.Lines[i]
		if l.Decision != plan.ComesOff || l.Part == nil || l.Loadout != fitted.Loadout {
			continue
		}
		for slot := range fitted.Part.Fills() {
			if l.Part.In(slot) == nil {
				continue
			}
			l.Decision = plan.AtHome
			if is, ok := g.Held(l.Thing); ok && is.State == On && is.Bike == m.Bike {
				place(Event{Thing: l.Thing, To: Home})
			}
			break
		}
	}
}

// lineBefore is what a line was before a change, nil where there was none.
func lineBefore(before []plan.Line, l *plan.Line) *plan.Line {
	at := -1
	for i := range before {
		b := &before[i]
		switch {
		case b.Part == nil:
		case b.Thing != "" && b.Thing == l.Thing:
			return b
		case b.Part.Slot == l.Part.Slot && b.Part.ID == l.Part.ID && (b.Thing == "" || l.Thing == "") && (at < 0 || b.Loadout == l.Loadout):
			at = i
		}
	}
	if at < 0 {
		return nil
	}
	return &before[at]
}

// match finds the thing that a line is which names none: the same part in the same slot, on the bike or bought for
// it, that no other line is.
func match(all []Held, l *plan.Line, bike string, claimed map[string]bool) (h Held, ok bool) {
	for _, h := range all {
		same := h.Part.ID == l.Part.ID && h.Part.Slot == l.Part.Slot && h.State != Nowhere && !h.State.Gone() && !claimed[h.ID]
		if same && (h.Bike == bike || h.For == bike) {
			return h, true
		}
	}
	return h, false
}

// thingOf is a line's thing with what the line says of it. What it cost is said by the plan that bought it.
func thingOf(l *plan.Line, was Thing, bike string, made bool) Thing {
	t := was
	if made {
		t = Thing{ID: l.Thing, For: bike}
	}
	t.Part = asPart(l.Part, was.Part)
	if l.Source != plan.Had || made {
		t.Source, t.Cost = l.Source, l.Cost()
	}
	if l.Workshop.Known() {
		t.Workshop = l.Workshop
	}
	if l.Hours.Known() {
		t.Hours = l.Hours
	}
	return t
}

// differ reports whether a line says something else of its thing than before.
func differ(was, is *plan.Line) bool {
	return !reflect.DeepEqual(was.Part, is.Part) || was.Amount != is.Amount || was.Source != is.Source || was.Workshop != is.Workshop || was.Hours != is.Hours
}
