package ranging

import (
	"net/http"
	"slices"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
	"valiantmule/internal/web/desk"
)

// Keys of what an address turns about range.
const (
	pumpKey   = "pump"
	cruiseKey = "cruise"
)

// pumpTurn shuts pumps of the route by their ids, or opens those that are shut.
var pumpTurn = desk.Turn{Key: pumpKey, Read: func(_ *desk.House, _ *http.Request, d *desk.Desk, ids []string) ([]desk.Turned, error) {
	if d.Plan.Route == nil {
		return nil, nil
	}
	var list []desk.Turned
	for _, s := range d.Plan.Route.Stops {
		if !slices.Contains(ids, s.ID) {
			continue
		}
		words := s.Name + " shut"
		if s.Closed {
			words = s.Name + " open"
		}
		list = append(list, desk.Turned{Value: s.ID, Name: words, Said: words, On: func(p *plan.Plan) *plan.Plan {
			changed := *p
			if p.Route != nil {
				changed.Route = p.Route.Closing(s.ID)
			}
			return &changed
		}})
	}
	return list, nil
}}

// cruiseTurn rides at another speed.
var cruiseTurn = desk.Turn{Key: cruiseKey, Read: func(_ *desk.House, _ *http.Request, d *desk.Desk, speeds []string) ([]desk.Turned, error) {
	at := *d.Plan
	cruise := at.Brief.Riding()[0]
	if cruise.Entry.Enter(speeds[0], cruise.Unit) != nil || cruise.Check() != nil || !at.Brief.Cruise.Known() {
		return nil, store.ErrNotFound
	}
	speed := at.Brief.Cruise
	return []desk.Turned{{
		Value: speed.String(), Name: "Cruise at " + d.Units.ShownOf(&speed), Said: desk.ChangedWords(cruise.Label, d.Plan.Brief.Cruise.String(), speed.String()),
		On: func(p *plan.Plan) *plan.Plan {
			changed := *p
			changed.Brief.Cruise = speed
			return &changed
		},
	}}, nil
}}
