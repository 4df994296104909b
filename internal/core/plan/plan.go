// Package plan is the document: the brief, the bike, the parts and the sums that
// a rider plans with, and the bike as built when the parts are folded in.
//
// A plan keeps what the rider typed, with its unit; a missing number is missing,
// not zero. Plans are values to be copied and changed, never changed in place
// once shared: [Plan.With] gives a changed copy. The package decides nothing:
// figures are package eval's, judgements package knock's.
package plan

import (
	"fmt"

	"valiantmule/internal/core/load"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/unit"
)

// Format and Version head every plan file.
const (
	Format  = "valiant-mule-plan"
	Version = 1
)

// Plan is one conversion of one bike for one trip.
type Plan struct {
	Format   string    `json:"format"`
	Version  int       `json:"version"`
	Name     string    `json:"name"`
	Currency string    `json:"currency"` // ISO 4217; the budget and the totals are in it
	Brief    Brief     `json:"brief"`
	Bike     *Bike     `json:"bike,omitempty"` // nil until one is chosen
	Lines    []Line    `json:"lines,omitempty"`
	Loadouts []Loadout `json:"loadouts,omitempty"`

	Rates        []Rate        `json:"rates,omitempty"`
	Calculations []Calculation `json:"calculations,omitempty"`
}

// Rate is what one unit of another currency costs in the plan's, on a day.
type Rate struct {
	From string     `json:"from"` // ISO 4217
	Rate money.Rate `json:"rate"`
	On   string     `json:"on"` // date, 2026-11-20
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
	Calculator string            `json:"calculator"`
	Inputs     map[string]string `json:"inputs"`
	Note       string            `json:"note,omitempty"`
}

// New is an empty plan with the two loadouts that every rider needs.
func New(name, currency string) *Plan {
	return &Plan{
		Format: Format, Version: Version, Name: name, Currency: currency,
		Loadouts: []Loadout{
			{ID: "trail-day", Name: "Trail day"},
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

// LineKind sorts the lines that cost money.
type LineKind string

// The kinds of line.
const (
	PartLine   LineKind = "part"
	BikeLine   LineKind = "bike"
	Baseline   LineKind = "baseline"
	Freight    LineKind = "freight"
	Tax        LineKind = "tax"
	Workshop   LineKind = "workshop"
	Consumable LineKind = "consumable"
	Gear       LineKind = "gear" // a part or a bag without a slot here
)

// LineKinds lists the kinds with their names; a part line is made by choosing a
// part, not by hand.
func LineKinds() []Option {
	return []Option{
		{string(Gear), "Other part, gear"},
		{string(Baseline), "Put right first"},
		{string(Workshop), "Workshop"},
		{string(Freight), "Freight"},
		{string(Tax), "Tax, customs"},
		{string(Consumable), "Consumables"},
		{string(BikeLine), "The bike itself"},
	}
}

// Need tells what a job needs from what is wanted.
type Need string

// A line is one or the other.
const (
	Needed Need = "needed"
	Wanted Need = "wanted"
)

// Line is something that costs money: a part in its slot, or another sum.
type Line struct {
	Kind   LineKind     `json:"kind"`
	Name   string       `json:"name,omitempty"`  // of a line that is not a part
	Amount money.Amount `json:"amount,omitzero"` // of a line that is not a part
	Part   *Part        `json:"part,omitempty"`  // embedded, so that an old plan stays what it was
	Need   Need         `json:"need"`
}

// Title is what the line is called.
func (l Line) Title() string {
	if l.Part != nil {
		return l.Part.Name
	}
	return l.Name
}

// Cost of the line.
func (l Line) Cost() money.Amount {
	if l.Part != nil {
		return l.Part.Price
	}
	return l.Amount
}

// Loadout is one way of loading the bike.
type Loadout struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Pillion unit.Mass `json:"pillion,omitzero"`
	Loads   []Load    `json:"loads,omitempty"`
}

// Load is one mass in a loadout, at the default spot of its place.
type Load struct {
	Name  string     `json:"name"`
	Mass  unit.Mass  `json:"mass,omitzero"`
	Place load.Place `json:"place"`
}

// Check tells whether the pillion is one that is believed.
func (l Loadout) Check() error {
	if l.Pillion.Known() && !(l.Pillion.Base() >= 0 && l.Pillion.Base() <= 250) {
		return fmt.Errorf("%s is outside 0–250 kg", l.Pillion)
	}
	return nil
}

// Check tells whether the mass is one that is believed.
func (l Load) Check() error {
	if l.Mass.Known() && !(l.Mass.Base() >= 0 && l.Mass.Base() <= 200) {
		return fmt.Errorf("%s is outside 0–200 kg", l.Mass)
	}
	return nil
}

// Option is one choice of a closed list.
type Option struct{ Value, Name string }
