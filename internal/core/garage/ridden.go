package garage

import (
	"math"
	"slices"

	"valiantmule/internal/core/money"
)

// Ridden is how far a thing has gone on bikes, km, by their odometers as it went on and off and as they
// stand now; whole is false where one of them was not written down, and it is more.
func (g *Garage) Ridden(id string) (km float64, whole bool) {
	k, ok := g.things[id]
	if !ok {
		return 0, true
	}
	whole = true
	var on *Event
	add := func(off float64) {
		if d := off - on.At.In("km"); !math.IsNaN(d) {
			km += math.Max(0, d)
		} else {
			whole = false
		}
	}
	for _, e := range k.chain {
		if e.To == "" {
			continue
		}
		if on != nil {
			add(e.Off.In("km"))
		}
		if on = nil; e.To == On {
			on = e
		}
	}
	if on != nil {
		add(g.Bikes[on.Bike].Odometer.In("km"))
	}
	return km, whole
}

// Ledger is money spent and come back, an amount for each currency.
type Ledger struct{ Spent, Back []money.Amount }

// plus adds an amount to those of its currency; one that cannot be added is left as it is.
func plus(list []money.Amount, a money.Amount) []money.Amount {
	if !a.Known() {
		return list
	}
	at := slices.IndexFunc(list, func(b money.Amount) bool { return b.Code() == a.Code() })
	if at < 0 {
		return append(list, a)
	}
	if sum, err := list[at].Plus(a); err == nil {
		list[at] = sum
	}
	return list
}

// Money is what a thing took and gave back in all: each time it was bought, fitted, sold.
func (g *Garage) Money(id string) Ledger {
	var l Ledger
	g.book(g.things[id], func(_ string, a money.Amount, spent bool) { l.book(a, spent) })
	return l
}

// Add adds another's sums.
func (l *Ledger) Add(o Ledger) {
	for _, a := range o.Spent {
		l.book(a, true)
	}
	for _, a := range o.Back {
		l.book(a, false)
	}
}

// Per1000 is what was spent less what came back for each 1000 km of a distance; missing where it is of several
// currencies, or over less than 100 km.
func (l *Ledger) Per1000(km float64) money.Amount {
	if len(l.Spent) != 1 || len(l.Back) > 1 || !(km >= 100) {
		return money.Amount{}
	}
	minor := l.Spent[0].Minor()
	if len(l.Back) == 1 {
		if l.Back[0].Code() != l.Spent[0].Code() {
			return money.Amount{}
		}
		minor -= l.Back[0].Minor()
	}
	return money.New(int64(float64(minor)*1000/km), l.Spent[0].Code())
}

func (l *Ledger) book(a money.Amount, spent bool) {
	if spent {
		l.Spent = plus(l.Spent, a)
	} else {
		l.Back = plus(l.Back, a)
	}
}

// Ledgers are what the things of each bike took and gave back over its life; "" is the garage's, for none of
// its bikes. Every sum of a thing is in just one of them: its price where it was bought for, a workshop's where
// it was fitted, what came back where it was last.
func (g *Garage) Ledgers() map[string]*Ledger {
	all := map[string]*Ledger{}
	for _, id := range g.order {
		g.book(g.things[id], func(bike string, a money.Amount, spent bool) {
			if all[bike] == nil {
				all[bike] = &Ledger{}
			}
			all[bike].book(a, spent)
		})
	}
	return all
}

// book goes through the sums of a thing that was had.
func (g *Garage) book(k *kept, each func(bike string, a money.Amount, spent bool)) {
	if k == nil || len(k.chain) == 0 {
		return
	}
	each(k.For, k.Cost, true)
	at, from := k.For, Nowhere
	for _, e := range k.chain {
		if e.To == "" {
			continue
		}
		if e.To == On {
			at = e.Bike
		}
		each(at, e.Money, e.Spends(from))
		if e.To == On && k.Workshop.Known() && firstOn(k, e) {
			each(at, k.Workshop, true)
		}
		from = e.To
	}
}

// firstOn reports whether an event is the first by which a thing goes on a bike.
func firstOn(k *kept, e *Event) bool {
	return k.chain[slices.IndexFunc(k.chain, func(o *Event) bool { return o.To == On })] == e
}

// Step is something that happened to a thing, for who reads what it has seen.
type Step struct {
	Event
	Back bool // taken back
}

// Steps of a thing, the oldest first: what holds, and what was taken back.
func (g *Garage) Steps(id string) []Step {
	k, ok := g.things[id]
	if !ok {
		return nil
	}
	var list []Step
	for _, e := range k.chain {
		list = append(list, Step{Event: *e})
	}
	for _, t := range k.back {
		list = append(list, Step{*t.event, true})
	}
	return list
}

// Notes are what was written down whenever it was fitted or moved, the oldest first.
func (g *Garage) Notes(id string) []string {
	var list []string
	for _, s := range g.Steps(id) {
		if s.Note != "" && !s.Back {
			list = append(list, s.Note)
		}
	}
	return list
}
