// Package demo is the invented data of the demonstration: bikes, parts and one
// rider's plan. Nothing in it exists.
package demo

import (
	"bytes"
	_ "embed"
	"fmt"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

//go:embed bikes.json
var bikes []byte

//go:embed parts.json
var shelf []byte

//go:embed plan.json
var document []byte

// Rider is the demo rider's sign-in name.
const Rider = "Demo rider"

// Bikes of the catalogue.
func Bikes() ([]*plan.Bike, error) {
	var list []*plan.Bike
	if err := format.DecodeStrict(bikes, &list); err != nil {
		return nil, fmt.Errorf("demo bikes: %w", err)
	}
	return list, nil
}

// Parts of the catalogue.
func Parts() (plan.Shelf, error) {
	var list plan.Shelf
	if err := format.DecodeStrict(shelf, &list); err != nil {
		return nil, fmt.Errorf("demo parts: %w", err)
	}
	return list, nil
}

// Plan is the demo rider's plan.
func Plan() (*plan.Plan, error) {
	p, err := format.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return nil, fmt.Errorf("demo plan: %w", err)
	}
	if p.Route, err = route(); err != nil {
		return nil, fmt.Errorf("demo route: %w", err)
	}
	if problems := p.Validate(); len(problems) > 0 {
		return nil, fmt.Errorf("demo route: %w", problems[0])
	}
	return p, nil
}
