package demo

import (
	_ "embed"
	"fmt"
	"slices"

	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

//go:embed garages.json
var garages []byte

// sketch is a plan that names what of the catalogue it is made of.
type sketch struct {
	Bike  string     `json:"bike,omitempty"` // of the catalogue
	Parts []sketched `json:"parts"`
	Plan  *plan.Plan `json:"plan"`
}

type sketched struct {
	Part     string        `json:"part"`
	Loadout  string        `json:"loadout,omitempty"`
	Need     plan.Need     `json:"need"`
	Decision plan.Decision `json:"decision,omitempty"`
	Source   plan.Source   `json:"source,omitempty"`
	Amount   money.Amount  `json:"amount,omitzero"`
	Why      string        `json:"why,omitempty"`
	Supply   *plan.Supply  `json:"supply,omitempty"`
}

// Garages are other plans of the demo rider: a shaft twin with a pillion, a roadster on a
// shoestring, and a bike of which nobody knows more than its kind.
func Garages() ([]*plan.Plan, error) {
	var list []sketch
	if err := format.DecodeStrict(garages, &list); err != nil {
		return nil, fmt.Errorf("demo garages: %w", err)
	}
	bikes, err := Bikes()
	if err != nil {
		return nil, err
	}
	shelf, err := Parts()
	if err != nil {
		return nil, err
	}
	var plans []*plan.Plan
	for _, s := range list {
		p := s.Plan
		if s.Bike == "" { // it has its own
			plans = append(plans, p)
			continue
		}
		at := slices.IndexFunc(bikes, func(b *plan.Bike) bool { return b.ID == s.Bike })
		if at < 0 {
			return nil, fmt.Errorf("demo garages: no bike %q", s.Bike)
		}
		p.Bike = bikes[at]
		for i, named := range s.Parts {
			at := slices.IndexFunc(shelf, func(p *parts.Part) bool { return p.ID == named.Part })
			if at < 0 {
				return nil, fmt.Errorf("demo garages: no part %q", named.Part)
			}
			p.Lines = slices.Insert(p.Lines, i, plan.Line{
				Kind: plan.PartLine, Part: shelf[at], Loadout: named.Loadout, Need: named.Need, Decision: named.Decision, Source: named.Source, Amount: named.Amount, Why: named.Why, Supply: named.Supply,
			})
		}
		if problems := p.Validate(); len(problems) > 0 {
			return nil, fmt.Errorf("demo garages: %s: %w", p.Name, problems[0])
		}
		plans = append(plans, p)
	}
	return plans, nil
}
