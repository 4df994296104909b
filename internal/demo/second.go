package demo

import (
	"bytes"
	_ "embed"
	"fmt"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
)

//go:embed second.json
var second []byte

//go:embed looked.json
var looked []byte

// Second is another trip of the demo rider, which the bike of [Plan] is ridden on too: its brief.
func Second() (*plan.Plan, error) {
	p, err := format.ReadPlan(bytes.NewReader(second))
	if err != nil {
		return nil, fmt.Errorf("demo, second trip: %w", err)
	}
	return p, nil
}

// Looked is a bike that the demo rider looks at, before buying.
func Looked() (format.BikeFile, error) {
	b, err := format.ReadBike(bytes.NewReader(looked))
	if err != nil {
		return b, fmt.Errorf("demo, bike looked at: %w", err)
	}
	return b, nil
}
