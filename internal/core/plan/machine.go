package plan

import (
	"cmp"
	"iter"
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Machine is one bike as a thing of its own: what is so whichever trip is planned for it.
// What belongs to a trip, the brief, what is to change, loads and settings by loadout, is a
// [Plan]'s, which holds a copy of its machine.
type Machine struct {
	// Garage is which bike of the garage it is, "" for none yet. It is of one house and in no
	// file.
	Garage string  `json:"-"`
	Held   Held    `json:"held,omitempty"`
	Offer  *Offer  `json:"offer,omitempty"`       // of one that is looked at
	Handed *Handed `json:"handed_over,omitempty"` // of one that is the rider's no more

	Bike *Bike `json:"bike,omitempty"` // nil until one is chosen
	Like *Bike `json:"like,omitempty"` // whose sheet stands for what nobody has said of that one, nil for none

	Runs     []Run      `json:"odometers,omitempty"`  // what it showed, the latest last
	Clicks   Clicks     `json:"clicks,omitzero"`      // as the bike stands now
	Seen     []Look     `json:"lamps_seen,omitempty"` // what of the lamps somebody has looked at
	Buttons  []Button   `json:"buttons,omitempty"`    // what it does when something is pressed
	Baseline Inspection `json:"baseline,omitzero"`    // as it was found

	// Readings off the bike. They are part of a file, and are kept beside the revisions in the
	// house.
	Readings []logbook.Reading `json:"readings,omitempty"`
}

// Run is what the odometer showed on a day.
type Run struct {
	On string      `json:"on" is:"date"` // date, 2026-11-20
	At unit.Length `json:"at"`
}

// maxRuns is more than anybody writes down of one bike.
const maxRuns = 1000

// Ran is the machine with what its odometer shows on a day, on its sheet too; a day has one.
func (m Machine) Ran(on string, at unit.Length) Machine {
	m.Runs = slices.DeleteFunc(slices.Clone(m.Runs), func(r Run) bool { return r.On == on })
	if len(m.Runs) >= maxRuns {
		m.Runs = m.Runs[1:]
	}
	m.Runs = append(m.Runs, Run{on, at})
	slices.SortStableFunc(m.Runs, func(a, b Run) int { return strings.Compare(a.On, b.On) })
	if m.Bike != nil {
		bike := *m.Bike
		bike.Odometer = at
		m.Bike = &bike
	}
	return m
}

// Held is whose a bike is.
type Held string

// Whose it may be; "" is the rider's own.
const (
	Another Held = "another" // a customer's, a friend's
	Wished  Held = "wished"
	Looked  Held = "looked" // at a seller's, see [Offer]
	Gone    Held = "gone"   // sold, given away: its history stays
)

// Helds lists whose a bike may be.
func Helds() []entry.Option {
	return []entry.Option{
		entry.Opt(Another, "Somebody else's"), entry.Opt(Wished, "Wished for"), entry.Opt(Looked, "Looked at, before buying"), entry.Opt(Gone, "Handed over"),
	}
}

// Offer is what a seller asks.
type Offer struct {
	Asking money.Amount `json:"asking,omitzero"`
	Worth  money.Amount `json:"worth,omitzero"` // to the rider, once it is ready for the trip
	Note   string       `json:"note,omitempty"`
}

// Handed is how a bike went to somebody else.
type Handed struct {
	On   string       `json:"on" is:"date"` // date, 2026-11-20
	Whom string       `json:"whom,omitempty"`
	For  money.Amount `json:"for,omitzero"`
}

// Amounts are its sums by their names in a form.
func (o *Offer) Amounts() iter.Seq2[string, *money.Amount] {
	return func(yield func(string, *money.Amount) bool) {
		_ = yield("asking", &o.Asking) && yield("worth", &o.Worth)
	}
}

// BikeName is what its bike is called, "" where it has none.
func (m *Machine) BikeName() string {
	if m.Bike == nil {
		return ""
	}
	return m.Bike.Name
}

// Word says whose a bike is.
func (h Held) Word() string { return cmp.Or(entry.NameOf(Helds(), string(h)), OwnBike) }

// OwnBike is what a form calls a bike that is nobody else's.
const OwnBike = "Your own"

// Alone is a plan of nothing but the machine, for what is looked at and written down of it
// without a trip. Amounts that are typed without a currency are in the one given.
func (m Machine) Alone(currency string) *Plan {
	p := New("", currency)
	p.Guesses, p.Machine = GuessTable, m
	p.Loadouts = []Loadout{{ID: "as-it-stands", Name: "As it stands"}}
	p.Name = m.BikeName()
	return p
}

// Taking is the plan with another machine, or the same as it is now; nothing of the one before
// comes along.
func (p *Plan) Taking(m Machine) *Plan {
	changed := *p
	changed.Machine = m
	return &changed
}

// Riding is the plan on a bike of which nothing is known but its sheet: what was found on the
// one before, and read off it, is not true of it.
func (p *Plan) Riding(bike *Bike) *Plan { return p.Taking(Machine{Bike: bike}) }

// BareOn is the plan on another machine without anything of this one: brief, loads and money's rates
// stay; parts and what is noted of them do not.
func (p *Plan) BareOn(m Machine) *Plan {
	changed := *New(p.Name, p.Currency)
	changed.Guesses, changed.Brief, changed.Machine = p.Guesses, p.Brief, m
	changed.Route, changed.Group, changed.Rates, changed.Risk = p.Route, p.Group, p.Rates, p.Risk
	changed.Loadouts = make([]Loadout, len(p.Loadouts))
	for i, l := range p.Loadouts { // pressures, preload and clicks are for this bike's tyres and springs
		changed.Loadouts[i] = Loadout{ID: l.ID, Name: l.Name, Pillion: l.Pillion, Days: l.Days, Kit: l.Kit, Loads: l.Loads, Sits: l.Sits}
	}
	return &changed
}

// OnTheBike are the lines whose parts are fitted, for every loadout.
func (p *Plan) OnTheBike() []Line {
	return slices.DeleteFunc(slices.Clone(p.Lines), func(l Line) bool { return l.Part == nil || l.Decision != OnTheBike || l.Loadout != "" })
}

// Bare is the machine without what was read off it.
func (m Machine) Bare() Machine {
	m.Readings = nil
	return m
}

// sheetAt is one of the machine's, and where it lies in the document.
type sheetAt struct {
	at   string
	bike *Bike
}

// sheets are those that the machine has: its own, and that of the one that it is like.
func (m *Machine) sheets() []sheetAt {
	list := []sheetAt{{"bike", m.Bike}, {"like", m.Like}}
	return slices.DeleteFunc(list, func(s sheetAt) bool { return s.bike == nil })
}

// Validate lists what is wrong with a machine by itself; see [Plan.Validate].
func (m *Machine) Validate() []entry.Problem {
	v := new(entry.Problems)
	m.validate(v)
	return v.List
}

// SetAside makes unsaid what is refused of the machine's parts, and lists it; see
// [Plan.SetAside].
func (m *Machine) SetAside() (all []entry.Problem) {
	m.setAside(asideInto(&all))
	return all
}

func (m *Machine) validate(v *entry.Problems) {
	v.Pick("held", string(m.Held), Helds())
	if m.Offer != nil {
		for key, a := range m.Offer.Amounts() {
			v.That(!a.Known() || a.Minor() >= 0, "offer."+key, "is below zero")
		}
		v.Note("offer.note", m.Offer.Note)
	}
	if h := m.Handed; h != nil {
		v.That(h.On != "", "handed_over.on", "is missing")
		v.Date("handed_over.on", h.On)
		v.Short("handed_over.whom", h.Whom)
		v.That(!h.For.Known() || h.For.Minor() >= 0, "handed_over.for", "is below zero")
	}
	for _, s := range m.sheets() {
		s.bike.validate(v, s.at)
	}
	v.Few("odometers", len(m.Runs), maxRuns)
	for i, r := range m.Runs {
		at := "odometers" + entry.At(i)
		v.That(r.On != "", at+".on", "is missing")
		v.Date(at+".on", r.On)
		v.That(slices.IndexFunc(m.Runs, func(o Run) bool { return o.On == r.On }) == i, at+".on", "%s stands there twice", r.On)
		v.That(r.At.Known() && r.At.Base() >= 0, at+".at", "%s is no distance", r.At)
	}
	v.Fields("clicks", m.Clicks.Fields(""))
	validateLooks(v, m.Seen)
	validateButtons(v, m.Buttons)
	m.Baseline.validate(v)
	logbook.Validate(v, "readings", m.Readings)
}

// setAside makes unsaid what is refused of the machine's parts.
func (m *Machine) setAside(aside func(part *parts.Part, path string) *parts.Part) {
	for _, s := range m.sheets() {
		for i := range s.bike.Standard {
			s.bike.Standard[i] = *aside(&s.bike.Standard[i], s.at+".standard"+entry.At(i))
		}
	}
	for i := range m.Baseline.Changes {
		if c := &m.Baseline.Changes[i]; c.Part != nil {
			c.Part = aside(c.Part, "baseline.changes"+entry.At(i)+".part")
		}
	}
}
