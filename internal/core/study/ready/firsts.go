package ready

import (
	"slices"

	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/facts"
	"valiantmule/internal/core/parts"
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

// trade adds what comes first of the trade.
func (m *maker) trade() {
	var some, others []int
	for i := range firsts {
		if some = m.fits.of(some[:0], firsts[i].first...); len(some) > 0 {
			others = m.fits.of(others[:0], firsts[i].then...)
			m.linkAll(some, others)
		}
	}
	for _, a := range arrivals {
		if some = m.orders.of(some[:0], a.there); len(some) > 0 {
			others = m.fits.of(others[:0], a.before)
			m.linkAll(some, others)
		}
	}
	m.needs()
}

// rider adds what comes first as the rider says.
func (m *maker) rider() {
	for _, b := range m.p.Ready.Firsts {
		if !b.Cut {
			m.link(m.at(b.Job), m.at(b.Then))
		}
	}
}

// mostLinks is how many there are of any real bike.
const mostLinks = 10_000

// linkAll puts each of some jobs behind all of others.
func (m *maker) linkAll(firsts, thens []int) {
	for _, first := range firsts {
		for _, then := range thens {
			m.link(first, then)
		}
	}
}

// link puts a job behind another, where both are there.
func (m *maker) link(first, then int) {
	if first >= 0 && then >= 0 && first != then && len(m.links) < mostLinks {
		m.links = append(m.links, calendar.Link{First: first, Then: then})
	}
}

// kept are the links that the rider has not cut.
func (m *maker) kept() []calendar.Link {
	list := m.links
	for _, b := range m.p.Ready.Firsts {
		if b.Cut {
			cut := calendar.Link{First: m.at(b.Job), Then: m.at(b.Then)}
			list = slices.DeleteFunc(slices.Clone(list), func(l calendar.Link) bool { return l == cut })
		}
	}
	return list
}

// at is where a job stands by its id, −1 for one that is not there; what ends all has no place.
func (m *maker) at(id string) int {
	j := slices.Index(m.names, calendar.Named(id))
	if j < 0 || m.jobs[j].Last || !m.f.Jobs[j].Is(id) {
		return -1
	}
	return j
}

// needs puts a part behind one that provides what it needs.
func (m *maker) needs() {
	part := func(j int) *parts.Part {
		if k := m.f.Jobs[j].Kind; k != facts.JobFit && k != facts.JobShop || m.f.Jobs[j].Line < 0 {
			return nil
		}
		return m.p.Lines[m.f.Jobs[j].Line].Part
	}
	for then := range m.f.Jobs {
		p := part(then)
		if p == nil {
			continue
		}
		for _, tag := range p.Needs {
			for first := range m.f.Jobs {
				if other := part(first); other != nil && slices.Contains(other.Provides, tag) {
					m.link(first, then)
				}
			}
			for _, first := range m.on(parts.UsuallyBy(tag)...) {
				if other := part(first); other != nil {
					if does, _ := other.Gives(tag); does {
						m.link(first, then)
					}
				}
			}
		}
	}
}
