// Package garage is parts as things of a rider's own: what each is, what it cost, where it has
// been, and where it is now.
//
// A [Thing] is in one place at a time. It gets there by an [Event], of which several that are done
// in one go are an act: the old tyre home, the new one on. Nothing is ever changed or deleted of what has
// happened; what is taken back is so by an event that says so. A [Garage] is folded from all of them, and
// refuses what cannot be in words that a rider can act on. Where a plan's lines meet the things that they are,
// see [Garage.Settle] and [Differs].
package garage

import (
	"fmt"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
)

// Thing is one part of a rider's own.
type Thing struct {
	ID       string        `json:"id" is:"id"`
	Part     *parts.Part   `json:"part"`
	Source   plan.Source   `json:"source,omitempty"`  // "" is new
	Cost     money.Amount  `json:"cost,omitzero"`     // the first time it came; missing where nobody knows
	Workshop money.Amount  `json:"workshop,omitzero"` // what was taken to fit it, as planned or corrected
	Hours    unit.Duration `json:"hours,omitzero"`    // of one's own, to fit it
	Bought   string        `json:"bought,omitempty"`  // day, 2026-11-20; "" where nobody knows
	By       string        `json:"by,omitempty"`      // who paid, "" for the rider

	For string `json:"-"` // bike of the garage that it was bought for, "" for none; of one house
}

// State is what kind of place a thing is in.
type State string

// The states.
const (
	Nowhere  State = ""       // taken back: it was never had
	Coming   State = "coming" // ordered
	Home     State = "home"
	On       State = "on" // a bike
	Lent     State = "lent"
	Worn     State = "worn-out"
	Sold     State = "sold"
	Returned State = "sent-back"
)

var states = []struct {
	state    State
	name     string
	decision plan.Decision // of a line that is such a thing
	gone     bool          // and comes back only as if it were bought again
}{
	{Home, "at home", plan.AtHome, false},
	{On, "on a bike", plan.OnTheBike, false},
	{Coming, "ordered", plan.Ordered, false},
	{Lent, "lent out", plan.LentOut, false},
	{Sold, "sold", plan.Sold, true},
	{Worn, "worn out", plan.WornOut, true},
	{Returned, "sent back", plan.SentBack, true},
}

// States lists where a thing may be, for a form.
func States() []entry.Option {
	options := make([]entry.Option, len(states))
	for i, s := range states {
		options[i] = entry.Opt(s.state, s.name)
	}
	return options
}

// Gone reports whether it is the rider's no more.
func (s State) Gone() bool {
	for _, row := range states {
		if row.state == s {
			return row.gone
		}
	}
	return false
}

// decision of a line that is a thing in such a place.
func (s State) decision() plan.Decision {
	for _, row := range states {
		if row.state == s {
			return row.decision
		}
	}
	return plan.TakenOff
}

// stateOf is where a line says that its thing is; ok is false where it says nothing of a thing.
func stateOf(l *plan.Line) (s State, ok bool) {
	switch l.Decision {
	case plan.Owned:
		return Home, true
	case plan.ComesOff:
		return On, true
	case plan.TakenOff:
		return Home, l.Thing != ""
	case plan.OnAnother:
		return "", false
	}
	for _, row := range states {
		if row.decision == l.Decision {
			return row.state, true
		}
	}
	return "", false
}

// Event is something that happens to a thing.
type Event struct {
	ID    string `json:"id,omitempty" is:"id"`
	Act   string `json:"act,omitempty" is:"id"` // that it is part of
	Thing string `json:"thing,omitempty" is:"id"`

	To      State        `json:"to,omitempty"`      // where it goes; "" for a note, or for what takes back
	Bike    string       `json:"bike,omitempty"`    // that it goes on
	Loadout string       `json:"loadout,omitempty"` // that it is on for, "" for all
	Day     string       `json:"on" is:"date"`      // 2026-11-20
	At      unit.Length  `json:"at,omitzero"`       // odometer of the bike that it goes on
	Off     unit.Length  `json:"off,omitzero"`      // odometer of the bike that it leaves
	Money   money.Amount `json:"money,omitzero"`    // what came back for it, or what it took: see [Event.Spends]
	Whom    string       `json:"whom,omitempty"`    // it is lent or sold to
	Until   string       `json:"until,omitempty"`   // day by which it comes back, or the bike is put back to standard
	Note    string       `json:"note,omitempty"`    // filed, cut, turns counted, a bolt that a wrench does not reach
	Of      string       `json:"of,omitempty"`      // event that it takes back, "" for none
}

