package ready

import (
	"slices"

	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
)

// firsts is what of two things on one bike goes on first [practice, the handbook's calendar].
var firsts = []struct{ first, then []parts.Slot }{
	{[]parts.Slot{parts.Handlebar, parts.Risers, parts.Clamps}, []parts.Slot{parts.Grips, parts.HandGuards, parts.Levers, parts.Mirrors, parts.NavMount, parts.Windscreen}},
	{[]parts.Slot{parts.Grips}, []parts.Slot{parts.HandGuards}},
	{[]parts.Slot{parts.NavMount}, []parts.Slot{parts.Navigator}},
	{[]parts.Slot{parts.FrontWheel}, []parts.Slot{parts.FrontTyre, parts.FrontTube, parts.FrontLock}},
	{[]parts.Slot{parts.RearWheel}, []parts.Slot{parts.RearTyre, parts.RearTube, parts.RearLock, parts.RearSprocket}},
	{[]parts.Slot{parts.FrontTyre}, []parts.Slot{parts.FrontTube, parts.FrontLock}},
	{[]parts.Slot{parts.RearTyre}, []parts.Slot{parts.RearTube, parts.RearLock}},
	{[]parts.Slot{parts.FrontSprocket, parts.RearSprocket}, []parts.Slot{parts.Chain}},
	{[]parts.Slot{parts.Seat}, []parts.Slot{parts.Links}},
	{[]parts.Slot{parts.Silencer}, []parts.Slot{parts.SideRack, parts.SideBags}},
	{[]parts.Slot{parts.RearRack, parts.SideRack}, []parts.Slot{parts.TopBox, parts.TailBag, parts.SideBags}},
	{[]parts.Slot{parts.FuelTank}, []parts.Slot{parts.TankBag, parts.TankGuard}},
	{[]parts.Slot{parts.EngineBars}, []parts.Slot{parts.HighwayPegs}},
	{[]parts.Slot{parts.PowerBox}, []parts.Slot{parts.AuxLamps, parts.WideLamps, parts.DayLamps, parts.Socket, parts.Horn}},
	{[]parts.Slot{parts.FrontMudguard}, []parts.Slot{parts.LampGuard}},
	{[]parts.Slot{parts.Silencer, parts.Header, parts.Airbox, parts.AirFilter}, []parts.Slot{parts.Fuelling}},
}

// arrivals is what has to be there before something else is begun: cables that nobody has stall a whole bar.
var arrivals = []struct{ there, before parts.Slot }{
	{parts.Cables, parts.Handlebar}, {parts.Cables, parts.Risers}, {parts.Chain, parts.RearSprocket}, {parts.RearTube, parts.RearTyre}, {parts.FrontTube, parts.FrontTyre},
	{parts.RearLock, parts.RearTyre}, {parts.FrontLock, parts.FrontTyre},
}

// Slots whose parts are set, aimed, filled once they are on.
var (
	sprungSlots = []parts.Slot{parts.ForkSprings, parts.ForkCaps, parts.ForkOil, parts.ForkValving, parts.Fork, parts.ShockSpring, parts.ShockAdjuster, parts.ShockValving, parts.Shock, parts.Links}
	lampSlots   = []parts.Slot{parts.Headlamp, parts.AuxLamps, parts.WideLamps, parts.FrontTyre, parts.RearTyre}
	bagSlots    = []parts.Slot{parts.RearRack, parts.SideRack, parts.TopBox, parts.TailBag, parts.SideBags, parts.TankBag, parts.FrameBag, parts.ToolTube, parts.BarBags, parts.FuelCans, parts.FuelBladder}
)

// mostFirst is how many jobs come before one, of any real bike.
const mostFirst = 60

// before adds what comes first: of the trade, and what the rider says.
func (m *maker) before() {
	structure := m.afters()
	cuts := slices.ContainsFunc(m.p.Ready.Firsts, func(b plan.Before) bool { return b.Cut })
	cut := func(first, then int) bool {
		return cuts && slices.ContainsFunc(m.p.Ready.Firsts, func(b plan.Before) bool {
			return b.Cut && b.Job == m.jobs[first].ID && b.Then == m.jobs[then].ID
		})
	}
	put := func(first, then int) {
		if first >= 0 && then >= 0 && first != then && len(m.jobs[then].After) < mostFirst && !slices.Contains(m.jobs[then].After, first) && !cut(first, then) {
			m.jobs[then].After = append(slices.Clone(m.jobs[then].After), first)
		}
	}
	for i := range firsts {
		for _, first := range m.on(firsts[i].first...) {
			for _, then := range m.on(firsts[i].then...) {
				put(first, then)
			}
		}
	}
	for _, a := range arrivals {
		for _, there := range m.orders[a.there] {
			for _, then := range m.on(a.before) {
				put(there, then)
			}
		}
	}
	m.needs(put)
	if cuts {
		for i := range m.jobs {
			m.jobs[i].After = slices.DeleteFunc(slices.Clone(m.jobs[i].After), func(first int) bool { return cut(first, i) })
		}
	}
	m.levels = append(m.levels, structure, m.afters())
	if len(m.p.Ready.Firsts) == 0 {
		return
	}
	at := m.places()
	for _, b := range m.p.Ready.Firsts {
		first, then := at[b.Job], at[b.Then]
		if !b.Cut && first > 0 && then > 0 {
			put(first-1, then-1)
		}
	}
}

// afters is what each job waits for as it is now.
func (m *maker) afters() [][]int {
	list := make([][]int, len(m.jobs))
	for i := range m.jobs {
		list[i] = m.jobs[i].After
	}
	return list
}

// places are where jobs stand, from 1, by their ids; what ends all has none.
func (m *maker) places() map[string]int {
	at := make(map[string]int, len(m.jobs))
	for i := range m.jobs {
		if !m.jobs[i].Last {
			at[m.jobs[i].ID] = i + 1
		}
	}
	return at
}

// needs puts a part behind one that provides what it needs.
func (m *maker) needs(put func(first, then int)) {
	part := func(j int) *parts.Part {
		if k := m.f.Jobs[j].Kind; k != facts.JobFit && k != facts.JobShop || m.f.Jobs[j].Line < 0 {
			return nil
		}
		return m.p.Lines[m.f.Jobs[j].Line].Part
	}
	gives := map[string][]int{}
	needed := false
	for j := range m.f.Jobs {
		if p := part(j); p != nil {
			needed = needed || len(p.Needs) > 0
			for _, tag := range p.Provides {
				gives[tag] = append(gives[tag], j)
			}
		}
	}
	if !needed {
		return
	}
	for then := range m.f.Jobs {
		p := part(then)
		if p == nil {
			continue
		}
		for _, tag := range p.Needs {
			for _, first := range gives[tag] {
				put(first, then)
			}
			for _, first := range m.on(parts.UsuallyBy(tag)...) {
				if other := part(first); other != nil {
					if does, _ := other.Gives(tag); does {
						put(first, then)
					}
				}
			}
		}
	}
}
