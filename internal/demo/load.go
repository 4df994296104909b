package demo

import (
	"context"
	"errors"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/format"
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
	more, err := Second()
	if err != nil {
		return err
	}
	bike, err := Looked()
	if err != nil {
		return err
	}
	// Of two first starts on one database one waits.
	return st.Alone(ctx, func(*store.Store) error { return furnish(ctx, st, p, others, more, bike) })
}

// furnish puts what is the demo rider's there: their other plans, a bike that they look at, and the plan that the
// demo is about with how it came to be. A second trip with its bike is begun on the way, and has
// not taken over all that was found since.
func furnish(ctx context.Context, st *store.Store, p *plan.Plan, others []*plan.Plan, more *plan.Plan, bike format.BikeFile) error {
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
	averill := ""
	for _, other := range others {
		id, err := st.CreatePlan(ctx, rider.ID, other, "Imported from a friend's stick")
		if err != nil {
			return err
		}
		if other.Bike != nil && other.Bike.ID == "averill-720" {
			its, err := st.Plan(ctx, rider.ID, id)
			if err != nil {
				return err
			}
			averill = its.Plan.Garage
		}
	}
	if _, err := st.CreateBike(ctx, rider.ID, bike.Machine, bike.Currency, "Looked at: "+bike.Bike.Name); err != nil {
		return err
	}
	early, late := history(p)
	id, err := st.CreatePlan(ctx, rider.ID, early[0].plan, early[0].summary)
	if err != nil {
		return err
	}
	save := func(steps []revision) error {
		for _, step := range steps {
			head, err := st.Plan(ctx, rider.ID, id)
			if err != nil {
				return err
			}
			step.plan.Garage = head.Plan.Garage
			if err := st.Save(ctx, rider.ID, id, store.Change{Base: head.Revision, Plan: step.plan, Summary: step.summary}); err != nil {
				return err
			}
		}
		return nil
	}
	if err := save(early[1:]); err != nil {
		return err
	}
	head, err := st.Plan(ctx, rider.ID, id)
	if err != nil {
		return err
	}
	more.Machine = head.Plan.Machine.Bare()
	if _, err := st.CreatePlan(ctx, rider.ID, more, "New trip for "+more.Bike.Name); err != nil {
		return err
	}
	if err := save(late); err != nil {
		return err
	}
	if err := things(ctx, st, rider.ID, head.Plan.Garage, averill); err != nil {
		return err
	}
	if err := st.SetPerson(ctx, rider.ID, p.Brief.Person); err != nil {
		return err
	}
	return st.Rename(ctx, rider.ID, Rider)
}

type revision struct {
	plan    *plan.Plan
	summary string
}

// history is how a plan may have come to be, in the order of the work: until there is a bike, and
// then with what was found on it.
func history(p *plan.Plan) (early, late []revision) {
	now := *plan.New(p.Name, p.Currency)
	now.Readings, now.Trip = p.Readings, p.Trip
	step := func(into *[]revision, summary string, change func(*plan.Plan)) {
		change(&now)
		was := now
		*into = append(*into, revision{&was, summary})
	}
	bought := p.Machine
	before := *p.Bike
	before.Odometer = unit.Length{}
	bought.Bike, bought.Baseline.AsBuilt = &before, nil
	step(&early, "New plan", func(*plan.Plan) {})
	step(&early, "Brief: 4200 km over six kinds of ground, €1,650", func(n *plan.Plan) { n.Brief, n.Loadouts, n.Route, n.Group = p.Brief, p.Loadouts, p.Route, p.Group })
	step(&early, "Bike: "+p.Bike.Name, func(n *plan.Plan) { n.Machine = bought })
	step(&late, "Odometer "+p.Bike.Odometer.String()+"; the record as built", func(n *plan.Plan) { n.Machine = p.Machine })
	for i, l := range p.Lines {
		if l.Part != nil && l.Standing() == plan.In {
			step(&late, l.Part.Name+", put in the plan", func(n *plan.Plan) { n.Lines = p.Lines[: i+1 : i+1] })
		}
	}
	step(&late, "Parcels, springs and the workshop; what others say", func(n *plan.Plan) { *n = *p })
	return early, late
}