// Validate lists what is wrong with an event by itself.
func (e *Event) Validate() []entry.Problem {
	v := new(entry.Problems)
	v.That(e.Day != "", "on", "is missing")
	v.Date("on", e.Day)
	v.Date("until", e.Until)
	v.Pick("to", string(e.To), States())
	v.That((e.To == On) == (e.Bike != ""), "bike", "belongs to what goes on one")
	v.That(e.Loadout == "" || e.To == On, "loadout", "belongs to what goes on a bike")
	for key, at := range map[string]unit.Length{"at": e.At, "off": e.Off} {
		v.That(!at.Known() || at.Base() >= 0 && at.In("km") <= 3e6, key, "%s is no odometer's", at)
	}
	v.That(!e.Money.Known() || e.Money.Minor() >= 0, "money", "is below zero")
	v.Short("whom", e.Whom)
	v.Note("note", e.Note)
	return v.List
}

// Validate lists what is wrong with a thing by itself.
func (t *Thing) Validate() []entry.Problem {
	v := new(entry.Problems)
	v.That(entry.ValidID(t.ID), "id", "is not one of a part")
	if t.Part == nil {
		v.That(false, "part", "is missing")
		return v.List
	}
	t.Part.Validate(v, "part")
	v.Pick("source", string(t.Source), plan.Sources())
	v.Date("bought", t.Bought)
	v.Short("by", t.By)
	for key, a := range map[string]money.Amount{"cost": t.Cost, "workshop": t.Workshop} {
		v.That(!a.Known() || a.Minor() >= 0, key, "is below zero")
	}
	return v.List
}

// Name is what a thing is called.
func (t *Thing) Name() string { return t.Part.Name }

// Place is where a thing is.
type Place struct {
	State         State
	Bike, Loadout string
	Since         string // day
	At            unit.Length
	Whom, Until   string
	Back          money.Amount // that came back for it in all, where it is of one currency
}

// Bike is what of a bike of the garage matters to things.
type Bike struct {
	Name     string
	Odometer unit.Length
}

// Words say where it is, by the names of bikes.
func (p Place) Words(bikes map[string]Bike) string {
	words := ""
	switch p.State {
	case Nowhere:
		return "taken back"
	case On:
		words = "on the " + bikeName(bikes, p.Bike)
	default:
		words = entry.NameOf(States(), string(p.State))
	}
	if p.Whom != "" {
		words += " to " + p.Whom
	}
	if p.Since != "" {
		words += " since " + p.Since
	}
	switch {
	case p.Until != "" && p.State == On:
		words += ", back to standard by " + p.Until
	case p.Until != "":
		words += ", back by " + p.Until
	}
	return words
}

func bikeName(bikes map[string]Bike, id string) string {
	if b, ok := bikes[id]; ok && b.Name != "" {
		return b.Name
	}
	return "bike that is gone"
}

// Overdue reports whether what was to come back by a day is still away on another.
func (p Place) Overdue(today string) bool { return p.Until != "" && p.Until < today }

// Spends reports whether the money of an event is spent rather than come back: a workshop's, or
// the price of what is bought again.
func (e *Event) Spends(from State) bool { return e.To == On || e.To == Home && from.Gone() }

// words of an event, for who has to know what happened since.
func (e *Event) words(name string, bikes map[string]Bike) string {
	switch {
	case e.To == On:
		return fmt.Sprintf("%s went on the %s on %s", name, bikeName(bikes, e.Bike), e.Day)
	case e.To == "":
		return fmt.Sprintf("something was noted of %s on %s", name, e.Day)
	}
	return fmt.Sprintf("%s was %s on %s", name, strings.ToLower(entry.NameOf(States(), string(e.To))), e.Day)
}
