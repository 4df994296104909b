package ready

import (
	"strings"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/plan"
)

// Way is a way out for a line that cannot be there in time: a change of the plan, to be tried
// with all gauges before it is kept.
type Way struct {
	Value string // by which an address names it
	Name  string
	Said  string // in the history
	On    func(*plan.Plan) *plan.Plan
}

// The kinds of way, as the first word of a value.
const (
	wayExpress  = "express"
	waySeller   = "seller"
	wayStock    = "stock"
	wayWorkshop = "workshop"
	wayOwn      = "own"
	wayInterim  = "interim"
	wayAfter    = "after"
	wayLeave    = "leave"
	wayStart    = "start"
	wayTogether = "together"
)

// between stands between the words of a value; no key of a line has it.
const between = "|"

// Ways are the ways out for a line of the plan by its place, the ones that keep the part first.
func Ways(f *facts.All, at int) []Way {
	p := f.Plan
	if at < 0 || at >= len(p.Lines) {
		return nil
	}
	var list []Way
	key, l := p.LineKeys()[at], &p.Lines[at]
	name := l.Title()
	add := func(kind, arg, words string, change func(p *plan.Plan, at int) *plan.Plan) {
		value := kind + between + key
		if arg != "" {
			value += between + arg
		}
		list = append(list, Way{value, words, name + ": " + strings.ToLower(words[:1]) + words[1:], func(p *plan.Plan) *plan.Plan {
			if at := p.LineAt(key); at >= 0 {
				return change(p, at)
			}
			return p
		}})
	}
	supply := func(change func(*plan.Supply)) func(*plan.Plan, int) *plan.Plan {
		return func(p *plan.Plan, at int) *plan.Plan { return p.Supplying(at, change) }
	}
	from, days, _ := p.Comes(l)
	here := l.Decision == plan.Owned || l.Supplied().Came != ""
	s := p.Ready.SellerOf(l.SellerOf())
	if !here && s != nil && s.Express.Known() && !l.Supplied().Express && l.Decision != plan.Ordered {
		words := "Express from " + s.Name
		if s.Extra.Known() {
			words += ", " + s.Extra.Display()
		}
		extra := s.Extra
		add(wayExpress, "", words, func(p *plan.Plan, at int) *plan.Plan {
			changed := p.Supplying(at, func(s *plan.Supply) { s.Express = true })
			if extra.Known() {
				changed.Lines = append(changed.Lines, plan.Line{Kind: plan.Freight, Name: "Express: " + name, Amount: extra, Need: changed.Lines[at].Need})
			}
			return changed
		})
	}
	if !here {
		for i := range p.Ready.Sellers {
			other := &p.Ready.Sellers[i]
			if other.Name == l.SellerOf() || !other.Lead.Known() || other.Lead.Likely.In("d") >= days.Likely || !mayHave(f.Shelf, other.Name, l) {
				continue
			}
			to, from := other.Name, other.From
			add(waySeller, to, "From "+to+" instead, if it has it", supply(func(s *plan.Supply) {
				*s = plan.Supply{Seller: to, From: from, By: s.By, Shop: s.Shop, UseUp: s.UseUp, Left: s.Left, Torque: s.Torque, Look: s.Look}
			}))
		}
		if from != calendar.Stock && from != calendar.InReach {
			add(wayStock, "", "Of a shop that has one in stock, whatever it is", supply(func(s *plan.Supply) {
				*s = plan.Supply{From: calendar.Stock, By: s.By, Shop: s.Shop, UseUp: s.UseUp, Left: s.Left, Torque: s.Torque, Look: s.Look}
			}))
		}
	}
	if l.Part != nil {
		if _, own := p.ToFit(l); own {
			add(wayWorkshop, "", "A workshop fits it", supply(func(s *plan.Supply) { s.By = plan.ByOthers }))
		} else {
			add(wayOwn, "", "You fit it, with help", supply(func(s *plan.Supply) { s.By = plan.ByRider }))
		}
		if meanwhile := Interim(l.Part.Slot); meanwhile != "" {
			add(wayInterim, "", "Meanwhile: "+meanwhile, later("after the trip; meanwhile: "+meanwhile))
		}
	}
	add(wayAfter, "", "After the trip", later("after the trip"))
	add(wayLeave, "", "Leave it out", func(p *plan.Plan, at int) *plan.Plan {
		return p.Altered(at, func(l *plan.Line) { l.Decision, l.Why = plan.Rejected, "could not be there in time" })
	})
	if way, ok := laterStart(f); ok {
		list = append(list, way)
	}
	return list
}

