// Package plan is the document: the brief, the bike, the parts and the sums that
// a rider plans with, and the bike as built when the parts are folded in.
//
// A plan keeps what the rider typed, with its unit; a missing number is missing,
// not zero. Plans are values to be copied and changed, never changed in place
// once shared: [Plan.With] gives a changed copy. The package decides nothing:
// figures and judgements are the studies' of package study.
package plan

import (
	"fmt"
	"maps"
	"slices"
	"time"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Format and Version head every plan file.
const (
	Format  = "valiant-mule-plan"
	Version = 2
)

// GuessTable is the version of the table by which plans are guessed that are begun now. A table
// that is changed has another number, so that nobody's figures move unasked.
const GuessTable = 1

// Plan is one conversion of one bike for one trip.
type Plan struct {
	Format   string `json:"format"`
	Version  int    `json:"version"`
	Name     string `json:"name" is:"name"`
	Trip     string `json:"trip,omitempty" is:"made-id"` // by which days of riding name it; variants of one trip share it
	Currency string `json:"currency" is:"currency"`      // ISO 4217; the budget and the totals are in it
	// Guesses is the version of the table by which what nobody has said is guessed, see
	// [GuessTable]; 0 is none.
	Guesses  int       `json:"guesses,omitempty"`
	Brief    Brief     `json:"brief"`
	Machine            // as it was when it was last taken over from the garage
	Lines    []Line    `json:"lines,omitempty"`
	Loadouts []Loadout `json:"loadouts"`

	ForkThrough unit.Length `json:"fork_through,omitzero"` // that the tubes stand further up through their clamps than standard

	Trials []Trial `json:"trials,omitempty"`
	Wired  []Wired `json:"wired,omitempty"`

	BoxSits BoxPlace `json:"box_sits,omitempty"`

	Route   *Route   `json:"route,omitempty"`
	Group   []Mate   `json:"group,omitempty"`
	Reports []Report `json:"reports,omitempty"`

	Waivers []Waiver `json:"waived,omitempty"` // points that the rider has set aside
	Order   []string `json:"order,omitempty"`  // rules in the order in which the rider would settle them

	Alone []Alone `json:"left_alone,omitempty"` // what is left standard on purpose

	Ready Ready `json:"ready,omitzero"`
	Card  Card  `json:"card,omitzero"`

	Touches      []Touch       `json:"touches,omitempty"` // what is in each other's way
	Risk         Risk          `json:"risk,omitempty"`
	Rates        []Rate        `json:"rates,omitempty"`
	Calculations []Calculation `json:"calculations,omitempty"`
}

// Rate is what one unit of another currency costs in the plan's, on a day.
type Rate struct {
	From string     `json:"from" is:"currency"` // ISO 4217
	Rate money.Rate `json:"rate"`
	On   string     `json:"on" is:"date"` // date, 2026-11-20
}

// Home is an amount in the plan's currency, with the rate that it took, nil for
// none; ok is false when there is no rate for it.
func (p *Plan) Home(a money.Amount) (home money.Amount, by *Rate, ok bool) {
	if a.Code() == p.Currency {
		return a, nil, true
	}
	for i, r := range p.Rates {
		if r.From == a.Code() {
			home, err := a.In(p.Currency, r.Rate)
			return home, &p.Rates[i], err == nil
		}
	}
	return money.Amount{}, nil, false
}

// Calculation is one that the rider kept: which calculator, and what was put in.
// Its results are worked out again whenever somebody looks.
type Calculation struct {
	Calculator string            `json:"calculator" is:"id"`
	Inputs     map[string]string `json:"inputs"`
	Note       string            `json:"note,omitempty"`
}

// New is an empty plan with the two loadouts that every rider needs.
func New(name, currency string) *Plan {
	return &Plan{
		Format: Format, Version: Version, Name: name, Currency: currency,
		Loadouts: []Loadout{
			{ID: "trail-day", Name: "Trail day", Days: 1},
			{ID: "travel", Name: "Travel"},
		},
	}
}

// Loadout finds a loadout by its id.
func (p *Plan) Loadout(id string) (*Loadout, error) {
	for i := range p.Loadouts {
		if p.Loadouts[i].ID == id {
			return &p.Loadouts[i], nil
		}
	}
	return nil, fmt.Errorf("no loadout %q in this plan", id)
}

// OwnLoads is a copy of the plan, and of it a loadout whose loads can be changed
// without changing the plan's.
func (p *Plan) OwnLoads(id string) (*Plan, *Loadout) {
	changed := *p
	changed.Loadouts = slices.Clone(p.Loadouts)
	loadout, err := changed.Loadout(id)
	if err != nil {
		return &changed, &Loadout{ID: id}
	}
	loadout.Loads = slices.Clone(loadout.Loads)
	return &changed, loadout
}

// Loadout is one way of loading the bike.
type Loadout struct {
	ID      string    `json:"id" is:"id"`
	Name    string    `json:"name" is:"name"`
	By      *Person   `json:"rider,omitempty"` // who rides then, nil for the rider of the brief
	Pillion unit.Mass `json:"pillion,omitzero"`
	Days    int       `json:"days,omitempty"` // that it is packed for, 0 where nobody has said
	Kit     Kit       `json:"kit,omitempty"`  // how much comes along, roughly, as long as nothing is packed
	Loads   []Load    `json:"loads,omitempty"`

	Pressures []Pressure      `json:"pressures,omitempty"` // the rider's own, by surface
	Setting   Setting         `json:"setting,omitzero"`
	Clicks    []SurfaceClicks `json:"clicks,omitempty"` // the rider's own, by surface
	Sits      Sit             `json:"sits,omitempty"`
}

// Pressure is what a rider pumps up to for a surface, cold.
type Pressure struct {
	Surface string        `json:"surface"`
	Front   unit.Pressure `json:"front,omitzero"`
	Rear    unit.Pressure `json:"rear,omitzero"`
}

// Fields lists what is pumped up to.
func (p *Pressure) Fields() []entry.Field {
	return []entry.Field{
		entry.Ask("front", "Front", "kPa", 40, 450, "", &p.Front),
		entry.Ask("rear", "Rear", "kPa", 40, 450, "", &p.Rear),
	}
}

// Pressure for a surface; missing where the rider has none of their own.
func (l *Loadout) Pressure(surface string) Pressure {
	for _, p := range l.Pressures {
		if p.Surface == surface {
			return p
		}
	}
	return Pressure{Surface: surface}
}

// Load is one thing in a loadout: in a bag, or at the default spot of its place.
type Load struct {
	Name   string      `json:"name" is:"name"`
	Mass   unit.Mass   `json:"mass,omitzero"`
	Volume unit.Volume `json:"volume,omitzero"`
	Place  load.Place  `json:"place"`
	Bag    parts.Slot  `json:"bag,omitempty"` // slot of the bag that it is in, where the bike has one
	Side   Side        `json:"side,omitempty"`
	When   When        `json:"when,omitempty"`
	Daily  bool        `json:"daily,omitempty"`  // wanted every day
	Packed bool        `json:"packed,omitempty"` // it is in
}

// Check tells whether pillion and days are ones that are believed.
func (l Loadout) Check() error {
	if l.Days < 0 || l.Days > 1000 {
		return fmt.Errorf("%d days are outside 0–1000", l.Days)
	}
	if l.Pillion.Known() && !(l.Pillion.Base() >= 0 && l.Pillion.Base() <= 250) {
		return fmt.Errorf("%s is outside 0–250 kg", l.Pillion)
	}
	return nil
}

func (p *Plan) validateRates(v *entry.Problems) {
	seen := map[string]bool{p.Currency: true}
	v.Few("rates", len(p.Rates), maxFacts)
	for i, r := range p.Rates {
		path := fmt.Sprintf("rates[%d]", i)
		v.That(money.Valid(r.From), path+".from", "%q is not an ISO 4217 code, want e.g. USD", r.From)
		v.That(!seen[r.From], path+".from", "%s has a rate already", r.From)
		v.That(r.Rate.Known(), path+".rate", "is missing")
		_, err := time.Parse(time.DateOnly, r.On)
		v.That(err == nil, path+".on", "%q is not a date like 2026-11-20", r.On)
		seen[r.From] = true
	}
}

func validateCalculations(v *entry.Problems, list []Calculation) {
	v.Few("calculations", len(list), maxKept)
	for i, c := range list {
		path := fmt.Sprintf("calculations[%d]", i)
		v.That(entry.IsSlug(c.Calculator), path+".calculator", "%q is not the name of a calculator", c.Calculator)
		v.Few(path+".inputs", len(c.Inputs), maxInputs)
		for _, key := range slices.Sorted(maps.Keys(c.Inputs)) {
			v.That(len(key) <= entry.MaxName && len(c.Inputs[key]) <= maxInput, path+".inputs."+key, "is longer than %d bytes", maxInput)
		}
		v.That(len(c.Note) <= entry.MaxName, path+".note", "is longer than %d bytes", entry.MaxName)
	}
}
