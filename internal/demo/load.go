package demo

import (
	"context"
	"errors"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/store"
)

// unfinished is what the demo rider is called until everything is there. One that is still
// called so was begun by a start that was killed, and is begun again.
const unfinished = Rider + ", not yet here"

// Load puts the catalogue on the shelf, and the demo rider with the plan into
// the garage unless the rider is there already.
func Load(ctx context.Context, st *store.Store) error {
	bikes, err := Bikes()
	if err != nil {
		return err
	}
	parts, err := Parts()
	if err != nil {
		return err
	}
	if err := st.LoadCatalogue(ctx, bikes, parts); err != nil {
		return err
	}
	p, err := Plan()
	if err != nil {
		return err
	}
	others, err := Garages()
	if err != nil {
		return err
	}
	// Of two first starts on one database one waits.
	return st.Alone(ctx, func(*store.Store) error { return garage(ctx, st, p, others) })
}

// garage is the demo rider's: their other plans, and the one that the demo is about with
// how it came to be.
func garage(ctx context.Context, st *store.Store, p *plan.Plan, others []*plan.Plan) error {
	switch _, err := st.RiderByName(ctx, Rider); {
	case err == nil:
		return nil // the garage is as the rider left it
	case !errors.Is(err, store.ErrNotFound):
		return err
	}
	half, err := st.RiderByName(ctx, unfinished)
	if err == nil {
		err = st.DeleteRider(ctx, half.ID, "")
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	rider, err := st.CreateRider(ctx, unfinished, "")
	if err != nil {
		return err
	}
	parts, _ := Island(stepM)
	if _, err := st.KeepTrack(ctx, rider.ID, parts); err != nil {
		return err
	}
	for _, other := range others {
		if _, err := st.CreatePlan(ctx, rider.ID, other, "Imported from a friend's stick"); err != nil {
			return err
		}
	}
	steps := history(p)
	id, err := st.CreatePlan(ctx, rider.ID, steps[0].plan, steps[0].summary)
	if err != nil {
		return err
	}
	for _, step := range steps[1:] {
		head, err := st.Plan(ctx, rider.ID, id)
		if err != nil {
			return err
		}
		step.plan.Garage = head.Plan.Garage
		if err := st.Save(ctx, rider.ID, id, store.Change{Base: head.Revision, Plan: step.plan, Summary: step.summary}); err != nil {
			return err
		}
	}
	return st.Rename(ctx, rider.ID, Rider)
}

type revision struct {
	plan    *plan.Plan
	summary string
}

// history is how a plan may have come to be, in the order of the work.
func history(p *plan.Plan) []revision {
	now := *plan.New(p.Name, p.Currency)
	now.Readings = p.Readings
	var steps []revision
	step := func(summary string, change func(*plan.Plan)) {
		change(&now)
		was := now
		steps = append(steps, revision{&was, summary})
	}
	step("New plan", func(*plan.Plan) {})
	step("Brief: 4200 km over six kinds of ground, €1,650", func(n *plan.Plan) { n.Brief, n.Loadouts, n.Route, n.Group = p.Brief, p.Loadouts, p.Route, p.Group })
	step("Bike: "+p.Bike.Name, func(n *plan.Plan) { n.Bike, n.Baseline = p.Bike, p.Baseline })
	for i, l := range p.Lines {
		if l.Part != nil && l.Standing() == plan.In {
			step(l.Part.Name+", put in the plan", func(n *plan.Plan) { n.Lines = p.Lines[: i+1 : i+1] })
		}
	}
	step("Parcels, springs and the workshop; what others say", func(n *plan.Plan) { *n = *p })
	return steps
}