// mayHave reports whether a seller may have what a line asks for: of one that the shelf knows, only
// what it sells there.
func mayHave(shelf plan.Shelf, seller string, l *plan.Line) bool {
	known := false
	for _, p := range shelf {
		if p.Sold.By != seller {
			continue
		}
		if known = true; l.Part != nil && p.Slot == l.Part.Slot {
			return true
		}
	}
	return !known
}

// later puts a line off, with a reason.
func later(why string) func(p *plan.Plan, at int) *plan.Plan {
	return func(p *plan.Plan, at int) *plan.Plan {
		return p.Altered(at, func(l *plan.Line) { l.Decision, l.Why = plan.NotUntil, why })
	}
}

// laterStart is the first day on which all is ready, four times in five.
func laterStart(f *facts.All) (Way, bool) {
	r := &f.Ready
	if r.Net == nil || !r.Dated {
		return Way{}, false
	}
	day := r.Morning(r.Outlook.Share(sure))
	if day <= r.Leaves {
		return Way{}, false
	}
	return startOn(day), true
}

// startOn is the trip begun on another day; what takes the bike away is put off as long.
func startOn(day calendar.Day) Way {
	return Way{wayStart + between + day.String(), "Leave on " + day.String(), "Departure put off to " + day.String(), func(p *plan.Plan) *plan.Plan {
		changed := *p
		by := calendar.Day(0)
		if was, ok := calendar.ParseDay(p.Brief.Leaves()); ok {
			by = day - was
		}
		for _, date := range []*string{&changed.Brief.Start, &changed.Brief.Ships} {
			if was, ok := calendar.ParseDay(*date); ok {
				*date = (was + by).String()
			}
		}
		if changed.Brief.Leaves() == "" {
			changed.Brief.Start = day.String()
		}
		return &changed
	}}
}

// WayOf finds the way that a value names; ok is false where there is none such.
func WayOf(f *facts.All, value string) (Way, bool) {
	kind, rest, _ := strings.Cut(value, between)
	if kind == wayStart {
		day, ok := calendar.ParseDay(rest)
		return startOn(day), ok
	}
	if kind == wayTogether {
		return Together(f, rest)
	}
	key, _, _ := strings.Cut(rest, between)
	for _, w := range Ways(f, f.Plan.LineAt(key)) {
		if w.Value == value {
			return w, true
		}
	}
	return Way{}, false
}

// Together is whatever is still to be ordered new, in one parcel of one seller: freight once, and
// all of it as late as its slowest item. ok is false where that changes nothing.
func Together(f *facts.All, seller string) (way Way, ok bool) {
	var lines []int
	slowest := calendar.Spread{}
	others := false
	for i := range f.Plan.Lines {
		l := &f.Plan.Lines[i]
		from, days, _ := f.Plan.Comes(l)
		if !ToOrder(l) || l.Source == plan.HomeMade || from == calendar.Used || from == calendar.InReach || from == calendar.Special {
			continue
		}
		lines = append(lines, i)
		others = others || l.SellerOf() != seller
		if days.Likely > slowest.Likely {
			slowest = days
		}
	}
	if len(lines) < 2 || !others || len(seller) == 0 {
		return Way{}, false
	}
	return Way{wayTogether + between + seller, "All in one parcel from " + seller, "Ordered together from " + seller, func(p *plan.Plan) *plan.Plan {
		for _, i := range lines {
			if i >= len(p.Lines) || !ToOrder(&p.Lines[i]) {
				continue
			}
			p = p.Supplying(i, func(s *plan.Supply) {
				s.Seller, s.From, s.Express = seller, "", false
				s.Lead = plan.Days(slowest)
			})
		}
		return p
	}}, true
}

// ToOrder reports whether a line is still to be ordered.
func ToOrder(l *plan.Line) bool {
	s := l.Supplied()
	return l.Standing() == plan.In && (l.Decision == "" || l.Decision == plan.Chosen) && (l.Part != nil || l.Kind == plan.Gear || l.Kind == plan.Consumable) && s.Came == ""
}
