package desk

import (
	"net/url"
	"slices"

	"valiantmule/internal/core/plan"
)

// Looked is the plan that the range page shows: with parts on the bench and with
// pumps closed, or opened again, to see.
type Looked struct {
	Plan   *plan.Plan
	Tried  []plan.Choice
	Turned []string // ids of pumps
}

// Query of what is looked at, with the pump turned too where one is given.
func (l Looked) Query(pump string) []string {
	query := Tries(l.Tried)
	for _, id := range l.Turned {
		if id != pump {
			query = append(query, "pump", id)
		}
	}
	if pump != "" && !slices.Contains(l.Turned, pump) {
		query = append(query, "pump", pump)
	}
	return query
}

// Looked reads what an address tries and which pumps it turns.
func (d *Desk) Looked(query url.Values) (Looked, error) {
	choices, err := d.Choices(query["try"])
	if err != nil {
		return Looked{}, err
	}
	l := Looked{Plan: d.Plan, Tried: choices}
	if len(choices) > 0 && d.Plan.Bike != nil {
		l.Plan = d.Plan.With(choices...)
	}
	if d.Plan.Route == nil {
		return l, nil
	}
	for _, s := range d.Plan.Route.Stops {
		if slices.Contains(query["pump"], s.ID) {
			l.Turned = append(l.Turned, s.ID)
		}
	}
	if len(l.Turned) > 0 {
		changed := *l.Plan
		changed.Route = changed.Route.Closing(l.Turned...)
		l.Plan = &changed
	}
	return l, nil
}

// TurnedWords say what turning a pump does to it.
func (d *Desk) TurnedWords(id string) string {
	for _, s := range d.Plan.Route.Stops {
		if s.ID != id {
			continue
		}
		if s.Closed {
			return s.Name + " open"
		}
		return s.Name + " shut"
	}
	return id
}
